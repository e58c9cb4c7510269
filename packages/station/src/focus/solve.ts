import {
  angleFromAxis,
  CORNERS,
  engravedStops,
  frameCorner,
  isSpent,
  newBudget,
  solveFocus,
  type Budget,
  type Freedom,
  type Solved,
  leastOf,
  mostOf,
} from '@gangway/optics';
import type { Station } from '../document/station.js';
import { setupOf, type Setup } from '../optical/setup.js';
import { beyondMechanism, opticalState } from '../optical/state.js';
import { atStop, smallestStop } from '../optical/stops.js';
import { appliedTo } from './apply.js';
import { bestStop, type BestStop } from './best-stop.js';
import { freedomsOf } from './freedoms.js';
import { questionOf, settingEnds, sortedMarks, usableHalfAngle, type Sorted } from './question.js';
import { leanSizeDeg } from '../words/lean.js';

/** What ended the search: an end of the mechanism, the circle, a wish that could not be met. */
export type Bound =
  | 'tilt'
  | 'swing'
  | 'lean'
  | 'rear_tilt'
  | 'rear_swing'
  | 'circle'
  | 'ring'
  | 'close_focus'
  | 'far_focus'
  | 'soft';

export interface FocusAnswer {
  /** Set as solved: leans and focus exact, and the stop that holds. */
  readonly station: Station;
  readonly setup: Setup;
  readonly solved: Solved;
  readonly marks: Sorted;
  readonly freedom: Freedom;
  /** The least f-number that holds them all, engraved on the lens. */
  readonly engravedNeeded: number;
  /** Travel of the standard between the nearest and the farthest mark, on the back, mm. */
  readonly spreadMm: number;
  readonly bounds: readonly Bound[];
  /** Circle, ring and mechanism all allow it. */
  readonly within: boolean;
  /** The stop that spoils the worst mark least, of those that hold and cover; null where none does. */
  readonly best: BestStop | null;
  /** The lens has a stop that holds. */
  readonly held: boolean;
  /** Set to the widest that holds instead of the best. */
  readonly widest: boolean;
  /** The search ended for its budget was spent; there may be something better. */
  readonly stopped: boolean;
}

export interface SolveOptions {
  readonly freedoms?: readonly Freedom[];
  /** Leave circle and ring out of it. */
  readonly anyCircle?: boolean;
  /** Take the widest stop that holds instead of the best: for what is soft on purpose. */
  readonly widest?: boolean;
  /** Leave the best stop out of it: only the spread is wanted. */
  readonly anyStop?: boolean;
  readonly budget?: Budget;
}

/**
 * The best setting for the marks that must be sharp; null when none of them lies ahead.
 * Where circle or ring would cut the frame, they are made part of the question.
 */
export function solveStation(station: Station, options: SolveOptions = {}): FocusAnswer | null {
  const marks = sortedMarks(station);
  if (marks.sharp.length === 0) return null;
  const freedoms = options.freedoms ?? freedomsOf(station);
  const budget = options.budget ?? newBudget();
  let best: FocusAnswer | null = null;
  for (const freedom of freedoms) {
    if (best && isSpent(budget)) break;
    const answer = solveOne(station, marks, freedom, options, budget);
    if (!best || better(answer, best)) best = answer;
  }
  return best && { ...best, stopped: isSpent(budget) };
}

const better = (a: FocusAnswer, b: FocusAnswer): boolean =>
  Number(a.within) - Number(b.within) !== 0
    ? a.within
    : a.solved.shortMm < b.solved.shortMm - 1e-9 ||
      (a.solved.shortMm < b.solved.shortMm + 1e-9 && a.engravedNeeded < b.engravedNeeded - 1e-9);

function solveOne(
  station: Station,
  marks: Sorted,
  freedom: Freedom,
  { anyCircle = false, widest = false, anyStop = false }: SolveOptions,
  budget: Budget,
): FocusAnswer {
  const at = (how: Freedom, cover: number | null): FocusAnswer =>
    settled(station, marks, how, cover, budget, { widest, anyStop });
  const free = at(freedom, null);
  if (anyCircle) return free;
  let answer = free;
  let cover: number | null = null;
  // A stop further down has a larger circle; it may take a round or two to find which.
  for (let round = 0; round < ROUNDS && !isSpent(budget); round++) {
    if (cover === null && clear(answer)) break;
    const room = roomAt(answer);
    if (room === cover) break;
    cover = room;
    const next = at(freedom, cover);
    // What a wide stop left room for may ask for much, or for more than there is: what its own stop
    // leaves room for may ask for less.
    if (serves(answer) && !(serves(next) && asksLess(next, answer))) break;
    answer = next;
  }
  // Focusing closer than the marks would enlarge the circle and spoil the picture: where even a
  // straight lens leaves a corner out, the frame has to be seen to first.
  const elsewhere = !answer.held && free.held && !isSpent(budget);
  return elsewhere && !clear(at(UPRIGHT_ONLY, null)) ? free : answer;
}

const ROUNDS = 4;

const serves = (answer: FocusAnswer): boolean => answer.held && clear(answer);

