import { leanReadAnew, newStation, withLeanChecked, type Station } from '@gangway/station';

import { type Draft } from '../src/records/drafts.js';

import {
  closed,
  gestureEnded,
  keptMine,
  redone,
  tookTheirs,
  typing,
  undone,
} from '../src/store/station.js';
import { around, ID, makeStored, settle, until } from './helpers/saver.js';

describe('saving', () => {
  it('brings edits to the server and drops the draft', async () => {
    const { server, saver, edit, open, nothingKept } = around();
    await saver.open(ID);
    edit(11);
    await settle(saver, open);
    expect(open().save.kind).toBe('saved');
    expect(server.stored).toMatchObject({ revision: 2, document: { aperture: 11 } });
    await until(nothingKept);
  });

  it('keeps the edit while the server or its database is away, and recovers by itself', async () => {
    const { server, saver, edit, open } = around();
    await saver.open(ID);
    server.mood = ['away', '503', 'away', 'ok'];
    edit(11);
    await settle(saver, open);
    expect(server.stored.document.aperture).toBe(11);
    expect(open().save.kind).toBe('saved');
  });

  it('an answer that was lost is no conflict, also when more was edited since', async () => {
    const { server, saver, edit, open } = around();
    await saver.open(ID);
    server.mood = ['answer lost'];
    edit(11);
    void saver.run();
    await new Promise((resolve) => setTimeout(resolve, 3));
    edit(16);
    await settle(saver, open);
    expect(open().save.kind).toBe('saved');
    expect(server.stored).toMatchObject({ revision: 3, document: { aperture: 16 } });
  });

  it('a leaned back is read anew until it is saved, and stays checked when that is undone', async () => {
    const leaned = makeStored();
    leaned.document.movements.rear_tilt_deg = 6;
    const { server, saver, edit, open, store } = around(undefined, leaned);
    await saver.open(ID);
    expect(leanReadAnew(open().present)).toBe(true);
    edit(11);
    expect(leanReadAnew(open().present)).toBe(false);
    await settle(saver, open);
    expect(server.stored.document).toMatchObject({ lean_checked: true, aperture: 11 });
    store.dispatch(undone());
    await settle(saver, open);
    expect(server.stored.document).toMatchObject({ lean_checked: true, aperture: 8 });
    // What was set stays as it was.
    expect(server.stored.document.movements.rear_tilt_deg).toBe(6);
  });

  it('a straight back is left as it is, and one that is leaned in a kept variant is told', () => {
    const straight = newStation('one');
    expect(withLeanChecked(straight)).toBe(straight);
    const { format: _, version: __, name: ___, ...settings } = straight;
    const movements = { ...settings.movements, rear_swing_deg: 3 };
    const kept = [{ name: 'other', settings: { ...settings, movements } }];
    const varied: Station = { ...straight, variants: { present: 'this', kept } };
    expect(leanReadAnew(varied)).toBe(true);
    expect(leanReadAnew(withLeanChecked(varied))).toBe(false);
  });

  it('a draft is there after a reload, with text that was never a value', async () => {
    const first = around();
    await first.saver.open(ID);
    first.edit(11);
    first.store.dispatch(typing({ pointer: '/aperture', text: 'f/1x' }));
    first.saver.keep();
    const second = around(first.shelf, undefined, first.room);
    await second.saver.open(ID);
    expect(second.open().present.aperture).toBe(11);
    expect(second.open().typed['/aperture']).toEqual({ text: 'f/1x', message: null });
    await settle(second.saver, second.open);
    expect(second.server.stored.document.aperture).toBe(11);
  });

  it('an edit made while a save is under way survives leaving the station', async () => {
    const { server, saver, store, edit, open, nothingKept } = around();
    await saver.open(ID);
    edit(11);
    const running = saver.run();
    // The save of f/11 is on its way when f/16 is set and the station left.
    while (server.puts === 0) await new Promise((resolve) => setTimeout(resolve));
    expect(open().save.kind).toBe('saving');
    edit(16);
    saver.leave();
    store.dispatch(closed());
    await running;
    await until(() => server.stored.document.aperture === 16 && nothingKept());
  });

  it('an edit that cannot be sent on leaving lies there when the station is opened again', async () => {
    const { server, saver, store, edit, open } = around();
    await saver.open(ID);
    edit(11);
    server.mood = ['away'];
    saver.leave();
    store.dispatch(closed());
    await new Promise((resolve) => setTimeout(resolve, 3));
    expect(server.stored.document.aperture).toBe(8);
    await saver.open(ID);
    expect(open().present.aperture).toBe(11);
    await settle(saver, open);
    expect(server.stored.document.aperture).toBe(11);
  });

  it('a draft on old ground is asked about, again after a reload, and never sent over the other', async () => {
    const first = around();
    await first.saver.open(ID);
    first.edit(11);
    first.saver.keep();
    // Meanwhile it is saved from elsewhere.
    const theirs = { ...makeStored(), revision: 2 };
    theirs.document = { ...theirs.document, aperture: 16 };
    for (let reload = 0; reload < 2; reload++) {
      const again = around(first.shelf, theirs, first.room);
      await again.saver.open(ID);
      expect(again.open().save).toMatchObject({ kind: 'conflict', current: { revision: 2 } });
      expect(again.open().present.aperture).toBe(11);
      again.saver.leave();
      again.store.dispatch(closed());
      expect((await again.drafts.find(ID, 'tab'))!.draft).toMatchObject({ baseRevision: 1 });
      expect(again.server.puts).toBe(0);
    }
    const mine = around(first.shelf, theirs, first.room);
    await mine.saver.open(ID);
    mine.store.dispatch(keptMine());
    await settle(mine.saver, mine.open);
    expect(mine.server.stored).toMatchObject({ revision: 3, document: { aperture: 11 } });
    expect(mine.server.holds).toEqual([2]);
  });

  it('taking the other and leaving at once leaves no draft behind', async () => {
    const first = around();
    await first.saver.open(ID);
    first.edit(11);
    first.saver.keep();
    const again = around(first.shelf, { ...makeStored(), revision: 2 }, first.room);
    await again.saver.open(ID);
    again.store.dispatch(tookTheirs({ at: 1 }));
    again.saver.leave();
    again.store.dispatch(closed());
    expect(await again.drafts.find(ID, 'tab')).toBeNull();
    expect(again.server.puts).toBe(0);
  });

  it('opens once the server answers again', async () => {
    const { server, saver, open } = around();
    server.mood = ['away', '503', 'ok'];
    await saver.open(ID);
    expect(open().present.name).toBe('one');
  });
});

