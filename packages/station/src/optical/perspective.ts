import { convergenceDeg, stretchAt, verticalInSensor } from '@gangway/optics';
import type { Setup } from './setup.js';

export interface PerspectiveReport {
  convergence_deg: number;
  stretch: { left: number; right: number; top: number; bottom: number };
}

/** How verticals meet and how the picture is drawn out at its edges. */
export function reportPerspective(s: Setup): PerspectiveReport {
  const { station } = s;
  const { movements, camera } = station;
  const { frame, imageDistanceMm: v } = s;
  const vertical = verticalInSensor(
    camera.pitch_deg,
    movements.rear_tilt_deg ?? 0,
    movements.rear_swing_deg ?? 0,
  );
  const [halfWidth, halfHeight] = [frame.widthMm / 2, frame.heightMm / 2];
  return {
    convergence_deg: convergenceDeg(frame, v, vertical) + 0,
    stretch: {
      left: stretchAt(frame.shiftMm - halfWidth, frame.riseMm, v),
      right: stretchAt(frame.shiftMm + halfWidth, frame.riseMm, v),
      top: stretchAt(frame.shiftMm, frame.riseMm + halfHeight, v),
      bottom: stretchAt(frame.shiftMm, frame.riseMm - halfHeight, v),
    },
  };
}
