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

/** A corner by its number in {@link CORNERS}. */
const cornerAt = ({ widthMm, heightMm, shiftMm, riseMm }: Frame, index: number): Point => ({
  x: shiftMm + ((index & 1 ? 1 : -1) * widthMm) / 2,
  y: riseMm + ((index & 2 ? -1 : 1) * heightMm) / 2,
});

export const frameCorner = (frame: Frame, corner: Corner): Point =>
  cornerAt(frame, CORNERS.indexOf(corner));

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
export const reach = (cone: Cone, from: Point, { x, y }: Point): number =>
  reachIn(Math.cos(cone.halfAngleRad) ** 2, cone.axis, toApex(cone, from), x, y);

/**
 * {@link reach} with what does not change from line to line at hand.
 * @param cos2 of the half-angle, squared
 * @param ray from the place to the cone's point
 */
function reachIn(cos2: number, axis: Vec3, ray: Vec3, x: number, y: number): number {
  // A place `from + t direction` is inside where a t² + 2 b t + c ≤ 0, and lit where start + t along > 0.
  const along = x * axis[0] + y * axis[1];
  const start = dot(ray, axis);
  const a = cos2 * (x * x + y * y) - along * along;
  const b = cos2 * (ray[0] * x + ray[1] * y) - start * along;
  const c = cos2 * dot(ray, ray) - start * start;
  const discriminant = b * b - a * c;
  if (discriminant < 0) return Infinity;
  const q = lesserRoot(b, discriminant);
  const one = q === 0 ? 0 : q / a;
  const two = q === 0 ? 0 : c / q;
  const straight = Math.abs(a) < STRAIGHT;
  // What is straight is left once, what is neither never: NaN.
  const first = straight ? (b === 0 ? NaN : -c / (2 * b)) : one;
  const last = straight ? first : two;
  const firstLit = start + first * along > 0;
  const lastLit = start + last * along > 0;
  // An ellipse is left at its far end. A cone that does not close is left at most once ahead;
  // what lies beyond is its other half, behind the lens.
  // Between the two, along the axis of a parabola, the far end lies at infinity.
  if (a >= STRAIGHT) {
    if (firstLit) return lastLit ? Math.max(first, last) : first;
    return lastLit ? last : Infinity;
  }
  return Math.min(
    firstLit && first >= 0 ? first : Infinity,
    lastLit && last >= 0 ? last : Infinity,
  );
}

/** a times the root of a t² + 2 b t + c that loses no digits to cancellation; the other is c over it. */
const lesserRoot = (b: number, discriminant: number): number =>
  -(b + Math.sign(b || 1) * Math.sqrt(discriminant));

/** Below this the square term is rounding alone. */
const STRAIGHT = 1e-15;

/** The stretch of a straight line, in steps of `direction` from a place, that lies inside the cone. */
export const slice = (cone: Cone, from: Point, { x, y }: Point): Span =>
  sliceIn(Math.cos(cone.halfAngleRad) ** 2, cone.axis, toApex(cone, from), x, y);

const EMPTY: Span = { low: Infinity, high: -Infinity };

function sliceIn(cos2: number, axis: Vec3, ray: Vec3, x: number, y: number): Span {
  const along = x * axis[0] + y * axis[1];
  const start = dot(ray, axis);
  const a = cos2 * (x * x + y * y) - along * along;
  const b = cos2 * (ray[0] * x + ray[1] * y) - start * along;
  const c = cos2 * dot(ray, ray) - start * start;
  const discriminant = b * b - a * c;
  if (Math.abs(a) < 1e-12) {
    const edge = -c / (2 * b);
    return b > 0 ? { low: -Infinity, high: edge } : { low: edge, high: Infinity };
  }
  if (discriminant < 0) return EMPTY;
  const q = lesserRoot(b, discriminant);
  const one = q === 0 ? 0 : q / a;
  const two = q === 0 ? 0 : c / q;
  const low = Math.min(one, two);
  const high = Math.max(one, two);
  if (a > 0) return start + along * ((low + high) / 2) > 0 ? { low, high } : EMPTY;
  return along > 0 ? { low: high, high: Infinity } : { low: -Infinity, high: low };
}

/**
 * How far the frame's centre may go along a direction, in steps of it from where it is now. The
 * cone's section is convex, so the four corners are in exactly when it is one interval.
 */
export function allowedTravel(cone: Cone, frame: Frame, direction: Point): Span {
  const cos2 = Math.cos(cone.halfAngleRad) ** 2;
  const { x, y } = direction;
  let low = -Infinity;
  let high = Infinity;
  for (let i = 0; i < 4; i++) {
    const span = sliceIn(cos2, cone.axis, toApex(cone, cornerAt(frame, i)), x, y);
    low = Math.max(low, span.low);
    high = Math.min(high, span.high);
  }
  return { low, high };
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
  const cos2 = Math.cos(cone.halfAngleRad) ** 2;
  return marginFrom(cos2, cone.axis, toApex(cone, from), from, frameCorner(frame, corner));
}

