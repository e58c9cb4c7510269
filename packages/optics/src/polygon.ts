import type { Point } from './coverage.js';

/** An upright rectangle, in the measure of what is cut to it. */
export interface Rectangle {
  readonly left: number;
  readonly right: number;
  readonly bottom: number;
  readonly top: number;
}

/**
 * The part of a straight stretch inside an upright rectangle; null where none is.
 * Source: Liang and Barsky (1984).
 */
export function stretchWithin(
  { left, right, bottom, top }: Rectangle,
  a: Point,
  b: Point,
): [Point, Point] | null {
  const [dx, dy] = [b.x - a.x, b.y - a.y];
  let [from, to] = [0, 1];
  for (const [p, q] of [
    [-dx, a.x - left],
    [dx, right - a.x],
    [-dy, a.y - bottom],
    [dy, top - a.y],
  ] as const) {
    if (p === 0) {
      if (q < 0) return null;
      continue;
    }
    const t = q / p;
    if (p < 0) from = Math.max(from, t);
    else to = Math.min(to, t);
    if (from > to) return null;
  }
  return [
    { x: a.x + from * dx, y: a.y + from * dy },
    { x: a.x + to * dx, y: a.y + to * dy },
  ];
}

/** The part of a convex polygon inside an upright rectangle. */
export function clipToRectangle(polygon: readonly Point[], rectangle: Rectangle): Point[] {
  const { left, right, bottom, top } = rectangle;
  const sides: [number, number, number][] = [
    [1, 0, right],
    [-1, 0, -left],
    [0, 1, top],
    [0, -1, -bottom],
  ];
  return sides.reduce<Point[]>((kept, [a, b, c]) => clip(kept, a, b, c), [...polygon]);
}

/** Keeps the part of a convex polygon where a·x + b·y ≤ c. */
export function clip(polygon: readonly Point[], a: number, b: number, c: number): Point[] {
  const kept: Point[] = [];
  polygon.forEach((here, i) => {
    const next = polygon[(i + 1) % polygon.length]!;
    const inside = c - (a * here.x + b * here.y);
    const after = c - (a * next.x + b * next.y);
    if (inside >= 0) kept.push(here);
    if (inside >= 0 !== after >= 0) {
      const t = inside / (inside - after);
      kept.push({ x: here.x + t * (next.x - here.x), y: here.y + t * (next.y - here.y) });
    }
  });
  return kept;
}

/** Area of a simple polygon, whichever way round. */
export function areaOf(polygon: readonly Point[]): number {
  let twice = 0;
  polygon.forEach((p, i) => {
    const q = polygon[(i + 1) % polygon.length]!;
    twice += p.x * q.y - q.x * p.y;
  });
  return Math.abs(twice) / 2;
}

/** The part that two convex polygons share; both run anticlockwise. */
export function sharedPart(one: readonly Point[], other: readonly Point[]): Point[] {
  return other.reduce<Point[]>(
    (kept, p, i) => {
      if (kept.length === 0) return kept;
      const q = other[(i + 1) % other.length]!;
      const [a, b] = [q.y - p.y, p.x - q.x];
      return clip(kept, a, b, a * p.x + b * p.y);
    },
    [...one],
  );
}

/** Corners of a rectangle turned about its middle, anticlockwise from the bottom left. */
export function turnedRectangle(
  centre: Point,
  { widthMm, heightMm }: { readonly widthMm: number; readonly heightMm: number },
  clockwiseRad: number,
): Point[] {
  const [c, s] = [Math.cos(clockwiseRad), Math.sin(clockwiseRad)];
  return [
    [-1, -1],
    [1, -1],
    [1, 1],
    [-1, 1],
  ].map(([across, up]) => {
    const [x, y] = [(across! * widthMm) / 2, (up! * heightMm) / 2];
    return { x: centre.x + c * x + s * y, y: centre.y - s * x + c * y };
  });
}
