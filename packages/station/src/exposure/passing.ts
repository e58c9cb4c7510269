import { crossedMm, magnificationAt } from '@gangway/optics';
import type { Exposure, Station } from '../document/station.js';
import { setup, type Setup } from '../optical/setup.js';

/** What becomes of a thing that crosses the frame; null where it is not known. */
export interface Passing {
  /** How far it runs while the shutter is open, pixels. */
  readonly smearPx: number | null;
  /** How far its last line is pictured off from its first, pixels. */
  readonly skewPx: number | null;
}

/** Magnification, on the real back, of a thing at a distance from the sensor straight ahead. */
function magnificationOf(s: Setup, distanceM: number): number {
  const ahead = distanceM * 1000 - s.imageDistanceMm;
  return ahead <= 0
    ? magnificationAt(s.focalLengthMm, s.axis[2], s.imageDistanceMm) * s.factor
    : (s.imageDistanceMm * s.factor) / ahead;
}

/**
 * Smear and skew of a thing that crosses at right angles to the view. A leaf shutter opens the
 * whole frame at once: it skews nothing.
 */
export function passingOf(
  station: Station,
  { crossing, shutter }: Exposure,
  openS: number | null,
  s: Setup = setup(station),
): Passing {
  if (!crossing || s.pixelPitchMm === null) return { smearPx: null, skewPx: null };
  const pitch = s.pixelPitchMm;
  const m = magnificationOf(s, crossing.distance_m);
  const runs = (timeS: number): number => crossedMm(crossing.speed_m_s, timeS, m) / pitch;
  const readS = shutter?.kind === 'leaf' ? 0 : shutter?.readout_s;
  return {
    smearPx: openS === null ? null : runs(openS),
    skewPx: readS === undefined ? null : runs(readS),
  };
}
