import { degrees, type Vec3 } from './vector.js';
import { sensorBasis } from './axis.js';
import type { Frame } from './coverage.js';

/**
 * The direction of the true vertical in the sensor's frame, for a camera pitched up by
 * `pitchDeg` whose back is tilted and swung on the bed.
 */
export function verticalInSensor(
  pitchDeg: number,
  rearTiltDeg: number,
  rearSwingDeg: number,
): Vec3 {
  const camera = sensorBasis(pitchDeg, 0);
  const vertical: Vec3 = [camera.right[1], camera.up[1], camera.normal[1]];
  const rear = sensorBasis(rearTiltDeg, rearSwingDeg);
  const onto = (b: Vec3): number => b[0] * vertical[0] + b[1] * vertical[1] + b[2] * vertical[2];
  return [onto(rear.right), onto(rear.up), onto(rear.normal)];
}

/**
 * Angle between the pictures of two upright lines, through the middles of the frame's left
 * and right edges, degrees; positive when they meet above.
 */
export function convergenceDeg(frame: Frame, imageDistanceMm: number, vertical: Vec3): number {
  const [ux, uy, uz] = vertical;
  const angle = (side: -1 | 1): number => {
    const x = frame.shiftMm + (side * frame.widthMm) / 2;
    // Towards the vanishing point (v ux/uz, v uy/uz), scaled by uz so that level needs no limit.
    return Math.atan2(imageDistanceMm * ux - x * uz, imageDistanceMm * uy - frame.riseMm * uz);
  };
  return degrees(angle(-1) - angle(1));
}

/**
 * Radial over tangential stretch of a small round thing pictured at a place: 1/cos β.
 * Source: Kingslake, Optics in Photography (1992).
 */
export const stretchAt = (xMm: number, yMm: number, imageDistanceMm: number): number =>
  Math.hypot(xMm, yMm, imageDistanceMm) / imageDistanceMm;

/**
 * Angle between the pictures of two level lines across the view, through the middles of the
 * frame's top and foot, degrees; positive when they meet on the right.
 * @param across direction of those lines in the sensor's frame
 */
export function levelConvergenceDeg(frame: Frame, imageDistanceMm: number, across: Vec3): number {
  const [ux, uy, uz] = across;
  const angle = (side: -1 | 1): number => {
    const y = frame.riseMm + (side * frame.heightMm) / 2;
    return Math.atan2(imageDistanceMm * uy - y * uz, imageDistanceMm * ux - frame.shiftMm * uz);
  };
  return degrees(angle(-1) - angle(1));
}
