/** Past this a value times a power of ten has no half left to be told from. */
const PLAIN = 1e9;
/** So near to a half the way of rounding hangs on the last digit: there the exact way is gone. */
const NEAR_HALF = 1e-4;

/** A value as it is set: so many decimals, and no minus before a zero. */
export function rounded(value: number, decimals: number): number {
  const power = 10 ** decimals;
  const scaled = value * power;
  const whole = Math.round(scaled);
  // A whole number over a power of ten is the double its decimals stand for; that is many times as
  // quick as writing them, and the same.
  return Math.abs(scaled) < PLAIN && Math.abs(Math.abs(scaled - whole) - 0.5) > NEAR_HALF
    ? whole / power + 0
    : Number(value.toFixed(decimals)) + 0;
}

/** What arithmetic leaves behind is not a digit more. */
const DUST = 1e-7;

/** A value that is asked for at least: 5.93 is 6.0, never 5.9. */
export const atLeast = (value: number, decimals: number): number =>
  rounded(Math.ceil(value * 10 ** decimals - DUST) / 10 ** decimals, decimals);

/** A value that is allowed at most: 6.07 is 6.0, never 6.1. */
export const atMost = (value: number, decimals: number): number =>
  rounded(Math.floor(value * 10 ** decimals + DUST) / 10 ** decimals, decimals);
