import { MOST_MOSAIC_FRAMES } from '../document/most.js';
import type { MovementLimits, Station } from '../document/station.js';

/** Places at which a back stops by itself, as movements to set, mm. */
export interface Dot {
  readonly shiftMm: number;
  readonly riseMm: number;
}

/** The dots of a sliding back, the top row of the picture first; none of one that turns, or has none. */
export function dotsOf({ frame_stops: given }: Pick<MovementLimits, 'frame_stops'>): Dot[] {
  if (!given || 'turns' in given) return [];
  if ('places_mm' in given) return given.places_mm.map(([x, y]) => ({ shiftMm: x, riseMm: y }));
  const { columns, rows, pitch_mm: pitch } = given;
  // Stored from before there was a limit: named as a fault, and not worked out.
  if (columns * rows > MOST_MOSAIC_FRAMES) return [];
  return Array.from({ length: columns * rows }, (_, i) => ({
    shiftMm: ((i % columns) - (columns - 1) / 2) * pitch[0],
    riseMm: ((rows - 1) / 2 - Math.floor(i / columns)) * pitch[1],
  }));
}

const onScale = new WeakMap<object, { rise: readonly number[]; shift: readonly number[] }>();

/** Where rise or shift of the station’s own back stops, ascending; empty where it goes anywhere. */
export function stopsOnScale(
  { movement_limits: limits }: Pick<Station, 'movement_limits'>,
  way: 'rise' | 'shift',
): readonly number[] {
  if (limits.moves !== 'rear' || !limits.frame_stops) return [];
  const before = onScale.get(limits.frame_stops);
  if (before) return before[way];
  const dots = dotsOf(limits);
  const along = (of: (dot: Dot) => number): number[] =>
    [...new Set(dots.map((dot) => Math.round(1000 * of(dot)) / 1000))].sort((a, b) => a - b);
  const made = { rise: along(({ riseMm }) => riseMm), shift: along(({ shiftMm }) => shiftMm) };
  onScale.set(limits.frame_stops, made);
  return made[way];
}
