import type { Tails } from './edge-spread.js';

/** From the spread function to the transfer: derivative, transform, and what both need corrected. */

/** Means that grow wider away from the edge, where light changes slowly: noise is left behind there. */
function calmed(slopes: Float64Array, from: number): Float64Array {
  const middle = slopes.length / 2;
  const sums = new Float64Array(slopes.length + 1);
  for (let i = 0; i < slopes.length; i++) sums[i + 1] = sums[i]! + slopes[i]!;
  return slopes.map((_, i) => {
    const far = Math.abs(i + 0.5 - middle) - from;
    const half = Math.max(0, Math.min(Math.floor(far / 2.5), i, slopes.length - 1 - i));
    return (sums[i + half + 1]! - sums[i - half]!) / (2 * half + 1);
  });
}

const sinc = (x: number): number =>
  Math.abs(x) < 1e-9 ? 1 : Math.sin(Math.PI * x) / (Math.PI * x);

/** Steps of frequency that are given, cycles a pixel. */
const STEP_CY_PX = 0.01;
/** What pixels hold, and as much again; with few bins to a pixel, less. */
const HIGHEST_CY_PX = 1;
/** Tails are followed so many times as far as the bins go. */
const FARTHER = 8;

/**
 * @param level the spread function, 0 to 1
 * @param noise deviation of a bin
 */
export function curveOf(
  level: Float64Array,
  over: number,
  risePx: number,
  noise: number,
  tails: Tails,
): [number, number][] {
  const count = level.length;
  const slopes = new Float64Array(count);
  for (let i = 1; i < count - 1; i++) slopes[i] = (level[i + 1]! - level[i - 1]!) / 2;
  slopes[0] = slopes[1]!;
  slopes[count - 1] = slopes[count - 2]!;
  const plain = Math.max(1.25 * over, 1.1 * risePx * over + 2);
  const calm = calmed(slopes, plain);
  const middle = (count - 1) / 2;
  const beyond = Array.from({ length: Math.round(((FARTHER - 1) * count) / 2) }, (_, i) => count / 2 + i + 0.5); // prettier-ignore
  const tail = (tails[0] + tails[1]) * over;
  const at = (f: number): number => {
    let [re, im] = [0, 0];
    const turn = (2 * Math.PI * f) / over;
    for (let i = 0; i < count; i++) {
      const a = turn * (i - middle);
      re += calm[i]! * Math.cos(a);
      im += calm[i]! * Math.sin(a);
    }
    if (tail > 0) for (const d of beyond) re += (tail / (d * d)) * Math.cos(turn * d);
    // What noise adds to the power: of the bins near the edge, the others are calmed.
    const added = noise * noise * (2 * plain + 4) * Math.sin(turn) ** 2;
    const power = re * re + im * im;
    const size =
      power > 0 ? Math.sqrt(power) * Math.sqrt(Math.max(0, 1 - (1.5 * added) / power)) : 0;
    // Central differences two bins apart, and means over one bin.
    return size / (Math.abs(sinc((2 * f) / over)) * Math.abs(sinc(f / over)));
  };
  const steps = Math.round(Math.min(HIGHEST_CY_PX, over / 4) / STEP_CY_PX);
  return Array.from({ length: steps + 1 }, (_, k) => {
    const f = k * STEP_CY_PX;
    return [f, k === 0 ? 1 : at(f)];
  });
}