describe('undo', () => {
  it('is without limit, and a drag is one step', async () => {
    const { store, saver, open, edit } = around();
    await saver.open(ID);
    for (let i = 0; i < 300; i++) edit(4 + i / 100);
    for (let i = 0; i < 50; i++) edit(10 + i / 100, 'drag-1');
    store.dispatch(gestureEnded());
    edit(16, 'drag-2');
    expect(open().past).toHaveLength(302);
    store.dispatch(undone());
    store.dispatch(undone());
    expect(open().present.aperture).toBeCloseTo(6.99, 9);
    for (let i = 0; i < 400; i++) store.dispatch(undone());
    expect(open().present).toEqual(newStation('one'));
    for (let i = 0; i < 400; i++) store.dispatch(redone());
    expect(open().present.aperture).toBe(16);
  });
});

describe('drafts', () => {
  const draft = (aperture: number, keptAt: number): Draft<Station> => ({
    baseRevision: 1,
    document: { ...newStation('x'), aperture },
    typed: {},
    unanswered: [],
    keptAt,
  });

  it('of another tab are found only when this tab has none', async () => {
    const { drafts } = around();
    drafts.keep(ID, 'old', draft(8, 1));
    drafts.keep(ID, 'new', draft(9, 2));
    expect(await drafts.find(ID, 'mine')).toMatchObject({ tab: 'new' });
    drafts.keep(ID, 'mine', draft(10, 0));
    expect(await drafts.find(ID, 'mine')).toMatchObject({ tab: 'mine' });
    expect(await drafts.find('other', 'mine')).toBeNull();
  });

  it('of an older form are read in the present one', async () => {
    const { drafts, room } = around();
    const copy = { kit_id: 'a', kit_revision: 2 };
    const { lens } = newStation('x');
    const old = { ...draft(8, 1), document: { ...newStation('x'), lens: { ...lens, ...copy } } };
    room.set(`draft.${ID}.mine`, old);
    const found = await drafts.find(ID, 'mine');
    expect(found?.draft.document.lens).toEqual({ ...lens, origin: copy });
  });

  it('that cannot be read are kept and told', async () => {
    const { drafts, room, shelf } = around();
    room.set(`draft.${ID}.mine`, { document: { lens: 5 }, baseRevision: 1 });
    shelf.set(`draft.${ID}.yours`, '{"cut sho');
    const all = await drafts.all(ID);
    expect(all.drafts).toEqual([]);
    expect(all.unreadable.map(({ tab }) => tab).sort()).toEqual(['mine', 'yours']);
    expect(room.size + shelf.size).toBe(2);
  });
});
