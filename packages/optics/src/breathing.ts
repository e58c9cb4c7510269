import { bisect } from './bisect.js';
import {
  distanceAt,
  imageDistanceFromDistance,
  imageDistanceFromMagnification,
  magnificationAt,
} from './image-distance.js';

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

/** What acts once a lens is focused. */
export interface Focused {
  readonly focalLengthMm: number;
  readonly imageDistanceMm: number;
}

/**
 * How the lens stands to the sensor when leaned: `v = perMm × (f (1 + m)) + plusMm`, m the
 * magnification it would have there with everything straight.
 */
export interface Leaned {
  readonly axisZ: number;
  readonly perMm: number;
  readonly plusMm: number;
}

export const UPRIGHT: Leaned = { axisZ: 1, perMm: 1, plusMm: 0 };

/** Image distance at a setting of the lens's own focusing. */
function distanceBehind(lens: FocusingLens, { perMm, plusMm }: Leaned, own: number): Focused {
  const focalLengthMm = focalLengthAtSetting(lens, own);
  const straight = focalLengthMm * (1 + total(own, focalLengthMm, lens.excessMm));
  return { focalLengthMm, imageDistanceMm: perMm * straight + plusMm };
}

/** Focused so that the magnification straight ahead is as given. */
export function focusedAtMagnification(
  lens: FocusingLens,
  leaned: Leaned,
  magnification: number,
): Focused {
  const own = ownSetting(lens, (at) => {
    const { focalLengthMm, imageDistanceMm } = distanceBehind(lens, leaned, at);
    return magnificationAt(focalLengthMm, leaned.axisZ, imageDistanceMm) - magnification;
  });
  const focalLengthMm = focalLengthAtSetting(lens, own);
  return {
    focalLengthMm,
    imageDistanceMm: imageDistanceFromMagnification(focalLengthMm, leaned.axisZ, magnification),
  };
}

/**
 * Focused so that the plane of sharp focus lies at a distance from the sensor, mm.
 * @returns NaN where the lens cannot hold that distance; see {@link leastDistanceMm}
 */
export function focusedAtDistance(lens: FocusingLens, leaned: Leaned, distanceMm: number): Focused {
  const { close, focalLengthMm, excessMm } = lens;
  const { axisZ, perMm, plusMm } = leaned;
  const plain = {
    focalLengthMm,
    imageDistanceMm: imageDistanceFromDistance(focalLengthMm, axisZ, distanceMm),
  };
  if (!close) return plain;
  const m = (plain.imageDistanceMm - plusMm) / perMm / focalLengthMm - 1;
  if (total(0, focalLengthMm, excessMm) + startOf(close.magnification) >= m) return plain;
  const own = ownSetting(lens, (at) => {
    const there = distanceBehind(lens, leaned, at);
    return distanceMm - distanceAt(there.focalLengthMm, axisZ, there.imageDistanceMm);
  });
  const there = distanceBehind(lens, leaned, own);
  const reached = magnificationAt(there.focalLengthMm, axisZ, there.imageDistanceMm);
  // Held so far in that no setting focuses at all: the engraved lens stands in.
  if (reached <= 0) return plain;
  if (own === close.magnification && reached <= 1) {
    // At the closest setting, or nearer still with the focal length that acts there.
    return {
      focalLengthMm: there.focalLengthMm,
      imageDistanceMm: imageDistanceFromDistance(there.focalLengthMm, axisZ, distanceMm),
    };
  }
  return there;
}

/**
 * Bisects the lens's own setting (its magnification in its own mount) between the start of
 * breathing and the closest; held at either end.
 * @param missAt below zero while the setting must go nearer
 */
function ownSetting(lens: FocusingLens, missAt: (own: number) => number): number {
  const { close } = lens;
  if (!close) return 0;
  const [low, high] = [startOf(close.magnification), close.magnification];
  if (missAt(low) >= 0) return low;
  // Touching the closest setting is being there.
  if (missAt(high) <= 1e-9 * close.focalLengthMm) return high;
  return bisect(low, high, (own) => missAt(own) < 0);
}

/**
 * The least distance from the sensor that can be given for this lens, mm: 4 f/a_z, or where its
 * closest setting lies past life size, that setting.
 */
export function leastDistanceMm(lens: FocusingLens, leaned: Leaned): number {
  const { close, focalLengthMm } = lens;
  const { axisZ } = leaned;
  if (!close) return (4 * focalLengthMm) / axisZ;
  const there = distanceBehind(lens, leaned, close.magnification);
  const m = magnificationAt(there.focalLengthMm, axisZ, there.imageDistanceMm);
  // So far leaned that none of its own settings focuses at all: the engraved lens stands in.
  if (m <= 0) return (4 * focalLengthMm) / axisZ;
  return m > 1
    ? distanceAt(there.focalLengthMm, axisZ, there.imageDistanceMm)
    : (4 * there.focalLengthMm) / axisZ;
}
