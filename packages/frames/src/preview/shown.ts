import { toSrgb, type Samples } from '../planes/light.js';

/** A picture as a screen shows it: red, green, blue and opacity from the top left, sRGB. */
export interface Shown {
  readonly width: number;
  readonly height: number;
  readonly data: Uint8ClampedArray<ArrayBuffer>;
}

/** A screen's value for each of a file's. */
function valuesOf(wide: boolean, linear: boolean): Uint8ClampedArray {
  const most = wide ? 65_535 : 255;
  return Uint8ClampedArray.from({ length: most + 1 }, (_, i) =>
    Math.round(255 * (linear ? toSrgb(i / most) : i / most)),
  );
}

/** A file's samples as a screen shows them; an opacity is left out. */
export function shownOf({ width, height, channels, data, linear }: Samples): Shown {
  const values = valuesOf(data instanceof Uint16Array, linear);
  const out = new Uint8ClampedArray(4 * width * height);
  const [green, blue] = channels < 3 ? [0, 0] : [1, 2];
  for (let from = 0, to = 0; to < out.length; from += channels, to += 4) {
    out[to] = values[data[from]!]!;
    out[to + 1] = values[data[from + green]!]!;
    out[to + 2] = values[data[from + blue]!]!;
    out[to + 3] = 255;
  }
  return { width, height, data: out };
}

/** Half as large each way; a last odd row or column is dropped. */
export function halved({ width: w, height: h, data }: Shown): Shown {
  const [width, height] = [Math.max(1, w >> 1), Math.max(1, h >> 1)];
  const out = new Uint8ClampedArray(4 * width * height);
  // A row or column of one pixel has no other beside it.
  const [right, below] = [w > 1 ? 4 : 0, h > 1 ? 4 * w : 0];
  for (let y = 0, to = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const from = 4 * (2 * y * w + 2 * x);
      for (let c = 0; c < 4; c++, to++) {
        const at = from + c;
        out[to] = (data[at]! + data[at + right]! + data[at + below]! + data[at + right + below]! + 2) >> 2; // prettier-ignore
      }
    }
  }
  return { width, height, data: out };
}

/** The picture made smaller by halves, from no longer than a side on; finest first. */
export function levelsOf(shown: Shown, longestPx: number, leastPx = 96): Shown[] {
  let at = shown;
  while (Math.max(at.width, at.height) > longestPx) at = halved(at);
  const levels = [at];
  while (Math.max(at.width, at.height) > leastPx) {
    at = halved(at);
    levels.push(at);
  }
  return levels;
}
