import type { Station } from '../../document/station.js';
import { marksOutside } from '../../optical/framed-marks.js';
import { asSettable } from '../../optical/turning.js';
import { alsoWords } from '../../ways/changes.js';
import { framed } from '../../facade/facade.js';
import { setupOf } from '../../optical/setup.js';
import { standingOf, stateOf, type State } from '../../optical/state.js';
import { stopDown } from '../../ways/stop-down.js';
import { turnBack } from '../../ways/turn-back.js';
import { tried, type Draft, type Way } from '../../ways/way.js';
import { fixed } from '../../words/format.js';
import { reportCoverage } from '../coverage.js';
import { easeMovement } from './ease-movement.js';
import { easeTogether } from './ease-together.js';
import type { Kind } from './kind.js';

/** Every kind of way out. Order does not matter; cost does. */
const KINDS: readonly Kind[] = [
  ({ station, cures }) => stopDown(station, 'stop-down', (after) => (cures(after) ? after : null)),
  ({ station }) => turnBack(station, { id: 'turn-back', cost: ANOTHER_PICTURE }, (after) => after),
  easeMovement,
  easeTogether,
];

/** Turning the back is quick, but it is another picture; in stops. */
const ANOTHER_PICTURE = 2.5;

export interface WayOut extends Way<Station> {
  /** How the frame stands once it is taken. */
  readonly state: State;
}

const MOST = 6;

/** What a corner past the sharp core still costs, in stops. */
const SOFT = 0.4;

/** What it costs to lose part of the façade that was whole in the picture, in stops. */
const CUT = 3;

/**
 * Concrete changes that would cure what is wrong with the frame, best first; none when all is
 * well. Each has been tried: `after` passes the verdict it is offered for.
 */
export function waysOut(station: Station): WayOut[] {
  const state = stateOf(station);
  if (state === 'sharp') return [];
  const cured = (after: State): boolean =>
    state === 'soft' ? after === 'sharp' : standingOf(after) !== 'outside';
  const s = setupOf(station);
  const whole = station.facade !== undefined && framed(s);
  const out = marksOutside(s);
  /** What was in the picture and is not any more. */
  const lost = (after: Station): string[] => {
    const later = setupOf(after);
    const marks = marksOutside(later).filter((index) => !out.includes(index));
    return [
      ...(whole && !framed(later) ? ['the façade'] : []),
      ...marks.map((index) => station.marks![index]!.label || `mark ${index + 1}`),
    ];
  };
  // A soft corner is no reason to lose what is in the picture: bringing it back would undo the cure.
  const cures = (after: Station): boolean =>
    cured(stateOf(after)) &&
    asSettable(after, station) &&
    (state !== 'soft' || lost(after).length === 0);
  const priced = (draft: Draft<Station>): Draft<Station> => {
    const cut = lost(draft.after);
    const soft = state !== 'soft' && stateOf(draft.after) === 'soft' ? SOFT : 0;
    return cut.length > 0
      ? { ...draft, cost: draft.cost + CUT, price: `${draft.price}; cuts ${cut.join(', ')}` }
      : { ...draft, cost: draft.cost + soft };
  };
  const drafts = KINDS.flatMap((propose) => propose({ station, state, cures }));
  return tried(drafts, { cures, priced, most: MOST }).map(({ id, title, says, price, after }) => ({
    id,
    title,
    detail: [gain(state, after), alsoWords(station, after, says), price].filter(Boolean).join('; '),
    state: stateOf(after),
    after,
  }));
}

/** What the corner has afterwards, in the terms of what was wrong. */
function gain(state: State, after: Station): string {
  const coverage = reportCoverage(setupOf(after));
  if (state === 'soft') {
    const past = coverage.sharp_margin_mm;
    return past === null || past < 0.05
      ? 'core just reaches the corner'
      : `core reaches ${fixed(past, 1)} mm past the corner`;
  }
  const margin = coverage.margin_mm;
  const clears =
    margin === null || margin < 0.05
      ? 'just clears the corner'
      : `clears the corner by ${fixed(margin, 1)} mm`;
  return `${clears}${coverage.sharp ? '' : ', still soft there'}`;
}
