import { useMemo } from 'react';
import type { CoverDrawing } from '@gangway/station';
import { makeSheet } from '../drawing/finder-sheet.js';
import { sheetAt, type Sheet } from '../drawing/sheet.js';
import type { Laid } from '../store/mosaic.js';
import { leastOf, mostOf } from '@gangway/station';

/** Room round the frames for numbers, sizes and what is left out, as a share of theirs. */
const ROUND = 1.5;

/** The frames large, with what lies round them; or the whole circle. */
export function layoutSheet(
  { layout }: Laid,
  drawing: CoverDrawing,
  { width, height }: { width: number; height: number },
  groundGlass: boolean,
  whole: boolean,
): Sheet {
  const circle = makeSheet(drawing, width, height, groundGlass);
  const points = layout.frames.flatMap(({ corners }) => corners);
  if (points.length === 0) return circle;
  const [xs, ys] = [points.map(({ x }) => x), points.map(({ y }) => y)];
  const span = (all: readonly number[]): number => mostOf(all) - leastOf(all);
  const fits = Math.max(0.01, Math.min(width / span(xs), height / span(ys)) / ROUND);
  const perMm = Math.abs(circle.scaleX);
  // Frames that lie far outside the circle are still all shown.
  const scale = whole ? Math.min(perMm, fits * 1.3) : Math.max(fits, Math.min(perMm, fits));
  const signed = groundGlass ? -scale : scale;
  if (whole) return sheetAt(width / 2, height / 2, signed);
  const middle = {
    x: (mostOf(xs) + leastOf(xs)) / 2,
    y: (mostOf(ys) + leastOf(ys)) / 2,
  };
  return sheetAt(width / 2 - middle.x * signed, height / 2 + middle.y * signed, signed);
}

/** The same sheet as long as it lies the same: what is drawn on it is then drawn once. */
export function useSteadySheet({ scaleX, x, y }: Sheet): Sheet {
  const [x0, y0] = [x(0), y(0)];
  return useMemo(() => sheetAt(x0, y0, scaleX), [x0, y0, scaleX]);
}
