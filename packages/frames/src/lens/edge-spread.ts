import { leastSquares } from '../numbers/least-squares.js';
import { median } from '../numbers/statistics.js';
import type { Plane } from '../planes/plane.js';
import type { Line } from './edge-line.js';

/** Light across the edge: every pixel by its distance from the line, and the tails beyond. */

/** Least reach to either side, pixels. */
export const NEAR_PX = 8;

export interface Gathered {
  /** Means of bins a quarter of a pixel wide, along the normal; the edge at the middle. */
  readonly bins: Float64Array;
  readonly reachPx: number;
  /** Deviation of a pixel's light away from the edge. */
  readonly noise: number;
  readonly perBin: number;
  readonly clipped: number;
  readonly near: number;
  /** Part of the bins near the edge without a pixel. */
  readonly empty: number;
  readonly over: number;
}

/** Every pixel by its distance from the line; empty bins are filled from their neighbours. */
export function gather(plane: Plane, line: Line, reachPx: number, over: number): Gathered {
  const { width, height, data, clipped } = plane;
  const { at, slope } = line;
  const cos = 1 / Math.hypot(1, slope);
  const count = 2 * over * reachPx;
  const [sums, squares, counts, places] = Array.from({ length: 4 }, () => new Float64Array(count)) as [Float64Array, Float64Array, Float64Array, Float64Array]; // prettier-ignore
  let [lost, near] = [0, 0];
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const d = (x - at - slope * y) * cos;
      const bin = Math.floor((d + reachPx) * over);
      if (bin < 0 || bin >= count) continue;
      near++;
      const i = y * width + x;
      if (clipped?.[i]) {
        lost++;
        continue;
      }
      const light = data[i]!;
      sums[bin] = sums[bin]! + light;
      squares[bin] = squares[bin]! + light * light;
      counts[bin] = counts[bin]! + 1;
      places[bin] = places[bin]! + (d + reachPx) * over - bin - 0.5;
    }
  }
  const bins = new Float64Array(count);
  let last = NaN;
  for (let i = 0; i < count; i++) {
    if (counts[i]! > 0) last = sums[i]! / counts[i]!;
    bins[i] = last;
  }
  for (let i = count - 1, next = NaN; i >= 0; i--) {
    if (!Number.isNaN(bins[i]!)) next = bins[i]!;
    else bins[i] = next;
  }
  // Pixels of a bin need not lie evenly about its middle: brought there along the slope.
  const plain = bins.slice();
  for (let i = 1; i < count - 1; i++) {
    if (counts[i]! > 0)
      bins[i] = plain[i]! - (places[i]! / counts[i]!) * ((plain[i + 1]! - plain[i - 1]!) / 2);
  }
  const edge = Math.floor(count / 4);
  const far = [...Array(edge).keys(), ...Array.from({ length: edge }, (_, i) => count - 1 - i)].filter((i) => counts[i]! > 3); // prettier-ignore
  const noise = median(far.map((i) => Math.sqrt(Math.max(0, squares[i]! / counts[i]! - (sums[i]! / counts[i]!) ** 2)))); // prettier-ignore
  const middle = counts.subarray(count / 2 - NEAR_PX * over, count / 2 + NEAR_PX * over);
  const empty = middle.filter((each) => each === 0).length / middle.length;
  const total = counts.reduce((sum, each) => sum + each, 0);
  return {
    bins,
    reachPx,
    noise: noise || 0,
    perBin: total / count,
    clipped: lost,
    near,
    empty,
    over,
  };
}

/** Where the spread export function passes a level, px from the edge. */
export function passes(bins: Float64Array, level: number, over: number): number {
  const middle = bins.length / 2;
  // From the middle outwards: what lies far out is noise.
  for (let k = 0; k < middle; k++) {
    for (const i of [middle + k, middle - k - 1]) {
      if (i < 1) continue;
      const [a, b] = [bins[i - 1]!, bins[i]!];
      if (a < level !== b < level) return (i - 0.5 + (level - a) / (b - a) - middle) / over;
    }
  }
  return NaN;
}

/** What lies beyond the bins on one side: light less `falls` over the distance from the edge, pixels. */
export interface Tail {
  readonly end: number;
  readonly falls: number;
}

/** The tails of a stop fall with the distance; a slope no larger than its doubt is none. */
const TAIL_SURE = 3;

/**
 * The level that light tends to on one side, beyond what the picture holds.
 * @param side −1 left, 1 right
 * @param from px of the edge where tails begin
 */
export function tailOf(bins: Float64Array, over: number, side: -1 | 1, from: number): Tail {
  const middle = bins.length / 2;
  const rows: number[][] = [];
  const light: number[] = [];
  for (let i = 0; i < bins.length; i++) {
    const d = (i + 0.5 - middle) / over;
    if (side * d < from) continue;
    rows.push([1, -1 / (side * d)]);
    light.push(bins[i]!);
  }
  const plain = { end: median(light), falls: 0 };
  const fit = rows.length >= 12 ? leastSquares(rows, light) : null;
  if (!fit) return plain;
  const [end, falls] = fit as [number, number];
  const off = light.map((each, i) => each - end + falls * -rows[i]![1]!);
  const sigma = Math.sqrt(off.reduce((sum, each) => sum + each * each, 0) / (rows.length - 2));
  const steep = rows.map(([, u]) => u!);
  const mean = steep.reduce((sum, u) => sum + u, 0) / steep.length;
  const doubt = sigma / Math.sqrt(steep.reduce((sum, u) => sum + (u - mean) ** 2, 0));
  return side * falls > TAIL_SURE * doubt ? { end, falls } : plain;
}

/** What each end of the spread function falls short of 0 and of 1 by, times the distance. */
export type Tails = readonly [left: number, right: number];

/** The spread function with its tails as they are known to go, from `outer` px of the edge on. */
export function followed(
  level: Float64Array,
  over: number,
  outer: number,
  [left, right]: Tails,
): Float64Array {
  const middle = level.length / 2;
  const reach = middle / over;
  return level.map((each, i) => {
    const d = (i + 0.5 - middle) / over;
    const known = d < 0 ? left / -d : 1 - right / d;
    const out = Math.max(0, Math.min(1, (Math.abs(d) - outer) / (0.5 * (reach - outer))));
    const share = 0.5 - 0.5 * Math.cos(Math.PI * out);
    return (1 - share) * each + (share > 0 ? share * known : 0);
  });
}
