import type { Vec3 } from './vector.js';

/**
 * Coverage: which places of the sensor plane the lens's cone of light reaches.
 * Picture coordinates throughout: mm on the sensor, upright as seen, the origin where the
 * sensor normal through the lens centre meets the sensor.
 */
export interface Cone {
  /** Lens axis, unit, in the camera frame. */
  readonly axis: Vec3;
  /** Half-angle about the axis, radians, below 90°. */
  readonly halfAngleRad: number;
  readonly imageDistanceMm: number;
}

export interface Frame {
  readonly widthMm: number;
  readonly heightMm: number;
  /** Centre of the frame in picture coordinates: shift and rise as they act. */
  readonly shiftMm: number;
  readonly riseMm: number;
}

export const CORNERS = ['top_left', 'top_right', 'bottom_left', 'bottom_right'] as const;
export type Corner = (typeof CORNERS)[number];

export interface Point {
  readonly x: number;
  readonly y: number;
}

/** An interval on one line; empty when `low > high`. */
export interface Span {
  readonly low: number;
  readonly high: number;
}

export function frameCorner(frame: Frame, corner: Corner): Point {
  const right = corner === 'top_right' || corner === 'bottom_right' ? 1 : -1;
  const up = corner === 'top_left' || corner === 'top_right' ? 1 : -1;
  return {
    x: frame.shiftMm + (right * frame.widthMm) / 2,
    y: frame.riseMm + (up * frame.heightMm) / 2,
  };
}

/** Where the lens axis meets the sensor plane, in picture coordinates. */
export function axisPoint({ axis, imageDistanceMm }: Cone): Point {
  return { x: (imageDistanceMm * axis[0]) / axis[2], y: (imageDistanceMm * axis[1]) / axis[2] };
}

/** Angle between the lens axis and the ray to a place on the sensor, radians. */
export function angleFromAxis(cone: Cone, { x, y }: Point): number {
  const v = cone.imageDistanceMm;
  const along = x * cone.axis[0] + y * cone.axis[1] + v * cone.axis[2];
  return Math.acos(Math.max(-1, Math.min(1, along / Math.hypot(x, y, v))));
}

/** A place that lies on the edge of the circle counts as inside: slack as a share of v. */
const EDGE = 1e-10;

/** Whether a place on the sensor lies inside the cone. */
export function covers(cone: Cone, { x, y }: Point): boolean {
  const v = cone.imageDistanceMm;
  const along = x * cone.axis[0] + y * cone.axis[1] + v * cone.axis[2];
  return along >= Math.hypot(x, y, v) * Math.cos(cone.halfAngleRad) - EDGE * v;
}

/**
 * How far one may go from a place inside the cone in a direction before leaving it; with a
 * place outside, negative steps count. Solves the quadratic of the cone along the line.
 * @param direction unit vector on the sensor plane
 * @returns mm; Infinity where the cone's edge is never met
 */
export function reach(cone: Cone, from: Point, direction: Point): number {
  const v = cone.imageDistanceMm;
  const cos2 = Math.cos(cone.halfAngleRad) ** 2;
  const [ax, ay, az] = cone.axis;
  const along = direction.x * ax + direction.y * ay;
  const start = from.x * ax + from.y * ay + v * az;
  const a = cos2 - along * along;
  const b = cos2 * (from.x * direction.x + from.y * direction.y) - start * along;
  const c = cos2 * (from.x ** 2 + from.y ** 2 + v * v) - start * start;
  const discriminant = b * b - a * c;
  if (discriminant < 0) return Infinity;
  const ends = roots(a, b, c, Math.sqrt(discriminant)).filter((t) => start + t * along > 0);
  // An ellipse is left at its far end. A cone that does not close is left at most once ahead;
  // what lies beyond is its other half, behind the lens.
  // Between the two, along the axis of a parabola, the far end lies at infinity.
  if (a >= STRAIGHT) return ends.length > 0 ? Math.max(...ends) : Infinity;
  return Math.min(Infinity, ...ends.filter((t) => t >= 0));
}

/** Below this the square term is rounding alone. */
const STRAIGHT = 1e-15;

/** Roots of a t² + 2 b t + c, without losing digits to cancellation; one when it is straight. */
function roots(a: number, b: number, c: number, rootOfDiscriminant: number): number[] {
  if (Math.abs(a) < STRAIGHT) return b === 0 ? [] : [-c / (2 * b)];
  const q = -(b + Math.sign(b || 1) * rootOfDiscriminant);
  return q === 0 ? [0] : [q / a, c / q];
}

