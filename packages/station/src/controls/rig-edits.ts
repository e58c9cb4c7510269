import {
  DIAGONAL_24X36_MM,
  imageDistanceFromDistance,
  leastDistanceMm,
  magnificationAt,
  nearestDistanceMm,
} from '@gangway/optics';
import { focusDistanceM } from './controls.js';
import { criterionSchema, type Focus, type Station } from '../document/station.js';
import { bareFocus, setupOf } from '../optical/setup.js';
import { leanedOf } from '../document/standards.js';
import { readableOn, withUsualCriterion } from '../document/criterion.js';
import { heldStop } from '../document/stop.js';
import { rounded } from '../words/rounded.js';
import { focusingLensOf } from '../document/focusing.js';

/** Changes to a rig that touch more than one field, so that the document stays sound. */

/** A new widest or smallest stop; the aperture in use goes along when it would fall outside. */
export function withStops(station: Station, stops: { f_min?: number; f_max?: number }): Station {
  const lens = { ...station.lens, ...stops };
  const aperture = heldStop(lens, station.aperture);
  return { ...station, lens, aperture: lens.f_max < lens.f_min ? station.aperture : aperture };
}

/** Closest focus; without a measured magnification the thin lens's own stands in. */
export function withClosestFocus(station: Station, distance_mm: number): Station {
  const { lens } = station;
  const f = lens.focal_length_mm;
  const thin =
    distance_mm > nearestDistanceMm(f, 1)
      ? magnificationAt(f, 1, imageDistanceFromDistance(f, 1, distance_mm))
      : 1;
  const magnification = lens.close_focus?.magnification ?? Number(thin.toPrecision(3));
  return { ...station, lens: { ...lens, close_focus: { distance_mm, magnification } } };
}

export type RangeField =
  | 'rise_mm'
  | 'shift_mm'
  | 'tilt_deg'
  | 'swing_deg'
  | 'rear_tilt_deg'
  | 'rear_swing_deg'
  | 'rear_rise_mm'
  | 'rear_shift_mm';

/** One end of a movement's range; the other end mirrors it until it is given too. */
export function withRangeEnd(
  station: Station,
  field: RangeField,
  end: 0 | 1,
  amount: number,
): Station {
  const value = end === 0 ? -amount : amount;
  const [least, most] = station.movement_limits[field] ?? [-Math.abs(amount), Math.abs(amount)];
  const range: [number, number] = end === 0 ? [value + 0, most] : [least, value];
  return { ...station, movement_limits: { ...station.movement_limits, [field]: range } };
}

/**
 * A station begun in a job, with what counts as sharp there: whatever is stored, the usual, and said
 * to be that, where it cannot be read on this back.
 */
export function withJobCriterion(station: Station, stored: unknown): Station {
  const criterion = criterionSchema.safeParse(stored).data;
  return criterion && readableOn(criterion, station.back)
    ? { ...station, criterion, criterion_by: 'chosen' }
    : withUsualCriterion(station);
}

export type FocusWay = 'distance' | 'magnification' | 'image_distance';

export const focusWay = (focus: Focus): FocusWay =>
  focus.distance_m !== undefined
    ? 'distance'
    : focus.magnification !== undefined
      ? 'magnification'
      : 'image_distance';

/** The same focus said another way, so that changing how it is set does not change it. */
export function withFocusWay(station: Station, way: FocusWay): Station {
  if (way === focusWay(station.focus)) return station;
  const s = setupOf(station);
  if (way === 'image_distance') {
    return { ...station, focus: { image_distance_mm: rounded(s.bedMm, 3) } };
  }
  if (way === 'distance') {
    const distance = focusDistanceM(station);
    const given = Number.isFinite(distance) ? Number(distance.toPrecision(5)) : null;
    const least = leastDistanceMm(focusingLensOf(station), leanedOf(s.stance)) / 1000;
    return { ...station, focus: { distance_m: given === null ? null : Math.max(given, least) } };
  }
  const m = bareFocus(s).magnification;
  return { ...station, focus: { magnification: Math.max(0.001, Number(m.toPrecision(4))) } };
}

export type CriterionWay = 'diagonal' | 'coc' | 'pixels' | 'print';

export const criterionWay = ({ criterion }: Station): CriterionWay =>
  criterion.coc_mm !== undefined
    ? 'coc'
    : criterion.pixels !== undefined
      ? 'pixels'
      : criterion.print_width_mm !== undefined
        ? 'print'
        : 'diagonal';

/** A standard of sharpness with the value people commonly begin from. */
export function withCriterionWay(station: Station, way: CriterionWay): Station {
  const diagonal = Math.hypot(station.back.width_mm, station.back.height_mm);
  const starts = {
    diagonal: { diagonal_divisor: 1500 },
    coc: { coc_mm: Number(((0.03 * diagonal) / DIAGONAL_24X36_MM).toPrecision(2)) },
    pixels: { pixels: 2 },
    print: { print_width_mm: 600, viewing_distance_mm: 600 },
  };
  return { ...station, criterion: starts[way], criterion_by: 'chosen' };
}
