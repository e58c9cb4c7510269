import { stepToSet, leastOf, mostOf } from '@gangway/optics';
import type { Station } from '../../document/station.js';
import { stepped } from '../../facade/step.js';
import { marksOutside, picturedMarks } from '../../optical/framed-marks.js';
import { setupOf } from '../../optical/setup.js';
import { standingOf, stateOf } from '../../optical/state.js';
import { asSettable } from '../../optical/turning.js';
import { changeParses } from '../../document/edited.js';
import { alsoWords } from '../../ways/changes.js';
import { stopDown } from '../../ways/stop-down.js';
import { turnBack } from '../../ways/turn-back.js';
import { tried, type Draft } from '../../ways/way.js';
import { distance, fixed, type Units } from '../../words/format.js';
import { moveSaid, standardOf } from '../../words/hands.js';
import { atLeast, rounded } from '../../words/rounded.js';
import type { WayOut } from './index.js';

/** A lens that moves takes its view along: the marks are looked at again after each move. */
const ROUNDS = 8;

/** Movements are set to tenths of a millimetre, outwards, so that what is asked for is had. */
const outwards = (from: number, to: number): number => {
  const step = to - from;
  return Math.abs(step) < 1e-9
    ? from
    : rounded(from + Math.sign(step) * atLeast(Math.abs(step), 1), 2);
};

/** The nearest rise and shift with every sharp mark in the frame; null where the frame is too small for them. */
function movedToMarks(station: Station): Station | null {
  let at = station;
  for (let round = 0; round < ROUNDS; round++) {
    const s = setupOf(at);
    const marks = picturedMarks(s);
    if (marks.some((mark) => mark.at === null)) return null;
    const [xs, ys] = [marks.map((mark) => mark.at!.x), marks.map((mark) => mark.at!.y)];
    const aim = (places: readonly number[], half: number, now: number): number | null => {
      const [low, high] = [mostOf(places) - half, leastOf(places) + half];
      return low > high ? null : Math.min(high, Math.max(low, now));
    };
    const x = aim(xs, s.frame.widthMm / 2, s.frame.shiftMm);
    const y = aim(ys, s.frame.heightMm / 2, s.frame.riseMm);
    if (x === null || y === null) return null;
    const { riseMm, shiftMm } = stepToSet(s.placing, {
      x: x - s.frame.shiftMm,
      y: y - s.frame.riseMm,
    });
    if (Math.hypot(riseMm, shiftMm) < 1e-9) break;
    const { rise_mm, shift_mm } = at.movements;
    at = {
      ...at,
      movements: {
        ...at.movements,
        rise_mm: outwards(rise_mm, rise_mm + riseMm),
        shift_mm: outwards(shift_mm, shift_mm + shiftMm),
      },
    };
  }
  return marksOutside(setupOf(at)).length === 0 ? at : null;
}

function move(station: Station): Draft<Station>[] {
  const after = movedToMarks(station);
  if (!after) return [];
  const standard = standardOf(station);
  const by = (['rise', 'shift'] as const).flatMap((movement) => {
    const field = `${movement}_mm` as const;
    const step = after.movements[field] - station.movements[field];
    return Math.abs(step) < 1e-9 ? [] : [moveSaid(station, standard, movement, step)];
  });
  if (by.length === 0) return [];
  const [first, ...rest] = by;
  return [
    {
      id: 'marks-move',
      title: [first!, ...rest.map((each) => each.charAt(0).toLowerCase() + each.slice(1))].join(
        ', ',
      ),
      says: ['/movements/rise_mm', '/movements/shift_mm'],
      price: 'moves the picture',
      cost: 0.5,
      after,
    },
  ];
}

const STEP_M = 0.1;
/** Further back than this is another picture. */
const FARTHEST_STEPS = 100;

/** The least step back, by tenths of a metre, with all of them in the frame as it is set. */
function stepBack(station: Station, units: Units): Draft<Station>[] {
  for (let i = 1; i <= FARTHEST_STEPS; i++) {
    const by = rounded(i * STEP_M, 1);
    const after = stepped(station, by);
    if (!after) return [];
    if (marksOutside(setupOf(after)).length > 0) continue;
    return [
      {
        id: 'marks-step-back',
        title: `Step back ${units === 'metric' ? `${fixed(by, 1)} m` : distance(by, units)}`,
        says: ['/facade', '/site', '/marks'],
        price: 'everything is pictured smaller; focus again',
        cost: 1 + by,
        after,
      },
    ];
  }
  return [];
}

const MOST = 4;

/** Ways to bring marks that must be sharp into the frame, best first; none when they are. */
export function markWays(station: Station, units: Units = 'metric'): WayOut[] {
  const outside = marksOutside(setupOf(station)).length;
  if (outside === 0) return [];
  const cures = (after: Station): boolean =>
    marksOutside(setupOf(after)).length === 0 &&
    standingOf(stateOf(after)) !== 'outside' &&
    asSettable(after, station) &&
    changeParses(after, station);
  const drafts = [
    ...move(station),
    ...stopDown(station, 'marks-stop-down', movedToMarks),
    ...turnBack(station, { id: 'marks-turn-back', cost: 1.5 }, movedToMarks),
    ...stepBack(station, units),
  ];
  return tried(drafts, { cures, most: MOST }).map(({ id, title, says, price, after }) => ({
    id,
    title,
    detail: [alsoWords(station, after, says), price].filter(Boolean).join('; '),
    state: stateOf(after),
    after,
  }));
}
