/** A reducer or converter behind the lens and its movements. */
export interface Multiplier {
  readonly factor: number;
  /** Diameter of the circle it lets pass, measured behind it, mm. */
  readonly circleLimitMm: number | null;
}

/**
 * Factors multiplied and circles clipped in order from the lens to the back. The lens then acts
 * as it would bare before a back 1/factor the size; compute there.
 * @returns the whole factor and the bare lens's circle as the clipping leaves it
 */
export function throughMultipliers(
  multipliers: readonly Multiplier[],
  bareCircleMm: number,
): { factor: number; bareCircleMm: number } {
  let factor = 1;
  let circle = bareCircleMm;
  for (const each of multipliers) {
    factor *= each.factor;
    if (each.circleLimitMm !== null) circle = Math.min(circle, each.circleLimitMm / factor);
  }
  return { factor, bareCircleMm: circle };
}
