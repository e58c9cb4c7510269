import { bisect } from '@gangway/optics';
import type { Mosaic, Station } from '../../document/station.js';
import { evenTurns, layoutOf } from '../layout.js';
import { cornersPast } from '../light.js';
import type { Room } from './room.js';

type Of<P extends Mosaic['pattern']> = Extract<Mosaic, { pattern: P }>;

/** Numbers of frames round a circle that nobody minds dividing it into, where nothing stops. */
const FREE_COUNTS = [3, 4, 6, 8, 12] as const;

/** How many frames a ring may have on what turns: so many that each lies at a stop. */
const counts = ({ turnStopsDeg }: { turnStopsDeg: readonly number[] }): readonly number[] =>
  turnStopsDeg.length === 0
    ? FREE_COUNTS
    : Array.from({ length: 10 }, (_, i) => i + 3).filter((n) => evenTurns(turnStopsDeg, n));

/** Rings of a lens that is pushed out and turned: as far out as light and mechanism allow. */
export function ringsOf(
  station: Station,
  room: Room,
  base: Omit<Of<'ring'>, 'pattern'>,
): Of<'ring'>[] {
  const { carrier, cone } = room;
  if (!carrier.turns) return [];
  const most = Number.isFinite(carrier.radialMm) ? carrier.radialMm : 0;
  return counts(carrier).flatMap((frames) => {
    const at = (radius_mm: number, middle: boolean): Of<'ring'> => ({
      ...base,
      pattern: 'ring',
      frames,
      radius_mm,
      start_deg: carrier.turnStopsDeg[0] ?? 0,
      ...(middle ? { middle } : {}),
    });
    const lit = (radius: number): boolean =>
      layoutOf(station, at(radius, true)).frames.every(
        (frame) => cornersPast(cone, frame).length === 0,
      );
    if (!lit(0)) return [];
    const far = lit(most) ? most : bisect(0, most, lit, 1e-4);
    const { detentMm } = carrier;
    const radius =
      detentMm === null
        ? Math.floor(far * 100) / 100
        : Math.floor(far / detentMm + 1e-9) * detentMm;
    return radius > 0 ? [at(radius, false), at(radius, true)] : [];
  });
}

/** The pinwheel of an adapter that turns the sensor round the middle: it has one. */
export function wheelsOf(
  station: Station,
  base: Omit<Of<'pinwheel'>, 'pattern'>,
): Of<'pinwheel'>[] {
  const { frame_stops: stops } = station.movement_limits;
  return stops && 'turns' in stops
    ? [{ ...base, pattern: 'pinwheel', frames: stops.turns, offset_mm: stops.offset_mm }]
    : [];
}

/** More frames in one turn than this nobody asks for. */
const MOST_TURNED = 60;

/** The whole camera turned: one row, as many frames as are asked for. */
export const turnsOf = (base: Omit<Of<'turn'>, 'pattern' | 'moves' | 'columns'>): Of<'turn'>[] =>
  Array.from({ length: MOST_TURNED - 1 }, (_, i) => ({
    ...base,
    pattern: 'turn' as const,
    moves: 'camera' as const,
    columns: i + 2,
  }));
