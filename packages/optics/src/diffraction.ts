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

/** How far diffraction takes from a picture. */
export type Diffraction = 'none' | 'begins' | 'visible' | 'plain';

/**
 * Steps of N λ / p on pixels: at 2 the cut-off of diffraction, 1/(λ N), meets the finest the sensor
 * can hold, 1/2p; at 4 nothing is left at half of that. On 3.76 µm: f/13.8, f/19.5, f/27.5, which is
 * what people see (f/16 comfortable, f/22 begins to soften, f/32 plainly soft: common practice, no
 * source).
 */
const ON_PIXELS = [2, 2.83, 4] as const;

/** Steps of the Airy disc against the standard of sharpness, where no pixels tell. */
const BY_STANDARD = [0.5, 0.71, 1] as const;

const KINDS: readonly Diffraction[] = ['none', 'begins', 'visible', 'plain'];

/** `begins` is past its step, the others from theirs on. */
const kindOf = (value: number, [begins, visible, plain]: readonly [number, number, number]) =>
  KINDS[value >= plain ? 3 : value >= visible ? 2 : value > begins ? 1 : 0]!;

/** Diffraction at an f-number as it acts, on a sensor with pixels of a pitch in µm. */
export const diffractionOnPixels = (actingFNumber: number, pitchUm: number): Diffraction =>
  kindOf((actingFNumber * WAVELENGTH_UM) / pitchUm, ON_PIXELS);

/** The same by the Airy disc and a circle of confusion, both in µm. */
export const diffractionByStandard = (airyUm: number, cocUm: number): Diffraction =>
  kindOf(airyUm / cocUm, BY_STANDARD);
