import { distanceAt, type Solved } from '@gangway/optics';
import type { Focus, Station } from '../document/station.js';
import type { Setup } from '../optical/setup.js';

/** Past this magnification a distance no longer says plainly where the lens stands. */
const BY_MAGNIFICATION = 0.9;

/** The focus of a station, said as the station says it wherever that is possible. */
export function focusAt(
  station: Station,
  s: Pick<Setup, 'focalLengthMm' | 'ahead'>,
  solved: Pick<Solved, 'axis' | 'imageDistanceMm' | 'bedMm'>,
): Focus {
  const { axis, imageDistanceMm: v } = solved;
  const onBed: Focus = { image_distance_mm: solved.bedMm };
  if (station.focus.image_distance_mm !== undefined) return onBed;
  const m = ((v * axis[2]) / s.focalLengthMm - 1) / s.ahead;
  if (m < -1e-12) return onBed;
  if (station.focus.magnification !== undefined && m > 0) return { magnification: m };
  if (m > BY_MAGNIFICATION) return { magnification: m };
  const bareMm = s.focalLengthMm / s.ahead;
  const distanceMm = distanceAt(bareMm, axis[2], (bareMm * (1 + m)) / axis[2]);
  return {
    distance_m: Number.isFinite(distanceMm) && distanceMm < 1e10 ? distanceMm / 1000 : null,
  };
}

/** Plus zero, so that no minus zero is kept. */
const plain = (value: number): number => value + 0;

/** The station set as solved; its stop stays. */
export function appliedTo(
  station: Station,
  s: Pick<Setup, 'focalLengthMm' | 'ahead'>,
  solved: Solved,
): Station {
  const { movements } = station;
  const rear = solved.rear.tiltDeg !== 0 || solved.rear.swingDeg !== 0;
  const hadRear = movements.rear_tilt_deg !== undefined || movements.rear_swing_deg !== undefined;
  return {
    ...station,
    movements: {
      ...movements,
      tilt_deg: plain(solved.lens.tiltDeg),
      swing_deg: plain(solved.lens.swingDeg),
      ...(rear || hadRear
        ? {
            rear_tilt_deg: plain(solved.rear.tiltDeg),
            rear_swing_deg: plain(solved.rear.swingDeg),
          }
        : {}),
    },
    focus: focusAt(station, s, solved),
  };
}
