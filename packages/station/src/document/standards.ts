import { stanceOf, type Leaned, type Stance, type Standards } from '@gangway/optics';
import type { Settings } from './station.js';

type Placed = Pick<Settings, 'movements' | 'movement_limits'>;

/** How the station's lens and back stand, for any reading of the bed. */
export function standardsOf({ movements: set, movement_limits: limits }: Placed): Standards {
  const plain = { riseMm: set.rise_mm, shiftMm: set.shift_mm };
  const rear = limits.moves === 'rear';
  const second = { riseMm: set.rear_rise_mm ?? 0, shiftMm: set.rear_shift_mm ?? 0 };
  return {
    lens: { tiltDeg: set.tilt_deg, swingDeg: set.swing_deg },
    rear: { tiltDeg: set.rear_tilt_deg ?? 0, swingDeg: set.rear_swing_deg ?? 0 },
    front: rear ? NOTHING_SET : plain,
    back: rear ? plain : second,
    pivotMm: limits.pivot_mm ?? 0,
    rearPivotMm: limits.rear_pivot_mm ?? 0,
  };
}

/** Whether the back rises or shifts by itself where the front moves too. */
export const hasSecondStandard = ({ movements: set, movement_limits: limits }: Placed): boolean =>
  limits.moves === 'front' &&
  [limits.rear_rise_mm, limits.rear_shift_mm, set.rear_rise_mm, set.rear_shift_mm].some(
    (given) => given !== undefined,
  );

const NOTHING_SET = { riseMm: 0, shiftMm: 0 };

/** What focusing needs to know of how lens and back lean. */
export const leanedOf = ({ axis, perMm, plusMm }: Stance): Leaned => ({
  axisZ: axis[2],
  perMm,
  plusMm,
});

export const stanceOfStation = (station: Placed): Stance => stanceOf(standardsOf(station));