/** The stretch of one straight line (fixed x or fixed y) that lies inside the cone. */
export function slice(cone: Cone, fixed: 'x' | 'y', at: number): Span {
  const v = cone.imageDistanceMm;
  const cos2 = Math.cos(cone.halfAngleRad) ** 2;
  const run = fixed === 'x' ? cone.axis[1] : cone.axis[0];
  const start = at * (fixed === 'x' ? cone.axis[0] : cone.axis[1]) + v * cone.axis[2];
  const a = cos2 - run * run;
  const b = -start * run;
  const c = cos2 * (at * at + v * v) - start * start;
  const discriminant = b * b - a * c;
  const empty: Span = { low: Infinity, high: -Infinity };
  if (Math.abs(a) < 1e-12) {
    const edge = -c / (2 * b);
    return b > 0 ? { low: -Infinity, high: edge } : { low: edge, high: Infinity };
  }
  if (discriminant < 0) return empty;
  const root = Math.sqrt(discriminant);
  const low = Math.min((-b - root) / a, (-b + root) / a);
  const high = Math.max((-b - root) / a, (-b + root) / a);
  if (a > 0) return start + run * ((low + high) / 2) > 0 ? { low, high } : empty;
  return run > 0 ? { low: high, high: Infinity } : { low: -Infinity, high: low };
}

/**
 * Allowed places of the frame's centre along one movement, the other as set.
 * The cone's section is convex, so the four corners are in exactly when it is one interval.
 */
export function allowedSpan(cone: Cone, frame: Frame, movement: 'rise' | 'shift'): Span {
  const [half, otherHalf, other, fixed] =
    movement === 'rise'
      ? ([frame.heightMm / 2, frame.widthMm / 2, frame.shiftMm, 'x'] as const)
      : ([frame.widthMm / 2, frame.heightMm / 2, frame.riseMm, 'y'] as const);
  const one = slice(cone, fixed, other - otherHalf);
  const two = slice(cone, fixed, other + otherHalf);
  return {
    low: Math.max(one.low, two.low) + half,
    high: Math.min(one.high, two.high) - half,
  };
}

export interface CornerMargin {
  readonly corner: Corner;
  readonly marginMm: number;
}

/**
 * Margin of one corner: along the line from where the axis meets the sensor, through the
 * corner, to the edge of the cone; negative when the corner is outside.
 */
export function cornerMarginMm(cone: Cone, frame: Frame, corner: Corner): number {
  const from = axisPoint(cone);
  const to = frameCorner(frame, corner);
  const span = Math.hypot(to.x - from.x, to.y - from.y);
  if (span === 0) return reach(cone, from, { x: 1, y: 0 });
  return reach(cone, from, { x: (to.x - from.x) / span, y: (to.y - from.y) / span }) - span;
}

/** The corner with least margin; of corners that tie, the first in reading order. */
export function worstCorner(cone: Cone, frame: Frame): CornerMargin {
  let worst: CornerMargin | undefined;
  for (const corner of CORNERS) {
    const marginMm = cornerMarginMm(cone, frame, corner);
    if (!worst || marginMm < worst.marginMm - 1e-9) worst = { corner, marginMm };
  }
  return worst!;
}

export const frameCovered = (cone: Cone, frame: Frame): boolean =>
  CORNERS.every((corner) => covers(cone, frameCorner(frame, corner)));

/**
 * Natural falloff at an angle from the lens axis, in stops: cos⁴. Infinity from 90° on, where
 * no light comes. Source: Ray (2002).
 */
export const falloffStops = (angleRad: number): number =>
  angleRad < Math.PI / 2 ? -4 * Math.log2(Math.cos(angleRad)) : Infinity;

/**
 * Whether a filter ring lets the light to a corner pass.
 * @param clearDiameterMm clear opening of the ring, `aheadMm` in front of the entrance pupil
 */
export function ringClears(
  clearDiameterMm: number,
  aheadMm: number,
  pupilDiameterMm: number,
  angleRad: number,
): boolean {
  if (angleRad >= Math.PI / 2) return false;
  return clearDiameterMm >= 2 * (aheadMm * Math.tan(angleRad) + pupilDiameterMm / 2);
}
