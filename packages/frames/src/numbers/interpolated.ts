/** A straight line between values at even steps from 0; held at the end. */
export const interpolated =
  (values: readonly number[], step: number) =>
  (x: number): number => {
    const at = Math.max(0, Math.min(values.length - 1, x / step));
    const low = Math.min(values.length - 2, Math.floor(at));
    return values[low]! + (values[low + 1]! - values[low]!) * (at - low);
  };
