import { leastSquares } from '../numbers/least-squares.js';
import { mean } from '../numbers/statistics.js';
import { ringsOfBand } from './detail.js';
import type { StackTile } from './stack.js';
import { leastOf, mostOf } from '../numbers/extremes.js';

/** A picture of a stack and what was set for it. */
export interface Setting {
  readonly i: number;
  readonly at: number;
}

interface Blur {
  readonly at: number;
  /** Variance of the blur beyond the sharpest picture's, pixels². */
  readonly more: number;
  readonly sigma: number;
}

/** Blur is told to about this share, it is not quite a bell, and large blur worse: pixels⁻². */
const SHAPE_DOUBT = 0.05;
const LARGE_DOUBT = 0.1;
const LEAST_DOUBT = 0.01;
/** A ring counts while it stands so far out of its noise. */
const RING_SIGMAS = 4;

/**
 * How much more each picture of a tile is blurred than the sharpest. A blur of variance s takes
 * exp(−4π² f² s) of the power at frequency f: rings of frequencies tell s whatever is seen.
 */
function blursOf({ detail, rings }: StackTile, settings: readonly Setting[]): Blur[] {
  const seen = settings.filter(({ i }) => rings[i] !== null && detail[i] !== null);
  if (seen.length === 0) return [];
  const lead = seen.reduce((most, each) => (detail[each.i]! > detail[most.i]! ? each : most));
  const [first, bands] = [rings[lead.i]!, ringsOfBand()];
  return seen.flatMap(({ i, at }): Blur[] => {
    if (i === lead.i) return [{ at, more: 0, sigma: LEAST_DOUBT }];
    let [sum, weight] = [0, 0];
    rings[i]!.forEach(({ power, sigma }, k) => {
      const own = first[k]!;
      if (power < RING_SIGMAS * sigma || own.power < RING_SIGMAS * own.sigma) return;
      const slope = 4 * Math.PI ** 2 * bands[k]!.f2;
      const more = Math.log(own.power / power) / slope;
      const doubt = Math.hypot(sigma / power, own.sigma / own.power, SHAPE_DOUBT) / slope;
      sum += more / doubt ** 2;
      weight += 1 / doubt ** 2;
    });
    if (weight === 0) return [];
    const more = sum / weight;
    const shape = Math.abs(more) * (SHAPE_DOUBT + LARGE_DOUBT * Math.abs(more));
    return [{ at, more, sigma: Math.hypot(1 / Math.sqrt(weight), shape, LEAST_DOUBT) }];
  });
}

/**
 * Where between settings of focus or lean a tile is sharpest, in their unit; null where the pictures do
 * not tell. Variance of blur grows with the square of the way off.
 */
export function sharpestAt(tile: StackTile, settings: readonly Setting[]): number | null {
  const blurs = blursOf(tile, settings);
  const x = blurs.map(({ at }) => at);
  if (new Set(x).size < 3) return null;
  const middle = mean(x);
  const fit = leastSquares(
    x.map((each) => [1, each - middle, (each - middle) ** 2]),
    blurs.map(({ more }) => more),
    blurs.map(({ sigma }) => 1 / sigma ** 2),
  );
  if (!fit || !(fit[2]! > 0)) return null;
  const top = middle - fit[1]! / (2 * fit[2]!);
  const room = (mostOf(x) - leastOf(x)) / 2;
  return top > leastOf(x) - room && top < mostOf(x) + room ? top : null;
}
