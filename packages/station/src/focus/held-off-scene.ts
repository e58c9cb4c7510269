import { setupOf } from '../optical/setup.js';
import { clip, degrees, inverseLimits, outOf, type Point } from '@gangway/optics';
import type { Mark, Station } from '../document/station.js';
import { markPlace, sensorAxes } from '../optical/places.js';
import { rounded } from '../words/rounded.js';
import { heldSetup, type HeldOffInput } from '../optical/held.js';
import { reportMarks } from './marks.js';
import { withMark } from './set.js';

/** A mark as the held lens draws it, in the cut across the lean. */
export interface HeldMark {
  readonly index: number;
  readonly label: string;
  readonly must: Mark['must'];
  /** Ahead of the sensor and along the side the lens leans to, mm. */
  readonly aheadMm: number;
  readonly asideMm: number;
  readonly blurUm: number | null;
  readonly holds: boolean;
}

/** A straight line of the cut: ahead · z + aside · s = equals, z from the sensor and s aside, mm. */
export interface CutLine {
  readonly ahead: number;
  readonly aside: number;
  readonly equals: number;
}

/** How far a place lies past a line, farther off positive, mm. */
export const pastLine = (
  { ahead, aside, equals }: CutLine,
  place: { readonly aheadMm: number; readonly asideMm: number },
): number => (ahead * place.aheadMm + aside * place.asideMm - equals) / Math.hypot(ahead, aside);

/** The scene cut along the lean: marks, plane and what is sharp before and behind it. */
export interface HeldScene {
  /** What the cut is called by: seen from above, from the side, or across the lean. */
  readonly seen: 'above' | 'side' | 'lean';
  /** The side the cut's upward direction lies on, as a unit vector right and up. */
  readonly aside: readonly [number, number];
  /** How the lens axis leans in the cut, upwards positive. */
  readonly leanDeg: number;
  readonly marks: readonly HeldMark[];
  readonly plane: CutLine;
  /** What just counts as sharp, nearer and farther than the plane. */
  readonly near: CutLine;
  readonly far: CutLine;
}

/** Within this of level or upright a lean is seen from above or from the side, degrees. */
const SQUARE_DEG = 15;

export function heldScene(station: Station, held: HeldOffInput): HeldScene {
  const s = heldSetup(setupOf(station), held);
  const { axis, imageDistanceMm: v, focalLengthMm: f } = s;
  const across = Math.hypot(axis[0], axis[1]);
  const aside: [number, number] =
    across < 1e-9
      ? [1, 0]
      : [Math.abs(axis[0]) / across, (Math.sign(axis[0]) || 1) * (axis[1] / across)];
  const upright = degrees(Math.atan2(Math.abs(aside[1]), Math.abs(aside[0])));
  const seen = upright < SQUARE_DEG ? 'above' : upright > 90 - SQUARE_DEG ? 'side' : 'lean';
  // Seen from the side, up is up.
  if (seen === 'side' && aside[1] < 0) [aside[0], aside[1]] = [-aside[0], -aside[1]];
  const lean = axis[0] * aside[0] + axis[1] * aside[1];
  const place = markPlace(s);
  const read = reportMarks(s);
  const marks = (station.marks ?? []).map((mark, index): HeldMark => {
    const [x, y, z] = place(mark);
    const { blur_um: blurUm, holds } = read[index]!;
    return {
      index,
      label: mark.label || `Mark ${index + 1}`,
      must: mark.must,
      aheadMm: z + v,
      asideMm: x * aside[0] + y * aside[1],
      blurUm,
      holds,
    };
  });
  const limits = inverseLimits(s.pupil, v, s.fNumber, s.cocMm);
  // What comes to focus at q: a·p − f = f p_z/q, p from the lens centre.
  const line = (inverse: number): CutLine => {
    const ahead = axis[2] - f * inverse;
    return { ahead, aside: lean, equals: f + ahead * v };
  };
  return {
    seen,
    aside,
    leanDeg: degrees(Math.atan2(lean, axis[2])),
    marks,
    plane: line(1 / v),
    near: line(limits.near),
    far: line(limits.far),
  };
}

export interface CutBounds {
  readonly left: number;
  readonly right: number;
  readonly bottom: number;
  readonly top: number;
}

/** What is sharp within a rectangle of the cut, ahead to the right, and where the plane runs; mm. */
export function heldWedge({ plane, near, far }: HeldScene, bounds: CutBounds) {
  const { left, right, bottom, top } = bounds;
  const all = [
    { x: left, y: bottom },
    { x: right, y: bottom },
    { x: right, y: top },
    { x: left, y: top },
  ];
  const past = (polygon: readonly Point[], line: CutLine, side: 1 | -1): Point[] =>
    clip(polygon, -side * line.ahead, -side * line.aside, -side * line.equals);
  const before = past(all, plane, -1);
  const onPlane = ({ x, y }: Point): boolean =>
    Math.abs(pastLine(plane, { aheadMm: x, asideMm: y })) < 1e-6 * (Math.abs(x) + Math.abs(y) + 1);
  return {
    wedge: past(past(all, near, 1), far, -1),
    plane: before.filter(onPlane).slice(0, 2),
  };
}

/** A station with one mark moved in the cut, mm ahead and aside. */
export function withHeldMark(
  station: Station,
  { aside }: Pick<HeldScene, 'aside'>,
  index: number,
  aheadMm: number,
  asideMm: number,
): Station {
  const moved = outOf(sensorAxes(station), [aside[0] * asideMm, aside[1] * asideMm, aheadMm]);
  const { x_m, y_m, z_m } = station.marks![index]!;
  const to = (m: number, mm: number): number => rounded(m + mm / 1000, 4);
  return withMark(station, index, {
    x_m: to(x_m, moved[0]),
    y_m: to(y_m, moved[1]),
    z_m: to(z_m, moved[2]),
  });
}
