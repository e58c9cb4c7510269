import {
  dot,
  falloffStops,
  inverseLimits,
  frameCorner,
  CORNERS,
  unit,
  type Vec3,
  leastOf,
  mostOf,
} from '@gangway/optics';
import { markPlace } from '../optical/places.js';
import { reportMarks } from './marks.js';
import type { Mark, Station } from '../document/station.js';
import { setupOf } from '../optical/setup.js';

/** How thick the sharp wedge is where a thing stands, and how the thing itself looks. */
export interface WedgeAt {
  readonly label: string;
  readonly must: Mark['must'];
  /** From the near to the far limit, square to the plane of sharp focus, mm; null: no end. */
  readonly thicknessMm: number | null;
  /** Straight from the plane to the thing, mm; positive beyond it. */
  readonly offPlaneMm: number;
  readonly blurUm: number | null;
  /** Blur in circles of confusion. */
  readonly times: number | null;
}

export function wedgeAtMarks(station: Station): WedgeAt[] {
  const s = setupOf(station);
  const { focalLengthMm: f, imageDistanceMm: v, axis, fNumber, cocMm } = s;
  const place = markPlace(s);
  const read = reportMarks(s);
  /** Where places come to focus at 1/u: P·(a − u f n) = f. */
  const across = (u: number): { w: Vec3; k: number } => ({
    w: [axis[0], axis[1], axis[2] - u * f],
    k: f,
  });
  const plane = across(1 / v);
  const limits = inverseLimits(s.pupil, v, fNumber, cocMm);
  const normal = unit(plane.w);
  return (station.marks ?? []).map((mark, i) => {
    const p = place(mark);
    const off = (dot(p, plane.w) - plane.k) / Math.hypot(...plane.w);
    const foot: Vec3 = [p[0] - off * normal[0], p[1] - off * normal[1], p[2] - off * normal[2]];
    const toward = (u: number): number => {
      const { w, k } = across(u);
      const run = dot(normal, w);
      const t = (k - dot(foot, w)) / run;
      return Number.isFinite(t) ? t : Infinity;
    };
    const [a, b] = [toward(limits.near), toward(limits.far)];
    // Both limits lie on their own side of the plane, else one of them is past infinity.
    const open = !(a * b < 0) || limits.near <= 0;
    const { blur_um } = read[i]!;
    return {
      label: mark.label || `Mark ${i + 1}`,
      must: mark.must,
      thicknessMm: open ? null : Math.abs(a - b),
      offPlaneMm: off,
      blurUm: blur_um,
      times: blur_um === null ? null : blur_um / 1000 / (cocMm * s.factor),
    };
  });
}

/** Natural falloff to the brightest and the darkest corner, stops: it grows as the lens leans. */
export function cornerFalloff(station: Station): { least: number; most: number } {
  const { cone, frame } = setupOf(station);
  const stops = CORNERS.map((corner) => falloffStops(cone, frameCorner(frame, corner)));
  return { least: leastOf(stops), most: mostOf(stops) };
}
