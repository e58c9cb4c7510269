import { crossedMm, magnificationAt } from '@gangway/optics';
import type { Exposure } from '../document/station.js';
import type { Setup } from '../optical/setup.js';

/** What becomes of a thing that crosses the frame; null where it is not known. */
export interface Passing {
  /** How far it runs while the shutter is open, pixels. */
  readonly smearPx: number | null;
  /** How far its last line is pictured off from its first, pixels. */
  readonly skewPx: number | null;
}

/** Magnification, on the real back, straight ahead where the lens is focused; not below nothing. */
const inFocus = (s: Setup): number =>
  Math.max(0, magnificationAt(s.focalLengthMm, s.axis[2], s.imageDistanceMm)) * s.factor;

/** Magnification, on the real back, of a thing at a distance from the sensor straight ahead. */
function magnificationOf(s: Setup, distanceM: number): number {
  const ahead = distanceM * 1000 - s.imageDistanceMm;
  return ahead <= 0 ? inFocus(s) : (s.imageDistanceMm * s.factor) / ahead;
}

/** Nobody said how far off it crosses: where the lens is focused; null at infinity, where it may be anywhere. */
export function crossesInFocus(s: Setup): number | null {
  const m = inFocus(s);
  return m > LEAST_M ? m : null;
}

/** Pictured smaller than this the lens is as good as at infinity. */
const LEAST_M = 1e-5;

/**
 * Smear and skew of a thing that crosses at right angles to the view. A leaf shutter opens the
 * whole frame at once: it skews nothing.
 */
export function passingOf(
  s: Setup,
  { crossing, shutter }: Exposure,
  openS: number | null,
): Passing {
  if (!crossing || s.pixelPitchMm === null) return { smearPx: null, skewPx: null };
  const pitch = s.pixelPitchMm;
  const m =
    crossing.distance_m === undefined ? crossesInFocus(s) : magnificationOf(s, crossing.distance_m);
  if (m === null) return { smearPx: null, skewPx: null };
  const runs = (timeS: number): number => crossedMm(crossing.speed_m_s, timeS, m) / pitch;
  const readS = shutter?.kind === 'leaf' ? 0 : shutter?.readout_s;
  return {
    smearPx: openS === null ? null : runs(openS),
    skewPx: readS === undefined ? null : runs(readS),
  };
}
