/** A value as it is set: so many decimals, and no minus before a zero. */
export const rounded = (value: number, decimals: number): number =>
  Number(value.toFixed(decimals)) + 0;
