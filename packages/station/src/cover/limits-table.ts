import { engravedStops, movementLimits, UPRIGHT, type Limit } from '@gangway/optics';
import { focusEnds } from '../document/chain.js';
import type { Station } from '../document/station.js';
import { circleGiven, setup } from '../optical/setup.js';
import { circleOnBackMm } from './corners.js';

export interface StopLimits {
  readonly up: Limit;
  readonly down: Limit;
  readonly left: Limit;
  readonly right: Limit;
}

export interface LimitsRow {
  readonly fNumber: number;
  /** Circle on the back at this stop and focus, mm across. */
  readonly circleMm: number;
  /** Whether the lens's circle is given at this stop; else it is held from the nearest that is. */
  readonly given: boolean;
  readonly level: StopLimits;
  readonly upright: StopLimits;
}

export interface LimitsTable {
  readonly rows: readonly LimitsRow[];
  /** Distance the table holds for, m; null at infinity. The circle is least at the farthest. */
  readonly focusM: number | null;
}

/**
 * How far each movement goes by itself from zero, for each engraved stop, the back level and
 * upright: what one would engrave. Lens straight, focused as far as the rig goes, no crop.
 */
export function limitsTable(station: Station): LimitsTable {
  const { crop: _, mosaic: __, turn_in: ___, ...rest } = station;
  const farMm = focusEnds(station, UPRIGHT).farMm;
  const straight: Station = {
    ...rest,
    movements: { rise_mm: 0, shift_mm: 0, tilt_deg: 0, swing_deg: 0 },
    focus: { distance_m: Number.isFinite(farMm) ? farMm / 1000 : null },
  };
  const { f_min, f_max } = station.lens;
  const stops = engravedStops(f_min, f_max, 'whole');
  // The widest stop is engraved whatever it is.
  if (stops[0] === undefined || stops[0] > f_min * 1.01) stops.unshift(f_min);
  return {
    focusM: Number.isFinite(farMm) ? farMm / 1000 : null,
    rows: stops.map((fNumber) => {
      const at = (orientation: 'landscape' | 'portrait') => {
        const one = { ...straight, aperture: fNumber, back: { ...station.back, orientation } };
        const s = setup(one);
        const { rise, fall, left, right } = movementLimits(
          s.cone,
          s.frame,
          s.mechanism,
          s.placing,
          s.set,
        );
        return {
          limits: { up: rise, down: fall, left, right },
          circleMm: circleOnBackMm(s),
        };
      };
      const level = at('landscape');
      return {
        fNumber,
        circleMm: level.circleMm,
        given: circleGiven(station.lens, fNumber),
        level: level.limits,
        upright: at('portrait').limits,
      };
    }),
  };
}

export const SIDES = ['up', 'down', 'left', 'right'] as const;

/** The table as lines of text, for a spreadsheet: a heading, then one line a stop. */
export function limitsLines({ rows }: LimitsTable): string[][] {
  const cell = ({ mm }: Limit): string => (mm === null || mm === Infinity ? '' : mm.toFixed(2));
  const ways = ['level', 'upright'] as const;
  return [
    [
      'f_number',
      'circle_mm',
      'circle_is',
      ...ways.flatMap((way) => SIDES.flatMap((side) => [`${way}_${side}_mm`, `${way}_${side}_by`])),
    ],
    ...rows.map((row) => [
      String(row.fNumber),
      row.circleMm.toFixed(2),
      row.given ? 'given' : 'assumed',
      ...ways.flatMap((way) =>
        SIDES.flatMap((side) => [
          cell(row[way][side]),
          row[way][side].mm === null ? 'not covered' : row[way][side].by,
        ]),
      ),
    ]),
  ];
}
