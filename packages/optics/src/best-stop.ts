/**
 * The stop at which blur and diffraction of a focus spread are worth the same: √(375 Δ).
 * Source: Hansma, View Camera Focusing in Practice (1996), from memory.
 * @param spreadMm travel of the standard between nearest and farthest mark
 */
export const stopForSpread = (spreadMm: number): number => Math.sqrt(375 * spreadMm);

/** The stop that just holds a focus spread within a circle of confusion: Δ/(2c). */
export const stopForSpreadAndCoc = (spreadMm: number, cocMm: number): number =>
  spreadMm / (2 * cocMm);

/**
 * The focus spread at which both schools ask for the same stop, mm: below it the one that goes by
 * diffraction stops down further.
 */
export const spreadWhereSchoolsMeetMm = (cocMm: number): number => 4 * 375 * cocMm ** 2;

/** Blur and Airy disc together, as one spot. */
export const combinedSpot = (blur: number, airy: number): number => Math.hypot(blur, airy);

/** Frames of a stack that covers a focus spread: ⌈Δ / (2 N c (1 − overlap))⌉, at least one. */
export function stackFrames(
  spreadMm: number,
  fNumber: number,
  cocMm: number,
  overlap: number,
): number {
  return Math.max(1, Math.ceil(spreadMm / stackStepMm(fNumber, cocMm, overlap) - 1e-9));
}

/** Travel of the standard between two frames of a stack. */
export const stackStepMm = (fNumber: number, cocMm: number, overlap: number): number =>
  2 * fNumber * cocMm * (1 - overlap);

/**
 * Where the sensor goes between a nearest and a farthest mark, so that both blur alike.
 * @param depthsMm image depths of the marks
 */
export function bestImageDistanceMm(depthsMm: readonly number[]): number {
  // 1/q, so that a depth at infinity is an ordinary value.
  const inverse = depthsMm.map((q) => 1 / q);
  return 2 / (Math.min(...inverse) + Math.max(...inverse));
}
