import type { Samples } from '@gangway/frames';

/** Notes 5 to 8 lay a picture on its side. Source: TIFF 6.0, tag Orientation. */
export const onItsSide = (orientation: number): boolean => orientation >= 5 && orientation <= 8;

/**
 * Samples as their note says the picture stands.
 * @param orientation 1 as it is to 8; others are taken for 1. Source: TIFF 6.0, tag Orientation
 */
export function oriented(samples: Samples, orientation: number): Samples {
  if (!(orientation >= 2 && orientation <= 8)) return samples;
  const { width: w, height: h, channels, data } = samples;
  const side = onItsSide(orientation);
  const [width, height] = side ? [h, w] : [w, h];
  const out = new (data.constructor as { new (length: number): typeof data })(data.length);
  const [fromRight, fromFoot] = [
    [2, 3, 7, 8].includes(orientation),
    [3, 4, 6, 7].includes(orientation),
  ];
  for (let y = 0, to = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const [i, j] = side ? [y, x] : [x, y];
      const from = channels * ((fromFoot ? h - 1 - j : j) * w + (fromRight ? w - 1 - i : i));
      for (let c = 0; c < channels; c++) out[to++] = data[from + c]!;
    }
  }
  return { ...samples, width, height, data: out };
}
