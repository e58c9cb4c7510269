import type { Freedom } from '@gangway/optics';
import type { Station } from '../document/station.js';
import { solveOf } from './freedoms.js';
import { solveStation, type FocusAnswer, type SolveOptions } from './solve.js';

/** What a slanting lean has to gain over a plain tilt or swing to be worth its two scales: a stop. */
const A_STOP = Math.SQRT2;
/** Less than this of either is no slant, degrees. */
const SLANT_DEG = 0.3;

/**
 * The setting a person is advised: the best there is, but a plain tilt or a plain swing where a
 * slanting lean gains less than a stop. One scale is set sooner than two, and both must be found
 * again when the focus is changed. The report stays with the best.
 */
export function advised(station: Station, options: SolveOptions = {}): FocusAnswer | null {
  const best = solveStation(station, options);
  const solve = solveOf(station);
  if (!best || options.freedoms || !solve.tilt || !solve.swing) return best;
  const { freedom } = best;
  if (freedom.kind === 'turned') return best;
  const { tiltDeg, swingDeg } = freedom.kind === 'rear' ? best.solved.rear : best.solved.lens;
  if (Math.min(Math.abs(tiltDeg), Math.abs(swingDeg)) < SLANT_DEG) return best;
  const straight = ([least, most]: readonly [number, number]): boolean => least <= 0 && most >= 0;
  const plain: Freedom[] = [
    ...(straight(freedom.swing) ? [{ ...freedom, swing: [0, 0] as const }] : []),
    ...(straight(freedom.tilt) ? [{ ...freedom, tilt: [0, 0] as const }] : []),
  ];
  const serving = plain
    .map((one) => solveStation(station, { ...options, freedoms: [one] }))
    .filter((answer) => answer !== null)
    .filter((answer) => asGood(answer, best, station.lens.f_min))
    .sort((a, b) => a.engravedNeeded - b.engravedNeeded);
  return serving[0] ?? best;
}

/** Whether a plain answer gives what the best does, but for less than a stop. */
function asGood(plain: FocusAnswer, best: FocusAnswer, widest: number): boolean {
  const needed = ({ engravedNeeded }: FocusAnswer): number => Math.max(widest, engravedNeeded);
  return (
    (plain.within || !best.within) &&
    (plain.held || !best.held) &&
    plain.solved.shortMm <= best.solved.shortMm + 1e-9 &&
    needed(plain) < needed(best) * A_STOP
  );
}
