import { leastSquares, robustFit } from '../numbers/least-squares.js';
import { median } from '../numbers/statistics.js';
import type { Area, Plane } from '../planes/plane.js';
import { cut, quarterTurned } from '../planes/plane.js';

/**
 * Resolution from one slanted edge, after ISO 12233: the edge's place row by row, a line through it, the
 * spread function at four times the sampling, its derivative, window, transform, and correction for
 * derivative and bins. Frequencies run along the edge's normal, in cycles a pixel.
 */

export type EdgeProblem =
  'no_edge' | 'angle' | 'clipped' | 'curved' | 'short' | 'faint' | 'sharpened';

/** Figures of an edge. */
export interface EdgeFigures {
  readonly mtf50CyPx: number;
  /** Null where contrast never falls so far within what pixels hold. */
  readonly mtf10CyPx: number | null;
  readonly mtf: readonly (readonly [cyPx: number, contrast: number])[];
  readonly rise1090Px: number;
}

export interface EdgeMeasured {
  /** Null where a problem forbids them. */
  readonly figures: EdgeFigures | null;
  /** From the nearer line of the grid, 0 to 45; null where there is no edge. */
  readonly angleDeg: number | null;
  /** Pixels at the end of their range, left out. */
  readonly clipped: number;
  readonly problems: readonly EdgeProblem[];
  /** The spread function: px along the normal from the edge, light 0 to 1 across it. */
  readonly spread: readonly (readonly [px: number, light: number])[];
}

/** ISO 12233 asks for a small angle; below 2° rows say the same, above 43° rows and columns change places. */
const LEAST_DEG = 2;
const MOST_DEG = 43;
/** Bins to a pixel: four, and fewer where rows and columns leave bins empty (at one pixel over two, say). */
const OVERS = [4, 3, 2] as const;
/** Part of the bins near the edge that may be empty. */
const EMPTY = 0.03;
/** Farthest from the edge that is looked at, and the least, pixels. */
const FAR_PX = 40;
const NEAR_PX = 8;
const LEAST_ROWS = 20;
/** Off a straight line by this at its middle or ends, pixels. */
const CURVED_PX = 0.35;
/** Part of what lies along the edge that is clipped. */
const BLOWN_OUT = 0.03;
/** Light across the edge against its noise, and against its own brightness. */
const LEAST_CONTRAST = 0.04;
/** Spread function beyond its ends, as part of the step: lenses do not do that. */
const OVERSHOOT = 0.02;

interface Line {
  /** x = at + slope y, pixels from the top left. */
  readonly at: number;
  readonly slope: number;
}

const NONE = { figures: null, angleDeg: null, spread: [] } as const;

/** Slopes across and down, to see which way the edge stands. */
function standsUpright({ width, height, data }: Plane): boolean {
  let [across, down] = [0, 0];
  for (let y = 2; y < height - 2; y++) {
    for (let x = 2; x < width - 2; x++) {
      const i = y * width + x;
      across += (data[i + 2]! - data[i - 2]!) ** 2;
      down += (data[i + 2 * width]! - data[i - 2 * width]!) ** 2;
    }
  }
  return across >= down;
}

/** Middle of a row's slope near a place; null where it does not cross the edge whole. */
function crossing(
  { width, data }: Plane,
  y: number,
  near: number,
  reach: number,
  sign: number,
): number | null {
  const [from, to] = [
    Math.max(1, Math.floor(near - reach)),
    Math.min(width - 2, Math.ceil(near + reach)),
  ];
  if (near - from < reach * 0.6 || to - near < reach * 0.6) return null;
  let [sum, moment] = [0, 0];
  for (let x = from; x <= to; x++) {
    const slope = sign * (data[y * width + x + 1]! - data[y * width + x - 1]!);
    const far = (x - near) / (reach + 1);
    const weight = slope * 0.5 * (1 + Math.cos(Math.PI * Math.max(-1, Math.min(1, far))));
    sum += weight;
    moment += weight * x;
  }
  if (!(sum > 0)) return null;
  const at = moment / sum;
  return Math.abs(at - near) < reach ? at : null;
}

