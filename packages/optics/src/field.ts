import { degrees } from './vector.js';
import type { Frame } from './coverage.js';

export interface Field {
  readonly leftDeg: number;
  readonly rightDeg: number;
  readonly upDeg: number;
  readonly downDeg: number;
  readonly horizontalDeg: number;
  readonly verticalDeg: number;
}

/** Angles to the frame's edges from the sensor normal, degrees; a side shifted past it is negative. */
export function fieldOfView(frame: Frame, imageDistanceMm: number): Field {
  const to = (mm: number): number => degrees(Math.atan(mm / imageDistanceMm));
  const leftDeg = to(frame.widthMm / 2 - frame.shiftMm);
  const rightDeg = to(frame.widthMm / 2 + frame.shiftMm);
  const upDeg = to(frame.heightMm / 2 + frame.riseMm);
  const downDeg = to(frame.heightMm / 2 - frame.riseMm);
  return {
    leftDeg,
    rightDeg,
    upDeg,
    downDeg,
    horizontalDeg: leftDeg + rightDeg,
    verticalDeg: upDeg + downDeg,
  };
}

/** Focal length that sees the same across the diagonal of another format. */
export const equivalentFocalLengthMm = (
  focalLengthMm: number,
  diagonalMm: number,
  otherDiagonalMm: number,
): number => (focalLengthMm * otherDiagonalMm) / diagonalMm;

/** Diagonal of the 24 × 36 mm frame. Source: ISO 1007. */
export const DIAGONAL_24X36_MM = Math.hypot(24, 36);
