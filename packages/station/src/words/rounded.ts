/** A value as it is set: so many decimals, and no minus before a zero. */
export const rounded = (value: number, decimals: number): number =>
  Number(value.toFixed(decimals)) + 0;

/** What arithmetic leaves behind is not a digit more. */
const DUST = 1e-7;

/** A value that is asked for at least: 5.93 is 6.0, never 5.9. */
export const atLeast = (value: number, decimals: number): number =>
  rounded(Math.ceil(value * 10 ** decimals - DUST) / 10 ** decimals, decimals);

/** A value that is allowed at most: 6.07 is 6.0, never 6.1. */
export const atMost = (value: number, decimals: number): number =>
  rounded(Math.floor(value * 10 ** decimals + DUST) / 10 ** decimals, decimals);
