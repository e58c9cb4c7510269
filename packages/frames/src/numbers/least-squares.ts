import { Matrix, solve } from 'ml-matrix';
import { spread } from './statistics.js';

/**
 * Weighted least squares: the x for which Σ w (A x − b)² is least.
 * @param rows one a measurement
 * @returns null where the rows do not tell all unknowns
 */
export function leastSquares(
  rows: readonly (readonly number[])[],
  wanted: readonly number[],
  weights?: readonly number[],
): number[] | null {
  const unknowns = rows[0]?.length ?? 0;
  if (unknowns === 0 || rows.length < unknowns) return null;
  const normal = Matrix.zeros(unknowns, unknowns);
  const right = Matrix.zeros(unknowns, 1);
  rows.forEach((row, i) => {
    const w = weights?.[i] ?? 1;
    if (w === 0) return;
    for (let p = 0; p < unknowns; p++) {
      const a = row[p]!;
      if (a === 0) continue;
      right.set(p, 0, right.get(p, 0) + w * a * wanted[i]!);
      for (let q = 0; q < unknowns; q++) normal.set(p, q, normal.get(p, q) + w * a * row[q]!);
    }
  });
  // Unknowns on one scale, so that what is not told shows as a pivot near nothing.
  const scale = Array.from({ length: unknowns }, (_, i) => Math.sqrt(normal.get(i, i)));
  if (scale.some((each) => !(each > 0))) return null;
  for (let p = 0; p < unknowns; p++) {
    right.set(p, 0, right.get(p, 0) / scale[p]!);
    for (let q = 0; q < unknowns; q++) {
      normal.set(p, q, normal.get(p, q) / (scale[p]! * scale[q]!));
    }
  }
  try {
    const found = solve(normal, right).to1DArray();
    const x = found.map((value, i) => value / scale[i]!);
    return x.every(Number.isFinite) ? x : null;
  } catch {
    return null;
  }
}

const dotted = (row: readonly number[], x: readonly number[]): number =>
  row.reduce((sum, a, i) => sum + a * x[i]!, 0);

export interface Robust {
  readonly x: readonly number[];
  /** What each measurement is off: measured less fitted. */
  readonly off: readonly number[];
  /** Standard deviation of those that count. */
  readonly sigma: number;
}

/** Past this many deviations a measurement has little to say. Source: Huber, Robust Statistics (1981). */
const HUBER = 1.5;
const ROUNDS = 12;

/**
 * Least squares with outliers held down: each measurement counts less the further it is off.
 * @param floor the least deviation that is taken for real
 */
export function robustFit(
  rows: readonly (readonly number[])[],
  wanted: readonly number[],
  floor: number,
  weights: readonly number[] = wanted.map(() => 1),
): Robust | null {
  let x = leastSquares(rows, wanted, weights);
  if (!x) return null;
  let off: number[] = [];
  let sigma = floor;
  for (let round = 0; round < ROUNDS; round++) {
    off = rows.map((row, i) => wanted[i]! - dotted(row, x!));
    sigma = Math.max(floor, spread(off));
    const held = off.map((each, i) => {
      const t = Math.abs(each) / (HUBER * sigma);
      // Late rounds let go of the wild ones altogether.
      return weights[i]! * (round < 4 ? Math.min(1, 1 / t) : t > 3 ? 0 : Math.min(1, 1 / t));
    });
    const next = leastSquares(rows, wanted, held);
    if (!next) break;
    x = next;
  }
  off = rows.map((row, i) => wanted[i]! - dotted(row, x!));
  return { x, off, sigma };
}
