import {
  distanceAt,
  newBudget,
  stackFrames,
  stackStepMm,
  stopForSpread,
  travelPerBlur,
  type Budget,
  type Diffraction,
  leastOf,
  mostOf,
} from '@gangway/optics';
import type { Station } from '../document/station.js';
import { bareFocus, type Setup } from '../optical/setup.js';
import type { BestStop } from './best-stop.js';
import { hindrance } from './hindrance.js';
import { solveStation, type FocusAnswer } from './solve.js';
import { straightAnswer } from './straight.js';

/** The setting that holds all marks that must be sharp at the widest stop. */
export interface SolutionReport {
  /** False where no setting serves; the figures are then the best that can be done. */
  possible: boolean;
  /** Which limit stands in the way, and by how much. */
  reason?: string;
  tilt_deg: number | null;
  swing_deg: number | null;
  rear_tilt_deg?: number;
  rear_swing_deg?: number;
  image_distance_mm: number | null;
  /** What to set on the bed. */
  bed_mm: number | null;
  /** From the sensor, straight ahead; null at infinity, past it, and past life size. */
  distance_m: number | null;
  /** The least that holds them; 0 when all lie on the plane. */
  f_number: number | null;
  focus_spread_mm: number | null;
  /** As it acts on the sensor; the ring is set to that over 1 + m/p. */
  f_number_hansma: number | null;
  /** With a straight lens, at the stop that is set. */
  stack_frames: number | null;
  /** Among the stops that hold every mark and cover the frame; null where none does. */
  best_stop: {
    f_number: number;
    /** Least and greatest that do without diffraction plain; null where it is plain at all. */
    serves: [number, number] | null;
    spot_um: number;
    diffraction: Diffraction;
  } | null;
  /** Within the mechanism, the image circle and the filter ring. */
  within_limits: boolean;
  /** The search ended early, its steps used up: a better setting may be there. */
  stopped?: true;
}

/** Frames of a stack share this much where a station does not say. */
export const STACK_OVERLAP = 0.2;

const NOTHING: Omit<SolutionReport, 'possible' | 'reason'> = {
  tilt_deg: null,
  swing_deg: null,
  image_distance_mm: null,
  bed_mm: null,
  distance_m: null,
  f_number: null,
  focus_spread_mm: null,
  f_number_hansma: null,
  stack_frames: null,
  best_stop: null,
  within_limits: false,
};

/** Straight ahead from the sensor to the plane, m; null at infinity, past it, and past life size. */
export function planeDistanceM(s: Setup): number | null {
  const { focalLengthMm, imageDistanceMm, magnification } = bareFocus(s);
  // Two settings share a distance; only the one up to life size can be set by it.
  if (magnification > 1 + 1e-12) return null;
  const distance = distanceAt(focalLengthMm, s.axis[2], imageDistanceMm);
  return Number.isFinite(distance) && distance < 1e10 ? distance / 1000 : null;
}

/** The report's `solution`; undefined where nothing must be sharp. */
export function reportSolution(
  station: Station,
  budget: Budget = newBudget(),
): SolutionReport | undefined {
  // Held in the hand there is no setting to be found: the gap and the lean are told instead.
  if (station.held_off) return undefined;
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
    bed_mm: solved.bedMm,
    distance_m: planeDistanceM(s),
    f_number: solved.fNumber * s.factor,
    focus_spread_mm: answer.spreadMm,
    f_number_hansma: stopForSpread(answer.spreadMm),
    stack_frames: framesInStack(station, answer),
    best_stop: answer.best && reportBest(answer.best),
    within_limits: answer.within,
    ...(answer.stopped ? { stopped: true as const } : {}),
  };
}

const reportBest = ({ fNumber, serves, spotUm, diffraction }: BestStop) => ({
  f_number: fNumber,
  serves: serves && ([...serves] as [number, number]),
  spot_um: spotUm,
  diffraction,
});

/** Frames that a straight lens would need for the same marks at the stop that is set. */
function framesInStack(station: Station, answer: FocusAnswer): number | null {
  const straight = straightAnswer(station, answer, { anyStop: true });
  if (!straight) return null;
  return stackFrames(straight.spreadMm, stackStepOf(station, straight, station.aperture));
}

/** Travel of the standard between two frames of a stack over an answer's spread, on the back, mm. */
export function stackStepOf(station: Station, answer: FocusAnswer, aperture: number): number {
  const { setup: s } = answer;
  const overlap = station.stack?.overlap ?? STACK_OVERLAP;
  const perBlur = travelPerBlur(s.pupil, middleOf(answer));
  return stackStepMm(aperture * s.combined, s.cocMm, overlap, perBlur) * s.factor ** 2;
}

/** The middle of the spread, as an image distance. */
function middleOf({ solved }: FocusAnswer): number {
  const depths = solved.depthsMm.filter((q) => q > 0 && Number.isFinite(q));
  return depths.length === 0 ? solved.imageDistanceMm : (leastOf(depths) + mostOf(depths)) / 2;
}
