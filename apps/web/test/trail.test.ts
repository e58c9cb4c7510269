import { newStation, type Station } from '@gangway/station';
import type { OpenDocument } from '../src/records/open.js';
import { findTrail, keepTrail } from '../src/records/trail.js';
import { readStation } from '../src/store/kept.js';
import { shelfOf } from './helpers/shelf.js';
import { changed, stationActions, stationReducer, undone } from '../src/store/station.js';

const KEY = 'trail';

const read = async (document: unknown) => readStation(document);

const stored = (document: Station) => ({
  id: 'one',
  revision: 1,
  document,
  updatedAt: '',
  archived: false,
  jobId: 'job',
});

const openedWith = (document: Station) =>
  stationReducer(
    undefined,
    stationActions.opened({
      stored: stored(document),
      present: document,
      save: { kind: 'saved', at: 0 },
      typed: {},
    }),
  );

const openOf = (state: ReturnType<typeof openedWith>): OpenDocument<Station> => {
  if (state.kind !== 'open') throw new Error('not open');
  return state.open;
};

const begun = newStation('A');
const risen = (mm: number): Station => ({
  ...begun,
  movements: { ...begun.movements, rise_mm: mm },
});
const edited = (mm: number) => changed({ station: risen(mm), label: `Rise ${mm}` });

describe('the way back of an open document', () => {
  it('is there after a reload, and goes on to be taken', async () => {
    const shelf = shelfOf();
    let state = openedWith(begun);
    for (const mm of [1, 2, 3]) state = stationReducer(state, edited(mm));
    state = stationReducer(state, undone());
    keepTrail(shelf, KEY, openOf(state));

    const fresh = openedWith(openOf(state).present);
    const trail = await findTrail(shelf, KEY, openOf(fresh), read);
    const taken = stationReducer(fresh, stationActions.trailed({ id: 'one', ...trail! }));
    expect(openOf(taken).past.map(({ label }) => label)).toEqual(['Rise 1', 'Rise 2']);
    expect(openOf(taken).future.map(({ label }) => label)).toEqual(['Rise 3']);
    const back = stationReducer(taken, undone());
    expect(openOf(back).present.movements.rise_mm).toBe(1);
    expect(openOf(back).save.kind).toBe('pending');
  });

  it('is not another document’s, nor that of a document changed meanwhile', async () => {
    const shelf = shelfOf();
    keepTrail(shelf, KEY, openOf(stationReducer(openedWith(begun), edited(1))));
    const look = (id: string, present: Station) => findTrail(shelf, KEY, { id, present }, read);
    expect(await look('one', risen(1))).not.toBe(null);
    expect(await look('two', risen(1))).toBe(null);
    expect(await look('one', risen(5))).toBe(null);
  });

  it('does not take the place of what was done since, and ends at what cannot be read', async () => {
    const kept = new Map<string, string>();
    const shelf = shelfOf(kept);
    let state = openedWith(begun);
    for (const mm of [1, 2, 3]) state = stationReducer(state, edited(mm));
    keepTrail(shelf, KEY, openOf(state));
    const spoilt = JSON.parse(kept.get(KEY)!) as { past: { document: unknown }[] };
    spoilt.past[1]!.document = { nothing: true };
    kept.set(KEY, JSON.stringify(spoilt));
    const trail = await findTrail(shelf, KEY, openOf(state), read);
    expect(trail!.past.map(({ label }) => label)).toEqual(['Rise 3']);
    const other = stationReducer(openedWith(risen(3)), edited(7));
    expect(
      openOf(stationReducer(other, stationActions.trailed({ id: 'one', ...trail! }))).past,
    ).toHaveLength(1);
    kept.set(KEY, '{');
    expect(await findTrail(shelf, KEY, openOf(state), read)).toBe(null);
  });

  it('keeps the nearest steps where there is room for no more, and nothing where for none', async () => {
    let state = openedWith(begun);
    for (let mm = 1; mm <= 60; mm++) state = stationReducer(state, edited(mm / 10));
    const one = JSON.stringify(begun).length;
    const shelf = shelfOf(new Map(), 14 * one);
    keepTrail(shelf, KEY, openOf(state));
    const trail = await findTrail(shelf, KEY, openOf(state), read);
    expect(trail!.past.length).toBeGreaterThanOrEqual(5);
    expect(trail!.past.at(-1)!.label).toBe('Rise 6');
    const none = shelfOf(new Map(), 10);
    keepTrail(none, KEY, openOf(state));
    expect(none.length).toBe(0);
  });
});
