import type { Point } from './coverage.js';

/** The part of a convex polygon inside an upright rectangle. */
export function clipToRectangle(
  polygon: readonly Point[],
  rectangle: {
    readonly left: number;
    readonly right: number;
    readonly bottom: number;
    readonly top: number;
  },
): Point[] {
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
