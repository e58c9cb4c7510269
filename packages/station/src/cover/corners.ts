import {
  angleFromAxis,
  CORNERS,
  cornerMarginMm,
  degrees,
  falloffStops,
  frameCorner,
  type Corner,
} from '@gangway/optics';
import type { Station } from '../schema.js';
import { setup } from '../setup.js';

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
  const s = setup(station);
  const { filter } = station.lens;
  return CORNERS.map((corner) => {
    const angle = angleFromAxis(s.cone, frameCorner(s.frame, corner));
    const needed = filter
      ? 2 * (filter.ahead_of_pupil_mm * Math.tan(angle) + s.engravedMm / s.fNumber / 2)
      : 0;
    return {
      corner,
      marginMm: finite(cornerMarginMm(s.cone, s.frame, corner) * s.factor),
      coreMm: finite(cornerMarginMm(s.core, s.frame, corner) * s.factor),
      angleDeg: degrees(angle),
      falloffStops: finite(falloffStops(angle)),
      ringMm: filter ? finite(filter.clear_diameter_mm - needed) : null,
    };
  });
}

/** Diameter of the circle on the back at the focus set, lens straight: 2 v tan α. */
export function circleAtFocusMm(station: Station): number {
  const s = setup(station);
  return (s.factor * (s.imageDistanceMm * s.circleMm)) / s.engravedMm;
}
