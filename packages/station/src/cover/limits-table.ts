import {
  engravedStops,
  movementLimits,
  travelAlong,
  UPRIGHT,
  type Limit,
  mostOf,
} from '@gangway/optics';
import type { Station } from '../document/station.js';
import { circleGiven, setupOf, shiftLengthMm, type Setup } from '../optical/setup.js';
import { mechanicsOf } from '../optical/turning.js';
import { trimmed } from '../words/format.js';
import { circleOnBackMm } from './corners.js';
import { rigFacts } from '../optical/facts.js';
import { focusEnds } from '../optical/reach.js';

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

/** How far a lens that turns shifts at some of its stops, for each engraved aperture. */
export interface ClickLimits {
  /** Angles at which it goes equally far, clockwise as seen from behind. */
  readonly anglesDeg: readonly number[];
  readonly rows: readonly { readonly level: Limit; readonly upright: Limit }[];
}

export interface LimitsTable {
  readonly rows: readonly LimitsRow[];
  /** Distance the table holds for, m; null at infinity. The circle is least at the farthest. */
  readonly focusM: number | null;
  /** Empty where nothing turns to stops. */
  readonly clicks: readonly ClickLimits[];
}

/**
 * How far each movement goes by itself from zero, for each engraved stop, the back level and
 * upright: what one would engrave. Lens straight, focused as far as the rig goes, no crop.
 */
export function limitsTable(station: Station): LimitsTable {
  const { crop: _, mosaic: __, turn_in: ___, ...rest } = station;
  const farMm = focusEnds(rigFacts(station), UPRIGHT).farMm;
  const straight: Station = {
    ...rest,
    movements: { rise_mm: 0, shift_mm: 0, tilt_deg: 0, swing_deg: 0 },
    focus: { distance_m: Number.isFinite(farMm) ? farMm / 1000 : null },
  };
  const { f_min, f_max } = station.lens;
  const stops = engravedStops(f_min, f_max, 'whole');
  // The widest stop is engraved whatever it is.
  if (stops[0] === undefined || stops[0] > f_min * 1.01) stops.unshift(f_min);
  const setups = stops.map((aperture) => {
    const at = (orientation: 'landscape' | 'portrait'): Setup =>
      setupOf({ ...straight, aperture, back: { ...station.back, orientation } });
    return { aperture, landscape: at('landscape'), portrait: at('portrait') };
  });
  return {
    focusM: Number.isFinite(farMm) ? farMm / 1000 : null,
    clicks: clicksOf(straight, setups),
    rows: stops.map((fNumber, i) => {
      const at = (orientation: 'landscape' | 'portrait') => {
        const s = setups[i]![orientation];
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
        given: circleGiven(rigFacts(station).circles, fNumber),
        level: level.limits,
        upright: at('portrait').limits,
      };
    }),
  };
}

type Turned = Readonly<Record<'landscape' | 'portrait', Setup>> & { readonly aperture: number };

/** How far the one slide of a lens that turns goes along a direction, by all that is told of it. */
function slideMm(
  station: Pick<Station, 'movement_limits' | 'aperture'>,
  direction: { readonly shift: number; readonly rise: number },
): number {
  const { movement_limits: limits } = station;
  const ends = [
    [limits.rise_mm, direction.rise],
    [limits.shift_mm, direction.shift],
  ] as const;
  const along = ends.flatMap(([range, share]) =>
    range === undefined || Math.abs(share) < 1e-9
      ? []
      : [(share > 0 ? range[1] : -range[0]) / Math.abs(share)],
  );
  const longest = ends.flatMap(([range]) => (range ? range.map(Math.abs) : []));
  const slide = longest.length > 0 ? mostOf(longest) : Infinity;
  return Math.min(shiftLengthMm(station), slide, ...along);
}

/** Limits alike to so much are one, mm. */
const ALIKE_MM = 1e-6;

const alike = (a: Limit, b: Limit): boolean =>
  a.by === b.by &&
  (a.mm === b.mm || (a.mm !== null && b.mm !== null && Math.abs(a.mm - b.mm) < ALIKE_MM));

function clicksOf(straight: Station, setups: readonly Turned[]): ClickLimits[] {
  const mechanics = mechanicsOf(straight);
  if (!mechanics?.shift || mechanics.stops.length === 0) return [];
  const found: { anglesDeg: number[]; rows: ClickLimits['rows'] }[] = [];
  for (const deg of mechanics.stops) {
    const turn = (deg * Math.PI) / 180;
    const direction = { shift: Math.sin(turn), rise: Math.cos(turn) };
    const rows = setups.map(({ aperture, landscape, portrait }) => {
      const most = slideMm({ ...straight, aperture }, direction);
      const at = (s: Setup): Limit => travelAlong(s.cone, s.frame, s.placing, direction, most);
      return { level: at(landscape), upright: at(portrait) };
    });
    const same = found.find((each) =>
      each.rows.every(
        (row, i) => alike(row.level, rows[i]!.level) && alike(row.upright, rows[i]!.upright),
      ),
    );
    if (same) same.anglesDeg.push(deg);
    else found.push({ anglesDeg: [deg], rows });
  }
  return found;
}

/** The stops of a turning lens that go equally far, as they are read on it. */
export const clickWords = ({ anglesDeg }: ClickLimits): string =>
  anglesDeg.map((deg) => `${trimmed(deg, 1)}°`).join(', ');

export const SIDES = ['up', 'down', 'left', 'right'] as const;

/** The table as lines of text, for a spreadsheet: a heading, then one line a stop. */
export function limitsLines({ rows, clicks }: LimitsTable): string[][] {
  const cell = ({ mm }: Limit): string => (mm === null || mm === Infinity ? '' : mm.toFixed(2));
  const ways = ['level', 'upright'] as const;
  return [
    [
      'f_number',
      'circle_mm',
      'circle_is',
      ...ways.flatMap((way) => SIDES.flatMap((side) => [`${way}_${side}_mm`, `${way}_${side}_by`])),
      ...clicks.flatMap(({ anglesDeg }) =>
        ways.flatMap((way) => {
          const name = `${way}_at_${anglesDeg.join('_')}_deg`;
          return [`${name}_mm`, `${name}_by`];
        }),
      ),
    ],
    ...rows.map((row, i) => [
      String(row.fNumber),
      row.circleMm.toFixed(2),
      row.given ? 'given' : 'assumed',
      ...ways.flatMap((way) =>
        SIDES.flatMap((side) => [
          cell(row[way][side]),
          row[way][side].mm === null ? 'not covered' : row[way][side].by,
        ]),
      ),
      ...clicks.flatMap((click) =>
        ways.flatMap((way) => {
          const limit = click.rows[i]![way];
          return [cell(limit), limit.mm === null ? 'not covered' : limit.by];
        }),
      ),
    ]),
  ];
}
