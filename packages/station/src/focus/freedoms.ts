import { degrees, type Freedom } from '@gangway/optics';
import type { Solve, Station } from '../document/station.js';
import { lockedLean } from '../optical/turning.js';
import { REAR_MOVEMENTS } from '../document/movements.js';

/** A lens that says nothing of its tilt is taken to lean this far, degrees. */
const UNTOLD_DEG = 60;

/** What the solver may move where the station does not say. */
export const solveOf = (station: Station): Solve => station.solve ?? { tilt: true, swing: true };

/** Whether the camera's back leans by itself. */
export const leansBack = ({ movement_limits: limits }: Station): boolean =>
  limits.rear_tilt_deg !== undefined || limits.rear_swing_deg !== undefined;

/** Whether the back has any movement that the front's standard does not carry. */
export const movesBack = (station: Station): boolean => {
  const { movement_limits: limits, movements } = station;
  return REAR_MOVEMENTS.some(
    (field) => limits[field] !== undefined || (movements[field] ?? 0) !== 0,
  );
};

const locked = (at: number): readonly [number, number] => [at, at];

/**
 * The ways in which this rig may be leaned, each searched by itself: one for a lens or back that
 * leans both ways, one for every stop of a lens that leans along one line and is turned.
 * @param solve what may move
 */
export function freedomsOf(station: Station, solve: Solve = solveOf(station)): Freedom[] {
  const { movements: set, movement_limits: limits } = station;
  if (solve.rear) {
    return [
      {
        kind: 'rear',
        tilt: solve.tilt ? (limits.rear_tilt_deg ?? locked(0)) : locked(set.rear_tilt_deg ?? 0),
        swing: solve.swing ? (limits.rear_swing_deg ?? locked(0)) : locked(set.rear_swing_deg ?? 0),
        leanDeg: 90,
      },
    ];
  }
  const directions = leanDirections(station);
  if (directions && (solve.tilt || solve.swing)) {
    const most = limits.radial_tilt_deg ?? longest(station);
    const least = limits.one_way_tilt ? 0 : -most;
    const usable = directions.filter((turn) => allows(turn, solve));
    return usable.map((turnDeg) => ({ kind: 'turned', turnDeg, lean: [least, most] }));
  }
  const untold = limits.radial_tilt_deg ?? UNTOLD_DEG;
  const free = [-untold, untold] as const;
  const oneWay = limits.one_way_tilt === true && limits.radial_tilt_deg === undefined;
  const range = (given: readonly [number, number] | undefined): readonly [number, number] => {
    const [low, high] = given ?? free;
    return oneWay && given === undefined ? [0, high] : [low, high];
  };
  const lock = lockedLean(station);
  const axis = (may: boolean, field: 'tilt_deg' | 'swing_deg'): readonly [number, number] => {
    if (!may || lock === field) return locked(set[field]);
    return range(limits[field]);
  };
  return [
    {
      kind: 'front',
      tilt: axis(solve.tilt, 'tilt_deg'),
      swing: axis(solve.swing, 'swing_deg'),
      leanDeg: limits.radial_tilt_deg ?? 90,
    },
  ];
}

const longest = ({ movement_limits: { tilt_deg, swing_deg } }: Station): number =>
  Math.max(...[...(tilt_deg ?? []), ...(swing_deg ?? [])].map(Math.abs), 0) || UNTOLD_DEG;

/** Turns along which the lens can lean, clockwise from behind; null where any will do. */
function leanDirections({ movements: set, movement_limits: limits }: Station): number[] | null {
  const { shift_tilt: lock, turn_stops_deg: stops } = limits;
  const shifted = set.rise_mm !== 0 && set.shift_mm !== 0;
  if (shifted && (lock === 'in_line' || lock === 'crossed')) {
    const along = degrees(Math.atan2(set.shift_mm, set.rise_mm));
    return [lock === 'in_line' ? along : along + 90];
  }
  const turns = limits.radial_tilt_deg !== undefined || limits.one_way_tilt === true;
  if (!turns || !stops || stops.length === 0) return null;
  return limits.one_way_tilt ? [...stops] : half(stops);
}

/** A lens that leans both ways needs only one of two opposite stops. */
const half = (stops: readonly number[]): number[] =>
  stops.filter(
    (stop, i) => !stops.slice(0, i).some((other) => Math.abs(((stop - other) % 180) + 0) < 1e-9),
  );

/** Whether a lean along a turn is tilt alone, swing alone, or what may be both. */
function allows(turnDeg: number, { tilt, swing }: Solve): boolean {
  const quarter = ((turnDeg % 180) + 180) % 180;
  const upright = Math.min(quarter, 180 - quarter) < 1e-6;
  const level = Math.abs(quarter - 90) < 1e-6;
  return (tilt && swing) || (tilt && upright) || (swing && level);
}
