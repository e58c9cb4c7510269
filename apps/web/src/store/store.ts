import { combineReducers, configureStore } from '@reduxjs/toolkit';
import { setupListeners } from '@reduxjs/toolkit/query';
import { useDispatch, useSelector, useStore } from 'react-redux';
import { api } from '../records/api.js';
import { keepPreferences, preferencesReducer } from './preferences.js';
import { makeSaver } from './saving.js';
import { stationReducer } from './station.js';
import { local, noteKept, session, whyNotKept } from '../browser/storage.js';
import { holdTab, tabId } from '../browser/tab.js';

export const store = configureStore({
  reducer: combineReducers({
    [api.reducerPath]: api.reducer,
    preferences: preferencesReducer,
    station: stationReducer,
  }),
  middleware: (standard) => standard().concat(api.middleware),
});

// Says when one comes back to the page; lists ask for it.
setupListeners(store.dispatch);

export type RootState = ReturnType<typeof store.getState>;
export const useAppDispatch = useDispatch.withTypes<typeof store.dispatch>();
export const useAppSelector = useSelector.withTypes<RootState>();
export const useAppStore = useStore.withTypes<typeof store>();

/** Names what this tab keeps in the browser. */
export const tab = tabId(session);
addEventListener('pagehide', () => holdTab(session, false));
addEventListener('pageshow', () => holdTab(session, true));
noteKept(whyNotKept(local) === null);

export const saver = makeSaver({
  getState: () => store.getState().station,
  dispatch: store.dispatch,
  shelf: local,
  tab,
  fetch: (...args) => fetch(...args),
  keptStation: async (document) => (await import('./kept.js')).keptStation(document),
  wait: (ms) => new Promise((resolve) => setTimeout(resolve, ms)),
  now: () => Date.now(),
});

const KEEP_MS = 120;
let keeping: ReturnType<typeof setTimeout> | undefined;
let before = store.getState();

store.subscribe(() => {
  const state = store.getState();
  if (state.preferences !== before.preferences) keepPreferences(state.preferences);
  if (state.station !== before.station && state.station.kind === 'open') {
    clearTimeout(keeping);
    keeping = setTimeout(() => saver.keep(), KEEP_MS);
    if (state.station.open.save.kind === 'pending') void saver.run();
  }
  before = state;
});

const keepNow = (): void => saver.keep();
addEventListener('pagehide', keepNow);
document.addEventListener('visibilitychange', keepNow);
addEventListener('online', () => saver.tryNow());

keepPreferences(store.getState().preferences);
