import { dot, length, scale, SENSOR_NORMAL, subtract, unit, type Vec3 } from './vector.js';

export interface FocusPlane {
  /** Unit, camera frame, pointing away from the lens centre. */
  readonly normal: Vec3;
  /** mm from the lens centre; Infinity when the plane is at infinity. */
  readonly distanceMm: number;
}

/**
 * Distance from the lens centre to the hinge line about which focusing swings the plane of
 * sharp focus: f over the sine of the lean. Infinity when the lens stands straight.
 * Source: Merklinger, Focusing the View Camera (1993).
 */
export function hingeDistanceMm(focalLengthMm: number, axis: Vec3): number {
  return focalLengthMm / Math.hypot(axis[0], axis[1]);
}

/**
 * The plane of sharp focus: every P with P·(v a − f n) = v f, P from the lens centre.
 * Source: thin-lens conjugates through the lens plane; Wheeler, Notes on View Camera Geometry (2003).
 */
export function planeOfSharpFocus(
  focalLengthMm: number,
  axis: Vec3,
  imageDistanceMm: number,
): FocusPlane {
  const across = subtract(scale(axis, imageDistanceMm), scale(SENSOR_NORMAL, focalLengthMm));
  const size = length(across);
  if (size <= focalLengthMm * 4e-15) return { normal: SENSOR_NORMAL, distanceMm: Infinity };
  return { normal: unit(across), distanceMm: (imageDistanceMm * focalLengthMm) / size };
}

/**
 * Depth behind the lens, across the sensor, at which a point comes to focus:
 * q = f (P·n)/(P·a − f). Infinity or negative when it cannot.
 */
export function imageDepthMm(focalLengthMm: number, axis: Vec3, point: Vec3): number {
  return (focalLengthMm * dot(point, SENSOR_NORMAL)) / (dot(point, axis) - focalLengthMm);
}

/** 1/q: finite where the depth is not, below zero for a point nearer than f. NaN beside the lens. */
export const inverseDepth = (focalLengthMm: number, axis: Vec3, point: Vec3): number =>
  (dot(point, axis) - focalLengthMm) / (focalLengthMm * dot(point, SENSOR_NORMAL));
