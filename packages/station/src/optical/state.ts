import { frameIn } from '@gangway/optics';
import {
  MOVEMENTS,
  REAR_MOVEMENTS,
  type Movement,
  type RearMovement,
} from '../document/movements.js';
import { filterClear } from './filter-ring.js';
import type { Station } from '../document/station.js';
import { leanLengthDeg, leanTurns, setupOf, shiftLengthMm, type Setup } from './setup.js';
import { leanSizeDeg } from '../words/lean.js';

/**
 * How the frame stands, worst first: a movement past what the mechanism allows, a corner
 * outside the circle, a corner behind the filter ring, a corner past the sharp core, all well.
 */
export type State = 'beyond' | 'outside' | 'ring' | 'soft' | 'sharp';

/** What one would do about it: within reach, costs something, outside. */
export type Standing = 'within' | 'costs' | 'outside';

export const standingOf = (state: State): Standing =>
  state === 'sharp' ? 'within' : state === 'soft' ? 'costs' : 'outside';

/** Set values are rounded to thousandths; what rounding adds is not past the mechanism. */
const SLACK = 1e-6;

const past = (value: number, range: readonly [number, number] | undefined): boolean =>
  range !== undefined && (value < range[0] - SLACK || value > range[1] + SLACK);

/** The movements set further than the mechanism goes. */
export function beyondMechanism(station: Station): (Movement | RearMovement)[] {
  const { movements: set, movement_limits: limits } = station;
  const turns = leanTurns(limits);
  // The range of a lean that is turned runs along its own line, not along tilt or swing.
  const ranged = MOVEMENTS.filter((name) => !(turns && name.endsWith('_deg')));
  const found: (Movement | RearMovement)[] = [
    ...ranged.filter((name) => past(set[name], limits[name])),
    ...REAR_MOVEMENTS.filter((name) => past(set[name] ?? 0, limits[name])),
  ];
  const lengths = [
    [Math.hypot(set.rise_mm, set.shift_mm), shiftLengthMm(station), ['rise_mm', 'shift_mm']],
    [
      leanSizeDeg({ tiltDeg: set.tilt_deg, swingDeg: set.swing_deg }),
      turns ? leanLengthDeg(limits) : undefined,
      ['tilt_deg', 'swing_deg'],
    ],
  ] as const;
  for (const [length, most, names] of lengths) {
    if (most !== undefined && length > most + SLACK) {
      for (const each of names.filter((name) => set[name] !== 0 && !found.includes(name)))
        found.push(each);
    }
  }
  return found;
}

export type OpticalState = Exclude<State, 'beyond'>;

/** The state from a setup at hand; the mechanism is the caller's to ask. */
export function opticalState(s: Setup): OpticalState {
  const lies = frameIn(s.cone, s.core.halfAngleRad, s.frame);
  if (lies === 'outside') return 'outside';
  if (!filterClear(s)) return 'ring';
  return lies === 'sharp' ? 'sharp' : 'soft';
}

export function stateOf(station: Station): State {
  return beyondMechanism(station).length > 0 ? 'beyond' : opticalState(setupOf(station));
}
