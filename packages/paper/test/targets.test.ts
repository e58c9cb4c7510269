import { PROOF_MM } from '../src/papers.js';
import { edgeChart, flatNote, focusRuler, SLANT_DEG } from '../src/targets.js';
import type { Sheet } from '../src/sheet.js';

const SHEETS: readonly (readonly [string, (paper: 'A4' | 'Letter') => Sheet])[] = [
  ['edge chart', edgeChart],
  ['focus ruler', focusRuler],
  ['flat-field note', (paper) => flatNote(['One line.', 'Another.'], paper)],
];

describe.each(SHEETS)('the %s', (_, make) => {
  it.each(['A4', 'Letter'] as const)('lies on %s with room round it, and can be proved by a ruler', (paper) => {
    const sheet = make(paper);
    const points = [
      ...sheet.lines.flatMap(({ x1, y1, x2, y2 }) => [[x1, y1], [x2, y2]]),
      ...(sheet.shapes ?? []).flatMap((shape) => shape.points),
      ...sheet.texts.map(({ x, y }) => [x, y]),
    ]; // prettier-ignore
    for (const [x, y] of points) {
      expect(x! >= 9.99 && x! <= sheet.widthMm - 9.99).toBe(true);
      expect(y! >= 9 && y! <= sheet.heightMm - 8).toBe(true);
    }
    expect(sheet.lines.some(({ x1, y1, x2, y2 }) => y1 === y2 && Math.abs(Math.abs(x2 - x1) - PROOF_MM) < 1e-9)).toBe(true); // prettier-ignore
    // Letters are about half as wide as they are high: none runs off the paper.
    for (const { x, text, sizeMm, anchor } of sheet.texts) {
      if (anchor === 'start') expect(x + 0.5 * sizeMm * text.length).toBeLessThan(sheet.widthMm - 4);
    }
  }); // prettier-ignore
});

it('the chart’s edges all slant by the same angle, and none overlaps another', () => {
  const shapes = edgeChart().shapes!;
  expect(shapes).toHaveLength(12);
  for (const { points } of shapes) {
    const sides = points.map(([x, y], i) => {
      const [u, v] = points[(i + 1) % 4]!;
      return { length: Math.hypot(u - x, v - y), deg: (Math.atan2(v - y, u - x) * 180) / Math.PI };
    });
    for (const { length, deg } of sides) {
      expect(length).toBeCloseTo(sides[0]!.length, 9);
      expect(((((deg - SLANT_DEG + 45) % 90) + 90) % 90) - 45).toBeCloseTo(0, 6);
    }
  }
  const circles = shapes.map(({ points }) => {
    const [x, y] = [0, 1].map((k) => points.reduce((sum, point) => sum + point[k]!, 0) / 4) as [number, number]; // prettier-ignore
    return { x, y, r: Math.hypot(points[0]![0] - x, points[0]![1] - y) };
  });
  circles.forEach((a, i) => circles.slice(i + 1).forEach((b) => expect(Math.hypot(a.x - b.x, a.y - b.y)).toBeGreaterThan(a.r + b.r))); // prettier-ignore
});

it('the ruler has a mark at every millimetre', () => {
  const ticks = focusRuler().lines.filter(({ strokeMm, y1, y2, x1, x2 }) => strokeMm === 0.12 && y1 === y2 && x2 > x1); // prettier-ignore
  const places = ticks.map(({ y1 }) => y1).sort((a, b) => a - b);
  for (let i = 1; i < places.length; i++) expect(places[i]! - places[i - 1]!).toBeCloseTo(1, 9);
});
