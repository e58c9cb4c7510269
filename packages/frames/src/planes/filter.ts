import { planeOf, type Plane } from './plane.js';

/** The root of light: noise from counting light is then as large in bright parts as in dark ones. */
export function rooted(plane: Plane): Plane {
  const out = new Float32Array(plane.data.length);
  for (let i = 0; i < out.length; i++) out[i] = Math.sqrt(Math.max(0, plane.data[i]!));
  return { ...plane, data: out };
}

/** Each row, then each column, with the same three weights; edges are held. */
export function smoothed({ width, height, data }: Plane): Plane {
  const rows = new Float32Array(data.length);
  for (let y = 0; y < height; y++) {
    const at = y * width;
    for (let x = 0; x < width; x++) {
      const [before, after] = [data[at + Math.max(0, x - 1)]!, data[at + Math.min(width - 1, x + 1)]!]; // prettier-ignore
      rows[at + x] = (before + 2 * data[at + x]! + after) / 4;
    }
  }
  const out = new Float32Array(data.length);
  for (let y = 0; y < height; y++) {
    const [up, here, down] = [Math.max(0, y - 1), y, Math.min(height - 1, y + 1)].map((row) => row * width) as [number, number, number]; // prettier-ignore
    for (let x = 0; x < width; x++) {
      out[here + x] = (rows[up + x]! + 2 * rows[here + x]! + rows[down + x]!) / 4;
    }
  }
  return planeOf(width, height, out);
}

/** Weights at −1, 0, 1, 2 of the cubic through its neighbours. Source: Keys (1981). */
function cubic(t: number): readonly [number, number, number, number] {
  const [t2, t3] = [t * t, t * t * t];
  return [
    (-t3 + 2 * t2 - t) / 2,
    (3 * t3 - 5 * t2 + 2) / 2,
    (-3 * t3 + 4 * t2 + t) / 2,
    (t3 - t2) / 2,
  ];
}

/** The plane as it looks when read at p + d everywhere; beyond its edges they are held. */
export function movedBy({ width, height, data }: Plane, dx: number, dy: number): Plane {
  const [ix, iy] = [Math.floor(dx), Math.floor(dy)];
  const [a, b, c, d] = cubic(dx - ix);
  const [e, f, g, h] = cubic(dy - iy);
  const inX = (x: number): number => (x < 0 ? 0 : x >= width ? width - 1 : x);
  const inY = (y: number): number => (y < 0 ? 0 : y >= height ? height - 1 : y);
  const rows = new Float32Array(data.length);
  for (let y = 0; y < height; y++) {
    const at = y * width;
    for (let x = 0; x < width; x++) {
      const q = x + ix;
      rows[at + x] =
        q >= 1 && q < width - 2
          ? a * data[at + q - 1]! +
            b * data[at + q]! +
            c * data[at + q + 1]! +
            d * data[at + q + 2]!
          : a * data[at + inX(q - 1)]! +
            b * data[at + inX(q)]! +
            c * data[at + inX(q + 1)]! +
            d * data[at + inX(q + 2)]!;
    }
  }
  const out = new Float32Array(data.length);
  for (let y = 0; y < height; y++) {
    const [r0, r1, r2, r3] = [inY(y + iy - 1), inY(y + iy), inY(y + iy + 1), inY(y + iy + 2)].map((row) => row * width) as [number, number, number, number]; // prettier-ignore
    const at = y * width;
    for (let x = 0; x < width; x++) {
      out[at + x] = e * rows[r0 + x]! + f * rows[r1 + x]! + g * rows[r2 + x]! + h * rows[r3 + x]!;
    }
  }
  return planeOf(width, height, out);
}

/**
 * Noise of a plane as a standard deviation, from what a straight slope, and a bend, leave out.
 * Texture counts as noise too: take it where there is least.
 * Source: Immerkær, Fast noise variance estimation (1996).
 */
export function noiseOf({ width, height, data }: Plane): number {
  let sum = 0;
  for (let y = 1; y < height - 1; y++) {
    for (let x = 1; x < width - 1; x++) {
      const i = y * width + x;
      const [up, down] = [i - width, i + width];
      sum += Math.abs(
        data[up - 1]! - 2 * data[up]! + data[up + 1]! -
          2 * data[i - 1]! + 4 * data[i]! - 2 * data[i + 1]! +
          data[down - 1]! - 2 * data[down]! + data[down + 1]!,
      ); // prettier-ignore
    }
  }
  const count = (width - 2) * (height - 2);
  return count > 0 ? (Math.sqrt(Math.PI / 2) * sum) / (6 * count) : 0;
}
