import type { Station } from '../../src/index.js';

/** Three labels on a table, the camera above it and tipped down. */
export function table(set: Partial<Station['movements']>): Station {
  return {
    format: 'gangway.station',
    version: 1,
    name: 'Table',
    back: { width_mm: 36, height_mm: 24, width_px: 8256, orientation: 'portrait' },
    lens: {
      focal_length_mm: 90,
      f_min: 2.8,
      f_max: 32,
      circle: [{ f_number: 2.8, diameter_mm: 80 }],
    },
    chain: [],
    movement_limits: { moves: 'front' },
    aperture: 5.6,
    focus: { distance_m: 1.712 },
    movements: { rise_mm: 0, shift_mm: 0, tilt_deg: 0, swing_deg: 0, ...set },
    camera: { height_m: 1.25, pitch_deg: -10, yaw_deg: 0 },
    criterion: { pixels: 3 },
    marks: [
      { label: 'front', x_m: -0.08, y_m: 0.86, z_m: 1.25, must: 'sharp' },
      { label: 'middle', x_m: 0, y_m: 0.92, z_m: 1.5, must: 'sharp' },
      { label: 'back', x_m: 0.09, y_m: 0.97, z_m: 1.8, must: 'sharp' },
    ],
  };
}
