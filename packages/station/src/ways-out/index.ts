import { readings } from '../readings.js';
import { fixed } from '../format.js';
import { framed } from '../framing/facade.js';
import type { Readings } from '../report.js';
import type { Station } from '../schema.js';
import { setup } from '../setup.js';
import { standingOf, stateOf, type State } from '../state.js';
import { easeMovement } from './ease-movement.js';
import { easeTogether } from './ease-together.js';
import type { Draft, Kind } from './kind.js';
import { stopDown } from './stop-down.js';
import { turnBack } from './turn-back.js';

/** Every kind of way out. Order does not matter; cost does. */
const KINDS: readonly Kind[] = [stopDown, turnBack, easeMovement, easeTogether];

export interface WayOut extends Omit<Draft, 'cost'> {
  /** What it brings, then what it costs. */
  readonly detail: string;
  /** How the frame stands once it is taken. */
  readonly state: State;
}

const MOST = 6;

/** What it costs to lose part of the façade that was whole in the picture, in stops. */
const CUT = 3;

/**
 * Concrete changes that would cure what is wrong with the frame, best first; none when all is
 * well. Each has been tried: `after` passes the verdict it is offered for.
 */
export function waysOut(station: Station, report: Readings): WayOut[] {
  const state = stateOf(station);
  if (state === 'sharp') return [];
  const cured = (after: State): boolean =>
    state === 'soft' ? after === 'sharp' : standingOf(after) !== 'outside';
  const question = {
    station,
    report,
    setup: setup(station),
    state,
    cures: (after: Station): boolean => cured(stateOf(after)),
  };
  const whole = station.facade !== undefined && framed(station, question.setup);
  const cuts = (after: Station): boolean => whole && !framed(after, setup(after));
  return KINDS.flatMap((kind) => kind.propose(question))
    .filter((draft) => question.cures(draft.after))
    .map((draft) =>
      cuts(draft.after)
        ? { ...draft, cost: draft.cost + CUT, price: `${draft.price}, cuts the façade` }
        : draft,
    )
    .sort((a, b) => a.cost - b.cost)
    .slice(0, MOST)
    .map(({ cost: _, ...draft }) => ({
      ...draft,
      detail: `${gain(state, draft.after)}; ${draft.price}`,
      state: stateOf(draft.after),
    }));
}

/** What the corner has afterwards, in the terms of what was wrong. */
function gain(state: State, after: Station): string {
  const { coverage } = readings(after);
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
