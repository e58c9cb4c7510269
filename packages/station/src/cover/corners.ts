import {
  angleFromAxis,
  CORNERS,
  cornerMarginMm,
  degrees,
  falloffStops,
  frameCorner,
  ringRoomMm,
  type Corner,
} from '@gangway/optics';
import type { Station } from '../document/station.js';
import { setupOf, type Setup } from '../optical/setup.js';

/** One corner of the picture: how far it is from the edges, and how much light it gets. */
export interface CornerFigures {
  readonly corner: Corner;
  /** To the circle and to the sharp core, mm on the back; null where there is no end. */
  readonly marginMm: number | null;
  readonly coreMm: number | null;
  readonly angleDeg: number;
  /** Null where no light comes. */
  readonly falloffStops: number | null;
  /** Room left inside the filter ring, mm of its diameter; null without one. */
  readonly ringMm: number | null;
}

const finite = (value: number): number | null => (Number.isFinite(value) ? value : null);

export function cornerFigures(station: Station): CornerFigures[] {
  const s = setupOf(station);
  const { filter } = station.lens;
  return CORNERS.map((corner) => {
    const place = frameCorner(s.frame, corner);
    const angle = angleFromAxis(s.cone, place);
    return {
      corner,
      marginMm: finite(cornerMarginMm(s.cone, s.frame, corner) * s.factor),
      coreMm: finite(cornerMarginMm(s.core, s.frame, corner) * s.factor),
      angleDeg: degrees(angle),
      falloffStops: finite(falloffStops(s.cone, place)),
      ringMm: filter
        ? finite(
            ringRoomMm(
              filter.clear_diameter_mm,
              filter.ahead_of_pupil_mm,
              s.engravedMm / s.fNumber,
              angle,
              s.pupilRatio,
            ),
          )
        : null,
    };
  });
}

/** Diameter of the circle on the back at a focus, lens straight: 2 (v + (p − 1) f) tan α. */
export const circleOnBackMm = ({ cone, factor }: Setup): number =>
  2 * factor * (cone.imageDistanceMm + (cone.apexMm ?? 0)) * Math.tan(cone.halfAngleRad);

/** The same at the focus set. */
export const circleAtFocusMm = (station: Station): number => circleOnBackMm(setupOf(station));
