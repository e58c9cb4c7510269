import type { Point } from './coverage.js';
import type { Vec3 } from './vector.js';

/**
 * Where a scene point appears in the picture: through the lens centre, upright, mm on the
 * sensor. The lean of the lens does not enter; the sensor alone makes the perspective.
 * @param point from the lens centre in the camera frame, ahead of it (z > 0)
 */
export const project = (point: Vec3, imageDistanceMm: number): Point => ({
  x: (imageDistanceMm * point[0]) / point[2],
  y: (imageDistanceMm * point[1]) / point[2],
});
