import type { Point } from './coverage.js';
import type { Vec3 } from './vector.js';

/**
 * The picture of a small ball seen in a direction: a cone about the direction, cut by the sensor.
 * Radial over tangential is 1/cos β for a vanishing radius. Source: Kingslake (1992).
 * @param angularRadiusRad half the angle it fills
 * @returns picture points round its edge; empty when part of it lies beside the lens
 */
export function ballOutline(
  direction: Vec3,
  angularRadiusRad: number,
  imageDistanceMm: number,
  sides = 36,
): Point[] {
  const size = Math.hypot(...direction);
  const [dx, dy, dz] = [direction[0] / size, direction[1] / size, direction[2] / size];
  // Two directions across the line of sight; any pair square to it serves.
  const flat = Math.hypot(dx, dz) || 1;
  const [rx, rz] = [dz / flat, -dx / flat];
  const [ux, uy, uz] = [-rz * dy, rz * dx - rx * dz, rx * dy];
  const [cos, sin] = [Math.cos(angularRadiusRad), Math.sin(angularRadiusRad)];
  const points: Point[] = [];
  for (let i = 0; i < sides; i++) {
    const turn = (2 * Math.PI * i) / sides;
    const [a, b] = [sin * Math.cos(turn), sin * Math.sin(turn)];
    const z = cos * dz + a * rz + b * uz;
    if (z <= 1e-6) return [];
    points.push({
      x: (imageDistanceMm * (cos * dx + a * rx + b * ux)) / z,
      y: (imageDistanceMm * (cos * dy + b * uy)) / z,
    });
  }
  return points;
}
