import { stepToSet } from '@gangway/optics';
import type { Station } from '../document/station.js';
import { setup } from '../optical/setup.js';

/** Overlap of neighbouring frames when a station names none. */
export const DEFAULT_OVERLAP = 0.3;

export interface FramePlace {
  readonly rise_mm: number;
  readonly shift_mm: number;
}

/** Set movements of each frame of a grid, in reading order; one place when there is no grid. */
export function gridPlaces(station: Station): FramePlace[] {
  const { mosaic, movements } = station;
  const here = { rise_mm: movements.rise_mm, shift_mm: movements.shift_mm };
  if (mosaic?.pattern !== 'grid') return [here];
  const { whole, placing } = setup(station);
  const step = 1 - (mosaic.overlap ?? DEFAULT_OVERLAP);
  const [columns, rows] = [mosaic.columns ?? 1, mosaic.rows ?? 1];
  const along = (count: number, i: number, side: number): number =>
    (i - (count - 1) / 2) * side * step;
  return Array.from({ length: rows * columns }, (_, i) => {
    const { shiftMm, riseMm } = stepToSet(placing, {
      x: along(columns, i % columns, whole.widthMm),
      y: along(rows, rows - 1 - Math.floor(i / columns), whole.heightMm),
    });
    return { rise_mm: here.rise_mm + riseMm, shift_mm: here.shift_mm + shiftMm };
  });
}

/** The station set to one frame of its grid, by itself. */
export function atFrame(station: Station, place: FramePlace): Station {
  const { mosaic: _, ...single } = station;
  return { ...single, movements: { ...station.movements, ...place } };
}