/** What the stop of an answer leaves: as the ring has it, and as it was found. */
const roomAt = ({ setup: s, best }: FocusAnswer): number =>
  Math.min(usableHalfAngle(s), best ? usableHalfAngle(atStop(s, best.fNumber)) : Infinity);

/** A share of the stop that a hand would see. */
const WORTH_ASKING = 0.003;

const asksLess = (a: FocusAnswer, b: FocusAnswer): boolean =>
  a.engravedNeeded < b.engravedNeeded * (1 - WORTH_ASKING);

/** Nothing leaned. */
const UPRIGHT_ONLY: Freedom = { kind: 'front', tilt: [0, 0], swing: [0, 0], leanDeg: 90 };

const clear = ({ setup: s }: FocusAnswer): boolean => {
  const state = opticalState(s);
  return state !== 'outside' && state !== 'ring';
};

function settled(
  station: Station,
  marks: Sorted,
  freedom: Freedom,
  cover: number | null,
  budget: Budget,
  { widest, anyStop }: { readonly widest: boolean; readonly anyStop: boolean },
): FocusAnswer {
  const s = setupOf(station);
  const solved = solveFocus(questionOf(s, marks, freedom, cover, budget));
  const needed = solved.fNumber / s.combined;
  const as = appliedTo(station, { ahead: s.ahead, focalLengthMm: solved.focalLengthMm }, solved);
  const open = setupOf(as);
  const best = anyStop ? null : bestStop(open);
  const aperture = widest || !best ? widestHolding(station, needed) : best.set;
  const after = { ...as, aperture };
  return answered(
    after,
    { ...atStop(open, aperture), station: after },
    { best, widest },
    solved,
    marks,
    freedom,
    cover,
  );
}

/** The widest engraved stop that holds what must be sharp, whether it covers or not. */
function widestHolding(station: Station, needed: number): number {
  const { f_min } = station.lens;
  const most = smallestStop(station);
  const stops = [f_min, ...engravedStops(f_min, most, 'third'), most];
  return stops.find((n) => n >= needed * (1 - 1e-9)) ?? most;
}

function answered(
  station: Station,
  s: Setup,
  { best, widest }: Pick<FocusAnswer, 'best' | 'widest'>,
  solved: Solved,
  marks: Sorted,
  freedom: Freedom,
  cover: number | null,
): FocusAnswer {
  const needed = solved.fNumber / s.combined;
  const depths = solved.depthsMm.filter((q) => q > 0 && Number.isFinite(q));
  const spread = depths.length > 0 ? mostOf(depths) - leastOf(depths) : 0;
  const state = opticalState(s);
  return {
    station,
    setup: s,
    solved,
    marks,
    freedom,
    engravedNeeded: needed,
    spreadMm: spread * s.factor ** 2,
    bounds: boundsOf(s, solved, marks, freedom, cover),
    within:
      solved.shortMm === 0 &&
      state !== 'outside' &&
      state !== 'ring' &&
      beyondMechanism(station).length === 0,
    best,
    widest,
    held: needed <= smallestStop(station) * (1 + 1e-9) || best !== null,
    stopped: false,
  };
}

const AT_END_DEG = 1e-5;

function boundsOf(
  s: Setup,
  solved: Solved,
  { soft }: Sorted,
  freedom: Freedom,
  cover: number | null,
): Bound[] {
  const bounds: Bound[] = [];
  const atEnd = (value: number, [low, high]: readonly [number, number]): boolean =>
    low < high && (value <= low + AT_END_DEG || value >= high - AT_END_DEG);
  if (freedom.kind === 'turned') {
    const lean = leanSizeDeg(solved.lens);
    if (lean >= freedom.lean[1] - AT_END_DEG) bounds.push('lean');
  } else {
    const moved = freedom.kind === 'rear' ? solved.rear : solved.lens;
    const name = freedom.kind === 'rear' ? 'rear_' : '';
    if (atEnd(moved.tiltDeg, freedom.tilt)) bounds.push(`${name}tilt` as Bound);
    if (atEnd(moved.swingDeg, freedom.swing)) bounds.push(`${name}swing` as Bound);
    if (leanSizeDeg(solved.lens) >= freedom.leanDeg - AT_END_DEG) bounds.push('lean');
  }
  const [far, near] = settingEnds(s);
  if (solved.setting <= far + 1e-9 && solved.fNumber > 1e-6) bounds.push('far_focus');
  if (solved.setting >= near - 1e-9) bounds.push('close_focus');
  if (cover !== null && touches(s, cover)) {
    bounds.push(cover < s.cone.halfAngleRad - 1e-12 ? 'ring' : 'circle');
  }
  if (soft.length > 0 && solved.shortMm > 0) bounds.push('soft');
  return bounds;
}

/** Whether a corner lies at the edge of what is lit, to a few thousandths of a degree. */
const touches = (s: Setup, cover: number): boolean =>
  CORNERS.some((corner) => angleFromAxis(s.cone, frameCorner(s.frame, corner)) > cover - 1e-4);
