import { configureStore } from '@reduxjs/toolkit';
import { newStation, type Station } from '@gangway/station';
import type { Shelf } from '../../src/browser/storage.js';
import { documentDraft, draftsOf, type Draft, type Roomy } from '../../src/records/drafts.js';
import type { Stored } from '../../src/records/open.js';
import { makeSaver, type Saver } from '../../src/records/saving.js';
import { readStation } from '../../src/store/kept.js';
import {
  changed,
  stationActions,
  stationReducer,
  type OpenStation,
} from '../../src/store/station.js';

export const ID = 'one';

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

/** A shelf, a server and a clock to stand in for the browser’s; the rest is the real thing. */
export function around(
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

export function makeStored(): Stored<Station> {
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
export const until = async (there: () => boolean): Promise<void> => {
  while (!there()) await new Promise((resolve) => setTimeout(resolve, 1));
};

export const settle = async (saver: Saver, open: () => OpenStation): Promise<void> => {
  for (let i = 0; i < 200 && ['pending', 'saving', 'offline'].includes(open().save.kind); i++) {
    void saver.run();
    await new Promise((resolve) => setTimeout(resolve, 1));
  }
};
