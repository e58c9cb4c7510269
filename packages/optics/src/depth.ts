import { acrossTo } from './axis.js';
import type { Vec3 } from './vector.js';

/**
 * Where the light to the sensor comes from: an exit pupil of diameter p f/N about a point
 * (p − 1) f before the lens centre along its axis.
 */
export interface Pupil {
  readonly focalLengthMm: number;
  /** Exit over entrance pupil. */
  readonly ratio: number;
  /** Part of the lens axis along the sensor normal. */
  readonly axisZ: number;
}

/** How far the exit pupil stands before the lens centre, along the sensor normal. */
export const pupilAheadMm = ({ focalLengthMm, ratio, axisZ }: Pupil): number =>
  (ratio - 1) * focalLengthMm * axisZ;

/**
 * The blur of a point at f/1, signed, mm: (p f)(v/q − 1)/(1 + k/q), k the pupil's place. Below zero
 * where the point comes to focus behind the sensor, or nearer than f not at all: then 1/q < 0 and the
 * patch is as large all the same.
 * @param inverseDepth 1/q; 0 for a point that comes to focus at infinity
 */
export function missAtUnitStopMm(
  pupil: Pupil,
  imageDistanceMm: number,
  inverseDepth: number,
): number {
  const spread = 1 + pupilAheadMm(pupil) * inverseDepth;
  const size = pupil.ratio * pupil.focalLengthMm;
  return (size * (imageDistanceMm * inverseDepth - 1)) / spread;
}

/** Diameter of the patch a point makes on a sensor at v, mm. */
export const blurDiameterMm = (
  pupil: Pupil,
  fNumber: number,
  imageDistanceMm: number,
  inverseDepth: number,
): number => Math.abs(missAtUnitStopMm(pupil, imageDistanceMm, inverseDepth)) / fNumber;

/** The f-number at which a point blurs to the circle of confusion. */
export const fNumberNeeded = (
  pupil: Pupil,
  imageDistanceMm: number,
  inverseDepth: number,
  cocMm: number,
): number => blurDiameterMm(pupil, 1, imageDistanceMm, inverseDepth) / cocMm;

/**
 * 1/q of the points that blur to the circle of confusion, nearer and farther than the plane:
 * q = (p v ± N c (1 − p) a_z) / (p ± N c/f), upper signs for the far one. Below zero: nearer than f.
 */
export function inverseLimits(
  pupil: Pupil,
  imageDistanceMm: number,
  fNumber: number,
  cocMm: number,
): { near: number; far: number } {
  const { ratio, focalLengthMm, axisZ } = pupil;
  const blur = fNumber * cocMm;
  const at = (sign: 1 | -1): number =>
    (ratio + (sign * blur) / focalLengthMm) /
    (ratio * imageDistanceMm + sign * blur * (1 - ratio) * axisZ);
  return { near: at(-1), far: at(1) };
}

/** Travel of the sensor that makes a point at it blur by as much at f/1: (v + k)/(p f); 1 + m/p straight. */
export const travelPerBlur = (pupil: Pupil, imageDistanceMm: number): number =>
  (imageDistanceMm + pupilAheadMm(pupil)) / (pupil.ratio * pupil.focalLengthMm);

/**
 * How much longer than its width the patch of a place far off the axis is, seen from a leaned stop:
 * the disc of the pupil, seen from the sensor, is drawn out along one direction. A share: 0.1 is ten
 * per cent; 0 in front of a straight lens.
 * @param place in picture coordinates
 */
export function patchStretch(
  axis: Vec3,
  imageDistanceMm: number,
  { x, y }: { readonly x: number; readonly y: number },
): number {
  // A point c + r u of the pupil's disc lands where its ray meets the sensor; for small blur that is
  // u less its part along the normal, times the ray's slope.
  const v = imageDistanceMm;
  const [e, g] = acrossTo(axis);
  const image = (u: Vec3): readonly [number, number] => [
    u[0] - (x / v) * u[2],
    u[1] - (y / v) * u[2],
  ];
  const [a, b] = [image(e), image(g)];
  const sum = a[0] ** 2 + a[1] ** 2 + b[0] ** 2 + b[1] ** 2;
  const area = a[0] * b[1] - a[1] * b[0];
  const longest = Math.sqrt((sum + Math.sqrt(Math.max(0, sum ** 2 - 4 * area ** 2))) / 2);
  return longest - 1;
}

/**
 * Hyperfocal distance f²/(N c) + f, mm.
 * Source: Ray, Applied Photographic Optics, 3rd ed. (2002).
 */
export const hyperfocalMm = (focalLengthMm: number, fNumber: number, cocMm: number): number =>
  focalLengthMm ** 2 / (fNumber * cocMm) + focalLengthMm;

export interface DepthOfField {
  /** From the sensor plane, straight ahead, mm. */
  readonly nearMm: number;
  /** Infinity at or past infinity. */
  readonly farMm: number;
}

/**
 * Limits of sharpness along the sensor normal through the lens centre. Exact for a tilted lens too,
 * straight ahead.
 */
export function depthOfField(
  pupil: Pupil,
  imageDistanceMm: number,
  fNumber: number,
  cocMm: number,
): DepthOfField {
  const { focalLengthMm, axisZ } = pupil;
  const limits = inverseLimits(pupil, imageDistanceMm, fNumber, cocMm);
  // z = q f / (q a_z − f), divided through by q so that q → ∞ stays finite.
  const objectDistance = (inverseDepth: number): number => {
    const reach = axisZ - focalLengthMm * inverseDepth;
    return reach <= 4e-15 ? Infinity : focalLengthMm / reach;
  };
  return {
    nearMm: objectDistance(limits.near) + imageDistanceMm,
    farMm: objectDistance(limits.far) + imageDistanceMm,
  };
}
