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
}

export interface Progress {
  /** From 0 to 1. */
  readonly share: number;
  readonly found: Found;
}

const NOTHING: Found = { offers: [], why: null, nearest: null };

/**
 * Layouts that serve a station’s wish, step by step, so that it can be shown how far it is, and
 * stopped with the best so far.
 */
export function* searchOffers(station: Station): Generator<Progress, Found> {
  if (!station.mosaic?.wish) return NOTHING;
  const all = stands(station);
  if ('code' in all) return { ...NOTHING, why: all };
  const tried: Judged[] = [];
  let proven = true;
  const want = all[0]!.want;
  const parts = all.flatMap((stand) => roomsOf(stand).map((room) => ({ stand, room })));
  for (const [i, { stand, room }] of parts.entries()) {
    const search = shifted(stand, room);
    for (;;) {
      const { done, value } = search.next();
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
  const offers = ranked(station, tried, want, proven);
  const shifts = tried.some(({ layout }) => layout.mosaic.moves !== 'camera');
  if (shifts) return { offers, why: null, nearest: null };
  // By shift nothing serves: it is told why, whatever a turned camera may do.
  const search = nearest(station, all, proven);
  for (;;) {
    const { done, value } = search.next();
    if (done) return { ...(value as Nearest), offers };
    yield { share: 0.9, found: { ...NOTHING, offers } };
  }
}

/** The whole search at once. */
export function offersOf(station: Station): Found {
  const search = searchOffers(station);
  for (;;) {
    const { done, value } = search.next();
    if (done) return value as Found;
  }
}
