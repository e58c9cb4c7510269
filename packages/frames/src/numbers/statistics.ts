/** Middle values that a few wild ones do not move. */

export const sorted = (values: Iterable<number>): number[] => [...values].sort((a, b) => a - b);

/** @param of sorted; NaN where there is nothing. */
export function quantileSorted(of: ArrayLike<number>, share: number): number {
  if (of.length === 0) return NaN;
  const at = share * (of.length - 1);
  const low = Math.floor(at);
  const [a, b] = [of[low]!, of[Math.min(low + 1, of.length - 1)]!];
  return a + (b - a) * (at - low);
}

export const quantile = (values: Iterable<number>, share: number): number =>
  quantileSorted(sorted(values), share);

export const median = (values: Iterable<number>): number => quantile(values, 0.5);

/** Standard deviation by the median of what values are off, as for a normal spread. */
export function spread(values: readonly number[]): number {
  const middle = median(values);
  return 1.4826 * median(values.map((value) => Math.abs(value - middle)));
}

export const mean = (values: readonly number[]): number =>
  values.reduce((sum, value) => sum + value, 0) / values.length;

export const rms = (values: readonly number[]): number =>
  Math.sqrt(mean(values.map((value) => value * value)));
