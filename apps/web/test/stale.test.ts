import { newStation, type Station } from '@gangway/station';

import { keptMine, tookTheirs, typing, undone } from '../src/store/station.js';
import { around, ID, makeStored, settle } from './helpers/saver.js';

describe('a stale tab', () => {
  const stale = async () => {
    const all = around();
    await all.saver.open(ID);
    all.server.stored = {
      ...all.server.stored,
      revision: 5,
      document: { ...newStation('one'), aperture: 22 },
    };
    all.edit(11);
    await settle(all.saver, all.open);
    expect(all.open().save).toMatchObject({ kind: 'conflict', current: { revision: 5 } });
    return all;
  };

  it('is asked, and keeps its own when told to', async () => {
    const { store, saver, open, server } = await stale();
    expect(server.stored.document.aperture).toBe(22);
    store.dispatch(keptMine());
    // What is overwritten by choice is kept for good.
    expect(open().holds).toEqual([5]);
    await settle(saver, open);
    expect(server.stored).toMatchObject({ revision: 6, document: { aperture: 11 } });
    expect(server.holds).toEqual([5]);
    expect(open().holds).toEqual([]);
  });

  it('takes the other, and can undo that', async () => {
    const { store, open } = await stale();
    store.dispatch(tookTheirs({ at: 2 }));
    expect(open()).toMatchObject({ baseRevision: 5, present: { aperture: 22 } });
    store.dispatch(undone());
    expect(open().present.aperture).toBe(11);
  });

  it('does not send edits made while the question stands', async () => {
    const { edit, open, server } = await stale();
    const before = server.puts;
    edit(13);
    await new Promise((resolve) => setTimeout(resolve, 5));
    expect(open().save.kind).toBe('conflict');
    expect(server.puts).toBe(before);
  });

  it('asks at once when a draft is older than what the server has', async () => {
    const [shelf, room] = [new Map<string, string>(), new Map<string, unknown>()];
    const first = around(shelf, undefined, room);
    await first.saver.open(ID);
    first.edit(11);
    first.saver.keep();
    const newer = {
      ...makeStored(),
      revision: 3,
      document: { ...newStation('one'), aperture: 16 },
    };
    const second = around(shelf, newer, room);
    await second.saver.open(ID);
    expect(second.open()).toMatchObject({ save: { kind: 'conflict' }, present: { aperture: 11 } });
  });
});

describe('what is heard from elsewhere', () => {
  const elsewhere = (all: ReturnType<typeof around>, aperture: number): void => {
    const { revision } = all.server.stored;
    all.server.stored = {
      ...all.server.stored,
      revision: revision + 1,
      document: { ...all.server.stored.document, aperture },
    };
  };

  it('is followed where nothing is unsaved, and can be undone', async () => {
    const all = around();
    await all.saver.open(ID);
    elsewhere(all, 16);
    await all.saver.heard(ID, 2);
    expect(all.open()).toMatchObject({ baseRevision: 2, present: { aperture: 16 } });
    expect(all.open().save.kind).toBe('saved');
    all.store.dispatch(undone());
    await settle(all.saver, all.open);
    expect(all.server.stored).toMatchObject({ revision: 3, document: { aperture: 8 } });
  });

  it('is asked about where something is, before a save is refused', async () => {
    const all = around();
    await all.saver.open(ID);
    all.store.dispatch(typing({ pointer: '/aperture', text: 'f/1x' }));
    elsewhere(all, 16);
    await all.saver.heard(ID, 2);
    expect(all.open().save).toMatchObject({ kind: 'conflict', current: { revision: 2 } });
    expect(all.open().present.aperture).toBe(8);
    expect(all.server.puts).toBe(0);
  });

  it('that cannot be read is shown as such, and never taken over an edit', async () => {
    const later = (all: ReturnType<typeof around>): void => {
      const document = { ...all.server.stored.document, version: 99 } as unknown as Station;
      all.server.stored = { ...all.server.stored, revision: 2, document };
    };
    const idle = around();
    await idle.saver.open(ID);
    later(idle);
    await idle.saver.heard(ID, 2);
    expect(idle.store.getState().station).toMatchObject({
      kind: 'unreadable',
      stored: { revision: 2, document: { version: 99 } },
    });

    const typingAt = around();
    await typingAt.saver.open(ID);
    typingAt.store.dispatch(typing({ pointer: '/aperture', text: 'f/1x' }));
    later(typingAt);
    await typingAt.saver.heard(ID, 2);
    expect(typingAt.open()).toMatchObject({
      present: { aperture: 8 },
      save: { kind: 'conflict', current: { revision: 2, kept: { kind: 'broken' } } },
    });
    typingAt.store.dispatch(tookTheirs({ at: 2 }));
    expect(typingAt.store.getState().station.kind).toBe('unreadable');
  });

  it('while a save is under way that is then lost is asked about before the next try', async () => {
    const all = around();
    await all.saver.open(ID);
    all.server.mood = ['away'];
    const stop = all.store.subscribe(() => {
      if (all.open().save.kind !== 'saving') return;
      stop();
      elsewhere(all, 16);
      void all.saver.heard(ID, 2);
    });
    all.edit(11);
    await all.saver.run();
    expect(all.open().save).toMatchObject({ kind: 'conflict', current: { revision: 2 } });
    expect(all.server.puts).toBe(0);
  });

  it('of a save of one’s own changes nothing', async () => {
    const all = around();
    await all.saver.open(ID);
    all.edit(11);
    await settle(all.saver, all.open);
    const before = all.open();
    await all.saver.heard(ID, 2);
    await all.saver.heard('another', 9);
    expect(all.open()).toBe(before);
  });
});
