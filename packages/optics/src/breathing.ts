import { imageDistanceFromDistance, imageDistanceFromMagnification } from './image-distance.js';

/**
 * A lens as it focuses. `close` is its closest setting in its own mount, present only when it
 * breathes: when the focal length acting there is shorter than the engraved one.
 */
export interface FocusingLens {
  readonly focalLengthMm: number;
  readonly close: { readonly focalLengthMm: number; readonly magnification: number } | null;
  /** How far behind its own register the sensor lies, mm: extension tubes > 0. */
  readonly excessMm: number;
}

/**
 * Focal length that a lens of closest distance D (from the sensor) and magnification m has there.
 * D = f (2 + m + 1/m) for a thin lens. Check: 250 mm at twice life size gives 55.6 mm
 * (common practice, no source).
 */
export const closeFocalLengthMm = (distanceMm: number, magnification: number): number =>
  distanceMm / (2 + magnification + 1 / magnification);

/** @returns the lens, with its close setting left out when it does not breathe in */
export function focusingLens(
  focalLengthMm: number,
  close: { distanceMm: number; magnification: number } | null,
  excessMm = 0,
): FocusingLens {
  const acting = close ? closeFocalLengthMm(close.distanceMm, close.magnification) : Infinity;
  return {
    focalLengthMm,
    close:
      close && acting < focalLengthMm
        ? { focalLengthMm: acting, magnification: close.magnification }
        : null,
    excessMm,
  };
}

/**
 * Where between infinity and the closest setting a breathing lens begins to shorten. The data give
 * the end only; half the magnification (life size at most) is a choice, so that far focus is exactly
 * the engraved lens and nothing jumps.
 */
const startOf = (magnification: number): number => Math.min(magnification / 2, 1);

/** Focal length at a setting of the lens's own focusing, given as its magnification in its own mount. */
export function focalLengthAtSetting({ focalLengthMm, close }: FocusingLens, own: number): number {
  if (!close) return focalLengthMm;
  const start = startOf(close.magnification);
  const share = Math.min(1, Math.max(0, (own - start) / (close.magnification - start)));
  return focalLengthMm + (close.focalLengthMm - focalLengthMm) * share;
}

const total = (own: number, focal: number, excessMm: number): number => own + excessMm / focal;

const spread = (focal: number, m: number): number => focal * (2 + m + 1 / m);

/** What acts once a lens is focused. */
export interface Focused {
  readonly focalLengthMm: number;
  readonly imageDistanceMm: number;
}

const atMagnification = (focalLengthMm: number, axisZ: number, m: number): Focused => ({
  focalLengthMm,
  imageDistanceMm: imageDistanceFromMagnification(focalLengthMm, axisZ, m),
});

/** Focused so that the magnification straight ahead is as given. */
export function focusedAtMagnification(
  lens: FocusingLens,
  axisZ: number,
  magnification: number,
): Focused {
  const own = ownSetting(lens, (m) => m - magnification);
  return atMagnification(focalLengthAtSetting(lens, own), axisZ, magnification);
}

/**
 * Focused so that the plane of sharp focus lies at a distance from the sensor, mm.
 * @param axisZ part of the lens axis along the sensor normal
 * @returns NaN where the lens cannot hold that distance; see {@link leastDistanceMm}
 */
export function focusedAtDistance(lens: FocusingLens, axisZ: number, distanceMm: number): Focused {
  const { close, focalLengthMm, excessMm } = lens;
  const plain = {
    focalLengthMm,
    imageDistanceMm: imageDistanceFromDistance(focalLengthMm, axisZ, distanceMm),
  };
  if (!close) return plain;
  const m = (plain.imageDistanceMm * axisZ) / focalLengthMm - 1;
  if (total(0, focalLengthMm, excessMm) + startOf(close.magnification) >= m) return plain;
  const reach = distanceMm * axisZ;
  const own = ownSetting(lens, (at, focal) => reach - spread(focal, at));
  const focal = focalLengthAtSetting(lens, own);
  // Held so far in that no setting focuses at all: the engraved lens stands in.
  if (total(own, focal, excessMm) <= 0) return plain;
  if (own === close.magnification && total(own, focal, excessMm) <= 1) {
    // At the closest setting, or nearer still with the focal length that acts there.
    return {
      focalLengthMm: focal,
      imageDistanceMm: imageDistanceFromDistance(focal, axisZ, distanceMm),
    };
  }
  return atMagnification(focal, axisZ, total(own, focal, excessMm));
}

/**
 * Bisects the lens's own setting (its magnification in its own mount) between the start of
 * breathing and the closest; held at either end.
 * @param miss below zero while the setting must go nearer; given the whole magnification
 */
function ownSetting(
  lens: FocusingLens,
  miss: (magnification: number, focalLengthMm: number) => number,
): number {
  const { close, excessMm } = lens;
  if (!close) return 0;
  const missAt = (own: number): number => {
    const focal = focalLengthAtSetting(lens, own);
    return miss(total(own, focal, excessMm), focal);
  };
  let [low, high] = [startOf(close.magnification), close.magnification];
  if (missAt(low) >= 0) return low;
  // Touching the closest setting is being there.
  if (missAt(high) <= 1e-9 * close.focalLengthMm) return high;
  for (let i = 0; i < 60; i++) {
    const middle = (low + high) / 2;
    if (missAt(middle) < 0) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}

/**
 * The least distance from the sensor that can be given for this lens, mm: 4 f/a_z, or where its
 * closest setting lies past life size, that setting.
 */
export function leastDistanceMm(lens: FocusingLens, axisZ: number): number {
  const { close, excessMm, focalLengthMm } = lens;
  if (!close) return (4 * focalLengthMm) / axisZ;
  const m = total(close.magnification, close.focalLengthMm, excessMm);
  return m > 1 ? spread(close.focalLengthMm, m) / axisZ : (4 * close.focalLengthMm) / axisZ;
}
