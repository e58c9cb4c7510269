import { distanceAt, newBudget, stackFrames, stopForSpread, type Budget } from '@gangway/optics';
import type { SolutionReport } from '../report.js';
import type { Station } from '../schema.js';
import { bareFocus, type Setup } from '../setup.js';
import { hindrance } from './hindrance.js';
import { solveStation, type FocusAnswer } from './solve.js';
import { straightAnswer } from './straight.js';

/** Frames of a stack share this much where a station does not say. */
export const STACK_OVERLAP = 0.2;

const NOTHING: Omit<SolutionReport, 'possible' | 'reason'> = {
  tilt_deg: null,
  swing_deg: null,
  image_distance_mm: null,
  distance_m: null,
  f_number: null,
  focus_spread_mm: null,
  f_number_hansma: null,
  stack_frames: null,
  within_limits: false,
};

/** Straight ahead from the sensor to the plane, m; null at infinity and past it. */
export function planeDistanceM(s: Setup): number | null {
  const { focalLengthMm, imageDistanceMm } = bareFocus(s);
  const distance = distanceAt(focalLengthMm, s.axis[2], imageDistanceMm);
  return Number.isFinite(distance) && distance < 1e10 ? distance / 1000 : null;
}

/** The report's `solution`; undefined where nothing must be sharp. */
export function reportSolution(
  station: Station,
  budget: Budget = newBudget(),
): SolutionReport | undefined {
  if (!(station.marks ?? []).some(({ must }) => must === 'sharp')) return undefined;
  const answer = solveStation(station, { budget });
  const reason = hindrance(station, answer);
  if (!answer) return { possible: false, ...(reason ? { reason } : {}), ...NOTHING };
  const { solved, setup: s } = answer;
  const rear = answer.station.movements;
  return {
    possible: reason === null,
    ...(reason === null ? {} : { reason }),
    tilt_deg: solved.lens.tiltDeg + 0,
    swing_deg: solved.lens.swingDeg + 0,
    ...(rear.rear_tilt_deg === undefined ? {} : { rear_tilt_deg: rear.rear_tilt_deg }),
    ...(rear.rear_swing_deg === undefined ? {} : { rear_swing_deg: rear.rear_swing_deg }),
    image_distance_mm: solved.imageDistanceMm,
    distance_m: planeDistanceM(s),
    f_number: solved.fNumber * s.factor,
    focus_spread_mm: answer.spreadMm,
    f_number_hansma: stopForSpread(answer.spreadMm),
    stack_frames: framesInStack(station, answer),
    within_limits: answer.within,
    ...(answer.stopped ? { stopped: true as const } : {}),
  };
}

/** Frames that a straight lens would need for the same marks at the stop that is set. */
function framesInStack(station: Station, answer: FocusAnswer): number | null {
  const straight = straightAnswer(station, answer);
  if (!straight) return null;
  const { setup: s, spreadMm } = straight;
  const overlap = station.stack?.overlap ?? STACK_OVERLAP;
  const fNumber = station.aperture * s.combined * s.factor;
  return stackFrames(spreadMm, fNumber, s.cocMm * s.factor, overlap);
}
