import type * as z from 'zod';
import {
  diameterMm,
  exactlyOne,
  fNumber,
  list,
  movementMm,
  oneOf,
  quantity,
  record,
  text,
  yesOrNo,
} from './fields.js';
import type { Refuse } from './refuse.js';

/** What its owner measured on a lens; then it is used instead of the ideal. */

const radiusMm = () => quantity('mm', { min: 0, max: 10_000 });
const cyMm = () => quantity('cycles a mm', { min: 0.01, max: 10_000 });
const stops = () => quantity('stops', { min: 0, max: 40 });
const share = () => quantity('', { min: 0, max: 1 });
const zone = () => oneOf(['centre', 'edge', 'corner']);

const MOST_STOPS = 64;

/** By what standard a circle was measured. */
const circleBySchema = exactlyOne(
  [{ stops: stops() }, { mtf50_cy_mm: cyMm() }],
  'must hold one standard only: stops, or mtf50_cy_mm',
);

const atEachStop = <Shape extends z.ZodRawShape>(shape: Shape) =>
  list(record({ f_number: fNumber(), ...shape }), MOST_STOPS);

export const measuredSchema = record({
  /** The day, as people write it. */
  on: text(64).optional(),
  note: text(2000).optional(),
  circle: atEachStop({ diameter_mm: diameterMm() }).optional(),
  circle_by: circleBySchema.optional(),
  /** At infinity, from the axis. */
  falloff: atEachStop({
    points: list(record({ radius_mm: radiusMm(), stops: stops() }), 512).min(2, {
      error: 'must hold at least two points: { radius_mm, stops }',
    }),
  }).optional(),
  sharpness: atEachStop({
    zones: list(record({ zone: zone(), radius_mm: radiusMm(), mtf50_cy_mm: cyMm() }), 3),
  }).optional(),
  /** Detail kept of the best stop's, from a series: says which stop is best, not how sharp it is. */
  detail: atEachStop({
    zones: list(record({ zone: zone(), radius_mm: radiusMm(), kept: share() }), 3),
  }).optional(),
  diffraction_from: fNumber().optional(),
  /** Middle of the circle in picture coordinates at zero movement. */
  centre_mm: record({ x: movementMm(), y: movementMm() }).optional(),
  /** The back it was measured on, and the files. */
  back: text().optional(),
  files: list(text(400), 200).optional(),
  /** What was odd about the lens or the pictures. */
  odd: list(text(400), 32).optional(),
  /** False: the ideal is used, to compare. */
  use: yesOrNo().optional(),
});

export type MeasuredLens = z.infer<typeof measuredSchema>;

/** Stops rise, and within a stop radii do. */
export function measuredRules(
  measured: MeasuredLens | undefined,
  at: (string | number)[],
  refuse: Refuse,
): void {
  if (!measured) return;
  for (const name of ['circle', 'falloff', 'sharpness', 'detail'] as const) {
    (measured[name] ?? []).forEach(({ f_number }, i) => {
      const before = measured[name]![i - 1]?.f_number;
      if (before !== undefined && f_number <= before) {
        refuse([...at, name, i, 'f_number'], `must be above f/${before}: list each stop once, from the widest to the smallest`); // prettier-ignore
      }
    });
  }
  (measured.falloff ?? []).forEach(({ points }, i) => {
    points.forEach(({ radius_mm }, k) => {
      const before = points[k - 1]?.radius_mm;
      if (before !== undefined && radius_mm <= before) {
        refuse([...at, 'falloff', i, 'points', k, 'radius_mm'], `must be above ${before}: from the middle outwards`); // prettier-ignore
      }
    });
  });
}
