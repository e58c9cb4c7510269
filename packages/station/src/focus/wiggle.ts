import {
  bisect,
  dot,
  imageDistanceOnBed,
  into,
  inverseDepth,
  lensFromMark,
  missAtUnitStopMm,
  stanceOf,
  subtract,
} from '@gangway/optics';
import { degrees } from '../words/format.js';
import { nameOf } from './hindrance.js';
import { standardsOf } from '../document/standards.js';
import type { FocusAnswer } from './solve.js';

/** One round of focusing far and leaning near: where it lands. */
export interface Round {
  readonly leanDeg: number;
  /** The least stop that would hold both marks after it, engraved. */
  readonly fNumber: number;
}

export interface Wiggle {
  readonly movement: 'tilt' | 'swing';
  readonly far: string;
  readonly near: string;
  readonly rounds: readonly Round[];
  /** Whether it comes to rest. */
  readonly settles: boolean;
  readonly words: readonly string[];
}

const MOST_ROUNDS = 12;
/** Good enough for a scale without engraving. */
const LANDED_DEG = 0.05;
/** The same once both marks hold wide open. */
const NEARLY_DEG = 0.5;

/**
 * Focus on the far mark, lean until the near one is crisp, and again: what a hand without scales
 * does. The bed stays where it was while leaning. Null where fewer than two marks part in depth.
 */
export function wiggleFor(answer: FocusAnswer): Wiggle | null {
  const { solved, setup: s, station } = answer;
  const tilt = Math.abs(solved.lens.tiltDeg) >= Math.abs(solved.lens.swingDeg);
  const marks = answer.marks.sharp
    .map((each) => ({ each, depth: each.mark.infinite ? Infinity : each.at[2] }))
    .sort((a, b) => a.depth - b.depth);
  const [near, far] = [marks[0], marks.at(-1)];
  if (!near || !far || near.depth >= far.depth * 0.999) return null;
  const f = s.focalLengthMm;
  const held = tilt ? solved.lens.swingDeg : solved.lens.tiltDeg;
  const standards = standardsOf(station);
  /** The signed blur at f/1 for a reading of the bed: zero where the mark is crisp. */
  const miss = ({ each }: (typeof marks)[number], lean: number, bedMm: number): number => {
    const leaned = tilt ? { tiltDeg: lean, swingDeg: held } : { tiltDeg: held, swingDeg: lean };
    const stance = stanceOf({ ...standards, lens: leaned });
    const v = imageDistanceOnBed(stance, bedMm);
    const far = into(stance.basis, each.at);
    const pupil = { ...s.pupil, axisZ: stance.axis[2] };
    if (each.mark.infinite) {
      return missAtUnitStopMm(pupil, v, dot(far, stance.axis) / (f * far[2]));
    }
    const place = subtract(far, lensFromMark(stance, v));
    return missAtUnitStopMm(pupil, v, inverseDepth(f, stance.axis, place));
  };
  const root = (of: (t: number) => number, low: number, high: number): number | null => {
    const atLow = of(low);
    return atLow * of(high) > 0 ? null : bisect(low, high, (t) => of(t) * atLow > 0);
  };
  const target = tilt ? solved.lens.tiltDeg : solved.lens.swingDeg;
  const from = (start: number): { rounds: Round[]; settles: boolean } => {
    const rounds: Round[] = [];
    let lean = start;
    for (let i = 0; i < MOST_ROUNDS; i++) {
      const v = root((t) => miss(far, lean, t), 0.7 * f, 4 * f);
      const next = v === null ? null : nearestRoot((t) => miss(near, t, v), lean, root);
      if (v === null || next === null) return { rounds, settles: false };
      const moved = Math.abs(next - lean);
      lean = next;
      const worst = Math.max(Math.abs(miss(far, lean, v)), Math.abs(miss(near, lean, v)));
      const fNumber = worst / s.cocMm / s.combined;
      rounds.push({ leanDeg: lean, fNumber });
      if (moved < LANDED_DEG || (fNumber <= station.lens.f_min && moved < NEARLY_DEG)) {
        return { rounds, settles: true };
      }
    }
    return { rounds, settles: false };
  };
  // From a straight lens the near mark may not come in at all; a first lean by eye helps then.
  const starts = [0, target / 2, 0.8 * target].map((start) => ({ start, ...from(start) }));
  const { start, rounds, settles } = starts.find((each) => each.settles) ?? starts[0]!;
  const movement = tilt ? 'tilt' : 'swing';
  const names = { far: nameOf(far.each), near: nameOf(near.each) };
  return {
    movement,
    ...names,
    rounds,
    settles,
    words: wordsFor(movement, names, rounds, settles ? start : target / 2, settles),
  };
}

/** The root nearest to where the lean stands. */
function nearestRoot(
  of: (t: number) => number,
  from: number,
  root: (of: (t: number) => number, low: number, high: number) => number | null,
): number | null {
  for (const reach of [2, 5, 10, 20, 40, 60]) {
    const found = [root(of, from, from + reach), root(of, from - reach, from)].filter(
      (each) => each !== null,
    );
    if (found.length > 0) {
      return found.sort((a, b) => Math.abs(a - from) - Math.abs(b - from))[0]!;
    }
  }
  return null;
}

function wordsFor(
  movement: 'tilt' | 'swing',
  { far, near }: { far: string; near: string },
  rounds: readonly Round[],
  start: number,
  settles: boolean,
): string[] {
  const way =
    movement === 'tilt'
      ? start > 0
        ? 'forward'
        : 'back'
      : start > 0
        ? 'to the right'
        : 'to the left';
  const last = rounds.at(-1);
  const count = `${rounds.length} ${rounds.length === 1 ? 'round lands' : 'rounds land'}`;
  return [
    Math.abs(start) < LANDED_DEG
      ? `Begin with the lens straight.`
      : `Set a first ${movement} ${way} of about ${degrees(Math.abs(start))}.`,
    `Focus on ${far}.`,
    `Leave the focus; ${movement} until ${near} is crisp.`,
    settles && last
      ? `Repeat from the focus on. ${count} at ${degrees(last.leanDeg)}.`
      : 'Here it does not come to rest: each round swings further. Set the lean from the figures and only focus.',
  ];
}
