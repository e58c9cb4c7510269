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
 */
export function luminanceOf(samples: Samples, area?: Area): Plane {
  const { width: across, channels, data, linear } = samples;
  const { x, y, width, height } = area ?? { x: 0, y: 0, width: across, height: samples.height };
  const wide = data instanceof Uint16Array;
  const light = curve(wide ? 65_535 : 255, linear);
  const end = wide ? END_16 : END_8;
  const out = new Float32Array(width * height);
  const clipped = new Uint8Array(width * height);
  const coloured = channels >= 3;
  const [r, g, b] = LUMINANCE;
  for (let j = 0, to = 0; j < height; j++) {
    let from = ((y + j) * across + x) * channels;
    for (let i = 0; i < width; i++, to++, from += channels) {
      const first = data[from]!;
      if (coloured) {
        const [second, third] = [data[from + 1]!, data[from + 2]!];
        out[to] = r * light[first]! + g * light[second]! + b * light[third]!;
        if (first >= end || second >= end || third >= end) clipped[to] = 1;
      } else {
        out[to] = light[first]!;
        if (first >= end) clipped[to] = 1;
      }
    }
  }
  return { width, height, data: out, clipped };
}
