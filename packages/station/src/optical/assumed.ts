import { magnificationAt } from '@gangway/optics';
import { assumed, type Assumption } from '../words/assumptions.js';
import { leanSizeDeg } from '../words/lean.js';
import type { Setup } from './setup.js';

/** From here on a pupil ratio of 2 would change the light by a sixth of a stop. */
const CLOSE_M = 0.1;
/** From here on one of 2 would move the circle by tenths of a millimetre on any lens. */
const LEANED_DEG = 0.5;

export function pupilAssumed(s: Setup): Assumption[] {
  if (s.facts.lens.pupil_ratio !== undefined) return [];
  const { movements } = s.station;
  const close = magnificationAt(s.focalLengthMm, s.axis[2], s.imageDistanceMm) > CLOSE_M;
  const leaned =
    Math.max(
      leanSizeDeg({ tiltDeg: movements.tilt_deg, swingDeg: movements.swing_deg }),
      leanSizeDeg({
        tiltDeg: movements.rear_tilt_deg ?? 0,
        swingDeg: movements.rear_swing_deg ?? 0,
      }),
    ) > LEANED_DEG;
  if (!close && !leaned) return [];
  const rests = [...(close ? (['sharpness', 'exposure'] as const) : []), 'circle', 'core'] as const;
  return [assumed('pupil_ratio', null, '/lens/pupil_ratio', 1, rests)];
}

export function sharpnessAssumed({ station }: Setup): Assumption[] {
  const { criterion, criterion_by, back } = station;
  if (criterion_by !== 'default') return [];
  const on =
    back.medium === 'film' ? 'film' : criterion.pixels === undefined ? 'no_pixels' : 'pixels';
  const rests = ['criterion', 'sharpness'] as const;
  return [assumed('criterion', { criterion, on }, '/criterion', criterion, rests)];
}

export const levelAssumed = ({ station: { camera } }: Setup): Assumption[] =>
  camera.level_offset_deg !== undefined
    ? []
    : [assumed('level', null, '/camera/level_offset_deg', 0, ['level'])];
