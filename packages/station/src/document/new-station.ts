import { usualCriterion } from './criterion.js';
import { FORMAT, VERSION, type Station } from './station.js';

const BACK: Station['back'] = {
  width_mm: 36,
  height_mm: 24,
  orientation: 'landscape',
  medium: 'digital',
};

/** Where a new station starts: an ordinary small-format shift lens, all movements at zero. */
export function newStation(name: string): Station {
  return {
    format: FORMAT,
    version: VERSION,
    name,
    back: BACK,
    lens: {
      name: 'Shift 24 f/3.5',
      focal_length_mm: 24,
      f_min: 3.5,
      f_max: 22,
      circle: [
        { f_number: 3.5, diameter_mm: 62 },
        { f_number: 8, diameter_mm: 67 },
        { f_number: 11, diameter_mm: 68 },
      ],
    },
    chain: [],
    movement_limits: {
      rise_mm: [-12, 12],
      shift_mm: [-12, 12],
      tilt_deg: [-8, 8],
      swing_deg: [-8, 8],
      moves: 'front',
    },
    aperture: 8,
    focus: { distance_m: 20 },
    movements: { rise_mm: 0, shift_mm: 0, tilt_deg: 0, swing_deg: 0 },
    camera: { height_m: 1.6, pitch_deg: 0, yaw_deg: 0 },
    criterion: usualCriterion(BACK),
    criterion_by: 'default',
  };
}
