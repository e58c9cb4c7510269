import type { FrameFile } from '../../src/planes/source.js';
import { fileOf } from './mosaic.js';
import { normal, random } from './random.js';
import { scene } from './scene.js';

/** Pictures of one scene through a blur that is known place by place: Gaussians, one deviation in pixels. */

export interface Blurred {
  readonly widthPx: number;
  readonly heightPx: number;
  readonly seed: number;
  readonly sigmaPx: (x: number, y: number) => number;
  readonly noise?: number;
  readonly noiseSeed?: number;
  readonly stops?: number;
  /** Shift of the whole picture, pixels. */
  readonly dx?: number;
  /** Where nothing is to be seen. */
  readonly plain?: (x: number, y: number) => boolean;
}

const kernels = new Map<number, Float32Array>();

/** A bell of a deviation, to a hundredth of a pixel. */
function kernelOf(sigma: number): Float32Array {
  const name = Math.round(100 * sigma);
  let made = kernels.get(name);
  if (!made) {
    const [of, reach] = [Math.max(0.05, name / 100), Math.ceil((3.5 * name) / 100)];
    made = Float32Array.from({ length: 2 * reach + 1 }, (_, i) => Math.exp(-((i - reach) ** 2) / (2 * of * of))); // prettier-ignore
    kernels.set(name, made);
  }
  return made;
}

/** Places are from the middle, parts of the half diagonal, y up. */
export function blurredPlane(look: Blurred) {
  const {
    widthPx: w,
    heightPx: h,
    seed,
    sigmaPx,
    noise = 0,
    noiseSeed = 1,
    stops = 0,
    dx = 0,
    plain,
  } = look;
  const of = scene(seed, { finestPx: 1, layers: 3 });
  const half = Math.hypot(w, h) / 2;
  const at = (x: number, y: number): [number, number] => [(x - w / 2) / half, (h / 2 - y) / half];
  const sharp = new Float32Array(w * h);
  for (let y = 0; y < h; y++) {
    for (let x = 0; x < w; x++) sharp[y * w + x] = plain?.(...at(x, y)) ? 0.4 : of.at(x + dx, y);
  }
  const sigmas = Float32Array.from({ length: w * h }, (_, i) => sigmaPx(...at(i % w, Math.floor(i / w)))); // prettier-ignore
  const pass = (
    from: Float32Array,
    step: number,
    side: number,
    along: (i: number) => number,
  ): Float32Array => {
    const out = new Float32Array(from.length);
    for (let y = 0; y < h; y++) {
      for (let x = 0; x < w; x++) {
        const kernel = kernelOf(sigmas[y * w + x]!);
        const reach = (kernel.length - 1) / 2;
        const i = y * w + x;
        const place = along(i);
        let sum = 0;
        let weight = 0;
        for (let k = Math.max(-reach, -place); k <= Math.min(reach, side - 1 - place); k++) {
          sum += kernel[k + reach]! * from[i + k * step]!;
          weight += kernel[k + reach]!;
        }
        out[i] = sum / weight;
      }
    }
    return out;
  };
  const across = pass(sharp, 1, w, (i) => i % w);
  const data = pass(across, w, h, (i) => Math.floor(i / w));
  const next = normal(random(noiseSeed));
  const gain = 2 ** stops;
  for (let i = 0; i < data.length; i++) data[i] = Math.max(0, data[i]! * gain + noise * next());
  return { width: w, height: h, data };
}

export const blurredFile = (name: string, look: Blurred): FrameFile => fileOf(name, blurredPlane(look)); // prettier-ignore
