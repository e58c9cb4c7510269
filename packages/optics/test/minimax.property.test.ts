import fc from 'fast-check';
import { leastCost, minimax, newBasis, newBudget } from '../src/index.js';
import { runs } from '../../../scripts/lib/runs.mjs';

const number = (min: number, max: number) => fc.double({ min, max, noNaN: true });

describe('small linear programs', () => {
  const program = (cost: number[], rows: number[][], least: number[], high: number) => ({
    cost: Float64Array.from(cost),
    low: new Float64Array(cost.length),
    high: new Float64Array(cost.length).fill(high),
    rows: Float64Array.from(rows.flat()),
    least: Float64Array.from(least),
    count: rows.length,
    budget: newBudget(),
  });

  it('find the least cost, as trying every corner does', () => {
    // Tenths: what is met by less than rounding may be called either way.
    const tenths = (min: number, max: number) => fc.integer({ min, max }).map((n) => n / 10);
    const row = fc
      .tuple(tenths(-9, 9), tenths(-9, 9), tenths(-9, 6))
      .filter(([a, b]) => a !== 0 || b !== 0);
    const cost = fc.tuple(number(0.1, 1), number(0.1, 1));
    fc.assert(
      fc.property(fc.array(row, { minLength: 1, maxLength: 9 }), cost, (given, [c0, c1]) => {
        const all = [...given, [1, 0, 0], [0, 1, 0], [-1, 0, -5], [0, -1, -5]];
        let best = Infinity;
        for (const [i, [a, b, h]] of all.entries()) {
          for (const [c, d, k] of all.slice(i + 1) as [number, number, number][]) {
            const det = a! * d - b! * c;
            if (Math.abs(det) < 1e-9) continue;
            const [x, y] = [(h! * d - b! * k) / det, (a! * k - h! * c) / det];
            const short = Math.max(...all.map(([p, q, r]) => r! - p! * x - q! * y));
            if (short <= 1e-9) best = Math.min(best, c0 * x + c1 * y);
          }
        }
        const found = leastCost(
          program(
            [c0, c1],
            given.map(([a, b]) => [a, b]),
            given.map(([, , h]) => h),
            5,
          ),
        );
        if (best === Infinity) expect(found).toBeNull();
        else expect(c0 * found![0]! + c1 * found![1]!).toBeCloseTo(best, 7);
      }),
      { numRuns: runs(2000) },
    );
  });

  it('go on from where they ended when least values and ends change, as from the beginning', () => {
    const row = fc.tuple(number(-1, 1), number(-1, 1), number(-1, 1));
    const ends = fc.array(number(-1, 0.6), { minLength: 8, maxLength: 8 });
    fc.assert(
      fc.property(fc.array(row, { minLength: 8, maxLength: 8 }), ends, ends, (rows, one, two) => {
        const from = program([1, 0.5, 0.2], rows, one, 5);
        const basis = newBasis(3);
        fc.pre(leastCost(from, basis) !== null);
        const next = { ...from, least: Float64Array.from(two), high: from.high.map(() => 3) };
        const [anew, on] = [leastCost(next), leastCost(next, basis, true)];
        expect(on === null).toBe(anew === null);
        const costOf = (x: Float64Array): number => x[0]! + 0.5 * x[1]! + 0.2 * x[2]!;
        if (anew && on) expect(costOf(on)).toBeCloseTo(costOf(anew), 7);
      }),
      { numRuns: runs(2000) },
    );
  });

  it('say so when nothing meets the conditions', () => {
    expect(leastCost(program([1, 1], [[1, 1], [-1, -1]], [3, -2], 10))).toBeNull(); // prettier-ignore
  });
});

describe('least largest residual', () => {
  it('fits a line to a parabola as Chebyshev has it', () => {
    // Best straight line to x² on [0, 1]: x − 1/8, off by 1/8. Source: any text on approximation.
    const points = Array.from({ length: 101 }, (_, i) => i / 100);
    const found = minimax(
      {
        low: [-5, -5],
        high: [5, 5],
        scale: [1, 1],
        rest: [0, 0],
        residuals: points.length,
        away: [],
        limits: 0,
        budget: newBudget(),
        fill: (p, out) => points.forEach((x, i) => (out[i] = p[0]! + p[1]! * x - x * x)),
      },
      [0, 0],
    );
    expect(found.largest).toBeCloseTo(1 / 8, 9);
    expect(found.parameters[0]).toBeCloseTo(-1 / 8, 9);
    expect(found.parameters[1]).toBeCloseTo(1, 9);
  });
});
