import { Matrix, inverse, solve } from 'ml-matrix';
import { median } from '../numbers/statistics.js';
import { interpolated } from '../numbers/interpolated.js';
import { leastOf, mostOf } from '../numbers/extremes.js';

/**
 * Light from the middle of the circle to its end, from pictures of an evenly lit white. One fit over all
 * pictures of a stop: how light falls with the radius, where the circle's middle lies, how each was
 * exposed, and the slope that uneven lighting leaves.
 */

/** A picture of the white, made small. */
export interface FlatShot {
  /** Middle of its frame in picture coordinates, mm, y up. */
  readonly xMm: number;
  readonly yMm: number;
  readonly widthMm: number;
  readonly heightMm: number;
  /** Means of light over blocks, row by row from the top left; NaN where any of it was clipped. */
  readonly columns: number;
  readonly rows: number;
  readonly light: Float32Array;
  /** Pixels left out for being clipped, of all. */
  readonly clipped: number;
  readonly pixels: number;
}

export type FlatProblem =
  'clipped' | 'dark' | 'uneven' | 'middle_unsure' | 'middle_unseen' | 'too_little' | 'patchy';

export interface FlatMeasured {
  /** Middle of the circle in picture coordinates at zero movement, mm; null where nothing tells it. */
  readonly centreMm: readonly [x: number, y: number] | null;
  /** How well it is known, one deviation, mm. */
  readonly centreSigmaMm: number | null;
  readonly points: readonly { readonly radiusMm: number; readonly stops: number }[];
  /** Radius at which light has fallen by so many stops; null where no picture reaches it. */
  readonly radiusMmAt: Readonly<Record<1 | 2 | 3, number | null>>;
  /** Diameter at which light has fallen by four stops. */
  readonly circleMm: number | null;
  /** From edge to edge of a frame, what no circle explains. */
  readonly slopeStops: number | null;
  readonly clipped: number;
  readonly problems: readonly FlatProblem[];
}

/** Where the circle is said to end, stops below its middle. */
export const CIRCLE_ENDS_STOPS = 4;

/** Spacing of the radii that light is fitted at, and of those that are given, mm. */
const KNOT_MM = 0.5;
const POINT_MM = 1;
/** Light below this of the brightest says nothing of the lens, stops. */
const DEEPEST_STOPS = 7;
const ROUNDS = 12;
/** Held to a smooth fall by about this weight of one block. */
const SMOOTH = 0.2;
/** Uneven lighting of this from edge to edge is named, stops. */
const UNEVEN_STOPS = 0.25;
const CLIPPED_SHARE = 0.02;
/** A middle that is known no better is named, mm. */
const MIDDLE_MM = 0.25;
/** Light is thought even to about this over a frame's half width, stops: all that keeps slope and middle apart on a lens that falls off evenly. */
const EVEN_STOPS = 0.5;
/** Blocks off the fit by this, stops: the white was not even. */
const PATCHY_STOPS = 0.06;
/** Below this a picture is too dark for its corners. */
const DARK_LIGHT = 0.05;
const LEAST_BLOCKS = 200;
/** Off by less than this a block is not held down: where the circle ends light falls within a block. */
const LEAST_OFF_STOPS = 0.05;

interface Block {
  readonly shot: number;
  readonly x: number;
  readonly y: number;
  /** log₂ of light. */
  readonly stops: number;
  readonly weight: number;
}

function blocksOf(shots: readonly FlatShot[]): Block[] {
  return shots.flatMap((shot, k) => {
    const { columns, rows, light, widthMm, heightMm, xMm, yMm } = shot;
    let most = 0;
    for (const each of light) if (each > most) most = each;
    const least = most * 2 ** -DEEPEST_STOPS;
    const found: Block[] = [];
    for (let j = 0; j < rows; j++) {
      for (let i = 0; i < columns; i++) {
        const value = light[j * columns + i]!;
        if (!(value > least)) continue;
        found.push({
          shot: k,
          x: xMm + ((i + 0.5) / columns - 0.5) * widthMm,
          y: yMm - ((j + 0.5) / rows - 0.5) * heightMm,
          stops: Math.log2(value),
          // Noise of light as it is becomes noise of stops over it: dark blocks say less.
          weight: Math.min(1, (8 * value) / most) ** 2,
        });
      }
    }
    return found;
  });
}

interface Fit {
  readonly centre: readonly [number, number];
  readonly sigmaMm: number;
  readonly falls: readonly number[];
  /** Stops a mm. */
  readonly slope: readonly [number, number];
  /** Deviation of blocks, stops. */
  readonly sigma: number;
}

/** Between which knots a radius lies. */
function knotsAt(r: number, count: number): readonly [number, number] {
  const at = Math.min(r / KNOT_MM, count - 1.000001);
  const low = Math.floor(at);
  return [low, at - low];
}

