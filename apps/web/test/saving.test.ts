import { configureStore } from '@reduxjs/toolkit';
import { leanReadAnew, newStation, withLeanChecked, type Station } from '@gangway/station';
import type { Shelf } from '../src/browser/storage.js';
import { documentDraft, draftsOf, type Draft, type Roomy } from '../src/records/drafts.js';
import type { Stored } from '../src/records/open.js';
import { makeSaver, type Saver } from '../src/records/saving.js';
import { readStation } from '../src/store/kept.js';
import {
  changed,
  closed,
  gestureEnded,
  keptMine,
  redone,
  stationActions,
  stationReducer,
  tookTheirs,
  typing,
  undone,
  type OpenStation,
} from '../src/store/station.js';

const ID = 'one';

/** A shelf, a server and a clock to stand in for the browser's; the rest is the real thing. */
/** What IndexedDB does, in a map; `broken` as where it is forbidden. */
const roomOf = (kept: Map<string, unknown>, broken = false): Roomy => {
  const may = (): void => {
    if (broken) throw new Error('forbidden');
  };
  return {
    put: async (key, draft) => {
      may();
      // Not structuredClone: under the test runner it gives objects of another realm.
      kept.set(key, JSON.parse(JSON.stringify(draft)));
    },
    drop: async (key) => {
      may();
      kept.delete(key);
    },
    under: async (prefix) => {
      may();
      return [...kept].filter(([key]) => key.startsWith(prefix));
    },
  };
};

function around(
  shelf = new Map<string, string>(),
  stored = makeStored(),
  room = new Map<string, unknown>(),
) {
  const server = {
    stored,
    /** What to do with the next requests: answer, lose the request, lose the answer. */
    mood: [] as ('ok' | 'away' | 'answer lost' | '503')[],
    puts: 0,
    holds: [] as number[],
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
    const { baseRevision, document, holds } = JSON.parse(String(init.body)) as {
      baseRevision: number;
      document: Station;
      holds?: number[];
    };
    server.holds = holds ?? [];
    if (baseRevision !== server.stored.revision) {
      return respond(409, { status: 409, detail: 'Changed elsewhere.', current: server.stored });
    }
    server.stored = { ...server.stored, revision: baseRevision + 1, document };
    if (mood === 'answer lost') throw new TypeError('failed to fetch');
    return respond(200, server.stored);
  };
  const read = documentDraft(async (document): Promise<Station | null> => {
    const kept = readStation(document);
    return kept.kind === 'broken' ? null : kept.document;
  });
  const drafts = draftsOf<Draft<Station>>('draft.', read, {
    shelf: shelfLike,
    room: roomOf(room),
  });
  const saver = makeSaver<Station>({
    what: 'station',
    address: '/api/stations',
    actions: stationActions,
    getState: () => store.getState().station,
    dispatch: store.dispatch,
    drafts,
    tab: 'tab',
    fetch: fetchLike as typeof fetch,
    readKept: async (document) => readStation(document),
    wait: () => new Promise((resolve) => setTimeout(resolve)),
    now: () => 1,
  });
  /** Whether nothing is kept anywhere. */
  const nothingKept = (): boolean => shelf.size === 0 && room.size === 0;
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
  return { server, store, saver, shelf, room, drafts, nothingKept, open, edit };
}

function makeStored(): Stored<Station> {
  return {
    id: ID,
    jobId: 'job',
    revision: 1,
    document: newStation('one'),
    updatedAt: '2026-01-01T00:00:00Z',
    archived: false,
  };
}

/** Waits for what comes of itself; the runner's own limit ends a wait for nothing. */
const until = async (there: () => boolean): Promise<void> => {
  while (!there()) await new Promise((resolve) => setTimeout(resolve, 1));
};

const settle = async (saver: Saver, open: () => OpenStation): Promise<void> => {
  for (let i = 0; i < 200 && ['pending', 'saving', 'offline'].includes(open().save.kind); i++) {
    void saver.run();
    await new Promise((resolve) => setTimeout(resolve, 1));
  }
};

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
