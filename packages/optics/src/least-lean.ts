import { cross, dot, scale, subtract, unit, type Vec3 } from './vector.js';

/** A lens that brings two points to focus on one straight sensor. */
export interface LeastLean {
  /** Lens axis in the camera frame, a unit vector. */
  readonly axis: Vec3;
  /** From the sensor to the lens centre, mm. */
  readonly imageDistanceMm: number;
}

const ROUNDS = 60;
const CLOSE_MM = 1e-10;

/**
 * The least lean of a lens straight ahead of a sensor that puts two points on its plane of sharp
 * focus. A point p from the lens centre is sharp where v (a·p − f) = f p_z (thin lens); with
 * k = f/v and u = a − k ẑ that is u·p = f, two planes that meet in a line, on which the least of
 * u_x² + u_y² lies. The points are told from the sensor, so v is found by going round.
 * @param f focal length, mm
 * @param points from the middle of the sensor, mm, z ahead
 * @returns null where the points lie in line with the lens, or no real image is made
 */
export function leastLeanThrough(
  f: number,
  [first, second]: readonly [Vec3, Vec3],
): LeastLean | null {
  let v = f;
  for (let round = 0; round < ROUNDS; round++) {
    const found = leastAt(f, fromLens(first, v), fromLens(second, v));
    if (!found) return null;
    const moved = Math.abs(found.imageDistanceMm - v);
    v = found.imageDistanceMm;
    if (moved < CLOSE_MM * v) return found;
  }
  return null;
}

const fromLens = ([x, y, z]: Vec3, v: number): Vec3 => [x, y, z - v];

/** Less than this much of a right angle between two directions is one direction. */
const IN_LINE = 1e-9;

function leastAt(f: number, p: Vec3, q: Vec3): LeastLean | null {
  const d = cross(p, q);
  const apart = dot(d, d) / (dot(p, p) * dot(q, q));
  if (!(apart > IN_LINE ** 2)) return null;
  // The point of the line nearest to zero.
  const across = cross(d, subtract(p, q));
  const u0 = scale(across, f / dot(d, d));
  const flat = d[0] ** 2 + d[1] ** 2;
  const t = flat === 0 ? 0 : -(u0[0] * d[0] + u0[1] * d[1]) / flat;
  const u: Vec3 = [u0[0] + t * d[0], u0[1] + t * d[1], u0[2] + t * d[2]];
  const inside = 1 - u[0] ** 2 - u[1] ** 2;
  if (inside <= 0) return null;
  const along = Math.sqrt(inside);
  const k = along - u[2];
  if (!(k > 0)) return null;
  return { axis: unit([u[0], u[1], along]), imageDistanceMm: f / k };
}
