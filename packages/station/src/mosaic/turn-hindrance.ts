import { magnificationAt } from '@gangway/optics';
import type { Station } from '../document/station.js';
import { setup, type Setup } from '../optical/setup.js';

/** From this magnification on a turn of the camera is close-up work; common practice, no source. */
const CLOSE = 0.1;

/** How far the back leans off the upright that a camera turns about, degrees; up is positive. */
export const offLevelDeg = ({ camera, movements }: Station): number =>
  camera.pitch_deg + (movements.rear_tilt_deg ?? 0);

/** Why turning too close is no use; null where it is far enough. */
export function tooClose(s: Setup): string | null {
  const magnification = magnificationAt(s.focalLengthMm, s.axis[2], s.imageDistanceMm);
  return magnification < CLOSE
    ? null
    : 'So close, the plane of focus turns away with the camera and a flat thing is sharp in one frame only; shift the back or the lens instead.';
}

/** Why turning the camera serves nothing here; null where it may. */
export const turnHindrance = (station: Station, s: Setup = setup(station)): string | null =>
  Math.abs(offLevelDeg(station)) > 0.05
    ? 'The camera is not level; turned about the upright its frames would climb.'
    : tooClose(s);
