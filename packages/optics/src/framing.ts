import { toPicture, type Placing, type SetMovement } from './placing.js';
import type { Vec3 } from './vector.js';

/**
 * Framing: which rise and shift bring a place of the scene to an edge of the frame, and from how
 * far away a whole thing fits. Scene points are in the sensor's axes (right, up, along the
 * normal), mm from the sensor mark; movements are as set.
 */
export interface FramingView {
  readonly imageDistanceMm: number;
  /** The lens centre from the sensor mark with neither movement set, and what a mm of each adds. */
  readonly lens: { readonly base: Vec3; readonly shift: Vec3; readonly rise: Vec3 };
  /** The middle of the back in the picture, likewise. */
  readonly back: Placing;
}

/** Rounds until the lens stands still for a standard that draws the bed out as it moves. */
const ROUNDS = 8;

/**
 * How far one movement must go, the other as set, for a point to fall `edgeMm` from the middle of the
 * back, across for shift and up for rise.
 * @returns mm as set; null when the point is not ahead of the lens
 */
export const movementForEdge = (
  view: FramingView,
  movement: 'rise' | 'shift',
  set: SetMovement,
  point: Vec3,
  edgeMm: number,
): number | null => edgeFinder(view, movement, set)(point, edgeMm);

/** {@link movementForEdge} for many points: what they share is worked out once. */
export function edgeFinder(
  view: FramingView,
  movement: 'rise' | 'shift',
  set: SetMovement,
): (point: Vec3, edgeMm: number) => number | null {
  const rises = movement === 'rise';
  const i = rises ? 1 : 0;
  const { imageDistanceMm: v, back } = view;
  const still = rises ? { riseMm: 0, shiftMm: set.shiftMm } : { riseMm: set.riseMm, shiftMm: 0 };
  const lens = lensAt(view, still);
  const way = view.lens[movement];
  const middle = toPicture(back, still);
  const [middleMm, backWay] = rises ? [middle.y, back.rise.y] : [middle.x, back.shift.x];
  return (point, edgeMm) => {
    const centre = middleMm + edgeMm;
    let found = rises ? set.riseMm : set.shiftMm;
    for (let round = 0; round < ROUNDS; round++) {
      // v (P − L − m w) = (c + m c′ + edge) z, with z as the last round left it.
      const z = point[2] - lens[2] - found * way[2];
      if (z <= 0) return null;
      const next = (v * (point[i] - lens[i]) - centre * z) / (v * way[i] + backWay * z);
      if (way[2] === 0 || next === found) return next;
      found = next;
    }
    return found;
  };
}

function lensAt({ lens: { base, shift, rise } }: FramingView, set: SetMovement): Vec3 {
  const at = (i: 0 | 1 | 2): number => base[i] + set.shiftMm * shift[i] + set.riseMm * rise[i];
  return [at(0), at(1), at(2)];
}

/** A corner of an upright rectangle square to the station, whose distance may change. */
export interface Corner3 {
  /** In the sensor's axes, mm from the sensor mark, at no distance. */
  readonly base: Vec3;
  /** What each mm of distance adds. */
  readonly perMm: Vec3;
}

export interface Rectangle3 {
  readonly top: readonly [Corner3, Corner3];
  /** Null when the foot is not wanted in the frame. */
  readonly foot: readonly [Corner3, Corner3] | null;
}

/** Edges of the frame, mm from the middle of the back (they differ where a part is kept). */
export interface FrameEdges {
  readonly left: number;
  readonly right: number;
  readonly bottom: number;
  readonly top: number;
}

export interface FramingFrame {
  readonly edges: FrameEdges;
  /** The movements as set; the shift stays so. */
  readonly set: SetMovement;
}

export const cornerAt = ({ base, perMm }: Corner3, distanceMm: number): Vec3 => [
  base[0] + perMm[0] * distanceMm,
  base[1] + perMm[1] * distanceMm,
  base[2] + perMm[2] * distanceMm,
];

/** a0 + a1 D, D the distance. */
type Linear = readonly [number, number];

/** a(D) + r b(D) ≤ 0, r the rise as set. */
interface Bound {
  readonly a: Linear;
  readonly b: Linear;
}

const plus = (a: Linear, b: Linear, k = 1): Linear => [a[0] + k * b[0], a[1] + k * b[1]];
const scaled = (a: Linear, k: number): Linear => [a[0] * k, a[1] * k];
const valueAt = (a: Linear, d: number): number => a[0] + a[1] * d;

/**
 * What distance and rise must satisfy for the rectangle to lie in the frame, the shift as set.
 * @param drawnAtMm the rise at which a bed that is drawn out with it is taken
 */
