/**
 * Image distance v: from the lens centre to the sensor plane, mm, across the sensor.
 * `axisZ` is the part of the lens axis along the sensor normal (1 when untilted).
 */

/** The least distance from the sensor plane that any setting up to life size can be focused on. */
export const nearestDistanceMm = (focalLengthMm: number, axisZ: number): number =>
  (4 * focalLengthMm) / axisZ;

/** As near to the nearest distance counts as at it, in parts of it. */
const NEAREST_SLACK = 1e-8;

/**
 * From the distance between the sensor plane and the plane of sharp focus, straight ahead
 * through the lens centre: v² − D v + D f/a_z = 0, lesser root (at most life size).
 * @param distanceMm `Infinity` is allowed
 * @returns NaN when the distance is nearer than the lens can hold
 */
export function imageDistanceFromDistance(
  focalLengthMm: number,
  axisZ: number,
  distanceMm: number,
): number {
  const atInfinity = focalLengthMm / axisZ;
  const under = 1 - (4 * atInfinity) / distanceMm;
  // At the nearest distance itself rounding may fall a hair below nought.
  const held = under < 0 && under > -NEAREST_SLACK ? 0 : under;
  // The textbook root subtracts two nearly equal numbers at far distances; this form does not.
  return (2 * atInfinity) / (1 + Math.sqrt(held));
}

/** From magnification straight ahead: v = f (1 + m) / a_z. */
export const imageDistanceFromMagnification = (
  focalLengthMm: number,
  axisZ: number,
  magnification: number,
): number => (focalLengthMm * (1 + magnification)) / axisZ;

/** Magnification straight ahead at an image distance: m = v a_z / f − 1. */
export const magnificationAt = (
  focalLengthMm: number,
  axisZ: number,
  imageDistanceMm: number,
): number => (imageDistanceMm * axisZ) / focalLengthMm - 1;

/** Distance from the sensor plane to the plane of sharp focus, straight ahead; Infinity when at or past it. */
export function distanceAt(focalLengthMm: number, axisZ: number, imageDistanceMm: number): number {
  const reach = imageDistanceMm * axisZ - focalLengthMm;
  // A few units in the last place either side of f/a_z are infinity, not some light years.
  if (reach <= focalLengthMm * 4e-15) return Infinity;
  return imageDistanceMm + (imageDistanceMm * focalLengthMm) / reach;
}