/** Each row's steepest place, smoothed over a few pixels: where to begin. */
function steepest({ width, height, data }: Plane, sign: number): { y: number; x: number }[] {
  const places: { y: number; x: number; slope: number }[] = [];
  for (let y = 0; y < height; y++) {
    let best = { x: -1, slope: 0 };
    for (let x = 4; x < width - 4; x++) {
      let slope = 0;
      for (let k = 1; k <= 4; k++) slope += data[y * width + x + k]! - data[y * width + x - k]!;
      if (sign * slope > best.slope) best = { x, slope: sign * slope };
    }
    if (best.x >= 0) places.push({ y, ...best });
  }
  const usual = median(places.map(({ slope }) => slope));
  return places.filter(({ slope }) => slope > usual / 2);
}

interface Found {
  readonly line: Line;
  readonly rows: number;
  /** Off a straight line at its middle against its ends, pixels. */
  readonly bowPx: number;
}

function lineOf(plane: Plane, sign: number): Found | null {
  const begun = steepest(plane, sign);
  if (begun.length < 8) return null;
  const first = robustFit(begun.map(({ y }) => [1, y]), begun.map(({ x }) => x), 0.5); // prettier-ignore
  if (!first) return null;
  let line: Line = { at: first.x[0]!, slope: first.x[1]! };
  let rows: { y: number; x: number }[] = [];
  for (const reach of [16, 10, 8, 8]) {
    rows = [];
    for (let y = 0; y < plane.height; y++) {
      const x = crossing(plane, y, line.at + line.slope * y, reach, sign);
      if (x !== null) rows.push({ y, x });
    }
    if (rows.length < 6) return { line, rows: rows.length, bowPx: 0 };
    const fit = robustFit(rows.map(({ y }) => [1, y]), rows.map(({ x }) => x), 0.02); // prettier-ignore
    if (!fit) return null;
    line = { at: fit.x[0]!, slope: fit.x[1]! };
  }
  const middle = (rows[0]!.y + rows.at(-1)!.y) / 2;
  const half = Math.max(1, (rows.at(-1)!.y - rows[0]!.y) / 2);
  const bent = leastSquares(
    rows.map(({ y }) => [1, (y - middle) / half, ((y - middle) / half) ** 2]),
    rows.map(({ x }) => x),
  );
  return { line, rows: rows.length, bowPx: Math.abs(bent?.[2] ?? 0) };
}

