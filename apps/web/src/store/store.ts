import { combineReducers, configureStore, type Reducer } from '@reduxjs/toolkit';
import { setupListeners } from '@reduxjs/toolkit/query';
import { useDispatch, useSelector, useStore } from 'react-redux';
import type { Rig, Station } from '@gangway/station';
import { local, noteKept, session, whyNotKept } from '../browser/storage.js';
import { holdTab, tabId } from '../browser/tab.js';
import { api } from '../records/api.js';
import { onChanges } from '../records/changes.js';
import { documentDraft, draftsOf, indexedRoom, type Draft } from '../records/drafts.js';
import type { KeptDocument, OpenActions, OpenDocument, OpenState } from '../records/open.js';
import { findTrail, keepTrail } from '../records/trail.js';
import { makeSaver, type Saver, type Surroundings } from '../records/saving.js';
import { keepPreferences, preferencesReducer } from './preferences.js';
import { rigActions, rigReducer } from './rig.js';
import { stationActions, stationReducer } from './station.js';

const reducers = {
  [api.reducerPath]: api.reducer,
  preferences: preferencesReducer,
  station: stationReducer,
  rig: rigReducer,
};

export const store = configureStore({
  reducer: combineReducers(reducers),
  middleware: (standard) => standard().concat(api.middleware),
});

// Says when one comes back to the page; lists ask for it.
setupListeners(store.dispatch);

/** A part of the store that is loaded only where it is wanted. */
export function addToStore(name: string, reducer: Reducer): void {
  store.replaceReducer(combineReducers({ ...reducers, [name]: reducer }) as never);
}

export type RootState = ReturnType<typeof store.getState>;
export const useAppDispatch = useDispatch.withTypes<typeof store.dispatch>();
export const useAppSelector = useSelector.withTypes<RootState>();
export const useAppStore = useStore.withTypes<typeof store>();

/** Names what this tab keeps in the browser. */
export const tab = tabId(session);
addEventListener('pagehide', () => holdTab(session, false));
addEventListener('pageshow', () => holdTab(session, true));
noteKept(whyNotKept(local) === null);

/** Where edits lie until the server has them. */
/** What the outboxes of logs are kept under. */
export const OUTBOXES = 'gangway.log.';

export const places = { shelf: local, room: indexedRoom };
export const around = {
  dispatch: store.dispatch,
  tab,
  fetch: (...args: Parameters<typeof fetch>) => fetch(...args),
  wait: (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms)),
  now: () => Date.now(),
};

type Of<T> = Pick<Surroundings<T>, 'readKept'>;
const stationsKept: Of<Station> = {
  readKept: async (given) => (await import('./kept.js')).readStation(given),
};
const rigsKept: Of<Rig> = {
  readKept: async (given) => (await import('./kept-rig.js')).readRig(given),
};

const draftOf = <T>({ readKept }: Of<T>) =>
  documentDraft(async (given): Promise<T | null> => {
    const read = await readKept(given);
    return read.kind === 'broken' ? null : read.document;
  });

export const stationDrafts = draftsOf<Draft<Station>>('gangway.draft.', draftOf(stationsKept), places); // prettier-ignore
export const rigDrafts = draftsOf<Draft<Rig>>('gangway.rig-draft.', draftOf(rigsKept), places);

export const saver = makeSaver<Station>({
  ...around,
  ...stationsKept,
  what: 'station',
  address: '/api/stations',
  actions: stationActions,
  getState: () => store.getState().station,
  drafts: stationDrafts,
});

export const rigSaver = makeSaver<Rig>({
  ...around,
  ...rigsKept,
  what: 'rig',
  address: '/api/rigs',
  actions: rigActions,
  getState: () => store.getState().rig,
  drafts: rigDrafts,
});

const KEEP_MS = 120;

interface Attended<T> {
  readonly saver: Saver;
  readonly select: (state: RootState) => OpenState<T>;
  readonly actions: OpenActions<T>;
  readonly readKept: (document: unknown) => Promise<KeptDocument<T>>;
  /** Where this tab keeps the way back. */
  readonly trail: string;
}

/** Keeps and saves what is open whenever it changes; once opened, it has its way back again. */
function attend<T>({ saver: of, select, actions, readKept, trail }: Attended<T>): void {
  let keeping: ReturnType<typeof setTimeout> | undefined;
  let before = select(store.getState());
  const keep = (): void => {
    of.keep();
    const state = select(store.getState());
    if (state.kind === 'open') keepTrail(session, trail, state.open);
  };
  const takeUp = async (open: OpenDocument<T>): Promise<void> => {
    const found = await findTrail(session, trail, open, readKept);
    if (found) store.dispatch(actions.trailed({ id: open.id, ...found }));
  };
  store.subscribe(() => {
    const state = select(store.getState());
    if (state === before) return;
    const was = before.kind === 'open' ? before.open.id : null;
    before = state;
    if (state.kind !== 'open') return;
    if (was !== state.open.id) void takeUp(state.open);
    clearTimeout(keeping);
    keeping = setTimeout(keep, KEEP_MS);
    if (state.open.save.kind === 'pending') void of.run();
  });
  addEventListener('pagehide', keep);
  document.addEventListener('visibilitychange', keep);
  addEventListener('online', () => of.tryNow());
}

attend<Station>({
  saver,
  select: (state) => state.station,
  actions: stationActions,
  ...stationsKept,
  trail: 'gangway.trail.station',
});
attend<Rig>({
  saver: rigSaver,
  select: (state) => state.rig,
  actions: rigActions,
  ...rigsKept,
  trail: 'gangway.trail.rig',
});

let preferences = store.getState().preferences;
store.subscribe(() => {
  const now = store.getState().preferences;
  if (now !== preferences) keepPreferences(now);
  preferences = now;
});
keepPreferences(preferences);

const TAGS = { jobs: 'Jobs', stations: 'Stations', rigs: 'Rigs', kit_items: 'Kit' } as const;
const LOOK_MS = 300;
let looking: ReturnType<typeof setTimeout> | undefined;
const seen = new Set<keyof typeof TAGS>();

/** Who wants to hear that a log was changed; null: any may have been. */
export const onLogs = new Set<(jobId: string | null, latest: number | null) => void>();

// What is changed in another tab, by another person or through another server shows here too.
onChanges((changes) => {
  const all = changes === 'anew';
  if (all) for (const hear of onLogs) hear(null, null);
  for (const { table, id, revision } of all ? [] : changes) {
    if (table !== 'logs') seen.add(table);
    else for (const hear of onLogs) hear(id, revision);
  }
  if (all) for (const table of Object.keys(TAGS) as (keyof typeof TAGS)[]) seen.add(table);
  looking ??= setTimeout(() => {
    looking = undefined;
    // Tags of lists that were never loaded are not known yet, and harm nothing.
    store.dispatch(api.util.invalidateTags([...seen].map((table) => TAGS[table]) as never[]));
    seen.clear();
  }, LOOK_MS);
  const { station, rig } = store.getState();
  for (const [open, table, of] of [
    [station, 'stations', saver],
    [rig, 'rigs', rigSaver],
  ] as const) {
    if (open.kind !== 'open') continue;
    const { id } = open.open;
    if (all) void of.heard(id, null);
    else {
      const told = changes.filter((each) => each.table === table && each.id === id);
      const latest = told.at(-1);
      if (latest) void of.heard(id, latest.revision);
    }
  }
});
