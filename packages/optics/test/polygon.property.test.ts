import fc from 'fast-check';
import { runs, seen } from '../../../scripts/lib/runs.mjs';
import { clipToRectangle, stretchWithin, type Point } from '../src/index.js';

const number = fc.double({ min: -50, max: 50, noNaN: true });
const point = fc.record({ x: number, y: number });
const rectangle = fc
  .tuple(number, number, number, number)
  .map(([a, b, c, d]) => ({
    left: Math.min(a, b),
    right: Math.max(a, b),
    bottom: Math.min(c, d),
    top: Math.max(c, d),
  }))
  .filter(({ left, right, bottom, top }) => right - left > 0.1 && top - bottom > 0.1);

const HAIR = 1e-9;

describe('what of a stretch lies in a rectangle', () => {
  it('lies on the stretch and in the rectangle, and all of the rest lies outside', () => {
    let [some, none] = [0, 0];
    fc.assert(
      fc.property(rectangle, point, point, (room, a, b) => {
        const inside = ({ x, y }: Point): boolean =>
          x > room.left && x < room.right && y > room.bottom && y < room.top;
        const at = (t: number): Point => ({ x: a.x + t * (b.x - a.x), y: a.y + t * (b.y - a.y) });
        const shareOf = (p: Point): number =>
          Math.hypot(p.x - a.x, p.y - a.y) / Math.hypot(b.x - a.x, b.y - a.y);
        const kept = stretchWithin(room, a, b);
        const steps = Array.from({ length: 101 }, (_, i) => i / 100);
        if (!kept) {
          none++;
          expect(steps.map(at).some(inside)).toBe(false);
          return;
        }
        some++;
        fc.pre(Math.hypot(b.x - a.x, b.y - a.y) > 1e-3);
        const [from, to] = kept.map(shareOf) as [number, number];
        for (const [p, t] of [
          [kept[0], from],
          [kept[1], to],
        ] as const) {
          expect(Math.hypot(at(t).x - p.x, at(t).y - p.y)).toBeLessThan(1e-6);
          expect(p.x).toBeGreaterThan(room.left - HAIR);
          expect(p.x).toBeLessThan(room.right + HAIR);
          expect(p.y).toBeGreaterThan(room.bottom - HAIR);
          expect(p.y).toBeLessThan(room.top + HAIR);
        }
        for (const t of steps) {
          if (t < from - HAIR || t > to + HAIR) expect(inside(at(t))).toBe(false);
        }
      }),
      { numRuns: runs(1000) },
    );
    expect(Math.min(some, none)).toBeGreaterThan(seen(100));
  });

  it('is what a surface of no width is cut to', () => {
    const room = { left: 0, right: 4, bottom: 0, top: 3 };
    const [a, b] = [
      { x: -2, y: 1 },
      { x: 10, y: 1 },
    ];
    const cut = clipToRectangle([a, b], room).map(({ x }) => x);
    expect(stretchWithin(room, a, b)!.map(({ x }) => x)).toEqual([
      Math.min(...cut),
      Math.max(...cut),
    ]);
    expect(stretchWithin(room, { x: -1, y: 5 }, { x: 9, y: 5 })).toBeNull();
  });
});
