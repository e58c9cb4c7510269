import { configureStore } from '@reduxjs/toolkit';
import {
  keptStation,
  leanReadAnew,
  newStation,
  withLeanChecked,
  type Station,
} from '@gangway/station';
import type { StoredStation } from '../src/records/api.js';
import { stationDrafts } from '../src/records/drafts.js';
import type { Shelf } from '../src/browser/storage.js';
import { makeSaver, type Saver } from '../src/store/saving.js';
import {
  changed,
  closed,
  gestureEnded,
  keptMine,
  redone,
  stationReducer,
  tookTheirs,
  typing,
  undone,
  type OpenStation,
} from '../src/store/station.js';

const ID = 'one';

/** A shelf, a server and a clock to stand in for the browser's; the rest is the real thing. */
function around(shelf = new Map<string, string>(), stored = makeStored()) {
  const server = {
    stored,
    /** What to do with the next requests: answer, lose the request, lose the answer. */
    mood: [] as ('ok' | 'away' | 'answer lost' | '503')[],
    puts: 0,
  };
  const store = configureStore({
    reducer: { station: stationReducer },
    middleware: (standard) => standard({ serializableCheck: false, immutableCheck: false }),
  });
  const shelfLike: Shelf = {
    get length() {
      return shelf.size;
    },
    key: (i) => [...shelf.keys()][i] ?? null,
    getItem: (key) => shelf.get(key) ?? null,
    setItem: (key, value) => void shelf.set(key, value),
    removeItem: (key) => void shelf.delete(key),
  };
  const respond = (status: number, body: unknown): Response =>
    ({
      status,
      json: () => Promise.resolve(JSON.parse(JSON.stringify(body)) as unknown),
    }) as Response;
  const fetchLike = async (_url: unknown, init?: RequestInit): Promise<Response> => {
    const mood = server.mood.shift() ?? 'ok';
    if (mood === 'away') throw new TypeError('failed to fetch');
    if (mood === '503')
      return respond(503, { status: 503, detail: 'The database does not answer.' });
    if (!init?.method) return respond(200, server.stored);
    server.puts += 1;
    await new Promise((resolve) => setTimeout(resolve, 1));
    const { baseRevision, document } = JSON.parse(String(init.body)) as {
      baseRevision: number;
      document: Station;
    };
    if (baseRevision !== server.stored.revision) {
      return respond(409, { status: 409, detail: 'Changed elsewhere.', current: server.stored });
    }
    server.stored = { ...server.stored, revision: baseRevision + 1, document };
    if (mood === 'answer lost') throw new TypeError('failed to fetch');
    return respond(200, server.stored);
  };
  const saver = makeSaver({
    getState: () => store.getState().station,
    dispatch: store.dispatch,
    shelf: shelfLike,
    tab: 'tab',
    fetch: fetchLike as typeof fetch,
    keptStation: async (document) => keptStation(document),
    wait: () => new Promise((resolve) => setTimeout(resolve)),
    now: () => 1,
  });
  const open = (): OpenStation => {
    const state = store.getState().station;
    if (state.kind !== 'open') throw new Error(state.kind);
    return state.open;
  };
  const edit = (aperture: number, gesture?: string): void => {
    store.dispatch(
      changed({
        station: { ...open().present, aperture },
        label: 'Stop',
        ...(gesture ? { gesture } : {}),
      }),
    );
  };
  return { server, store, saver, shelf, shelfLike, open, edit };
}

function makeStored(): StoredStation {
  return {
    id: ID,
    jobId: 'job',
    revision: 1,
    document: newStation('one'),
    createdAt: '2026-01-01T00:00:00Z',
    updatedAt: '2026-01-01T00:00:00Z',
    archived: false,
  };
}

const settle = async (saver: Saver, open: () => OpenStation): Promise<void> => {
  for (let i = 0; i < 200 && ['pending', 'saving', 'offline'].includes(open().save.kind); i++) {
    void saver.run();
    await new Promise((resolve) => setTimeout(resolve, 1));
  }
};

describe('saving', () => {
  it('brings edits to the server and drops the draft', async () => {
    const { server, saver, edit, open, shelf } = around();
    await saver.open(ID);
    edit(11);
    await settle(saver, open);
    expect(open().save.kind).toBe('saved');
    expect(server.stored).toMatchObject({ revision: 2, document: { aperture: 11 } });
    expect(shelf.size).toBe(0);
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
    leaned.document.movements = { ...leaned.document.movements, rear_tilt_deg: 6 };
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
    const second = around(first.shelf);
    await second.saver.open(ID);
    expect(second.open().present.aperture).toBe(11);
    expect(second.open().typed['/aperture']).toEqual({ text: 'f/1x', message: null });
    await settle(second.saver, second.open);
    expect(second.server.stored.document.aperture).toBe(11);
  });

  it('an edit made while a save is under way survives leaving the station', async () => {
    const { server, saver, store, edit, open, shelf } = around();
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
    for (let i = 0; i < 20 && shelf.size > 0; i++)
      await new Promise((resolve) => setTimeout(resolve, 1));
    expect(server.stored.document.aperture).toBe(16);
    expect(shelf.size).toBe(0);
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

  it('opens once the server answers again', async () => {
    const { server, saver, open } = around();
    server.mood = ['away', '503', 'ok'];
    await saver.open(ID);
    expect(open().present.name).toBe('one');
  });
});

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
    await settle(saver, open);
    expect(server.stored).toMatchObject({ revision: 6, document: { aperture: 11 } });
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
    const shelf = new Map<string, string>();
    const first = around(shelf);
    await first.saver.open(ID);
    first.edit(11);
    first.saver.keep();
    const newer = {
      ...makeStored(),
      revision: 3,
      document: { ...newStation('one'), aperture: 16 },
    };
    const second = around(shelf, newer);
    await second.saver.open(ID);
    expect(second.open()).toMatchObject({ save: { kind: 'conflict' }, present: { aperture: 11 } });
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
  it('of another tab are found only when this tab has none', () => {
    const { shelfLike } = around();
    const draft = (aperture: number, keptAt: number) => ({
      baseRevision: 1,
      document: { ...newStation('x'), aperture },
      typed: {},
      unanswered: [],
      keptAt,
    });
    stationDrafts.keep(shelfLike, ID, 'old', draft(8, 1));
    stationDrafts.keep(shelfLike, ID, 'new', draft(9, 2));
    expect(stationDrafts.find(shelfLike, ID, 'mine')).toMatchObject({ tab: 'new' });
    stationDrafts.keep(shelfLike, ID, 'mine', draft(10, 0));
    expect(stationDrafts.find(shelfLike, ID, 'mine')).toMatchObject({ tab: 'mine' });
    expect(stationDrafts.find(shelfLike, 'other', 'mine')).toBeNull();
  });
});
