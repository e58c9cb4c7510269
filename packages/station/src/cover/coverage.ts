import {
  frameLight,
  movementLimits,
  type Corner,
  type Limit,
  type LimitedBy,
  type Limits,
} from '@gangway/optics';
import { filterClear } from '../optical/filter-ring.js';
import { UNBOUNDED, type Setup } from '../optical/setup.js';
import { hasSecondStandard } from '../document/standards.js';
import { finite } from '../words/finite.js';

export type Direction = 'rise_mm' | 'fall_mm' | 'left_mm' | 'right_mm';

export interface CoverageReport {
  covered: boolean;
  worst_corner: Corner;
  margin_mm: number | null;
  sharp: boolean;
  sharp_margin_mm: number | null;
  limits: Record<Direction, number | null>;
  limited_by: Record<Direction extends `${infer Name}_mm` ? Name : never, LimitedBy>;
  /** Of the back, where the front moves and it does too. */
  rear_limits?: Record<Direction, number | null>;
  filter_clear: boolean;
  /** Of the darkest corner; null where no light comes there. */
  corner_falloff_stops: number | null;
}

const endOf = ({ mm }: Limit): number | null => (mm === null ? null : finite(mm));

/** How the frame lies in the circle, and how far it may still move. */
export function reportCoverage(s: Setup): CoverageReport {
  const light = frameLight(s.cone, s.core, s.frame);
  const limits = movementLimits(s.cone, s.frame, s.mechanism, s.placing, s.set);
  const second = secondStandard(s);
  return {
    covered: light.covered,
    worst_corner: light.worst.corner,
    margin_mm: finite(light.worst.marginMm * s.factor),
    sharp: light.sharp,
    sharp_margin_mm: finite(light.softest.marginMm * s.factor),
    limits: endsOf(limits),
    limited_by: {
      rise: limits.rise.by,
      fall: limits.fall.by,
      left: limits.left.by,
      right: limits.right.by,
    },
    ...(second ? { rear_limits: endsOf(second) } : {}),
    filter_clear: filterClear(s),
    corner_falloff_stops: finite(light.falloffStops),
  };
}

const endsOf = ({ rise, fall, left, right }: Limits): Record<Direction, number | null> => ({
  rise_mm: endOf(rise),
  fall_mm: endOf(fall),
  left_mm: endOf(left),
  right_mm: endOf(right),
});

/** Limits of the back's own rise and shift, where the front moves and the back does too. */
function secondStandard(s: Setup): Limits | null {
  const { station } = s;
  if (!hasSecondStandard(station)) return null;
  const { movements: set, movement_limits: limits } = station;
  return movementLimits(
    s.cone,
    s.frame,
    {
      rise: limits.rear_rise_mm ?? UNBOUNDED,
      shift: limits.rear_shift_mm ?? UNBOUNDED,
      radialMm: Infinity,
    },
    s.placing,
    { riseMm: set.rear_rise_mm ?? 0, shiftMm: set.rear_shift_mm ?? 0 },
  );
}