interface Gathered {
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
function gather(plane: Plane, line: Line, reachPx: number, over: number): Gathered {
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

/** Where the spread function passes a level, px from the edge. */
function passes(bins: Float64Array, level: number, over: number): number {
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

/** What lies beyond the bins on one side: light less `falls` over the distance from the edge, pixels. */
interface Tail {
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
function tailOf(bins: Float64Array, over: number, side: -1 | 1, from: number): Tail {
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
type Tails = readonly [left: number, right: number];

/** The spread function with its tails as they are known to go, from `outer` px of the edge on. */
function followed(
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
function curveOf(
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

/** First frequency at which contrast falls to a level. */
export function fallsTo(mtf: EdgeFigures['mtf'], level: number): number | null {
  for (let i = 1; i < mtf.length; i++) {
    const [[f, a], [g, b]] = [mtf[i - 1]!, mtf[i]!];
    if (a >= level && b < level) return f + ((g - f) * (a - level)) / (a - b);
  }
  return null;
}

/**
 * Measures an edge.
 * @param area of the picture that holds one straight edge and little else; all of it unless given
 */
export function measureEdge(whole: Plane, area?: Area): EdgeMeasured {
  const given = area ? cut(whole, area) : whole;
  const plane = standsUpright(given) ? given : quarterTurned(given, 1);
  const { width, height } = plane;
  const lost = plane.clipped?.reduce((sum, each) => sum + each, 0) ?? 0;
  if (Math.min(width, height) < LEAST_ROWS) {
    return { ...NONE, clipped: lost, problems: ['short'] };
  }
  // Brighter to the right, or to the left: whichever has the stronger slopes.
  const sign = ((): 1 | -1 => {
    const [up, down] = [steepest(plane, 1), steepest(plane, -1)];
    const strength = (places: readonly { y: number; x: number }[], s: number): number =>
      median(places.map(({ x, y }) => s * (plane.data[y * width + Math.min(width - 1, x + 4)]! - plane.data[y * width + Math.max(0, x - 4)]!))) || 0; // prettier-ignore
    return strength(up, 1) >= strength(down, -1) ? 1 : -1;
  })();
  const found = lineOf(plane, sign);
  if (!found) return { ...NONE, clipped: lost, problems: ['no_edge'] };
  const { line, rows, bowPx } = found;
  const turned = (Math.atan(Math.abs(line.slope)) * 180) / Math.PI;
  const angleDeg = Math.min(turned, 90 - turned);
  const room = roomPx(plane, line);
  const problems: EdgeProblem[] = [];
  if (rows < LEAST_ROWS || room < NEAR_PX) problems.push('short');
  if (turned < LEAST_DEG || turned > MOST_DEG) problems.push('angle');
  const reachPx = Math.max(NEAR_PX, Math.min(FAR_PX, Math.floor(room)));
  const tries = OVERS.map((over) => gather(plane, line, reachPx, over));
  const gathered = tries.find(({ empty }) => empty <= EMPTY) ?? tries.at(-1)!;
  const { over } = gathered;
  if (gathered.clipped > BLOWN_OUT * gathered.near) problems.push('clipped');
  if (bowPx > CURVED_PX) problems.push('curved');
  // Dark on the left, whichever way it lay.
  const bins = sign > 0 ? gathered.bins : gathered.bins.toReversed();
  const ends = Math.floor(bins.length / 6);
  const [near, far] = [median(bins.subarray(0, ends)), median(bins.subarray(-ends))];
  const rough = bins.map((each) => (each - near) / (far - near || 1));
  const risePx = Math.abs(passes(rough, 0.9, over) - passes(rough, 0.1, over)) || 0;
  const outer = Math.min(0.6 * reachPx, Math.max(reachPx / 3, 2.5 * risePx));
  const [left, right] = [tailOf(bins, over, -1, outer), tailOf(bins, over, 1, outer)];
  const [dark, light] = [left.end, right.end];
  const step = light - dark;
  if (!(Math.abs(step) > Math.max(LEAST_CONTRAST * Math.max(dark, light), 3 * gathered.noise))) problems.push('faint'); // prettier-ignore
  const plainLevel = bins.map((each) => (each - dark) / step);
  const tails = [Math.max(0, -left.falls / step), Math.max(0, right.falls / step)] as const;
  const level = followed(plainLevel, over, outer, tails);
  const spread = [...plainLevel].map((each, i): [number, number] => [
    (i + 0.5) / over - reachPx,
    each,
  ]);
  if (problems.length > 0) return { figures: null, angleDeg, clipped: lost, problems, spread };
  const rise1090Px = Math.abs(passes(level, 0.9, over) - passes(level, 0.1, over));
  if (!(rise1090Px > 0)) return { figures: null, angleDeg, clipped: lost, problems: ['no_edge'], spread }; // prettier-ignore
  const beyond = Math.max(Math.max(...smoothEnds(level)) - 1, -Math.min(...smoothEnds(level)));
  const noiseOfBin = gathered.noise / Math.abs(step) / Math.sqrt(Math.max(1, gathered.perBin));
  const doubt = (5 * noiseOfBin) / Math.sqrt(3);
  if (beyond > Math.max(OVERSHOOT, doubt)) problems.push('sharpened');
  const mtf = curveOf(level, over, rise1090Px, noiseOfBin, tails);
  const mtf50CyPx = fallsTo(mtf, 0.5);
  if (mtf50CyPx === null) return { figures: null, angleDeg, clipped: lost, problems: ['no_edge'], spread }; // prettier-ignore
  return {
    figures: { mtf50CyPx, mtf10CyPx: fallsTo(mtf, 0.1), mtf, rise1090Px },
    angleDeg,
    clipped: lost,
    problems,
    spread,
  };
}

/** Three bins together. */
const smoothEnds = (level: Float64Array): number[] =>
  Array.from(
    { length: level.length - 2 },
    (_, i) => (level[i]! + level[i + 1]! + level[i + 2]!) / 3,
  );

/** How far the picture goes on either side of the line, along its normal, over most of its length. */
function roomPx({ width, height }: Plane, { at, slope }: Line): number {
  const cos = 1 / Math.hypot(1, slope);
  const sides = Array.from({ length: height }, (_, y) => {
    const x = at + slope * y;
    return Math.min(x, width - 1 - x) * cos;
  }).filter((side) => side > 0);
  return sides.length >= LEAST_ROWS ? median(sides) : 0;
}
