import { angleFromAxis, fNumberNeeded, inverseDepth, patchStretch, project } from '@gangway/optics';
import type { Mark } from '../document/station.js';
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

/** What a mark comes to at any stop, lens, back and focus as they are. */
export interface MarkReading {
  readonly mark: Mark;
  readonly depthMm: number | null;
  /** The least f-number that holds it, of lens and what is combined with it; Infinity behind the lens. */
  readonly needed: number;
  /** Blur wanted at least where it is to be soft, before any factor behind the movements, mm. */
  readonly wantedMm: number;
  readonly inFrame: boolean;
  /** Tangent of its angle from the lens axis, behind the lens. */
  readonly tanAxis: number;
}

/**
 * What the search aims at for a soft mark that names no blur, in circles of confusion. One is
 * no longer sharp; it takes some more to be seen as left soft (common practice, no source).
 */
export const SOFT_COCS = 4;

/** The marks of a station before any stop is looked at. */
export function readMarks(setup: Setup): MarkReading[] {
  const { station } = setup;
  const place = markPlace(setup);
  const { focalLengthMm: f, imageDistanceMm: v, pupil, frame, factor } = setup;
  return (station.marks ?? []).map((mark) => {
    const point = place(mark);
    // Nearer than f there is no image, but a patch all the same.
    const ahead = point[2] > 0;
    const u = inverseDepth(f, setup.axis, point);
    const { x, y } = project(point, v);
    const angle = ahead ? angleFromAxis(setup.cone, { x, y }) : 0;
    return {
      mark,
      depthMm: ahead && u > 0 ? finite(1 / u) : null,
      needed: ahead ? fNumberNeeded(pupil, v, u, setup.cocMm) : Infinity,
      wantedMm: mark.blur_um === undefined ? setup.cocMm : mark.blur_um / 1000 / factor,
      tanAxis: angle < Math.PI / 2 ? Math.tan(angle) : Infinity,
      inFrame:
        ahead &&
        Math.abs(x - frame.shiftMm) <= frame.widthMm / 2 &&
        Math.abs(y - frame.riseMm) <= frame.heightMm / 2,
    };
  });
}

type AtStop = Pick<Setup, 'fNumber' | 'cocMm'>;

/** Whether a stop holds a mark as it is wanted. */
const holdsAt = (
  { fNumber, cocMm }: AtStop,
  { mark: { must }, needed, wantedMm }: MarkReading,
): boolean =>
  must === 'sharp'
    ? needed <= fNumber * HAIR
    : // Blur is N needed × c / N.
      must === 'free' || needed * cocMm * HAIR > wantedMm * fNumber;

/** Whether a stop holds them all. */
export const heldAt = (at: AtStop, marks: readonly MarkReading[]): boolean =>
  marks.every((mark) => holdsAt(at, mark));

/** Which of them a stop holds as they are wanted, and their blur on the back. */
export const marksAt = (
  at: AtStop & Pick<Setup, 'factor'>,
  marks: readonly MarkReading[],
): { readonly holds: boolean; readonly blurUm: number }[] =>
  marks.map((mark) => ({
    holds: holdsAt(at, mark),
    blurUm: ((mark.needed * at.cocMm) / at.fNumber) * at.factor * 1000,
  }));

/** How sharp each mark falls, and whether the frame holds it. */
export function reportMarks(setup: Setup): MarkReport[] {
  const marks = readMarks(setup);
  const at = marksAt(setup, marks);
  return marks.map(({ mark, depthMm, needed, inFrame }, i) => ({
    label: mark.label,
    image_depth_mm: depthMm,
    blur_um: finite(at[i]!.blurUm),
    f_number_needed: finite(needed * setup.factor),
    holds: at[i]!.holds,
    in_frame: inFrame,
  }));
}

/** How much longer than its width the patch of each mark is, drawn out by a leaned stop; shares. */
export function patchesLonger(setup: Setup): number[] {
  const { station } = setup;
  const { axis, imageDistanceMm: v } = setup;
  const place = markPlace(setup);
  return (station.marks ?? []).map((mark) => {
    const at = place(mark);
    return at[2] > 0 ? patchStretch(axis, v, project(at, v)) : 0;
  });
}
