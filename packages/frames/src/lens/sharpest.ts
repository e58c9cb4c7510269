import { leastSquares } from '../numbers/least-squares.js';
import { mean } from '../numbers/statistics.js';
import type { StackTile } from './stack.js';

/** A picture of a stack and what was set for it. */
export interface Setting {
  readonly i: number;
  readonly at: number;
}

/** The parabola is right to about this share. */
const SHAPE_DOUBT = 0.05;

/**
 * Where between settings of focus or lean a tile is sharpest, in their unit; null where the top is not
 * among them.
 */
export function sharpestAt(
  { detail, sigma }: StackTile,
  settings: readonly Setting[],
): number | null {
  const seen = settings.filter(({ i }) => detail[i] !== null && detail[i]! > 2 * sigma[i]!);
  if (seen.length < 3) return null;
  const x = seen.map(({ at }) => at);
  const middle = mean(x);
  // Over the band detail falls about with the square of the blur, which grows with that of the way
  // out of focus: one over it is a parabola.
  const values = seen.map(({ i }) => 1 / detail[i]!);
  const weights = seen.map(({ i }, k) => 1 / (values[k]! * Math.hypot(sigma[i]! / detail[i]!, SHAPE_DOUBT)) ** 2); // prettier-ignore
  const fit = leastSquares(
    x.map((each) => [1, each - middle, (each - middle) ** 2]),
    values,
    weights,
  );
  if (!fit || !(fit[2]! > 0)) return null;
  const top = middle - fit[1]! / (2 * fit[2]!);
  const room = (Math.max(...x) - Math.min(...x)) / 2;
  return top > Math.min(...x) - room && top < Math.max(...x) + room ? top : null;
}
