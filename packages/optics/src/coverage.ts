import { dot, length, type Vec3 } from './vector.js';

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
  /** How far ahead of the lens centre, along the axis, the cone's point lies: (p − 1) f; 0 unless given. */
  readonly apexMm?: number;
  /** Falloff that was measured, from the middle outwards; natural falloff unless given. */
  readonly fall?: readonly FallAt[];
}

/** Light lost under an angle from the axis, given by its tangent as seen from the exit pupil. */
export interface FallAt {
  readonly tan: number;
  readonly stops: number;
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

/** From a place on the sensor to the cone's point: left to right, foot to top, along the normal. */
const toApex = ({ axis, imageDistanceMm, apexMm = 0 }: Cone, { x, y }: Point): Vec3 => [
  x + apexMm * axis[0],
  y + apexMm * axis[1],
  imageDistanceMm + apexMm * axis[2],
];

/** Angle between the lens axis and the ray to a place on the sensor, radians. */
export function angleFromAxis(cone: Cone, place: Point): number {
  const ray = toApex(cone, place);
  return Math.acos(Math.max(-1, Math.min(1, dot(ray, cone.axis) / length(ray))));
}

/** A place that lies on the edge of the circle counts as inside: slack as a share of v. */
const EDGE = 1e-10;

/** Whether a place on the sensor lies inside the cone. */
export function covers(cone: Cone, place: Point): boolean {
  const ray = toApex(cone, place);
  const slack = EDGE * cone.imageDistanceMm;
  return dot(ray, cone.axis) >= length(ray) * Math.cos(cone.halfAngleRad) - slack;
}

/**
 * How far one may go from a place inside the cone in a direction before leaving it; with a
 * place outside, negative steps count. Solves the quadratic of the cone along the line.
 * @param direction unit vector on the sensor plane
 * @returns mm; Infinity where the cone's edge is never met
 */
export function reach(cone: Cone, from: Point, direction: Point): number {
  const { a, b, c, start, along } = alongLine(cone, from, direction);
  const discriminant = b * b - a * c;
  if (discriminant < 0) return Infinity;
  const ends = roots(a, b, c, Math.sqrt(discriminant)).filter((t) => start + t * along > 0);
  // An ellipse is left at its far end. A cone that does not close is left at most once ahead;
  // what lies beyond is its other half, behind the lens.
  // Between the two, along the axis of a parabola, the far end lies at infinity.
  if (a >= STRAIGHT) return ends.length > 0 ? Math.max(...ends) : Infinity;
  return Math.min(Infinity, ...ends.filter((t) => t >= 0));
}

/** A place `from + t direction` is inside where a t² + 2 b t + c ≤ 0, and lit where start + t along > 0. */
function alongLine(cone: Cone, from: Point, { x, y }: Point) {
  const cos2 = Math.cos(cone.halfAngleRad) ** 2;
  const [ax, ay] = cone.axis;
  const ray = toApex(cone, from);
  const along = x * ax + y * ay;
  const start = dot(ray, cone.axis);
  return {
    a: cos2 * (x * x + y * y) - along * along,
    b: cos2 * (ray[0] * x + ray[1] * y) - start * along,
    c: cos2 * dot(ray, ray) - start * start,
    start,
    along,
  };
}

/** Below this the square term is rounding alone. */
const STRAIGHT = 1e-15;

/** Roots of a t² + 2 b t + c, without losing digits to cancellation; one when it is straight. */
function roots(a: number, b: number, c: number, rootOfDiscriminant: number): number[] {
  if (Math.abs(a) < STRAIGHT) return b === 0 ? [] : [-c / (2 * b)];
  const q = -(b + Math.sign(b || 1) * rootOfDiscriminant);
  return q === 0 ? [0] : [q / a, c / q];
}

/** The stretch of a straight line, in steps of `direction` from a place, that lies inside the cone. */
export function slice(cone: Cone, from: Point, direction: Point): Span {
  const { a, b, c, start, along } = alongLine(cone, from, direction);
  const discriminant = b * b - a * c;
  const empty: Span = { low: Infinity, high: -Infinity };
  if (Math.abs(a) < 1e-12) {
    const edge = -c / (2 * b);
    return b > 0 ? { low: -Infinity, high: edge } : { low: edge, high: Infinity };
  }
  if (discriminant < 0) return empty;
  const [one = 0, two = one] = roots(a, b, c, Math.sqrt(discriminant));
  const [low, high] = [Math.min(one, two), Math.max(one, two)];
  if (a > 0) return start + along * ((low + high) / 2) > 0 ? { low, high } : empty;
  return along > 0 ? { low: high, high: Infinity } : { low: -Infinity, high: low };
}

/**
 * How far the frame's centre may go along a direction, in steps of it from where it is now. The
 * cone's section is convex, so the four corners are in exactly when it is one interval.
 */
export function allowedTravel(cone: Cone, frame: Frame, direction: Point): Span {
  const each = CORNERS.map((corner) => slice(cone, frameCorner(frame, corner), direction));
  return {
    low: Math.max(...each.map(({ low }) => low)),
    high: Math.min(...each.map(({ high }) => high)),
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

/** Natural falloff of a straight lens under an angle whose tangent is given, stops. */
const naturalStops = (tan: number): number => 2 * Math.log2(1 + tan * tan);

/**
 * Measured falloff under an angle from the axis: straight between what was measured, from 0 in the
 * middle; past the last it goes on as natural falloff does.
 */
function measuredAt(fall: readonly FallAt[], tan: number): number {
  let before: FallAt = { tan: 0, stops: 0 };
  for (const next of fall) {
    if (tan <= next.tan) {
      const share = next.tan > before.tan ? (tan - before.tan) / (next.tan - before.tan) : 1;
      return before.stops + share * (next.stops - before.stops);
    }
    before = next;
  }
  return before.stops + naturalStops(tan) - naturalStops(before.tan);
}

/** What was measured on a lens that stood straight, before a sensor that may lean. */
function measuredStops(fall: readonly FallAt[], ray: Vec3, beta: number): number {
  const cosBeta = beta / length(ray);
  const cosGamma = ray[2] / length(ray);
  const tan = Math.sqrt(Math.max(0, 1 / (cosBeta * cosBeta) - 1));
  return measuredAt(fall, tan) + 3 * Math.log2(cosBeta / cosGamma);
}

/**
 * Natural falloff at a place of the sensor against the middle of a straight lens's picture, stops:
 * cos β cos³ γ, seen from the exit pupil under β from the lens axis and γ from the sensor's normal;
 * cos⁴ for a straight lens. Infinity where no light comes.
 * Where the cone carries measured falloff, that, with what the lean adds.
 * Source: Ray (2002); the leaned form by summing over the stop.
 */
export function falloffStops(cone: Cone, place: Point): number {
  const ray = toApex(cone, place);
  const beta = dot(ray, cone.axis);
  if (cone.fall && beta > 0 && ray[2] > 0) return measuredStops(cone.fall, ray, beta);
  return beta > 0 && ray[2] > 0 ? -Math.log2((beta * ray[2] ** 3) / length(ray) ** 4) : Infinity;
}

/** The most that any corner of a frame loses, stops: not always the one nearest the edge. */
export const cornerFalloffStops = (cone: Cone, frame: Frame): number =>
  Math.max(...CORNERS.map((corner) => falloffStops(cone, frameCorner(frame, corner))));

/**
 * Room a filter ring leaves to a corner's light, mm of its diameter; negative where it cuts.
 * The ring stands before the entrance pupil, where the light to a corner at β behind the lens comes
 * in under atan(p tan β): at the pupils a lens magnifies p times, and angles by 1/p.
 * @param clearDiameterMm clear opening of the ring, `aheadMm` in front of the entrance pupil
 * @param angleRad β, seen from the exit pupil
 */
export function ringRoomMm(
  clearDiameterMm: number,
  aheadMm: number,
  pupilDiameterMm: number,
  angleRad: number,
  pupilRatio = 1,
): number {
  if (angleRad >= Math.PI / 2) return -Infinity;
  return clearDiameterMm - 2 * aheadMm * pupilRatio * Math.tan(angleRad) - pupilDiameterMm;
}
