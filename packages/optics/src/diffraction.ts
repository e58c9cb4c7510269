/** Green light, where one wavelength stands for all: 0.546 µm. */
export const WAVELENGTH_UM = 0.546;

/** f-number that acts at a magnification: N (1 + m/p), p the pupil ratio. */
export const effectiveFNumber = (
  fNumber: number,
  magnification: number,
  pupilRatio: number,
): number => fNumber * (1 + magnification / pupilRatio);

/** Light lost to extension, in stops: 2 log₂(1 + m/p). */
export const bellowsStops = (magnification: number, pupilRatio: number): number =>
  2 * Math.log2(1 + magnification / pupilRatio);

/** Diameter of the Airy disc, µm: 2.44 λ N. Source: any optics text, e.g. Hecht, Optics. */
export const airyDiameterUm = (actingFNumber: number): number =>
  2.44 * WAVELENGTH_UM * actingFNumber;
