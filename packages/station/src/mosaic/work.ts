import { magnificationAt } from '@gangway/optics';
import type { Station } from '../document/station.js';
import { BITS, MOSAIC_SECONDS_EACH } from './customs.js';
import type { Layout } from './layout.js';

const RATE = 1e6;

/** How long it takes, how much it is. */
export interface Work {
  readonly exposures: number;
  readonly timeS: number;
  /** Null where pixels are not known. */
  readonly dataBytes: number | null;
  readonly claimedMegapixels: number | null;
}

/** Pixels of the whole back; the short side from the pitch where only the long one is given. */
export function sensorPixels({ back }: Pick<Station, 'back'>): number | null {
  const { width_px, height_px, width_mm, height_mm } = back;
  if (width_px === undefined) return null;
  return width_px * (height_px ?? Math.round((width_px * height_mm) / width_mm));
}

/** From here on things are told by their own size. */
const CLOSE_M = 0.05;

/** Pixels for each millimetre of the thing in focus; null from afar, or where pixels are not known. */
export function pixelsPerMm({ s, pixelPitchMm }: Layout): number | null {
  const m = magnificationAt(s.focalLengthMm, s.axis[2], s.imageDistanceMm) * s.factor;
  return pixelPitchMm === null || m < CLOSE_M ? null : m / pixelPitchMm;
}

export function workOf(station: Station, { mosaic, frames }: Layout): Work {
  const exposures = frames.length * (station.exposure?.brackets?.frames ?? 1);
  const pixels = sensorPixels(station);
  return {
    exposures,
    timeS: exposures * (mosaic.seconds_each ?? MOSAIC_SECONDS_EACH),
    dataBytes: pixels === null ? null : (exposures * pixels * (mosaic.bits ?? BITS)) / 8,
    claimedMegapixels: pixels === null ? null : (frames.length * pixels) / RATE,
  };
}
