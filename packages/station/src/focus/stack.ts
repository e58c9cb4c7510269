import { depthOfField, stackFrames } from '@gangway/optics';
import type { Station } from '../document/station.js';
import { setupOf } from '../optical/setup.js';
import { STACK_OVERLAP, stackStepOf } from './report.js';
import { advised } from './advised.js';
import type { FocusAnswer } from './solve.js';
import { settled } from './set.js';
import { stopTable } from './stops.js';
import { straightAnswer } from './straight.js';
import { SECONDS_EACH, stackStop } from './ways.js';
import { leanSizeDeg } from '../words/lean.js';

/** One way to get all marks sharp, told by the same figures as the others. */
export interface Effort {
  readonly id: 'tilt' | 'straight' | 'stack' | 'both';
  readonly frames: number;
  /** As engraved. */
  readonly fNumber: number;
  readonly leanDeg: number;
  /** Step between frames on the focus scale, and as a travel of the whole camera on a rail, mm. */
  readonly stepMm: number | null;
  readonly railMm: number | null;
  readonly seconds: number;
  /** Blur and diffraction at the worst place between nearest and farthest mark, µm. */
  readonly spotUm: number | null;
  readonly holds: boolean;
  /** What each frame of a straight stack holds, from the lens along its axis, m; null: no end. */
  readonly slices: readonly (readonly [number, number | null])[];
  readonly after: Station;
}

/** The ways side by side; empty where nothing must be sharp. */
export function tiltOrStack(station: Station): Effort[] {
  const tilted = advised(station);
  const straight = straightAnswer(station);
  if (!tilted || !straight) return [];
  const seconds = station.stack?.seconds_each ?? SECONDS_EACH;
  const single = (id: 'tilt' | 'straight', answer: FocusAnswer, after: Station): Effort => {
    return {
      id,
      frames: 1,
      fNumber: answer.station.aperture,
      leanDeg: leanOf(answer),
      stepMm: null,
      railMm: null,
      seconds,
      spotUm: stopTable(answer.station).set.spotUm,
      holds: answer.held,
      slices: [],
      after,
    };
  };
  const stacked = (id: 'stack' | 'both', answer: FocusAnswer): Effort => {
    const after = { ...settled(answer), aperture: stackStop(station) };
    const s = setupOf(after);
    const overlap = station.stack?.overlap ?? STACK_OVERLAP;
    const c = s.cocMm * s.factor;
    const stepMm = stackStepOf(station, answer, after.aperture);
    const frames = stackFrames(answer.spreadMm, stepMm);
    const { airyUm } = stopTable(after).set;
    const m = ((s.imageDistanceMm * s.axis[2]) / s.focalLengthMm - 1) * s.factor;
    return {
      id,
      frames,
      fNumber: after.aperture,
      leanDeg: leanOf(answer),
      stepMm: frames > 1 ? stepMm : null,
      // Along the axis things move by 1/m² of what the image does.
      railMm: frames > 1 && m > 0.02 ? stepMm / m ** 2 : null,
      seconds: frames * seconds,
      // Worst at the seams, as a single frame is at its ends: a step of c (1 − overlap) stands for
      // the whole step, and the frames share the spread evenly.
      spotUm: Math.hypot(
        airyUm,
        c * 1000 * (1 - overlap) * Math.min(1, answer.spreadMm / (frames * stepMm)),
      ),
      holds: true,
      slices:
        id === 'stack' && frames <= MOST_SLICES ? slicesOf(after, answer.spreadMm, frames) : [],
      after,
    };
  };
  const both = stacked('both', tilted);
  return [
    single('tilt', tilted, settled(tilted)),
    single('straight', straight, settled(straight)),
    stacked('stack', straight),
    // Leaned, one frame may hold them already.
    ...(both.frames > 1 ? [both] : []),
  ];
}

/** More frames than this are no drawing. */
const MOST_SLICES = 500;

/** Frames that share a spread evenly about the focus that is set, from the nearest on. */
function slicesOf(
  after: Station,
  spreadMm: number,
  frames: number,
): (readonly [number, number | null])[] {
  const s = setupOf(after);
  const spread = spreadMm / s.factor ** 2;
  return Array.from({ length: frames }, (_, i) => {
    const v = s.imageDistanceMm + (0.5 - (i + 0.5) / frames) * spread;
    const { nearMm, farMm } = depthOfField(s.pupil, v, s.fNumber, s.cocMm);
    return [(nearMm - v) / 1000, Number.isFinite(farMm) ? (farMm - v) / 1000 : null] as const;
  });
}

const leanOf = ({ solved: { lens, rear } }: FocusAnswer): number =>
  Math.max(leanSizeDeg(lens), leanSizeDeg(rear));
