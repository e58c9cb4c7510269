import { isSpent, type Budget } from './budget.js';
import { leastCost, newBasis } from './linear-program.js';

/**
 * Making the largest of many residuals least. Parameters are few, residuals may be many.
 */
export interface MinimaxProblem {
  readonly low: readonly number[];
  readonly high: readonly number[];
  /** A step of each parameter over which the residuals are nearly straight. */
  readonly scale: readonly number[];
  /** Of each parameter, what a unit of its distance from zero costs: settles what is free. */
  readonly rest: readonly number[];
  readonly residuals: number;
  /** Values to be kept away from zero on the side named. */
  readonly away: readonly Away[];
  /** Values to be kept at or above zero. */
  readonly limits: number;
  /** Writes residuals, then values kept away, then limits. */
  readonly fill: (parameters: Float64Array, out: Float64Array) => void;
  /** Shared by all searches for one answer. */
  readonly budget: Budget;
}

export interface Away {
  readonly side: 1 | -1;
  readonly least: number;
  /** Times the largest residual: the more that is allowed there, the farther off this must be. */
  readonly perResidual: number;
}

export interface MinimaxResult {
  readonly parameters: Float64Array;
  /** The largest residual. */
  readonly largest: number;
  /** By how much a limit or a value to be kept away fails, at worst; 0 when none does. */
  readonly short: number;
}

/** What falling short costs against a residual of the same size. */
const SHORT = 1e3;
const ROUNDS = 80;
/** A step kept that gains less than this share of the whole is the last one. */
const SETTLED = 3e-7;
/** Unless a limit is still missed by more. */
const SETTLED_SHORT = 1e-9;
/** A step that gains less than this share of what it promised is mended before it is judged. */
const WORTH_MENDING = 0.5;
/** What a value at one place costs, in steps. */
const FILL_STEPS = 30;

/**
 * Sequential linear programming with a region of trust: about a point everything is taken as
 * straight, the linear minimax is solved outright, and the step is kept when it truly helps. With
 * as many binding residuals as parameters + 1 it converges as Newton's method does.
 * Source: Madsen, An algorithm for minimax solution of overdetermined systems (1975), from memory.
 * @param start within the bounds
 */
