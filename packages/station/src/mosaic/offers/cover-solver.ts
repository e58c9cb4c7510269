import { isSpent, newBudget, spend, type Budget, type Point, type Size } from '@gangway/optics';
import { solve } from 'yalps';

/**
 * The least number of places from which frames of one size cover a rectangle with their overlap. A
 * frame's own part is what is left of it with half the overlap cut away all round, and the parts
 * have to cover the rectangle, cut back likewise: then every seam has the overlap to either side.
 * Set cover, solved by integer programming.
 */
export interface CoverQuestion {
  readonly places: readonly Point[];
  readonly frame: Size;
  readonly overlap: number;
  readonly target: Size & { readonly centre: Point };
}

/** Rounding of places on a lattice, mm. */
const HAIR_MM = 1e-6;

/** The places between which what covers a line changes. */
function cuts(edges: readonly number[], low: number, high: number): number[] {
  const inner = edges.filter((edge) => edge > low + HAIR_MM && edge < high - HAIR_MM);
  const all = [low, ...inner.sort((a, b) => a - b), high];
  return all.filter((edge, i) => i === 0 || edge - all[i - 1]! > HAIR_MM);
}

const middles = (edges: readonly number[]): number[] =>
  edges.slice(1).map((edge, i) => (edge + edges[i]!) / 2);

/** Which places serve each cell of the target, cells that ask no more than another left out. */
export function coverCells(
  { places, frame, overlap, target }: CoverQuestion,
  budget: Budget = newBudget(),
): number[][] {
  const own = { x: ((1 - overlap) * frame.widthMm) / 2, y: ((1 - overlap) * frame.heightMm) / 2 };
  const half = {
    x: Math.max(0, (target.widthMm - overlap * frame.widthMm) / 2),
    y: Math.max(0, (target.heightMm - overlap * frame.heightMm) / 2),
  };
  const along = (axis: 'x' | 'y'): number[] =>
    half[axis] === 0
      ? [target.centre[axis]]
      : middles(
          cuts(
            places.flatMap((p) => [p[axis] - own[axis], p[axis] + own[axis]]),
            target.centre[axis] - half[axis],
            target.centre[axis] + half[axis],
          ),
        );
  const [xs, ys] = [along('x'), along('y')];
  spend(budget, xs.length * ys.length * places.length);
  const found = new Map<string, number[]>();
  for (const y of ys) {
    for (const x of xs) {
      const by = places.flatMap((p, i) =>
        Math.abs(p.x - x) <= own.x + HAIR_MM && Math.abs(p.y - y) <= own.y + HAIR_MM ? [i] : [],
      );
      found.set(by.join(), by);
    }
  }
  const sets = [...found.values()].sort((a, b) => a.length - b.length);
  spend(budget, 10 * sets.length ** 2);
  return sets.filter((set, i) => {
    const within = new Set(set);
    return !sets.slice(0, i).some((smaller) => smaller.every((place) => within.has(place)));
  });
}

/** Steps of the solver before it gives up, in nodes of its search. */
const MOST_NODES = 2000;
/** Nodes that a proven answer is charged with. */
const PROVEN_NODES = 40;
/** Pivots a node makes, about. */
const TURNS_A_NODE = 8;

export type CoverAnswer =
  | { readonly kind: 'found'; readonly places: readonly number[]; readonly proven: boolean }
  /** Not even all places together cover it. */
  | { readonly kind: 'impossible' }
  | { readonly kind: 'unsure' };

/** Places at the four sides of their box: with one on each, the middle of the frames is the box’s. */
function sidesOf(places: readonly Point[]): number[][] {
  const at = (axis: 'x' | 'y', end: (...values: number[]) => number): number[] => {
    const side = end(...places.map((p) => p[axis]));
    return places.flatMap((p, i) => (Math.abs(p[axis] - side) <= HAIR_MM ? [i] : []));
  };
  return [at('x', Math.min), at('x', Math.max), at('y', Math.min), at('y', Math.max)];
}

/**
 * The places of least number that cover the target and reach to every side of the box of all, about
 * whose middle the picture lies.
 * @param fewer only answers with fewer frames than this are of use
 */
export function leastCover(
  question: CoverQuestion,
  fewer = Infinity,
  budget: Budget = newBudget(),
): CoverAnswer {
  const cells = [...coverCells(question, budget), ...sidesOf(question.places)];
  if (isSpent(budget)) return { kind: 'unsure' };
  if (cells.some((by) => by.length === 0)) return { kind: 'impossible' };
  const used = [...new Set(cells.flat())];
  // Every node of the search turns the whole table over a few times.
  const nodeSteps = TURNS_A_NODE * (cells.length + 2) * (used.length + 2);
  const nodes = Math.min(MOST_NODES, Math.ceil(Math.max(0, budget.left) / nodeSteps));
  if (nodes === 0) return { kind: 'unsure' };
  const variables = used.map(
    (place) =>
      [
        place,
        [
          ['frames', 1] as const,
          ...cells.flatMap((by, cell) => (by.includes(place) ? [[cell, 1] as const] : [])),
        ],
      ] as const,
  );
  const solution = solve<number, number | 'frames'>(
    {
      direction: 'minimize',
      objective: 'frames',
      constraints: [
        ...cells.map((_, cell) => [cell, { min: 1 }] as const),
        ...(Number.isFinite(fewer) ? [['frames' as const, { max: fewer - 1 }] as const] : []),
      ],
      variables,
      binaries: true,
    },
    { maxIterations: nodes },
  );
  // The solver does not tell how many it took: an answer that is proven took few.
  spend(
    budget,
    (solution.status === 'timedout' ? nodes : Math.min(nodes, PROVEN_NODES)) * nodeSteps,
  );
  switch (solution.status) {
    case 'optimal':
    case 'timedout': {
      const places = solution.variables.filter(([, value]) => value > 0.5).map(([place]) => place);
      if (places.length === 0) return { kind: 'unsure' };
      return {
        kind: 'found',
        places: places.sort((a, b) => a - b),
        proven: solution.status === 'optimal',
      };
    }
    case 'infeasible':
      return { kind: 'impossible' };
    default:
      return { kind: 'unsure' };
  }
}

/** Whether frames at all these places have their overlap over a rectangle. */
export const coversWithOverlap = (question: CoverQuestion): boolean =>
  coverCells(question).every((by) => by.length > 0);
