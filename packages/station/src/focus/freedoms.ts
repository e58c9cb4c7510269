import { degrees, type Freedom, leastOf } from '@gangway/optics';
import type { Solve, Station } from '../document/station.js';
import { leanLengthDeg, leanTurns } from '../optical/setup.js';
import { lockedLean, mechanicsOf, type Mechanics } from '../optical/turning.js';
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
  const turned = turnedFreedoms(station, solve);
  if (turned) return turned;
  const cone = leanTurns(limits);
  const most = cone ? leanLengthDeg(limits) : UNTOLD_DEG;
  const free = [-most, most] as const;
  const lock = lockedLean(station);
  const axis = (may: boolean, field: 'tilt_deg' | 'swing_deg'): readonly [number, number] => {
    if (!may || lock === field) return locked(set[field]);
    // A lens that is turned leans any way by its length, whatever its own tilt is called.
    return cone ? free : (limits[field] ?? free);
  };
  return [
    {
      kind: 'front',
      tilt: axis(solve.tilt, 'tilt_deg'),
      swing: axis(solve.swing, 'swing_deg'),
      leanDeg: cone ? most : 90,
    },
  ];
}

/** The leans of a lens that can only lean along certain turns; null where any turn will do. */
function turnedFreedoms(station: Station, solve: Solve): Freedom[] | null {
  const made = mechanicsOf(station);
  const directions = made && leanDirections(station, made);
  if (!directions || (!solve.tilt && !solve.swing)) return null;
  return directions
    .filter((turn) => allows(turn, solve))
    .map((turnDeg) => ({ kind: 'turned', turnDeg, lean: leanAlong(station, made, turnDeg) }));
}

const TURN_SLACK_DEG = 1e-6;

/** How far it leans along a turn, back to forth; tilt and swing may have ranges of their own. */
function leanAlong(
  { movement_limits: limits }: Station,
  { leastDeg, mostDeg }: Mechanics,
  turnDeg: number,
): readonly [number, number] {
  const at = ((turnDeg % 360) + 360) % 360;
  const is = (deg: number): boolean => Math.abs(((at - deg + 540) % 360) - 180) < TURN_SLACK_DEG;
  if (leanTurns(limits)) return [leastDeg, mostDeg];
  const [range, forth] = is(0)
    ? [limits.tilt_deg, true]
    : is(180)
      ? [limits.tilt_deg, false]
      : // Turned a quarter clockwise it leans to the left.
        is(90)
        ? [limits.swing_deg, false]
        : is(270)
          ? [limits.swing_deg, true]
          : [undefined, true];
  if (!range) return [leastDeg, mostDeg];
  return forth ? range : [-range[1] + 0, -range[0] + 0];
}

/** Turns along which the lens can lean, clockwise from behind; null where any will do. */
function leanDirections(
  { movements: set }: Station,
  { tilt, apartDeg, stops, leastDeg }: Mechanics,
): number[] | null {
  if (!tilt) return null;
  const oneWay = leastDeg === 0;
  const both = (deg: number): number[] => (oneWay ? [deg, deg + 180] : [deg]);
  const shifted = set.rise_mm !== 0 || set.shift_mm !== 0;
  if (apartDeg !== null && shifted) {
    const along = degrees(Math.atan2(set.shift_mm, set.rise_mm));
    return turnsAlong(along, stops, both).map((deg) => deg + apartDeg);
  }
  if (stops.length === 0) return null;
  const all = stops.map((stop) => stop + (apartDeg ?? 0));
  return oneWay ? all : half(all);
}

/** The stops that a shift along a turn can be set at, one way or the other; the turn itself without stops. */
function turnsAlong(
  along: number,
  stops: readonly number[],
  both: (deg: number) => number[],
): number[] {
  if (stops.length === 0) return both(along);
  const off = (stop: number): number => {
    const apart = (((stop - along) % 180) + 180) % 180;
    return Math.min(apart, 180 - apart);
  };
  const least = leastOf(stops.map(off));
  return stops.filter((stop) => off(stop) <= least + 1e-6);
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
