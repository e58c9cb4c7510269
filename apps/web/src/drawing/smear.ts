import type { BlurRaster } from '@gangway/station';

/** Red, green and blue, 0 to 255. */
export type Tint = readonly [number, number, number];

export interface ToSmear {
  readonly width: number;
  readonly height: number;
  /** The picture, and softer and softer ones: a word for each place, red in its lowest byte. */
  readonly steps: readonly Uint32Array[];
  readonly raster: BlurRaster;
  /** Places of the picture for each millimetre on the back. */
  readonly perMm: number;
  /** Lays a colour over what blurs no more than this; null lays none. */
  readonly sharp: { readonly tint: Tint; readonly cocUm: number } | null;
}

/** Painted finer than its blur is known, so that lines stay lines. */
export const FINER = 2;

/** Discs smaller than this are points, larger than these are gathered from softer pictures, px. */
const POINT_PX = 0.6;
const SOFTER_PX = [4, 11] as const;

const TINT_SHARE = 0.38;

/** Places of a disc looked at for one part of the picture, evenly over it by the golden angle. */
const COUNT = 20;
const DISC = Array.from({ length: COUNT }, (_, i) => {
  const r = Math.sqrt((i + 0.5) / COUNT);
  return [r * Math.cos(i * 2.39996), r * Math.sin(i * 2.39996)] as const;
});
const ACROSS = DISC.map(([dx]) => dx);
const DOWN = DISC.map(([, dy]) => dy);

const clamp = (at: number, size: number): number => Math.min(size - 1, Math.max(0, Math.round(at)));

/**
 * Every place becomes the mean over its own disc of blur.
 * @param out red, green, blue and opacity of each place, written here
 */
export function smear(
  out: Uint8ClampedArray,
  { width: w, height: h, steps, raster, perMm, sharp }: ToSmear,
): void {
  const { width, height, blurUm } = raster;
  const sum = [0, 0, 0];
  for (let y = 0, place = 0; y < h; y++) {
    const row = Math.min(height - 1, Math.floor(y / FINER)) * width;
    for (let x = 0; x < w; x++, place++) {
      const blur = blurUm[row + Math.min(width - 1, Math.floor(x / FINER))]!;
      const radius = ((blur / 1000) * perMm) / 2;
      const soft = radius < SOFTER_PX[0] ? 0 : radius < SOFTER_PX[1] ? 1 : 2;
      const from = steps[Math.min(soft, steps.length - 1)]!;
      const count = radius < POINT_PX ? 1 : COUNT;
      sum.fill(0);
      for (let i = 0; i < count; i++) {
        const at =
          count === 1
            ? place
            : clamp(y + DOWN[i]! * radius, h) * w + clamp(x + ACROSS[i]! * radius, w);
        const word = from[at]!;
        sum[0]! += word & 255;
        sum[1]! += (word >> 8) & 255;
        sum[2]! += (word >> 16) & 255;
      }
      const share = sharp && blur <= sharp.cocUm ? TINT_SHARE : 0;
      for (let c = 0; c < 3; c++) {
        out[4 * place + c] = (sum[c]! / count) * (1 - share) + (sharp ? sharp.tint[c]! * share : 0);
      }
      out[4 * place + 3] = 255;
    }
  }
}
