/** Diameter of the blur disc of a point with image depth q on a sensor at v, mm. */
export const blurDiameterMm = (
  focalLengthMm: number,
  fNumber: number,
  imageDistanceMm: number,
  imageDepthMm: number,
): number =>
  ((focalLengthMm / fNumber) * Math.abs(imageDistanceMm - imageDepthMm)) / Math.abs(imageDepthMm);

/** The f-number at which a point with image depth q blurs to the circle of confusion. */
export const fNumberNeeded = (
  focalLengthMm: number,
  imageDistanceMm: number,
  imageDepthMm: number,
  cocMm: number,
): number => blurDiameterMm(focalLengthMm, 1, imageDistanceMm, imageDepthMm) / cocMm;

/**
 * Hyperfocal distance f²/(N c) + f, mm.
 * Source: Ray, Applied Photographic Optics, 3rd ed. (2002).
 */
export const hyperfocalMm = (focalLengthMm: number, fNumber: number, cocMm: number): number =>
  focalLengthMm ** 2 / (fNumber * cocMm) + focalLengthMm;

export interface DepthOfField {
  /** From the sensor plane, straight ahead, mm. */
  readonly nearMm: number;
  /** Infinity at or past infinity. */
  readonly farMm: number;
}

/**
 * Limits of sharpness along the sensor normal through the lens centre: the planes with image
 * depth v / (1 ± N c / f). Exact for a tilted lens too, straight ahead.
 */
export function depthOfField(
  focalLengthMm: number,
  axisZ: number,
  imageDistanceMm: number,
  fNumber: number,
  cocMm: number,
): DepthOfField {
  const relative = (fNumber * cocMm) / focalLengthMm;
  // z = q f / (q a_z − f), divided through by q so that q → ∞ stays finite.
  const objectDistance = (inverseDepth: number): number => {
    const reach = axisZ - focalLengthMm * inverseDepth;
    return reach <= 4e-15 ? Infinity : focalLengthMm / reach;
  };
  const near = objectDistance(Math.max(0, 1 - relative) / imageDistanceMm);
  const far = objectDistance((1 + relative) / imageDistanceMm);
  return { nearMm: near + imageDistanceMm, farMm: far + imageDistanceMm };
}