/** Slope of the fall over a mm, over two knots each way: noise of one knot is not taken for a slope. */
function steepness(falls: readonly number[], r: number): number {
  const count = falls.length;
  const [from, to] = [Math.max(0, r - KNOT_MM), Math.min((count - 1) * KNOT_MM, r + KNOT_MM)];
  const at = (radius: number): number => {
    const [low, part] = knotsAt(radius, count);
    return falls[low]! * (1 - part) + falls[low + 1]! * part;
  };
  return (at(to) - at(from)) / (to - from);
}

/**
 * One round of least squares for everything at once, the middle by small steps.
 * Unknowns: falls at the knots but the first (0), exposure of each shot, slope, step of the middle.
 */
function round(
  blocks: readonly Block[],
  shots: number,
  knots: number,
  before: Fit | null,
  held: readonly number[],
) {
  const [cx, cy] = before?.centre ?? [0, 0];
  const unknowns = knots - 1 + shots + 2 + 2;
  const [atShot, atSlope, atStep] = [knots - 1, knots - 1 + shots, knots - 1 + shots + 2];
  const normal = Array.from({ length: unknowns }, () => new Float64Array(unknowns));
  const right = new Float64Array(unknowns);
  const places = new Int32Array(8);
  const parts = new Float64Array(8);
  blocks.forEach(({ shot, x, y, stops }, i) => {
    const w = held[i]!;
    if (w === 0) return;
    const [dx, dy] = [x - cx, y - cy];
    const r = Math.hypot(dx, dy);
    const [low, part] = knotsAt(r, knots);
    let n = 0;
    const put = (place: number, value: number): void => {
      places[n] = place;
      parts[n++] = value;
    };
    // Light in stops = exposure − fall + slope; the middle goes by a step: fall changes by −fall′ r̂ step.
    if (low > 0) put(low - 1, -(1 - part));
    put(low, -part);
    put(atShot + shot, 1);
    put(atSlope, x);
    put(atSlope + 1, y);
    if (before && r > 0) {
      const steep = steepness(before.falls, r);
      put(atStep, (steep * dx) / r);
      put(atStep + 1, (steep * dy) / r);
    }
    for (let p = 0; p < n; p++) {
      const [row, a] = [normal[places[p]!]!, w * parts[p]!];
      right[places[p]!] = right[places[p]!]! + a * stops;
      for (let q = 0; q < n; q++) row[places[q]!] = row[places[q]!]! + a * parts[q]!;
    }
  });
  // Smooth where nothing says otherwise, level in the middle.
  const bend = (at: readonly [number, number][], weight: number): void => {
    for (const [p, a] of at) for (const [q, b] of at) if (p >= 0 && q >= 0) normal[p]![q] = normal[p]![q]! + weight * a * b; // prettier-ignore
  };
  for (let k = 1; k < knots - 1; k++) bend([[k - 2, 1], [k - 1, -2], [k, 1]], SMOOTH); // prettier-ignore
  bend([[0, 1]], SMOOTH);
  const total = held.reduce((sum, each) => sum + each, 0);
  const sigma = Math.max(0.005, before?.sigma ?? 0.05);
  const spanMm = mostOf(blocks.map(({ x, y }) => Math.hypot(x, y)));
  const even = (sigma * spanMm) / EVEN_STOPS;
  bend([[atSlope, 1]], even ** 2);
  bend([[atSlope + 1, 1]], even ** 2);
  for (const p of [atStep, atStep + 1])
    normal[p]![p] = normal[p]![p]! + (before ? 1e-9 * total : 1);
  const matrix = new Matrix(normal.map((row) => [...row]));
  const x = solve(matrix, Matrix.columnVector([...right])).to1DArray();
  return { x, matrix, atShot, atSlope, atStep };
}

function residuals(
  blocks: readonly Block[],
  falls: readonly number[],
  exposures: readonly number[],
  centre: readonly [number, number],
  slope: readonly [number, number],
): number[] {
  return blocks.map(({ shot, x, y, stops }) => {
    const [low, part] = knotsAt(Math.hypot(x - centre[0], y - centre[1]), falls.length);
    const fall = falls[low]! * (1 - part) + falls[low + 1]! * part;
    return stops - (exposures[shot]! - fall + slope[0] * x + slope[1] * y);
  });
}