function boundsOf(
  view: FramingView,
  { edges, set }: FramingFrame,
  { top, foot }: Rectangle3,
  drawnAtMm: number,
): Bound[] {
  const { imageDistanceMm: v, back } = view;
  const still = { shiftMm: set.shiftMm, riseMm: 0 };
  const lens = lensAt(view, still);
  const centre = toPicture(back, still);
  const way = view.lens.rise;
  const found: Bound[] = [];
  /** The corner's picture less the edge, times its depth: a + r b. */
  const past = ({ base, perMm }: Corner3, i: 0 | 1, edgeMm: number): Bound => {
    const [axis, at] = i === 0 ? (['x', centre.x] as const) : (['y', centre.y] as const);
    const z: Linear = [base[2] - lens[2] - drawnAtMm * way[2], perMm[2]];
    const across: Linear = [base[i] - lens[i], perMm[i]];
    return {
      a: plus(scaled(across, v), z, -(at + edgeMm)),
      b: plus([-v * way[i], 0], z, -back.rise[axis]),
    };
  };
  const negative = ({ a, b }: Bound): Bound => ({ a: scaled(a, -1), b: scaled(b, -1) });
  // Where the foot is not wanted the top itself must still lie above the frame's foot.
  for (const corner of foot ? [...top, ...foot] : top) {
    const z: Linear = [corner.base[2] - lens[2] - drawnAtMm * way[2], corner.perMm[2]];
    found.push({ a: scaled(z, -1), b: [0, 0] });
    found.push(past(corner, 0, edges.right), negative(past(corner, 0, edges.left)));
  }
  for (const corner of top) found.push(past(corner, 1, edges.top));
  for (const corner of foot ?? top) found.push(negative(past(corner, 1, edges.bottom)));
  return found;
}

const SLACK = 1e-11;

interface Span {
  readonly low: number;
  readonly high: number;
}

/** Rises that serve at a distance, a hair wider than exact for what rounding adds. */
function risesAt(bounds: readonly Bound[], rise: Span, d: number): Span | null {
  let { low, high } = rise;
  for (const { a, b } of bounds) {
    const [rest, per] = [valueAt(a, d), valueAt(b, d)];
    const slack = SLACK * (Math.abs(a[0]) + Math.abs(a[1] * d));
    if (per === 0) {
      if (rest > slack) return null;
    } else if (per > 0) high = Math.min(high, (slack - rest) / per);
    else low = Math.max(low, (slack - rest) / per);
  }
  return low <= high + SLACK * (1 + Math.abs(high)) ? { low, high } : null;
}

/**
 * Tells every distance at which two bounds meet at one rise, or one of them turns over: the roots of
 * c0 + c1 d + c2 d².
 */
function eachCandidate(bounds: readonly Bound[], tell: (d: number) => void): void {
  const ask = (c0: number, c1: number, c2: number): void => {
    if (Math.abs(c2) < 1e-300) {
      if (c1 !== 0) tell(-c0 / c1);
      return;
    }
    const discriminant = c1 * c1 - 4 * c2 * c0;
    if (discriminant < 0) return;
    const q = -(c1 + (c1 < 0 ? -1 : 1) * Math.sqrt(discriminant)) / 2;
    if (q === 0) return;
    tell(q / c2);
    tell(c0 / q);
  };
  for (let i = 0; i < bounds.length; i++) {
    const one = bounds[i]!;
    ask(one.a[0], one.a[1], 0);
    ask(one.b[0], one.b[1], 0);
    for (let j = i + 1; j < bounds.length; j++) {
      const { a, b } = bounds[j]!;
      ask(
        one.a[0] * b[0] - a[0] * one.b[0],
        one.a[0] * b[1] + one.a[1] * b[0] - a[0] * one.b[1] - a[1] * one.b[0],
        one.a[1] * b[1] - a[1] * one.b[1],
      );
    }
  }
}

/** Ends of the rise as bounds like the others. */
const endsOf = ({ low, high }: Span): Bound[] => [
  ...(high < Infinity ? [{ a: [-high, 0], b: [1, 0] } as const] : []),
  ...(low > -Infinity ? [{ a: [low, 0], b: [-1, 0] } as const] : []),
];

/** Whether the rectangle at a distance lies in one frame at some rise within `rise`, as set. */
export function rectangleFits(
  view: FramingView,
  frame: FramingFrame,
  rectangle: Rectangle3,
  rise: Span,
  distanceMm: number,
): boolean {
  if (rise.low > rise.high) return false;
  return settled(view, (drawnAtMm) => {
    const bounds = boundsOf(view, frame, rectangle, drawnAtMm);
    const serves = risesAt(bounds, rise, distanceMm);
    return { found: serves !== null, rise: serves };
  });
}

/**
 * The least distance at which the rectangle fits. The least place of a region bounded by straight
 * and hyperbolic edges lies where two of them meet, so each such place is tried.
 * @returns mm; null when it fits from nowhere
 */
export function leastDistanceThatFits(
  view: FramingView,
  frame: FramingFrame,
  rectangle: Rectangle3,
  rise: Span,
): number | null {
  if (rise.low > rise.high) return null;
  return settled(view, (drawnAtMm) => {
    const bounds = boundsOf(view, frame, rectangle, drawnAtMm);
    let [found, serves]: [number | null, Span | null] = [null, null];
    eachCandidate([...bounds, ...endsOf(rise)], (d) => {
      if (!(d > 0 && d < (found ?? Infinity))) return;
      const here = risesAt(bounds, rise, d);
      if (here) [found, serves] = [d, here];
    });
    return { found, rise: serves };
  });
}

/** Asked again until a bed that is drawn out with the rise stands where the rise found puts it. */
function settled<T>(
  view: FramingView,
  ask: (drawnAtMm: number) => { found: T; rise: Span | null },
): T {
  let answer = ask(0);
  if (view.lens.rise[2] === 0) return answer.found;
  for (let round = 0; round < ROUNDS && answer.rise; round++) {
    const { low, high } = answer.rise;
    answer = ask(Math.min(high, Math.max(low, 0)));
  }
  return answer.found;
}
