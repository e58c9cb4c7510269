import { leastSquares, robustFit } from '../numbers/least-squares.js';
import { median } from '../numbers/statistics.js';
import type { Plane } from '../planes/plane.js';

/** The edge's place row by row, and a line through it. */

/** Fewer rows than this tell no line. */
export const LEAST_ROWS = 20;

export interface Line {
  /** x = at + slope y, pixels from the top left. */
  readonly at: number;
  readonly slope: number;
}

/** Slopes across and down, to see which way the edge stands. */
export function standsUpright({ width, height, data }: Plane): boolean {
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
export function steepest({ width, height, data }: Plane, sign: number): { y: number; x: number }[] {
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

export interface Found {
  readonly line: Line;
  readonly rows: number;
  /** Off a straight line at its middle against its ends, pixels. */
  readonly bowPx: number;
}

export function lineOf(plane: Plane, sign: number): Found | null {
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

export /** How far the picture goes on either side of the line, along its normal, over most of its length. */
function roomPx({ width, height }: Plane, { at, slope }: Line): number {
  const cos = 1 / Math.hypot(1, slope);
  const sides = Array.from({ length: height }, (_, y) => {
    const x = at + slope * y;
    return Math.min(x, width - 1 - x) * cos;
  }).filter((side) => side > 0);
  return sides.length >= LEAST_ROWS ? median(sides) : 0;
}
