import fc from 'fast-check';
import { leastLeanThrough, type Vec3 } from '../src/index.js';
import { runs } from '../../../scripts/lib/runs.mjs';

const dot = (a: Vec3, b: Vec3): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];

/** Where a thin lens images a point, ahead of the sensor's side: p f/(a·p − f), told from the lens. */
const imageDepth = (f: number, axis: Vec3, p: Vec3): number => (p[2] * f) / (dot(axis, p) - f);

const place = fc.tuple(
  fc.double({ min: -800, max: 800, noNaN: true }),
  fc.double({ min: -800, max: 800, noNaN: true }),
  fc.double({ min: 600, max: 6000, noNaN: true }),
);

describe('least lean through two points', () => {
  it('both come to focus on the sensor, by the thin lens worked the other way', () => {
    fc.assert(
      fc.property(fc.double({ min: 30, max: 120, noNaN: true }), place, place, (f, a, b) => {
        const found = leastLeanThrough(f, [a, b]);
        fc.pre(found !== null);
        const { axis, imageDistanceMm: v } = found;
        for (const [x, y, z] of [a, b]) {
          const depth = imageDepth(f, axis, [x, y, z - v]);
          expect(Math.abs(depth / v - 1)).toBeLessThan(1e-7);
        }
        expect(dot(axis, axis)).toBeCloseTo(1, 12);
      }),
      { numRuns: runs(2000) },
    );
  });

  it('no lean is less: turned a little about the line of answers it leans more', () => {
    // Worked by search: over image distances, the lean that two points ask for.
    const [f, a, b]: [number, Vec3, Vec3] = [50, [-100, 20, 900], [220, -40, 1800]];
    const found = leastLeanThrough(f, [a, b])!;
    const lean = (v: number): number => {
      // v (a·p − f) = f p_z for both, and a a unit vector: two unknowns, by Newton.
      const [p, q]: [Vec3, Vec3] = [
        [a[0], a[1], a[2] - v],
        [b[0], b[1], b[2] - v],
      ];
      let [x, y] = [found.axis[0], found.axis[1]];
      for (let i = 0; i < 50; i++) {
        const z = Math.sqrt(1 - x * x - y * y);
        const r = [p, q].map((w) => x * w[0] + y * w[1] + z * w[2] - f - (f * w[2]) / v);
        const j = [p, q].map((w) => [w[0] - (x / z) * w[2], w[1] - (y / z) * w[2]]);
        const det = j[0]![0]! * j[1]![1]! - j[0]![1]! * j[1]![0]!;
        x -= (r[0]! * j[1]![1]! - r[1]! * j[0]![1]!) / det;
        y -= (j[0]![0]! * r[1]! - j[1]![0]! * r[0]!) / det;
      }
      return Math.hypot(x, y);
    };
    const own = Math.hypot(found.axis[0], found.axis[1]);
    const v = found.imageDistanceMm;
    expect(lean(v)).toBeCloseTo(own, 8);
    for (const off of [-0.02, -0.005, 0.005, 0.02]) {
      expect(lean(v + off)).toBeGreaterThan(own - 1e-9);
    }
  });

  it('two things at one distance ask for no lean; two in line with the lens have no answer', () => {
    const level = leastLeanThrough(50, [
      [-100, 0, 1000],
      [100, 30, 1000],
    ])!;
    expect(level.axis[2]).toBeCloseTo(1, 12);
    // 1/v + 1/(1000 − v) = 1/50 (Newton), worked by hand: v = 52.7864 mm.
    expect(level.imageDistanceMm).toBeCloseTo(52.7864, 4);
    expect(
      leastLeanThrough(50, [
        [0, 0, 900],
        [0, 0, 1800],
      ]),
    ).toBe(null);
  });
});
