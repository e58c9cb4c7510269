import { toSet, type Point } from '@gangway/optics';
import type { CoverDrawing } from './drawing.js';
import type { Station } from '../document/station.js';

function nearestOnSegment(p: Point, a: Point, b: Point): Point {
  const [dx, dy] = [b.x - a.x, b.y - a.y];
  const size = dx * dx + dy * dy;
  const t = size === 0 ? 0 : Math.max(0, Math.min(1, ((p.x - a.x) * dx + (p.y - a.y) * dy) / size));
  return { x: a.x + t * dx, y: a.y + t * dy };
}

const gap = (a: Point, b: Point): number => Math.hypot(a.x - b.x, a.y - b.y);

/** The place itself when it lies in the convex polygon, else the nearest on its edge. */
export function keptWithin(polygon: readonly Point[], p: Point): Point {
  if (polygon.length < 3) return p;
  let [best, inside] = [polygon[0]!, true];
  polygon.forEach((a, i) => {
    const b = polygon[(i + 1) % polygon.length]!;
    if ((b.x - a.x) * (p.y - a.y) - (b.y - a.y) * (p.x - a.x) < 0) inside = false;
    const near = nearestOnSegment(p, a, b);
    if (gap(near, p) < gap(best, p)) best = near;
  });
  return inside ? p : best;
}

/** Kept this far from the edge, so that rounding to hundredths does not step over it, mm. */
const ROUNDING_MM = 0.01;

/**
 * Rise and shift that bring the frame's centre to a place of the drawing, kept within what
 * circle and mechanism allow; with nothing allowed, the place itself.
 */
export function withFrameAt(station: Station, drawing: CoverDrawing, place: Point): Station {
  const kept = keptWithin(drawing.envelope, place);
  const toward = (value: number): number => Math.round(value / ROUNDING_MM) * ROUNDING_MM;
  const inward = (value: number, moved: boolean): number =>
    Number((moved ? Math.trunc(value / ROUNDING_MM) * ROUNDING_MM : toward(value)).toFixed(2)) + 0;
  const moved = gap(kept, place) > 1e-9;
  const { shiftMm, riseMm } = toSet(drawing.placing, {
    x: kept.x / drawing.factor,
    y: kept.y / drawing.factor,
  });
  return {
    ...station,
    movements: {
      ...station.movements,
      shift_mm: inward(shiftMm, moved),
      rise_mm: inward(riseMm, moved),
    },
  };
}