function fit(blocks: readonly Block[], shots: number): Fit | null {
  const farthest = mostOf(blocks.map(({ x, y }) => Math.hypot(x, y)));
  const knots = Math.ceil((farthest + 6) / KNOT_MM) + 2;
  const plain = blocks.map(({ weight }) => weight);
  let held = plain;
  let now: Fit | null = null;
  for (let i = 0; i < ROUNDS; i++) {
    const { x, matrix, atShot, atSlope, atStep } = round(blocks, shots, knots, now, held);
    if (!x.every(Number.isFinite)) return null;
    const falls = [0, ...x.slice(0, atShot)];
    const slope = [x[atSlope]!, x[atSlope + 1]!] as const;
    const step: [number, number] = now ? [x[atStep]!, x[atStep + 1]!] : [0, 0];
    const long = Math.hypot(...step);
    // Farther than two millimetres at once the slopes are no longer those.
    const share = long > 2 ? 2 / long : 1;
    const centre: readonly [number, number] = [
      (now?.centre[0] ?? 0) + share * step[0],
      (now?.centre[1] ?? 0) + share * step[1],
    ];
    const exposures = x.slice(atShot, atSlope);
    const off = residuals(blocks, falls, exposures, centre, slope);
    const sigma = Math.max(0.002, 1.4826 * median(off.map(Math.abs)));
    held = plain.map(
      (weight, k) =>
        weight * Math.min(1, Math.max(LEAST_OFF_STOPS, 3 * sigma) / Math.abs(off[k]!)) ** 2,
    );
    let sigmaMm = Infinity;
    if (i === ROUNDS - 1 || (now && long < 0.002)) {
      const cov = inverse(matrix);
      sigmaMm =
        sigma * Math.sqrt(Math.max(cov.get(atStep, atStep), cov.get(atStep + 1, atStep + 1)));
    }
    now = { centre, falls, slope, sigma, sigmaMm };
    if (i > 2 && long < 0.002) break;
  }
  return now;
}

/** First radius at which light has fallen so far, no farther out than pictures reach. */
function radiusAt(falls: readonly number[], stops: number, reach: number): number | null {
  for (let k = 1; k < falls.length && (k - 1) * KNOT_MM <= reach; k++) {
    const [a, b] = [falls[k - 1]!, falls[k]!];
    if (a < stops && b >= stops) {
      const r = (k - 1 + (stops - a) / (b - a)) * KNOT_MM;
      return r <= reach + KNOT_MM ? r : null;
    }
  }
  return null;
}

const NOTHING = {
  centreMm: null,
  centreSigmaMm: null,
  points: [],
  radiusMmAt: { 1: null, 2: null, 3: null },
  circleMm: null,
  slopeStops: null,
} as const;

/** Measures the pictures of one stop. */
export function measureFlat(shots: readonly FlatShot[]): FlatMeasured {
  const clipped = shots.reduce((sum, each) => sum + each.clipped, 0);
  const pixels = shots.reduce((sum, each) => sum + each.pixels, 0);
  const problems: FlatProblem[] = [];
  if (clipped > CLIPPED_SHARE * pixels) problems.push('clipped');
  const brightest = mostOf(shots.map(({ light }) => light.reduce((most, each) => Math.max(most, each || 0), 0))); // prettier-ignore
  if (brightest < DARK_LIGHT) problems.push('dark');
  const blocks = blocksOf(shots);
  const found = blocks.length >= LEAST_BLOCKS ? fit(blocks, shots.length) : null;
  if (!found) return { ...NOTHING, clipped, problems: [...problems, 'too_little'] };
  const { centre, falls, slope, sigma, sigmaMm } = found;
  const radii = blocks.map(({ x, y }) => Math.hypot(x - centre[0], y - centre[1]));
  const [nearest, reach] = [leastOf(radii), mostOf(radii)];
  const { widthMm, heightMm } = shots[0]!;
  const slopeStops = Math.hypot(slope[0] * widthMm, slope[1] * heightMm);
  if (slopeStops > UNEVEN_STOPS) problems.push('uneven');
  if (nearest > 2 * KNOT_MM) problems.push('middle_unseen');
  if (!(sigmaMm < MIDDLE_MM)) problems.push('middle_unsure');
  if (sigma > PATCHY_STOPS) problems.push('patchy');
  const at = interpolated(falls, KNOT_MM);
  const radius = (stops: number): number | null => radiusAt(falls, stops, reach);
  const circle = radius(CIRCLE_ENDS_STOPS);
  return {
    centreMm: centre,
    centreSigmaMm: Number.isFinite(sigmaMm) ? sigmaMm : null,
    points: Array.from(
      { length: Math.floor(Math.min(reach, circle ?? Infinity) / POINT_MM) + 1 },
      (_, k) => ({
        radiusMm: k * POINT_MM,
        stops: Math.max(0, at(k * POINT_MM)),
      }),
    ),
    radiusMmAt: { 1: radius(1), 2: radius(2), 3: radius(3) },
    circleMm: circle === null ? null : 2 * circle,
    slopeStops,
    clipped,
    problems,
  };
}
