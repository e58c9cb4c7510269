import { newBudget, type Budget, effortOf, isWholeSearch, type Effort } from '@gangway/optics';
import type { Station } from '../../document/station.js';
import type { NoneServes } from '../../words/wish.js';
import type { Judged } from './judged.js';
import { nearest, type Nearest } from './nearest.js';
import { framesOf, ranked, type Offered } from './ranked.js';
import { shifted, type Shifted } from './shifted.js';
import { roomsOf, stands } from './stand.js';
import { rounds } from './turned.js';

export { offerValues } from './laid.js';
export type { Offered } from './ranked.js';
export type { Wish } from './want.js';

/** What is found for a wish. */
export interface Found {
  /** Best first: they serve with the least frames. */
  readonly offers: readonly Offered[];
  /** Where nothing serves: why, and the nearest that can be had. */
  readonly why: NoneServes | null;
  readonly nearest: Offered | null;
  /** The search ended early, its steps used up: a better layout may be there. */
  readonly stopped: boolean;
}

export interface Progress {
  /** From 0 to 1. */
  readonly share: number;
  readonly found: Found;
}

const NOTHING: Found = { offers: [], why: null, nearest: null, stopped: false };

/** What a search may cost where nobody says: some seconds at the most. */
export const WISH_STEPS = 300_000_000;

/**
 * Layouts that serve a station’s wish, step by step, so that it can be shown how far it is, and
 * stopped with the best so far.
 */
export function* searchOffers(
  station: Station,
  budget: Budget = newBudget(WISH_STEPS),
): Generator<Progress, Found> {
  if (!station.mosaic?.wish) return NOTHING;
  const effort = effortOf(budget);
  try {
    return yield* search(station, effort);
  } finally {
    budget.left = effort.left;
  }
}

function* search(station: Station, effort: Effort): Generator<Progress, Found> {
  const all = stands(station, effort);
  if ('code' in all) return { ...NOTHING, why: all };
  const tried: Judged[] = [];
  let proven = true;
  const want = all[0]!.want;
  const parts = all.flatMap((stand) => roomsOf(stand).map((room) => ({ stand, room })));
  for (const [i, { stand, room }] of parts.entries()) {
    const here = shifted(stand, room);
    for (;;) {
      const { done, value } = here.next();
      if (done) {
        const { found, proven: sure } = value as Shifted;
        for (const each of found) tried.push(each);
        proven &&= sure;
        break;
      }
      yield {
        share: (i + (value as number)) / (parts.length + 1),
        found: { ...NOTHING, offers: ranked(station, tried, want, false) },
      };
    }
  }
  // What one frame gives needs no ring, no pinwheel and no turn.
  const alone = !want.fill && tried.some((each) => framesOf(each) === 1);
  if (!alone) for (const stand of all) tried.push(...rounds(stand, roomsOf(stand)));
  const stopped = !isWholeSearch(effort);
  const offers = ranked(station, tried, want, proven && !stopped);
  const shifts = tried.some(({ layout }) => layout.mosaic.moves !== 'camera');
  if (shifts) return { offers, why: null, nearest: null, stopped };
  // By shift nothing serves: it is told why, whatever a turned camera may do.
  const near = nearest(station, all, proven && !stopped);
  for (;;) {
    const { done, value } = near.next();
    if (done) return { ...(value as Nearest), offers, stopped: !isWholeSearch(effort) };
    yield { share: 0.9, found: { ...NOTHING, offers } };
  }
}

/** The whole search at once. */
export function offersOf(station: Station, budget?: Budget): Found {
  const all = searchOffers(station, budget);
  for (;;) {
    const { done, value } = all.next();
    if (done) return value as Found;
  }
}
