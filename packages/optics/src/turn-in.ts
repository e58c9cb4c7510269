import { degrees, radians } from './vector.js';
import { stretchAt } from './perspective.js';

/** Which part of the picture stays where it was while the camera turns. */
export type Keep = 'left' | 'right' | 'center';

export interface TurnedIn {
  /** Shift of the frame's centre afterwards, right positive, mm as it acts. */
  readonly shiftMm: number;
  /** Field given up at the edge turned away from, degrees; negative where some is gained. */
  readonly farEdgeLostDeg: number;
  /** Radial over tangential at the middle of the kept edge's side and of the other. */
  readonly before: { readonly near: number; readonly far: number };
  readonly after: { readonly near: number; readonly far: number };
}

/** The side that counts as near: the kept edge, or with the centre kept the one turned towards. */
export const nearSide = (keep: Keep, yawDeg: number): -1 | 1 =>
  keep === 'left' ? -1 : keep === 'right' ? 1 : yawDeg < 0 ? -1 : 1;

/**
 * Turn in, shift back: the camera yaws by ψ (right positive) and the frame shifts so that the
 * kept edge, or the centre, still shows what it showed. A direction β right of the sensor normal
 * lies at β − ψ afterwards. Far things only: the lens centre's own travel is left out.
 * @returns null when what is to be kept would lie 90° or more off the turned normal
 */
export function turnIn(
  frame: { readonly widthMm: number; readonly shiftMm: number; readonly riseMm: number },
  imageDistanceMm: number,
  yawDeg: number,
  keep: Keep,
): TurnedIn | null {
  const v = imageDistanceMm;
  const half = frame.widthMm / 2;
  const side = nearSide(keep, yawDeg);
  const kept = keep === 'center' ? frame.shiftMm : frame.shiftMm + side * half;
  const turned = Math.atan(kept / v) - radians(yawDeg);
  if (Math.abs(turned) >= Math.PI / 2 - 1e-6) return null;
  const shiftMm = v * Math.tan(turned) - (kept - frame.shiftMm);
  const farBefore = Math.atan((frame.shiftMm - side * half) / v);
  const farAfter = Math.atan((shiftMm - side * half) / v) + radians(yawDeg);
  const stretch = (centre: number) => ({
    near: stretchAt(centre + side * half, frame.riseMm, v),
    far: stretchAt(centre - side * half, frame.riseMm, v),
  });
  return {
    shiftMm,
    farEdgeLostDeg: degrees(side * (farAfter - farBefore)),
    before: stretch(frame.shiftMm),
    after: stretch(shiftMm),
  };
}
