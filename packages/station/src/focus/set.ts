import type { Mark, Solve, Station } from '../schema.js';
import { solveOf } from './freedoms.js';
import { solveStation } from './solve.js';

/** A station with some settings changed. */
export const withSet = (station: Station, change: Partial<Station>): Station => ({
  ...station,
  ...change,
});

/** What a hand can set of a lean, degrees. */
const LEAN_STEP = 1e-3;

const rounded = (deg: number): number => Math.round(deg / LEAN_STEP) * LEAN_STEP;

/**
 * The station set for its marks, leans to a thousandth of a degree and the focus found again for
 * them; as it is where nothing can be solved.
 */
export function solvedFor(station: Station): Station {
  const answer = solveStation(station);
  if (!answer) return station;
  const { lens, rear } = answer.solved;
  const lean = (deg: number): readonly [number, number] => {
    const value = Number(rounded(deg).toFixed(3)) + 0;
    return [value, value];
  };
  const back = answer.freedom.kind === 'rear';
  const moved = back ? rear : lens;
  const again = solveStation(
    { ...answer.station, aperture: station.aperture },
    {
      freedoms: [
        {
          kind: back ? 'rear' : 'front',
          tilt: lean(moved.tiltDeg),
          swing: lean(moved.swingDeg),
          leanDeg: 90,
        },
      ],
      anyCircle: true,
    },
  );
  const { station: set } = again ?? answer;
  // Turning degrees into radians and back leaves dust behind.
  const clean = Object.fromEntries(
    Object.entries(set.movements).map(([key, value]) =>
      key.endsWith('_deg') ? [key, Number((value as number).toFixed(3)) + 0] : [key, value],
    ),
  ) as Station['movements'];
  return { ...set, movements: clean };
}

/** Follows its marks where that is asked for. */
const followed = (station: Station): Station =>
  station.solve?.follow ? solvedFor(station) : station;

export const withMarks = (station: Station, marks: Mark[]): Station =>
  followed({ ...station, marks });

export const withMark = (station: Station, index: number, change: Partial<Mark>): Station =>
  withMarks(
    station,
    (station.marks ?? []).map((mark, i) => (i === index ? { ...mark, ...change } : mark)),
  );

export const withoutMark = (station: Station, index: number): Station =>
  withMarks(
    station,
    (station.marks ?? []).filter((_, i) => i !== index),
  );

export const withSolve = (station: Station, change: Partial<Solve>): Station => {
  const solve = { ...solveOf(station), ...change };
  return followed({ ...station, solve });
};
