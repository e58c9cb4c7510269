import { stopDown } from '../../ways/stop-down.js';
import { turnBack } from '../../ways/turn-back.js';
import { alsoWords, changesBetween } from '../../ways/changes.js';
import { tried, type Way } from '../../ways/way.js';
import type { Units } from '../../words/format.js';
import { changeParses } from '../../document/edited.js';
import { type FacadeWay, allowedRise } from '../facade.js';
import type { Station } from '../../document/station.js';
import { setupOf } from '../../optical/setup.js';
import { stateOf, type State } from '../../optical/state.js';
import { asSettable } from '../../optical/turning.js';
import { movedToFrame, SENSIBLE } from '../place.js';
import { framedWell } from '../verdict.js';
import { crop } from './crop.js';
import { frames } from './frames.js';
import type { FramingKind, FramingQuestion } from './kind.js';
import { lens } from './lens.js';
import { move } from './move.js';
import { pitch } from './pitch.js';
import { raise, step } from './stand.js';

/** Every kind of way to frame the façade. To add one: write a file beside this and list it here. */
const KINDS: readonly FramingKind[] = [
  move,
  ({ station }) => stopDown(station, 'frame-stop-down', (stopped) => movedToFrame(stopped)),
  ({ station }) =>
    turnBack(station, { id: 'frame-turn-back', cost: TURNED }, (turned) => movedToFrame(turned)),
  step,
  raise,
  pitch,
  frames,
  crop,
  lens,
];

/** Turning the back frames another picture, but it is quick; in stops. */
const TURNED = 1.5;

export interface FramingWay extends Way<Station> {
  /** How the frame stands in the circle once it is taken. */
  readonly state: State;
}

const MOST = 9;

/** What a setting near the end of its range costs beside one in the middle. */
const AT_THE_END = 1;

/** What a corner past the sharp core costs, in stops. */
const SOFT = 0.7;

/** Share of the allowed rise in use, 0 to 1. */
function strain(station: Station): number {
  const s = setupOf(station);
  const { low, high } = allowedRise(s);
  const rise = s.set.riseMm;
  const end = rise < 0 ? low : high;
  return rise === 0 || Math.abs(end) === 0 ? 0 : Math.min(1, rise / end);
}

const past = (share: number): number => Math.max(0, share - SENSIBLE) / (1 - SENSIBLE);

/**
 * Ways to bring the whole façade into the picture, best first; none when it is there, or when
 * there is no façade. Each has been tried: `after` is framed, covered and within the mechanism.
 */
export function framingWays(
  station: Station,
  swaps: FramingQuestion['swaps'] = [],
  units: Units = 'metric',
): FramingWay[] {
  if (!station.facade || framedWell(station)) return [];
  const question = { station, swaps, units };
  const soft = (after: Station): number => (stateOf(after) === 'soft' ? SOFT : 0);
  const ends = (after: Station): number => AT_THE_END * past(strainOf(after));
  return tried(
    KINDS.flatMap((propose) => propose(question)),
    {
      cures: (after) =>
        framedWell(after) && asSettable(after, station) && changeParses(after, station),
      priced: (draft) => ({ ...draft, cost: draft.cost + ends(draft.after) + soft(draft.after) }),
      most: MOST,
    },
  ).map(({ id, title, price, after, says }) => ({
    id,
    title,
    detail: [
      alsoWords(station, after, says),
      strainOf(after) > SENSIBLE + 1e-9 ? 'near the end of the rise' : '',
      stateOf(after) === 'soft' ? 'a corner is soft' : '',
      price,
    ]
      .filter(Boolean)
      .join('; '),
    state: stateOf(after),
    after,
  }));
}

/** A grid uses its movements by plan; only a single frame can be strained. */
const strainOf = (station: Station): number => (station.mosaic ? 0 : strain(station));

/** The same as the report gives them. */
export const facadeWays = (station: Station): FacadeWay[] =>
  framingWays(station).map(({ id, title, detail, after: taken }) => ({
    id,
    title,
    detail,
    set: changesBetween(station, taken),
  }));
