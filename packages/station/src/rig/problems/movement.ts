import { lensAxis } from '@gangway/optics';
import type { SettingCheck } from './problem.js';

/** Sine of the angle two directions may part and still count as along, or across, each other. */
const SLACK = 0.03;

/** A lens whose shift and tilt are locked to each other, set as it cannot be. */
export const axesLocked: SettingCheck<'axes_locked'> = ({ station: { movements }, facts }) => {
  const { limits } = facts;
  if (limits.shift_tilt !== 'in_line' && limits.shift_tilt !== 'crossed') return [];
  const shift = [movements.shift_mm, movements.rise_mm] as const;
  const axis = lensAxis({ tiltDeg: movements.tilt_deg, swingDeg: movements.swing_deg });
  const lengths = Math.hypot(...shift) * Math.hypot(axis[0], axis[1]);
  if (lengths === 0) return [];
  const along = Math.abs(shift[0] * axis[0] + shift[1] * axis[1]) / lengths;
  const across = Math.abs(shift[0] * axis[1] - shift[1] * axis[0]) / lengths;
  const inLine = limits.shift_tilt === 'in_line';
  if ((inLine ? across : along) <= SLACK) return [];
  return [{ severity: 'stop', joint: null, values: { lock: limits.shift_tilt } }];
};
