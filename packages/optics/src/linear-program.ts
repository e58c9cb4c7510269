import { isSpent, type Budget } from './budget.js';

/**
 * Small dense linear programs: a handful of unknowns, any number of conditions. Written here
 * because the search for the best wedge solves some hundred of them for one answer, and this
 * package depends on nothing.
 */
export interface LinearProgram {
  /** What a unit of each unknown costs; ≥ 0. */
  readonly cost: Float64Array;
  readonly low: Float64Array;
  readonly high: Float64Array;
  /** Conditions `rows[i] · x ≥ least[i]`, row after row. */
  readonly rows: Float64Array;
  readonly least: Float64Array;
  readonly count: number;
  readonly budget: Budget;
  /**
   * So many pairs of rows come first, alike but for the sign of their first unknowns, with 1 at the next
   * one and nothing after: told, they are looked at once. None unless given.
   */
  readonly mirrored?: { readonly pairs: number; readonly unknowns: number };
}

/**
 * Where a program ended: the conditions that hold exactly. The same program with other ends or least
 * values goes on from there in a few rounds, for its costs are still met.
 */
export interface Basis {
  /** Row of each, or −2 − 2 j for the lower end of unknown j, −3 − 2 j for the upper. */
  readonly of: Int32Array;
  /** Columns of the inverse, and what each condition is worth. */
  readonly inverse: Float64Array;
  readonly worth: Float64Array;
  /** Room to reckon in. */
  readonly entering: Float64Array;
  readonly mix: Float64Array;
}

export const newBasis = (unknowns: number): Basis => ({
  of: new Int32Array(unknowns),
  inverse: new Float64Array(unknowns * unknowns),
  worth: new Float64Array(unknowns),
  entering: new Float64Array(unknowns),
  mix: new Float64Array(unknowns),
});

/** Breaks ties between unknowns that cost nothing, so that no step goes round in a circle. */
const TIE = 1e-11;

/**
 * The cheapest x within its bounds that meets every condition, by the dual simplex method: from
 * the lower bounds on, the worst broken condition takes the place of one that held.
 * Source: any text on linear programming, e.g. Chvátal, Linear Programming (1983).
 * @param basis where it ends is written here
 * @param goesOn whether `basis` is where a program with the same rows and costs ended
 * @returns null when no x meets them all, and when the budget is spent
 */
export function leastCost(
  program: LinearProgram,
  basis: Basis = newBasis(program.cost.length),
  goesOn = false,
): Float64Array | null {
  const { cost, low, high, rows, least, count, budget } = program;
  const n = cost.length;
  const { of, inverse, worth, entering, mix } = basis;
  const x = Float64Array.from(low);
  if (goesOn) begin();
  else {
    inverse.fill(0);
    for (let k = 0; k < n; k++) {
      of[k] = -2 - 2 * k;
      inverse[k * n + k] = 1;
      worth[k] = cost[k]! + TIE * (1 + k / n);
    }
  }
  let index = -1;
  const most = 60 + 12 * (n + Math.ceil(Math.sqrt(count)));
  for (let round = 0; round < most; round++) {
    budget.left -= count * n + n * n;
    if (isSpent(budget)) return null;
    const short = worstBroken(x, program, entering);
    if (short === 0) return x;
    let leaving = -1;
    let step = Infinity;
    for (let k = 0; k < n; k++) {
      let y = 0;
      for (let j = 0; j < n; j++) y += entering[j]! * inverse[j * n + k]!;
      mix[k] = y;
      if (y > 1e-11 && worth[k]! / y < step) {
        step = worth[k]! / y;
        leaving = k;
      }
    }
    if (leaving < 0) return null;
    const pivot = mix[leaving]!;
    for (let j = 0; j < n; j++) {
      const along = inverse[j * n + leaving]! / pivot;
      inverse[j * n + leaving] = along;
      for (let k = 0; k < n; k++) {
        if (k !== leaving) inverse[j * n + k] = inverse[j * n + k]! - along * mix[k]!;
      }
      x[j] = x[j]! + along * short;
    }
    for (let k = 0; k < n; k++) worth[k] = Math.max(0, worth[k]! - step * mix[k]!);
    worth[leaving] = step;
    of[leaving] = index;
  }
  return null;

  /** The place where the conditions of the basis hold as they now are. */
  function begin(): void {
    x.fill(0);
    for (let k = 0; k < n; k++) {
      const at = of[k]!;
      const unknown = Math.floor((-at - 2) / 2);
      const value = at >= 0 ? least[at]! : at % 2 === 0 ? low[unknown]! : -high[unknown]!;
      for (let j = 0; j < n; j++) x[j] = x[j]! + inverse[j * n + k]! * value;
    }
  }

  function worstBroken(at: Float64Array, of: LinearProgram, into: Float64Array): number {
    let worst = 0;
    index = -1;
    const broken = (i: number, value: number): void => {
      const off = least[i]! - value;
      if (off > worst + 1e-13 * (1 + Math.abs(least[i]!))) {
        worst = off;
        index = i;
      }
    };
    const pairs = of.mirrored?.pairs ?? 0;
    if (of.mirrored) {
      const { unknowns } = of.mirrored;
      const next = at[unknowns]!;
      for (let i = 0; i < 2 * pairs; i += 2) {
        let value = 0;
        for (let j = 0; j < unknowns; j++) value += rows[i * n + j]! * at[j]!;
        broken(i, value + next);
        broken(i + 1, next - value);
      }
    }
    for (let i = 2 * pairs; i < of.count; i++) {
      let value = 0;
      for (let j = 0; j < n; j++) value += rows[i * n + j]! * at[j]!;
      broken(i, value);
    }
    for (let j = 0; j < n; j++) {
      const slack = 1e-14 * (1 + Math.abs(at[j]!));
      const under = low[j]! - at[j]!;
      if (under > worst + slack) {
        worst = under;
        index = -2 - 2 * j;
      }
      const over = at[j]! - high[j]!;
      if (over > worst + slack) {
        worst = over;
        index = -3 - 2 * j;
      }
    }
    if (index === -1) return 0;
    if (index >= 0) into.set(rows.subarray(index * n, index * n + n));
    else {
      into.fill(0);
      into[Math.floor((-index - 2) / 2)] = index % 2 === 0 ? 1 : -1;
    }
    return worst;
  }
}