/** The corner with least margin; of corners that tie, the first in reading order. */
export function worstCorner(cone: Cone, frame: Frame): CornerMargin {
  const cos2 = Math.cos(cone.halfAngleRad) ** 2;
  const from = axisPoint(cone);
  const ray = toApex(cone, from);
  let [worst, worstMm] = [0, NaN];
  for (let i = 0; i < 4; i++) {
    const marginMm = marginFrom(cos2, cone.axis, ray, from, cornerAt(frame, i));
    if (i > 0 && !(marginMm < worstMm - TIE_MM)) continue;
    worst = i;
    worstMm = marginMm;
  }
  return { corner: CORNERS[worst]!, marginMm: worstMm };
}

/** Margins this close are the same. */
const TIE_MM = 1e-9;

/** Margin of a corner, seen from where the axis meets the sensor. */
function marginFrom(cos2: number, axis: Vec3, ray: Vec3, from: Point, to: Point): number {
  const span = Math.hypot(to.x - from.x, to.y - from.y);
  if (span === 0) return reachIn(cos2, axis, ray, 1, 0);
  return reachIn(cos2, axis, ray, (to.x - from.x) / span, (to.y - from.y) / span) - span;
}

/** So much the quick length of a ray and the careful one differ at most, and room to spare: a share. */
const QUICK = 1e-13;

/** Whether a ray lies inside a cone; `beta` is its part along the axis. */
function inside(beta: number, [x, y, z]: Vec3, cos: number, slack: number): boolean {
  // The careful length costs more than all the rest; it is asked where the quick one cannot tell.
  const edge = Math.sqrt(x * x + y * y + z * z) * cos - slack;
  const off = beta - edge;
  return Math.abs(off) > QUICK * (Math.abs(beta) + Math.abs(edge))
    ? off > 0
    : beta >= Math.hypot(x, y, z) * cos - slack;
}

/** Whether all of a frame lies inside the cone. */
export function frameCovered(cone: Cone, frame: Frame): boolean {
  const cos = Math.cos(cone.halfAngleRad);
  const slack = EDGE * cone.imageDistanceMm;
  for (let i = 0; i < 4; i++) {
    const ray = toApex(cone, cornerAt(frame, i));
    if (!inside(dot(ray, cone.axis), ray, cos, slack)) return false;
  }
  return true;
}

/**
 * Whether a frame lies in the circle, and in the core too: {@link frameCovered} of both at once.
 * @param coreRad half-angle of the core
 */
export function frameIn(
  cone: Cone,
  coreRad: number,
  frame: Frame,
): 'outside' | 'covered' | 'sharp' {
  const cos = Math.cos(cone.halfAngleRad);
  const coreCos = Math.cos(coreRad);
  const slack = EDGE * cone.imageDistanceMm;
  let sharp = true;
  for (let i = 0; i < 4; i++) {
    const ray = toApex(cone, cornerAt(frame, i));
    const beta = dot(ray, cone.axis);
    if (!inside(beta, ray, cos, slack)) return 'outside';
    sharp &&= inside(beta, ray, coreCos, slack);
  }
  return sharp ? 'sharp' : 'covered';
}

/** How a frame lies in the circle and in its sharp core. */
export interface FrameLight {
  readonly covered: boolean;
  readonly sharp: boolean;
  /** The corners with least margin to the circle and to the core. */
  readonly worst: CornerMargin;
  readonly softest: CornerMargin;
  /** Of the darkest corner, stops; not always the one nearest the edge. */
  readonly falloffStops: number;
}

/**
 * All that one looks at the four corners for, in one pass: {@link frameCovered}, {@link worstCorner} and
 * {@link cornerFalloffStops} give the same one by one.
 * @param core the same cone, narrower
 */
export function frameLight(cone: Cone, core: Cone, frame: Frame): FrameLight {
  const { axis } = cone;
  const [cos, coreCos] = [Math.cos(cone.halfAngleRad), Math.cos(core.halfAngleRad)];
  const slack = EDGE * cone.imageDistanceMm;
  const from = axisPoint(cone);
  const middle = toApex(cone, from);
  const [cos2, coreCos2] = [cos ** 2, coreCos ** 2];
  let [covered, sharp, falloff] = [true, true, -Infinity];
  let [worst, worstMm, softest, softestMm] = [0, NaN, 0, NaN];
  for (let i = 0; i < 4; i++) {
    const place = cornerAt(frame, i);
    const ray = toApex(cone, place);
    const beta = dot(ray, axis);
    covered &&= inside(beta, ray, cos, slack);
    sharp &&= inside(beta, ray, coreCos, slack);
    falloff = Math.max(falloff, falloffOf(cone, ray));
    const across = place.x - from.x;
    const up = place.y - from.y;
    const span = Math.hypot(across, up);
    const x = span === 0 ? 1 : across / span;
    const y = span === 0 ? 0 : up / span;
    const marginMm = reachIn(cos2, axis, middle, x, y) - span;
    if (i === 0 || marginMm < worstMm - TIE_MM) {
      worst = i;
      worstMm = marginMm;
    }
    const softMm = reachIn(coreCos2, axis, middle, x, y) - span;
    if (i === 0 || softMm < softestMm - TIE_MM) {
      softest = i;
      softestMm = softMm;
    }
  }
  return {
    covered,
    sharp,
    worst: { corner: CORNERS[worst]!, marginMm: worstMm },
    softest: { corner: CORNERS[softest]!, marginMm: softestMm },
    falloffStops: falloff,
  };
}

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
export const falloffStops = (cone: Cone, place: Point): number =>
  falloffOf(cone, toApex(cone, place));

function falloffOf(cone: Cone, ray: Vec3): number {
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