export function minimax(problem: MinimaxProblem, start: readonly number[]): MinimaxResult {
  const { low, high, scale, rest, residuals, away, limits, fill, budget } = problem;
  const n = low.length;
  const values = residuals + away.length + limits;
  const resting = rest.flatMap((each, i) => (each > 0 ? [i] : []));
  // Unknowns: a step for each parameter, the largest residual, the shortfall, then distances.
  const width = n + 2 + resting.length;
  const count = 2 * residuals + 2 * away.length + limits + 2 * resting.length;
  const rows = new Float64Array(count * width);
  const least = new Float64Array(count);
  const cost = new Float64Array(width);
  cost[n] = 1;
  cost[n + 1] = SHORT;
  resting.forEach((i, k) => (cost[n + 2 + k] = rest[i]!));
  const [lower, upper] = [new Float64Array(width), new Float64Array(width).fill(1e9)];
  const program = {
    ...{ cost, low: lower, high: upper, rows, least, count, budget },
    // Each residual counts above and below zero.
    mirrored: { pairs: residuals, unknowns: n },
  };
  const basis = newBasis(width);
  const [at, over, under] = [0, 0, 0].map(() => new Float64Array(values)) as [
    Float64Array,
    Float64Array,
    Float64Array,
  ];
  const slopes = new Float64Array(values * n);

  const measure = (out: Float64Array, p: Float64Array) => {
    let largest = 0;
    for (let i = 0; i < residuals; i++) largest = Math.max(largest, Math.abs(out[i]!));
    let short = 0;
    away.forEach(({ side, least: min, perResidual }, j) => {
      short = Math.max(short, Math.max(min, perResidual * largest) - side * out[residuals + j]!);
    });
    for (let k = residuals + away.length; k < values; k++) short = Math.max(short, -out[k]!);
    let settled = 0;
    for (const i of resting) settled += rest[i]! * Math.abs(p[i]!);
    return { largest, short, merit: largest + SHORT * short + settled };
  };

  const p = Float64Array.from(start);
  fill(p, at);
  let now = measure(at, p);
  let trust = 1;
  /** Whether the conditions as they stand have been solved once. */
  let looked = false;
  const [tried, second] = [new Float64Array(n), new Float64Array(n)];
  for (let round = 0; round < ROUNDS && trust > 1e-13 && !isSpent(budget); round++) {
    budget.left -= FILL_STEPS * values * (2 * n + 1);
    lookAbout();
    // The conditions stand; only how far one trusts them changes until a step is kept.
    writeRows(at);
    let kept = false;
    looked = false;
    while (!kept && trust > 1e-13 && !isSpent(budget)) {
      for (let j = 0; j < n; j++) {
        lower[j] = Math.max(low[j]! - p[j]!, -trust * scale[j]!);
        upper[j] = Math.min(high[j]! - p[j]!, trust * scale[j]!);
      }
      const step = leastCost(program, basis, looked);
      looked = step !== null;
      if (!step) {
        trust /= 4;
        continue;
      }
      let predicted = now.merit;
      for (let k = n; k < width; k++) predicted -= cost[k]! * step[k]!;
      // No step promises anything that rounding would not eat.
      if (predicted <= 1e-13 * (1 + now.merit)) return result();
      let largestShare = 0;
      for (let j = 0; j < n; j++) {
        tried[j] = Math.min(high[j]!, Math.max(low[j]!, p[j]! + step[j]!));
        largestShare = Math.max(largestShare, Math.abs(step[j]!) / scale[j]!);
      }
      fill(tried, over);
      let then = measure(over, tried);
      if (now.merit - then.merit < WORTH_MENDING * predicted) then = mended(step, then);
      const gained = now.merit - then.merit;
      if (gained > 1e-4 * predicted) {
        p.set(tried);
        at.set(over);
        now = then;
        kept = true;
        // Along a curved edge the last steps are many and gain next to nothing.
        if (gained < SETTLED * now.merit && now.short < SETTLED_SHORT) return result();
        if (gained > 0.7 * predicted && largestShare > 0.9 * trust) trust = Math.min(8, trust * 2);
      } else trust = largestShare / 4;
    }
  }
  return result();

  /** Slopes of all values, from a hair on either side of each parameter. */
  function lookAbout(): void {
    for (let j = 0; j < n; j++) {
      const h = low[j] === high[j] ? 0 : 1e-5 * scale[j]!;
      const kept = p[j]!;
      if (h === 0) {
        for (let i = 0; i < values; i++) slopes[i * n + j] = 0;
        continue;
      }
      p[j] = kept + h;
      fill(p, over);
      p[j] = kept - h;
      fill(p, under);
      p[j] = kept;
      for (let i = 0; i < values; i++) slopes[i * n + j] = (over[i]! - under[i]!) / (2 * h);
    }
  }

  function result(): MinimaxResult {
    return { parameters: p, largest: now.largest, short: Math.max(0, now.short) };
  }

  /**
   * Where what binds is curved, a straight step runs off it, and ever shorter ones follow. The same
   * conditions told again from where the step ended show by how much it ran off; solved once more
   * they lead back. The better of both ends is left in `tried` and `over`.
   * Source: second-order correction, e.g. Fletcher, Practical Methods of Optimization (1987), from memory.
   */
  function mended(step: Float64Array, then: ReturnType<typeof measure>): typeof then {
    for (let i = 0; i < values; i++) {
      let straight = 0;
      for (let j = 0; j < n; j++) straight += slopes[i * n + j]! * step[j]!;
      under[i] = over[i]! - straight;
    }
    writeRows(under);
    const again = leastCost(program, basis, true);
    writeRows(at);
    looked = again !== null;
    if (!again) return then;
    for (let j = 0; j < n; j++) {
      second[j] = Math.min(high[j]!, Math.max(low[j]!, p[j]! + again[j]!));
    }
    fill(second, under);
    const after = measure(under, second);
    if (after.merit >= then.merit) return then;
    tried.set(second);
    over.set(under);
    return after;
  }

  function writeRows(from: Float64Array): void {
    rows.fill(0);
    let row = 0;
    const condition = (
      value: number,
      sign: number,
      onLargest: number,
      onShort: number,
      min: number,
    ): void => {
      for (let j = 0; j < n; j++) rows[row * width + j] = sign * slopes[value * n + j]!;
      rows[row * width + n] = onLargest;
      rows[row * width + n + 1] = onShort;
      least[row] = min - sign * from[value]!;
      row += 1;
    };
    for (let i = 0; i < residuals; i++) {
      condition(i, 1, 1, 0, 0);
      condition(i, -1, 1, 0, 0);
    }
    away.forEach(({ side, least: min, perResidual }, j) => {
      condition(residuals + j, side, 0, 1, min);
      condition(residuals + j, side, -perResidual, 1, 0);
    });
    for (let k = residuals + away.length; k < values; k++) condition(k, 1, 0, 1, 0);
    resting.forEach((i, k) => {
      for (const sign of [1, -1]) {
        rows[row * width + i] = sign;
        rows[row * width + n + 2 + k] = 1;
        least[row] = -sign * p[i]!;
        row += 1;
      }
    });
  }
}
