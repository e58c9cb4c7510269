import { project } from '@gangway/optics';
import { markPlace } from './places.js';
import type { Setup } from './setup.js';

/** Where a mark that must be sharp is pictured: null behind the lens. */
export interface PicturedMark {
  readonly index: number;
  readonly at: { readonly x: number; readonly y: number } | null;
}

/** Pictures of the marks that must be sharp, in the terms of a setup's frame. */
export function picturedMarks(s: Setup): PicturedMark[] {
  const { station } = s;
  const place = markPlace(s);
  return (station.marks ?? []).flatMap((mark, index) => {
    if (mark.must !== 'sharp') return [];
    const at = place(mark);
    return [{ index, at: at[2] > 0 ? project(at, s.imageDistanceMm) : null }];
  });
}

/** A hair past the edge is on it: what settings rounded to a thousandth of a mm leave. */
const HAIR_MM = 1e-6;

/** Marks that must be sharp and that the frame does not hold, by their number in the list. */
export const marksOutside = (s: Setup): number[] =>
  picturedMarks(s)
    .filter(
      ({ at }) =>
        at === null ||
        Math.abs(at.x - s.frame.shiftMm) > s.frame.widthMm / 2 + HAIR_MM ||
        Math.abs(at.y - s.frame.riseMm) > s.frame.heightMm / 2 + HAIR_MM,
    )
    .map(({ index }) => index);
