import type { Cone, Point } from './coverage.js';

/** Share of a circle's area that lies within another, their middles so far apart. */
export function shareWithin(radius: number, other: number, apart: number): number {
  if (apart <= Math.abs(other - radius)) return other >= radius ? 1 : (other / radius) ** 2;
  if (apart >= radius + other) return 0;
  const half = (r: number, s: number): number => {
    const cos = (apart ** 2 + r ** 2 - s ** 2) / (2 * apart * r);
    const angle = Math.acos(Math.max(-1, Math.min(1, cos)));
    return r * r * (angle - Math.sin(angle) * Math.cos(angle));
  };
  return (half(radius, other) + half(other, radius)) / (Math.PI * radius ** 2);
}

/**
 * Light that a throat, centred on the sensor and moving with it, keeps from a place of the sensor,
 * stops: the part of the exit pupil that is seen past its rim. Infinity where none is.
 * @param throat its radius, and how far it stands before the sensor
 * @param pupilRadiusMm of the exit pupil
 * @param middle of the sensor, in picture coordinates
 */
export function throatStops(
  cone: Cone,
  pupilRadiusMm: number,
  throat: { readonly radiusMm: number; readonly aheadMm: number },
  middle: Point,
  place: Point,
): number {
  const { axis, apexMm = 0, imageDistanceMm } = cone;
  const away = imageDistanceMm + apexMm * axis[2];
  const share = throat.aheadMm / away;
  if (share <= 0 || share >= 1) return 0;
  // Picture coordinates are upright: the pupil's middle lies at minus its own place.
  const across = place.x + share * (-apexMm * axis[0] - place.x) - middle.x;
  const up = place.y + share * (-apexMm * axis[1] - place.y) - middle.y;
  const seen = shareWithin(pupilRadiusMm * share, throat.radiusMm, Math.hypot(across, up));
  return seen > 0 ? -Math.log2(seen) + 0 : Infinity;
}
