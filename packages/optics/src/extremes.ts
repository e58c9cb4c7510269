/** Ends of many values. Spread over arguments, a hundred thousand of them end the program. */

/** @returns Infinity of none; NaN where one is NaN */
export function leastOf(values: Iterable<number>): number {
  let least = Infinity;
  for (const value of values) least = Math.min(least, value);
  return least;
}

/** @returns −Infinity of none; NaN where one is NaN */
export function mostOf(values: Iterable<number>): number {
  let most = -Infinity;
  for (const value of values) most = Math.max(most, value);
  return most;
}
