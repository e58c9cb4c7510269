import type { Mark, Station } from '../../src/index.js';
import { base, parsed } from './rigs.js';

export const mark = (
  label: string,
  x_m: number,
  y_m: number,
  z_m: number,
  more: object = {},
): Mark => ({
  label,
  x_m,
  y_m,
  z_m,
  must: 'sharp',
  ...more,
});

/** A 90 mm lens on a small back at a table: leans freely, covers all it may be leaned to. */
export const table = (marks: Mark[], more: object = {}): Station =>
  parsed({
    ...base(),
    lens: {
      focal_length_mm: 90,
      f_min: 2.8,
      f_max: 32,
      circle: [{ f_number: 2.8, diameter_mm: 140 }],
    },
    movement_limits: { moves: 'front', tilt_deg: [-25, 25], swing_deg: [-25, 25] },
    focus: { distance_m: 1.2 },
    camera: { height_m: 1.5, pitch_deg: -14, yaw_deg: 0 },
    criterion: { coc_mm: 0.03 },
    marks,
    ...more,
  });

/** Three marks that one leaned plane holds. */
export const THREE = [
  mark('Label', -0.08, 1.2, 0.9),
  mark('Stopper', 0.1, 1.25, 1.15),
  mark('Rim', 0, 1.33, 1.5),
];
