/**
 * The stop at which blur and diffraction of a focus spread are worth the same: √(375 Δ), as it acts
 * on the sensor; on the ring stands {@link ringFNumber} of it.
 * Source: Hansma, View Camera Focusing in Practice (1996), from memory.
 * @param spreadMm travel of the standard between nearest and farthest mark
 */
export const stopForSpread = (spreadMm: number): number => Math.sqrt(375 * spreadMm);

/** The f-number, as it acts, that just holds a focus spread within a circle of confusion: Δ/(2c). */
export const stopForSpreadAndCoc = (spreadMm: number, cocMm: number): number =>
  spreadMm / (2 * cocMm);

/** What to set on the ring for an f-number as it acts: that over (1 + m/p). */
export const ringFNumber = (
  actingFNumber: number,
  magnification: number,
  pupilRatio: number,
): number => actingFNumber / (1 + magnification / pupilRatio);

/**
 * The focus spread at which both schools ask for the same stop, mm: below it the one that goes by
 * diffraction stops down further.
 */
export const spreadWhereSchoolsMeetMm = (cocMm: number): number => 4 * 375 * cocMm ** 2;

/** Blur and Airy disc together, as one spot. */
export const combinedSpot = (blur: number, airy: number): number => Math.hypot(blur, airy);

/** Frames of a stack that covers a focus spread, in steps of {@link stackStepMm}; at least one. */
export const stackFrames = (spreadMm: number, stepMm: number): number =>
  Math.max(1, Math.ceil(spreadMm / stepMm - 1e-9));

/**
 * Travel of the standard between two frames of a stack: 2 N c (1 + m/p)(1 − overlap). A blur of c
 * stands for a travel of N c (1 + m/p).
 * @param perBlur 1 + m/p, at the middle of the spread
 */
export const stackStepMm = (
  fNumber: number,
  cocMm: number,
  overlap: number,
  perBlur: number,
): number => 2 * fNumber * cocMm * perBlur * (1 - overlap);

/**
 * Where the sensor goes between a nearest and a farthest mark, so that both blur alike: v + k is the
 * harmonic mean of q + k.
 * @param depthsMm image depths of the marks
 * @param pupilMm k, how far the exit pupil stands before the lens centre along the sensor normal
 */
export function bestImageDistanceMm(depthsMm: readonly number[], pupilMm = 0): number {
  // 1/(q + k), so that a depth at infinity is an ordinary value.
  const inverse = depthsMm.map((q) => 1 / (q + pupilMm));
  return 2 / (Math.min(...inverse) + Math.max(...inverse)) - pupilMm;
}
