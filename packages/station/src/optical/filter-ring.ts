import {
  angleFromAxis,
  CORNERS,
  frameCorner,
  ringRoomMm,
  type Cone,
  type Frame,
} from '@gangway/optics';
import type { Setup } from './setup.js';

/**
 * Whether the ring of the lens's filter, if it has one, leaves all four corners free.
 * @param pupilMm width of the stop
 */
export function ringClear(
  { facts: { lens }, pupilRatio }: Pick<Setup, 'facts' | 'pupilRatio'>,
  cone: Cone,
  frame: Frame,
  pupilMm: number,
): boolean {
  const { filter } = lens;
  if (!filter) return true;
  const { clear_diameter_mm: clear, ahead_of_pupil_mm: ahead } = filter;
  return CORNERS.every((corner) => {
    const angle = angleFromAxis(cone, frameCorner(frame, corner));
    return ringRoomMm(clear, ahead, pupilMm, angle, pupilRatio) >= 0;
  });
}

export const filterClear = (s: Setup): boolean =>
  ringClear(s, s.cone, s.frame, s.engravedMm / s.fNumber);
