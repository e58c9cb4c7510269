import { angleFromAxis, CORNERS, frameCorner, ringRoomMm } from '@gangway/optics';
import type { Setup } from './setup.js';

/** Whether the ring of the lens's filter, if it has one, leaves all four corners free. */
export function filterClear(s: Setup): boolean {
  const { station } = s;
  const { filter } = station.lens;
  if (!filter) return true;
  const { clear_diameter_mm: clear, ahead_of_pupil_mm: ahead } = filter;
  return CORNERS.every((corner) => {
    const angle = angleFromAxis(s.cone, frameCorner(s.frame, corner));
    return ringRoomMm(clear, ahead, s.engravedMm / s.fNumber, angle, s.pupilRatio) >= 0;
  });
}
