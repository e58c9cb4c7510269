import { fStop, stops, trimmed } from '../words/format.js';
import type { KitItem, KitItemOf } from './schema.js';
import { mostOf } from '@gangway/optics';

const range = (value: readonly [number, number] | undefined, unit: string): string | null =>
  value === undefined || (value[0] === 0 && value[1] === 0)
    ? null
    : value[0] === -value[1]
      ? `±${trimmed(value[1], 1)}${unit}`
      : `${trimmed(value[0], 1)} to ${trimmed(value[1], 1)}${unit}`;

function movementWords(item: KitItem): string | null {
  if (!('movement' in item) || !item.movement) return null;
  const { shift_mm, rise_mm, tilt_deg, swing_deg, radial_shift_mm } = item.movement;
  const shift = radial_shift_mm ? `±${radial_shift_mm} mm` : range(rise_mm ?? shift_mm, ' mm');
  const lean = range(tilt_deg ?? swing_deg, '°');
  return [shift, lean].filter(Boolean).join(', ') || null;
}

const joined = (...parts: (string | null | undefined | false)[]): string =>
  parts.filter(Boolean).join(' · ');

const COMES: Record<KitItemOf<'extra'>['comes_with'], string> = {
  every_job: 'on every job',
  film: 'with film',
  digital: 'with a digital back',
  bellows: 'with a bellows camera',
};

const SUMMARIES: { readonly [K in KitItem['kind']]: (item: KitItemOf<K>) => string } = {
  lens: (item) =>
    joined(
      `${trimmed(item.focal_length_mm, 1)} mm`,
      `${fStop(item.f_min)} to ${fStop(item.f_max)}`,
      `circle ${trimmed(mostOf(item.circle.map((entry) => entry.diameter_mm)), 1)} mm`,
      movementWords(item),
    ),
  back: (item) =>
    joined(
      `${trimmed(item.width_mm, 1)} × ${trimmed(item.height_mm, 1)} mm`,
      item.width_px !== undefined && `${trimmed((item.width_mm / item.width_px) * 1000, 2)} µm`,
      item.medium,
      item.register_mm !== undefined && `register ${trimmed(item.register_mm, 2)}`,
    ),
  adapter: (item) =>
    joined(
      `${trimmed(item.thickness_mm, 2)} mm thick`,
      movementWords(item),
      item.contacts === false && 'no contacts',
    ),
  multiplier: (item) =>
    joined(
      `× ${trimmed(item.factor, 3)}`,
      item.circle_limit_mm !== undefined && `passes ${trimmed(item.circle_limit_mm, 1)} mm`,
    ),
  board: (item) =>
    item.offset_mm === 0
      ? 'flat'
      : `${trimmed(Math.abs(item.offset_mm), 1)} mm ${item.offset_mm < 0 ? 'recessed' : 'extended'}`,
  camera: (item) =>
    joined(
      item.bellows_max_mm === undefined
        ? `rigid, ${trimmed(item.thickness_mm ?? 0, 1)} mm deep`
        : `bellows ${trimmed(item.bellows_min_mm ?? 0, 0)} to ${trimmed(item.bellows_max_mm, 0)} mm`,
      movementWords(item),
    ),
  filter: (item) =>
    joined(
      `thread ${trimmed(item.thread_mm, 1)} mm`,
      `clear ${trimmed(item.clear_diameter_mm, 1)} mm`,
      `${trimmed(item.thickness_mm, 1)} mm deep`,
      item.stops !== undefined && `takes ${stops(item.stops)}`,
    ),
  film: (item) =>
    joined(
      item.iso !== undefined && `ISO ${trimmed(item.iso, 1)}`,
      item.range_stops !== undefined && `holds ${stops(item.range_stops)}`,
      item.reciprocity &&
        (item.reciprocity.table
          ? `times by table to ${trimmed(item.reciprocity.table.at(-1)!.metered_s, 1)} s`
          : `${trimmed(item.reciprocity.exponent!, 2)} past ${trimmed(item.reciprocity.from_s!, 2)} s`),
    ),
  extra: (item) =>
    joined(
      COMES[item.comes_with],
      item.count !== undefined && item.count > 1 && `${item.count} of them`,
    ),
};

/** What tells an item from others of its kind, in one line. */
export const summaryOf = (item: KitItem): string => SUMMARIES[item.kind](item as never);

/** Mounts of an item, for search and for the list. */
export function mountsOf(item: KitItem): string {
  const of = item as { mount?: string; front_mount?: string; rear_mount?: string };
  return [of.front_mount, of.mount, of.rear_mount].filter(Boolean).join(' → ');
}

/** The figure a kind is sorted by. */
export function sizeOf(item: KitItem): number {
  switch (item.kind) {
    case 'lens':
      return item.focal_length_mm;
    case 'back':
      return Math.hypot(item.width_mm, item.height_mm);
    case 'adapter':
      return item.thickness_mm;
    case 'multiplier':
      return item.factor;
    case 'board':
      return item.offset_mm;
    case 'camera':
      return item.bellows_max_mm ?? item.thickness_mm ?? 0;
    case 'filter':
      return item.thread_mm;
    case 'film':
      return item.iso ?? 0;
    case 'extra':
      return item.count ?? 1;
  }
}
