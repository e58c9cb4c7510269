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
  const pass = (
    from: Float32Array,
    step: number,
    side: number,
    along: (i: number) => number,
  ): Float32Array => {
    const out = new Float32Array(from.length);
    for (let y = 0; y < h; y++) {
      for (let x = 0; x < w; x++) {
        const sigma = sigmaPx(...at(x, y));
        const reach = Math.ceil(3.5 * sigma);
        const i = y * w + x;
        const place = along(i);
        let [sum, weight] = [0, 0];
        for (let k = -reach; k <= reach; k++) {
          if (place + k < 0 || place + k >= side) continue;
          const g = Math.exp(-(k * k) / (2 * sigma * sigma));
          sum += g * from[i + k * step]!;
          weight += g;
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
