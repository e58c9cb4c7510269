import type { Mark, Solve, Station } from '../document/station.js';
import { solveOf } from './freedoms.js';
import { standingOf, stateOf } from '../optical/state.js';
import { advised } from './advised.js';
import { solveStation, type FocusAnswer } from './solve.js';
import { rounded } from '../words/rounded.js';

/** What a scale is set to of a lean: thousandths of a degree. */
const settable = (deg: number, round: (value: number) => number): number =>
  Number((round(deg * 1000) / 1000).toFixed(3)) + 0;

/**
 * The station set for its marks, leans to a thousandth of a degree and the focus found again for
 * them; as it is where nothing can be solved.
 * @param answer what is set: what is advised, unless another is given
 */
export const solvedFor = (
  station: Station,
  answer: FocusAnswer | null = advised(station),
): Station => (answer ? settled(answer) : station);

/** The station an answer was found for, set as it has it, to what its scales can be set to. */
export function settled(answer: FocusAnswer): Station {
  const nearest = settledAt(answer, Math.round);
  const serves = (station: Station): boolean => standingOf(stateOf(station)) !== 'outside';
  if (!answer.within || serves(nearest)) return nearest;
  // At an end of the mechanism or the circle the nearest thousandth may lie past it; where the next
  // one does too, the focus is found for the circle.
  const inward = settledAt(answer, Math.trunc);
  if (serves(inward)) return inward;
  const lit = settledAt(answer, Math.trunc, false);
  return serves(lit) ? lit : inward;
}

function settledAt(
  answer: FocusAnswer,
  round: (value: number) => number,
  anyCircle = true,
): Station {
  const { lens, rear } = answer.solved;
  const back = answer.freedom.kind === 'rear';
  const moved = back ? rear : lens;
  const lean = (deg: number): readonly [number, number] => {
    const value = settable(deg, round);
    return [value, value];
  };
  const again = solveStation(answer.station, {
    freedoms: [
      {
        kind: back ? 'rear' : 'front',
        tilt: lean(moved.tiltDeg),
        swing: lean(moved.swingDeg),
        leanDeg: 90,
      },
    ],
    anyCircle,
    widest: answer.widest,
  });
  const { station: set } = again ?? answer;
  // Turning degrees into radians and back leaves dust behind.
  const clean = Object.fromEntries(
    Object.entries(set.movements).map(([key, value]) =>
      key.endsWith('_deg') ? [key, rounded(value, 3)] : [key, value],
    ),
  ) as Station['movements'];
  return { ...set, movements: clean };
}

/** Follows its marks where that is asked for. */
export const followed = (station: Station): Station =>
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
