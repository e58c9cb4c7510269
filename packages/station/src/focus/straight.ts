import { newBudget, SEARCH_STEPS } from '@gangway/optics';
import type { Station } from '../document/station.js';
import { solveStation, type FocusAnswer, type SolveOptions } from './solve.js';

/** The same marks with lens and back straight: what leaning is worth is told against it. */
export function straightAnswer(
  station: Station,
  answer?: FocusAnswer,
  options: Pick<SolveOptions, 'anyStop'> = {},
): FocusAnswer | null {
  const { movements } = station;
  const { rear_tilt_deg: _t, rear_swing_deg: _s, ...rest } = movements;
  if (answer && answer.marks.sharp.length === 0) return null;
  return solveStation(
    { ...station, movements: { ...rest, tilt_deg: 0, swing_deg: 0 } },
    {
      freedoms: [{ kind: 'front', tilt: [0, 0], swing: [0, 0], leanDeg: 90 }],
      anyCircle: true,
      ...options,
      budget: newBudget(SEARCH_STEPS / 4),
    },
  );
}
