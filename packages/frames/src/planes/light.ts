import type { Area, Plane } from './plane.js';

/**
 * Light behind the numbers of a file. Sources: IEC 61966-2-1 (sRGB), ITU-R BT.709 (luminance).
 */

/** Parts of red, green and blue in luminance. Source: ITU-R BT.709. */
export const LUMINANCE = [0.2126, 0.7152, 0.0722] as const;

/** Linear light behind an sRGB value, both 0 to 1. Source: IEC 61966-2-1. */
export const fromSrgb = (value: number): number =>
  value <= 0.04045 ? value / 12.92 : ((value + 0.055) / 1.055) ** 2.4;

/** The sRGB value of linear light, both 0 to 1. Source: IEC 61966-2-1. */
export const toSrgb = (light: number): number =>
  light <= 0.0031308 ? light * 12.92 : 1.055 * light ** (1 / 2.4) - 0.055;

/** Samples of a picture as a file gives them. */
export interface Samples {
  readonly width: number;
  readonly height: number;
  /** 1 grey, 3 colours; 2 and 4 carry an opacity, which is left out. */
  readonly channels: 1 | 2 | 3 | 4;
  readonly data: Uint8Array | Uint8ClampedArray | Uint16Array;
  /** Whether the numbers are light itself, without a curve. */
  readonly linear: boolean;
}

const curves = new Map<string, Float32Array>();

/** Light for every number there can be. */
function curve(most: number, linear: boolean): Float32Array {
  const name = `${most} ${linear}`;
  let made = curves.get(name);
  if (!made) {
    made = Float32Array.from({ length: most + 1 }, (_, i) =>
      linear ? i / most : fromSrgb(i / most),
    );
    curves.set(name, made);
  }
  return made;
}

/** How near its end a number counts as clipped: a sharpened or compressed white is a step below. */
const END_8 = 254;
const END_16 = 65_300;

/**
 * The light of a piece of a picture.
 * @param area inside the picture; all of it unless given
 * @param every so many pixels each way one is taken, as it is
 */
export function luminanceOf(samples: Samples, area?: Area, every = 1): Plane {
  const { width: across, channels, data } = samples;
  const { x, y, width: w, height: h } = area ?? { x: 0, y: 0, width: across, height: samples.height }; // prettier-ignore
  const [width, height] = [Math.ceil(w / every), Math.ceil(h / every)];
  const wide = data instanceof Uint16Array;
  const light = curve(wide ? 65_535 : 255, samples.linear);
  const end = wide ? END_16 : END_8;
  const out = new Float32Array(width * height);
  const clipped = new Uint8Array(width * height);
  const step = channels * every;
  const [r, g, b] = LUMINANCE;
  for (let j = 0, to = 0; j < height; j++) {
    let from = ((y + j * every) * across + x) * channels;
    const last = to + width;
    if (channels < 3) {
      for (; to < last; to++, from += step) {
        const value = data[from]!;
        out[to] = light[value]!;
        clipped[to] = value >= end ? 1 : 0;
      }
      continue;
    }
    for (; to < last; to++, from += step) {
      const red = data[from]!;
      const green = data[from + 1]!;
      const blue = data[from + 2]!;
      out[to] = r * light[red]! + g * light[green]! + b * light[blue]!;
      clipped[to] = red >= end || green >= end || blue >= end ? 1 : 0;
    }
  }
  return { width, height, data: out, clipped };
}
