import { useSyncExternalStore } from 'react';
import { makeLeftBehind, type Waiting } from '../records/left-behind.js';
import { around, rigDrafts, stationDrafts, store, tab } from './store.js';

/** What was edited while the server was away goes there from any page; lists say what waits. */

type Kind = 'station' | 'rig';
const told: Record<Kind, ReadonlyMap<string, Waiting>> = { station: new Map(), rig: new Map() };
const listeners = new Set<() => void>();

const holds = (name: string): string => `gangway.tab.${name}`;
// Held for as long as this tab lives: what it keeps is then its own to send.
if (navigator.locks) void navigator.locks.request(holds(tab), () => new Promise(() => {}));

async function runs(other: string): Promise<boolean> {
  // Where nothing tells, another tab is left to itself.
  if (!navigator.locks) return true;
  const { held = [] } = await navigator.locks.query();
  return held.some(({ name }) => name === holds(other));
}

const openId = (kind: Kind): string | null => {
  const state = store.getState()[kind];
  return state.kind === 'open' ? state.open.id : state.kind === 'loading' ? state.id : null;
};

const shared = (kind: Kind) => ({
  ...around,
  runs,
  openId: () => openId(kind),
  onWaiting: (waiting: ReadonlyMap<string, Waiting>) => {
    told[kind] = waiting;
    for (const listener of listeners) listener();
  },
});

const senders = [
  makeLeftBehind({ ...shared('station'), address: '/api/stations', drafts: stationDrafts }),
  makeLeftBehind({ ...shared('rig'), address: '/api/rigs', drafts: rigDrafts }),
];

export const sendLeftBehind = (): void => {
  for (const { send } of senders) void send();
};

addEventListener('online', sendLeftBehind);

// Whenever a document is left, what of it is not saved is looked after.
const before: Record<Kind, string | null> = { station: null, rig: null };
store.subscribe(() => {
  for (const kind of ['station', 'rig'] as const) {
    const now = openId(kind);
    const left = before[kind];
    before[kind] = now;
    if (left !== null && left !== now) sendLeftBehind();
  }
});

const hear = (listener: () => void): (() => void) => {
  listeners.add(listener);
  return () => listeners.delete(listener);
};

/** How the edits of a document stand that are not sent yet; undefined where none are. */
export const useWaiting = (kind: Kind, id: string): Waiting | undefined =>
  useSyncExternalStore(hear, () => told[kind].get(id));
