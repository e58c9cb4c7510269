import { median } from '../numbers/statistics.js';
import { cut, quarterTurned, type Area, type Plane } from '../planes/plane.js';
import { curveOf } from './edge-curve.js';
import { LEAST_ROWS, lineOf, roomPx, standsUpright, steepest, type Line } from './edge-line.js';
import { followed, gather, NEAR_PX, passes, tailOf, type Tails } from './edge-spread.js';
import { leastOf, mostOf } from '../numbers/extremes.js';

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
/** Off a straight line by this at its middle or ends, pixels. */
const CURVED_PX = 0.35;
/** Part of what lies along the edge that is clipped. */
const BLOWN_OUT = 0.03;
/** Light across the edge against its noise, and against its own brightness. */
const LEAST_CONTRAST = 0.04;
/** Spread function beyond its ends, as part of the step: lenses do not do that. */
const OVERSHOOT = 0.02;

/** First frequency at which contrast falls to a level. */
export function fallsTo(mtf: EdgeFigures['mtf'], level: number): number | null {
  for (let i = 1; i < mtf.length; i++) {
    const [[f, a], [g, b]] = [mtf[i - 1]!, mtf[i]!];
    if (a >= level && b < level) return f + ((g - f) * (a - level)) / (a - b);
  }
  return null;
}

/** Brighter to the right, or to the left: whichever has the stronger slopes. */
function brightSide(plane: Plane): 1 | -1 {
  const { width, data } = plane;
  const strength = (sign: 1 | -1): number =>
    median(
      steepest(plane, sign).map(({ x, y }) => {
        const row = y * width;
        return sign * (data[row + Math.min(width - 1, x + 4)]! - data[row + Math.max(0, x - 4)]!);
      }),
    ) || 0;
  return strength(1) >= strength(-1) ? 1 : -1;
}

interface Across {
  readonly over: number;
  /** 0 to 1, dark on the left, tails as they are known to go. */
  readonly level: Float64Array;
  readonly tails: Tails;
  readonly spread: EdgeMeasured['spread'];
  /** Deviation of a bin, as part of the step. */
  readonly noise: number;
  readonly faint: boolean;
  readonly blownOut: boolean;
}

/** Light across the line, from its dark to its light side. */
function acrossOf(plane: Plane, line: Line, sign: 1 | -1, reachPx: number): Across {
  const tries = OVERS.map((over) => gather(plane, line, reachPx, over));
  const gathered = tries.find(({ empty }) => empty <= EMPTY) ?? tries.at(-1)!;
  const { over, noise, perBin } = gathered;
  const bins = sign > 0 ? gathered.bins : gathered.bins.toReversed();
  const ends = Math.floor(bins.length / 6);
  const [near, far] = [median(bins.subarray(0, ends)), median(bins.subarray(-ends))];
  const rough = bins.map((each) => (each - near) / (far - near || 1));
  const outer = Math.min(0.6 * reachPx, Math.max(reachPx / 3, 2.5 * riseOf(rough, over)));
  const [left, right] = [tailOf(bins, over, -1, outer), tailOf(bins, over, 1, outer)];
  const [dark, light] = [left.end, right.end];
  const step = light - dark;
  const plain = bins.map((each) => (each - dark) / step);
  const tails: Tails = [Math.max(0, -left.falls / step), Math.max(0, right.falls / step)];
  return {
    over,
    tails,
    level: followed(plain, over, outer, tails),
    spread: [...plain].map((each, i) => [(i + 0.5) / over - reachPx, each]),
    noise: noise / Math.abs(step) / Math.sqrt(Math.max(1, perBin)),
    faint: !(Math.abs(step) > Math.max(LEAST_CONTRAST * Math.max(dark, light), 3 * noise)),
    blownOut: gathered.clipped > BLOWN_OUT * gathered.near,
  };
}

/** From a tenth to nine tenths, pixels; 0 where it does not pass them. */
const riseOf = (level: Float64Array, over: number): number =>
  Math.abs(passes(level, 0.9, over) - passes(level, 0.1, over)) || 0;

/** Light beyond both ends of the step, as part of it: what sharpening does. */
function overshoots(level: Float64Array, noise: number): boolean {
  const three = Array.from(
    { length: level.length - 2 },
    (_, i) => (level[i]! + level[i + 1]! + level[i + 2]!) / 3,
  );
  const beyond = Math.max(mostOf(three) - 1, -leastOf(three));
  return beyond > Math.max(OVERSHOOT, (5 * noise) / Math.sqrt(3));
}

function figuresOf({ level, over, tails, noise }: Across): EdgeFigures | null {
  const rise1090Px = riseOf(level, over);
  if (!(rise1090Px > 0)) return null;
  const mtf = curveOf(level, over, rise1090Px, noise, tails);
  const mtf50CyPx = fallsTo(mtf, 0.5);
  return mtf50CyPx === null ? null : { mtf50CyPx, mtf10CyPx: fallsTo(mtf, 0.1), mtf, rise1090Px };
}

/**
 * Measures an edge.
 * @param area of the picture that holds one straight edge and little else; all of it unless given
 */
export function measureEdge(whole: Plane, area?: Area): EdgeMeasured {
  const given = area ? cut(whole, area) : whole;
  const plane = standsUpright(given) ? given : quarterTurned(given, 1);
  const clipped = plane.clipped?.reduce((sum, each) => sum + each, 0) ?? 0;
  const none = (problem: EdgeProblem): EdgeMeasured => ({ figures: null, angleDeg: null, spread: [], clipped, problems: [problem] }); // prettier-ignore
  if (Math.min(plane.width, plane.height) < LEAST_ROWS) return none('short');
  const sign = brightSide(plane);
  const found = lineOf(plane, sign);
  if (!found) return none('no_edge');
  const { line, rows, bowPx } = found;
  const angleDeg = (Math.atan(Math.abs(line.slope)) * 180) / Math.PI;
  const room = roomPx(plane, line);
  const across = acrossOf(plane, line, sign, Math.max(NEAR_PX, Math.min(FAR_PX, Math.floor(room))));
  const spoilt: [EdgeProblem, boolean][] = [
    ['short', rows < LEAST_ROWS || room < NEAR_PX],
    ['angle', angleDeg < LEAST_DEG || angleDeg > MOST_DEG],
    ['clipped', across.blownOut],
    ['curved', bowPx > CURVED_PX],
    ['faint', across.faint],
  ];
  const problems = spoilt.flatMap(([problem, is]) => (is ? [problem] : []));
  const told = { angleDeg: Math.min(angleDeg, 90 - angleDeg), clipped, spread: across.spread };
  if (problems.length > 0) return { ...told, figures: null, problems };
  const figures = figuresOf(across);
  if (!figures) return { ...told, figures, problems: ['no_edge'] };
  const sharpened = overshoots(across.level, across.noise);
  return { ...told, figures, problems: sharpened ? ['sharpened'] : [] };
}
