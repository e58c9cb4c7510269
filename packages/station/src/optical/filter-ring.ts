import { angleFromAxis, CORNERS, frameCorner, ringRoomMm } from '@gangway/optics';
import type { Station } from '../document/station.js';
import type { Setup } from './setup.js';

/** Whether the ring of the lens's filter, if it has one, leaves all four corners free. */
export function filterClear(station: Station, s: Setup): boolean {
  const { filter } = station.lens;
  if (!filter) return true;
  const { clear_diameter_mm: clear, ahead_of_pupil_mm: ahead } = filter;
  return CORNERS.every((corner) => {
    const angle = angleFromAxis(s.cone, frameCorner(s.frame, corner));
    return ringRoomMm(clear, ahead, s.engravedMm / s.fNumber, angle, s.pupilRatio) >= 0;
  });
}
