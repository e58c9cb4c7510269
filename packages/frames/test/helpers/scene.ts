import type { Plane } from '../../src/planes/plane.js';
import { normal, random } from './random.js';

/**
 * A scene that can be looked at anywhere: lattices of random values, each twice as coarse as the last,
 * read with a smooth kernel. Light between 0.05 and 0.85.
 */
export interface Scene {
  at(x: number, y: number): number;
}

/** One lattice for all: scenes begin at places of their own, and none comes round again within a mosaic. */
const SIDE = 2048;
let made: Float32Array | null = null;

function lattice(): Float32Array {
  if (made) return made;
  const draw = random(12);
  return (made = Float32Array.from({ length: SIDE * SIDE }, () => draw() - 0.5));
}

/** Each lattice is so many times as coarse as the one before. */
const COARSER = 3;

/**
 * Read with cubic B-splines: no kinks, nothing finer than the lattice.
 * @param finestPx spacing of the finest lattice
 */
export function scene(seed: number, { finestPx = 1.5, layers = 4 } = {}): Scene {
  const draw = random(seed);
  const values = lattice();
  const starts = Array.from({ length: 2 * layers }, () => SIDE * draw());
  const share = 1.1 / Math.sqrt(layers);
  return {
    at(x, y) {
      let sum = 0;
      for (let k = 0, step = finestPx; k < layers; k++, step *= COARSER) {
        const u = x / step + starts[2 * k]! + SIDE;
        const v = y / step + starts[2 * k + 1]! + SIDE;
        const iu = Math.floor(u);
        const iv = Math.floor(v);
        const t = u - iu;
        const s = 1 - t;
        const a = s * s * s;
        const b = 4 - 6 * t * t + 3 * t * t * t;
        const c = 4 - 6 * s * s + 3 * s * s * s;
        const d = t * t * t;
        const q = v - iv;
        const p = 1 - q;
        const i0 = iu & (SIDE - 1);
        const i1 = (iu + 1) & (SIDE - 1);
        const i2 = (iu + 2) & (SIDE - 1);
        const i3 = (iu + 3) & (SIDE - 1);
        let rows = 0;
        for (let j = 0; j < 4; j++) {
          const row = ((iv + j) & (SIDE - 1)) * SIDE;
          const along = a * values[row + i0]! + b * values[row + i1]! + c * values[row + i2]! + d * values[row + i3]!; // prettier-ignore
          rows += along * (j === 0 ? p * p * p : j === 1 ? 4 - 6 * q * q + 3 * q * q * q : j === 2 ? 4 - 6 * p * p + 3 * p * p * p : q * q * q); // prettier-ignore
        }
        sum += rows / 36;
      }
      return Math.max(0.02, Math.min(0.9, 0.4 + share * sum));
    },
  };
}

export interface Look {
  readonly width: number;
  readonly height: number;
  /** Scene place of the pixel at the top left. */
  readonly x: number;
  readonly y: number;
  /** Deviation of noise in light. */
  readonly noise?: number;
  readonly seed?: number;
  /** Gain, place by place. */
  readonly gain?: (x: number, y: number) => number;
  /** What is seen at a pixel instead of the plain scene. */
  readonly seen?: (scene: Scene, x: number, y: number) => number;
}

export function lookAt(
  of: Scene,
  { width, height, x, y, noise = 0, seed = 1, gain, seen }: Look,
): Plane {
  const next = normal(random(seed));
  const data = new Float32Array(width * height);
  for (let j = 0, i = 0; j < height; j++) {
    for (let k = 0; k < width; k++, i++) {
      const light = seen ? seen(of, x + k, y + j) : of.at(x + k, y + j);
      data[i] = Math.max(0, light * (gain?.(k, j) ?? 1) + (noise > 0 ? noise * next() : 0));
    }
  }
  return { width, height, data };
}
