import {
  blurDiameterMm,
  fNumberNeeded,
  inverseDepth,
  patchStretch,
  project,
} from '@gangway/optics';
import type { Mark, Station } from '../document/station.js';
import { markPlace } from '../optical/places.js';
import type { Setup } from '../optical/setup.js';
import { finite } from '../words/finite.js';

export interface MarkReport {
  label: string;
  image_depth_mm: number | null;
  blur_um: number | null;
  f_number_needed: number | null;
  holds: boolean;
  in_frame: boolean;
}

/** A hair past the stop still holds: what is set is rounded. */
const HAIR = 1 + 1e-6;

function holdsAt(must: Mark['must'], needed: number, setup: Setup, wantedMm: number): boolean {
  if (must === 'sharp') return needed <= setup.fNumber * HAIR;
  // Blur is N needed × c / N.
  return must === 'free' || needed * setup.cocMm * HAIR > wantedMm * setup.fNumber;
}

/**
 * What the search aims at for a soft mark that names no blur, in circles of confusion. One is
 * no longer sharp; it takes some more to be seen as left soft (common practice, no source).
 */
export const SOFT_COCS = 4;

/** How sharp each mark falls, and whether the frame holds it. */
export function reportMarks(station: Station, setup: Setup): MarkReport[] {
  const place = markPlace(station, setup);
  const { focalLengthMm: f, imageDistanceMm: v, pupil, frame, factor } = setup;
  return (station.marks ?? []).map((mark) => {
    const point = place(mark);
    // Nearer than f there is no image, but a patch all the same.
    const ahead = point[2] > 0;
    const u = inverseDepth(f, setup.axis, point);
    const needed = ahead ? fNumberNeeded(pupil, v, u, setup.cocMm) : Infinity;
    const wanted = mark.blur_um === undefined ? setup.cocMm : mark.blur_um / 1000 / factor;
    const { x, y } = project(point, v);
    const blurMm = ahead ? blurDiameterMm(pupil, setup.fNumber, v, u) * factor : Infinity;
    return {
      label: mark.label,
      image_depth_mm: ahead && u > 0 ? finite(1 / u) : null,
      blur_um: finite(blurMm * 1000),
      f_number_needed: finite(needed * factor),
      holds: holdsAt(mark.must, needed, setup, wanted),
      in_frame:
        ahead &&
        Math.abs(x - frame.shiftMm) <= frame.widthMm / 2 &&
        Math.abs(y - frame.riseMm) <= frame.heightMm / 2,
    };
  });
}

/** How much longer than its width the patch of each mark is, drawn out by a leaned stop; shares. */
export function patchesLonger(station: Station, setup: Setup): number[] {
  const { axis, imageDistanceMm: v } = setup;
  const place = markPlace(station, setup);
  return (station.marks ?? []).map((mark) => {
    const at = place(mark);
    return at[2] > 0 ? patchStretch(axis, v, project(at, v)) : 0;
  });
}
