import { spend } from '@gangway/optics';
import { bandOf, passes, type LikelyPair, type Passes } from './match-lattice.js';
import {
  apart,
  coreShare,
  laidOut,
  ROOT_2PI,
  SPREAD_S,
  type Clock,
  type Laid,
  type Sequence,
} from './match-likelihood.js';

/** Files laid against lines, with offset, drift and spread of the clock fitted to what comes out. */

export interface Candidate {
  readonly offsetS: number;
  /** Width of what was thought possible before the data, s; null: nothing belongs together. */
  readonly priorWidthS: number | null;
  /** It is known to this already and is not fitted farther away, s. */
  readonly heldToS?: number;
}

export interface Aligned {
  /** Null: nothing belongs together. */
  readonly offsetS: number | null;
  readonly logLikelihood: number;
  readonly pairs: readonly LikelyPair[];
}

const LEAST_SPREAD_S = 1.5;
const MOST_SPREAD_S = 10;
/** Clocks part by so much in a day, s: common practice, no source. */
const DRIFT_S_PER_DAY = 8;
/** Rounds of fitting: to see whether an offset is worth it, and to settle it. */
export const ROUGHLY = 1;
export const CLOSELY = 4;

/** What a cell of the lattice costs, forward and back. */
const CELL_STEPS = 60;

/** The clock as the likely pairs have it: a line through their differences, and how they scatter. */
function fitted(
  laid: Laid,
  clock: Clock,
  pairs: readonly LikelyPair[],
  candidate: Candidate,
): Clock {
  let [w, wx, wy, wxx, wxy] = [0, 0, 0, 0, 0];
  for (const [i, j, likely] of pairs) {
    if (!laid.timed[i]) continue;
    const r = apart(laid, clock, i, j);
    const weight = likely * coreShare(r, clock.spreadS);
    const x = (laid.fileS[i]! - clock.middleS) / 86_400;
    const y = laid.fileS[i]! - laid.lineS[j]! - candidate.offsetS;
    w += weight;
    wx += weight * x;
    wy += weight * y;
    wxx += weight * x * x;
    wxy += weight * x * y;
  }
  // A drift has to be shown by the data before it is believed: its own spread is the prior.
  const slack = (clock.spreadS / DRIFT_S_PER_DAY) ** 2;
  const hold = candidate.heldToS === undefined ? 1e-6 : (clock.spreadS / candidate.heldToS) ** 2;
  const [a, b, c] = [w + hold, wx, wxx + slack];
  const determinant = a * c - b * b;
  const offset = (c * wy - b * wxy) / determinant;
  const drift = (a * wxy - b * wy) / determinant;
  let [sum, count] = [0, 0];
  const next: Clock = {
    ...clock,
    offsetS: candidate.offsetS + offset,
    drift: drift / 86_400,
  };
  for (const [i, j, likely] of pairs) {
    if (!laid.timed[i]) continue;
    const r = apart(laid, next, i, j);
    const weight = likely * coreShare(r, clock.spreadS);
    sum += weight * r * r;
    count += weight;
  }
  // Few pairs say little of how they scatter: the usual counts as four more.
  const spread = Math.sqrt((sum + 4 * SPREAD_S ** 2) / (count + 4));
  return { ...next, spreadS: Math.min(MOST_SPREAD_S, Math.max(LEAST_SPREAD_S, spread)) };
}

/** What the data make of one clock offset. */
export function align(sequence: Sequence, candidate: Candidate, rounds: number): Aligned {
  const laid = laidOut(sequence);
  const { files, lines } = sequence;
  const apartAll =
    files.reduce((sum, _, i) => sum + laid.stray[i]! + laid.common[i]!, 0) +
    lines.length * laid.missing;
  if (candidate.priorWidthS === null) {
    return { offsetS: null, logLikelihood: apartAll, pairs: [] };
  }
  const middleS = laid.fileS.length === 0 ? 0 : (laid.fileS[0]! + laid.fileS.at(-1)!) / 2;
  let clock: Clock = { offsetS: candidate.offsetS, drift: 0, middleS, spreadS: SPREAD_S };
  let result: Passes | null = null;
  for (let round = 0; round < rounds; round++) {
    const band = bandOf(laid, clock);
    if (!band || !spend(sequence.effort, CELL_STEPS * band.cells)) {
      sequence.effort.cut = true;
      break;
    }
    result = passes(laid, clock, band);
    clock = fitted(laid, clock, result.pairs, candidate);
  }
  if (!result) return { offsetS: null, logLikelihood: apartAll, pairs: [] };
  const count = result.pairs.reduce((sum, [, , likely]) => sum + likely, 0);
  // How much of what was thought possible before is left: what a free offset costs.
  const widthS = (clock.spreadS * ROOT_2PI) / Math.sqrt(Math.max(1, count));
  const cost = Math.log(Math.min(1, widthS / candidate.priorWidthS));
  return { offsetS: clock.offsetS, logLikelihood: result.total + cost, pairs: result.pairs };
}
