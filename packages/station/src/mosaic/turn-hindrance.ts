import { magnificationAt } from '@gangway/optics';
import type { Station } from '../document/station.js';
import { setupOf, type Setup } from '../optical/setup.js';
import { MOSAIC_SAYS } from '../words/mosaic-problems.js';

/** From this magnification on a turn of the camera is close-up work; common practice, no source. */
const CLOSE = 0.1;

/** How far the back leans off the upright that a camera turns about, degrees; up is positive. */
export const offLevelDeg = ({ camera, movements }: Station): number =>
  camera.pitch_deg + (movements.rear_tilt_deg ?? 0);

/** Whether it is too close for turning to be of use. */
export const tooClose = (s: Setup): boolean =>
  magnificationAt(s.focalLengthMm, s.axis[2], s.imageDistanceMm) >= CLOSE;

/** Why turning the camera serves nothing here; null where it may. */
export const turnHindrance = (station: Station): string | null =>
  Math.abs(offLevelDeg(station)) > 0.05
    ? 'The camera is not level; turned about the upright its frames would climb.'
    : tooClose(setupOf(station))
      ? MOSAIC_SAYS.turned_close(null)
      : null;
