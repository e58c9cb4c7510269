import { planeOf, type Plane } from './plane.js';

/** The root of light: noise from counting light is then as large in bright parts as in dark ones. */
export function rooted(plane: Plane): Plane {
  const out = new Float32Array(plane.data.length);
  for (let i = 0; i < out.length; i++) out[i] = Math.sqrt(Math.max(0, plane.data[i]!));
  return { ...plane, data: out };
}

/** Room for what is only between: of many small tiles making it anew takes as long as the work. */
let room = new Float32Array(0);
function between(length: number): Float32Array {
  if (room.length < length) room = new Float32Array(length);
  return room;
}

/** Each row, then each column, with weights 1, 2, 1; edges are held. */
export function smoothed({ width, height, data }: Plane): Plane {
  const rows = between(data.length);
  for (let at = 0; at < data.length; at += width) {
    const last = at + width - 1;
    rows[at] = (3 * data[at]! + data[at + 1]!) / 4;
    rows[last] = (3 * data[last]! + data[last - 1]!) / 4;
    for (let i = at + 1; i < last; i++) rows[i] = (data[i - 1]! + 2 * data[i]! + data[i + 1]!) / 4;
  }
  const out = new Float32Array(data.length);
  for (let y = 0; y < height; y++) {
    const up = y > 0 ? -width : 0;
    const down = y < height - 1 ? width : 0;
    for (let i = y * width, end = i + width; i < end; i++) {
      out[i] = (rows[i + up]! + 2 * rows[i]! + rows[i + down]!) / 4;
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

/**
 * The plane as it looks when read at p + d everywhere; beyond its edges they are held.
 * @param into where it is written, of the same length
 */
export function movedBy(
  { width, height, data }: Plane,
  dx: number,
  dy: number,
  into = new Float32Array(data.length),
): Plane {
  const [ix, iy] = [Math.floor(dx), Math.floor(dy)];
  const [a, b, c, d] = cubic(dx - ix);
  const [e, f, g, h] = cubic(dy - iy);
  const inX = (x: number): number => (x < 0 ? 0 : x >= width ? width - 1 : x);
  const inY = (y: number): number => (y < 0 ? 0 : y >= height ? height - 1 : y);
  const rows = between(data.length);
  const first = Math.max(0, Math.min(width, 1 - ix));
  const last = Math.max(first, Math.min(width, width - 2 - ix));
  for (let at = 0; at < data.length; at += width) {
    const held = (x: number): number =>
      a * data[at + inX(x - 1)]! +
      b * data[at + inX(x)]! +
      c * data[at + inX(x + 1)]! +
      d * data[at + inX(x + 2)]!;
    for (let x = 0; x < first; x++) rows[at + x] = held(x + ix);
    for (let x = last; x < width; x++) rows[at + x] = held(x + ix);
    for (let i = at + first, q = i + ix, end = at + last; i < end; i++, q++) {
      rows[i] = a * data[q - 1]! + b * data[q]! + c * data[q + 1]! + d * data[q + 2]!;
    }
  }
  for (let y = 0; y < height; y++) {
    const r0 = inY(y + iy - 1) * width;
    const r1 = inY(y + iy) * width;
    const r2 = inY(y + iy + 1) * width;
    const r3 = inY(y + iy + 2) * width;
    const at = y * width;
    for (let x = 0; x < width; x++) {
      into[at + x] = e * rows[r0 + x]! + f * rows[r1 + x]! + g * rows[r2 + x]! + h * rows[r3 + x]!;
    }
  }
  return planeOf(width, height, into);
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
