import { leastSquares } from '../numbers/least-squares.js';

/** One value for each frame from differences between pairs: places, turns, exposures. */

export interface Difference {
  readonly a: number;
  readonly b: number;
  /** What b has more than a. */
  readonly value: number;
  readonly weight: number;
}

/** Frames that differences tie together, each with the rest of its own. */
export function tied(
  count: number,
  pairs: readonly { readonly a: number; readonly b: number }[],
): number[][] {
  const of = Array.from({ length: count }, (_, i) => i);
  const root = (i: number): number => (of[i] === i ? i : (of[i] = root(of[i]!)));
  for (const { a, b } of pairs) of[root(b)] = root(a);
  const groups = new Map<number, number[]>();
  for (let i = 0; i < count; i++) groups.set(root(i), [...(groups.get(root(i)) ?? []), i]);
  return [...groups.values()];
}

const ROUNDS = 8;

/**
 * The values that fit all differences best, those that fit least held down; 0 for the first of each
 * group that is tied together.
 * @param floor the least that counts as off
 */
export function settled(
  count: number,
  differences: readonly Difference[],
  floor: number,
): number[] {
  const out = Array.from({ length: count }, () => 0);
  for (const group of tied(count, differences)) {
    const [, ...free] = group;
    if (free.length === 0) continue;
    const at = new Map(free.map((frame, i) => [frame, i]));
    const own = differences.filter(({ a }) => group.includes(a));
    const rows = own.map(({ a, b }) => {
      const row = free.map(() => 0);
      if (at.has(b)) row[at.get(b)!]! += 1;
      if (at.has(a)) row[at.get(a)!]! -= 1;
      return row;
    });
    let weights = own.map(({ weight }) => weight);
    for (let round = 0; round < ROUNDS; round++) {
      const x = leastSquares(rows, own.map(({ value }) => value), weights); // prettier-ignore
      if (!x) break;
      free.forEach((frame, i) => (out[frame] = x[i]!));
      weights = own.map(({ a, b, value, weight }) => {
        const off = Math.abs(out[b]! - out[a]! - value) / floor;
        return weight * Math.min(1, 1 / Math.max(off, 1e-9));
      });
    }
  }
  return out;
}
