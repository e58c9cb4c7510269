import { cross, dot, length, scale, SENSOR_NORMAL, subtract, type Vec3 } from './vector.js';

/** A plane by its unit normal and distance from the lens centre: m·P = k, k ≥ 0. */
export interface ScenePlane {
  readonly normal: Vec3;
  readonly distanceMm: number;
}

/**
 * The plane through three places, mm from the lens centre.
 * @returns null when they lie in one line, or all at one place
 */
export function planeThrough(a: Vec3, b: Vec3, c: Vec3): ScenePlane | null {
  const across = cross(subtract(b, a), subtract(c, a));
  const size = length(across);
  const reach = Math.max(length(subtract(b, a)), length(subtract(c, a)), length(subtract(c, b)));
  if (size <= 1e-9 * reach * reach) return null;
  const normal = scale(across, 1 / size);
  const distanceMm = dot(normal, a);
  return distanceMm < 0
    ? { normal: scale(normal, -1), distanceMm: -distanceMm }
    : { normal, distanceMm };
}

export interface PlaneSetting {
  readonly axis: Vec3;
  readonly imageDistanceMm: number;
}

/**
 * How a lens has to lean, and where the sensor has to stand, for a plane to be sharp: exact.
 * With g = f/k and c the part of the plane's normal along the sensor's, a = x n + g m where
 * x = −g c + √(g² c² + 1 − g²), and v = f/x.
 * Source: thin-lens conjugates; Wheeler, Notes on View Camera Geometry (2003).
 * @returns null when the hinge line would have to lie nearer than the focal length
 */
export function settingForPlane(
  focalLengthMm: number,
  { normal, distanceMm }: ScenePlane,
): PlaneSetting | null {
  const g = focalLengthMm / distanceMm;
  const c = dot(normal, SENSOR_NORMAL);
  const root = g * g * c * c + 1 - g * g;
  if (!(root >= 0)) return null;
  const x = -g * c + Math.sqrt(root);
  if (!(x > 0)) return null;
  return {
    axis: [g * normal[0], g * normal[1], x + g * normal[2]],
    imageDistanceMm: focalLengthMm / x,
  };
}
