import type { Station } from '../document/station.js';
import { setupOf } from '../optical/setup.js';

export interface FrameAt {
  /** Its middle in picture coordinates, mm on the real back. */
  readonly xMm: number;
  readonly yMm: number;
  readonly widthMm: number;
  readonly heightMm: number;
}

/** Where a station's whole frame lies on the picture, with its own movements or others. */
export function frameAt(
  station: Station,
  at?: { readonly riseMm: number; readonly shiftMm: number },
): FrameAt {
  const moved = at
    ? { ...station, movements: { ...station.movements, rise_mm: at.riseMm, shift_mm: at.shiftMm } }
    : station;
  const { whole, factor } = setupOf(moved);
  return {
    xMm: whole.shiftMm * factor,
    yMm: whole.riseMm * factor,
    widthMm: whole.widthMm * factor,
    heightMm: whole.heightMm * factor,
  };
}
