import { useEffect, useMemo } from 'react';
import type { Logged } from '@gangway/station';
import { storageTrouble } from '../browser/storage.js';
import { draftsOf } from '../records/drafts.js';
import { makeLogKeeper, readOutbox, type Outbox } from '../records/log-keeper.js';
import { linesOf, type OpenLog } from '../records/log-lines.js';
import {
  addToStore,
  around,
  onLogs,
  OUTBOXES,
  places,
  store,
  tab,
  useAppSelector,
} from './store.js';

/** The log of the job at hand. Loaded where it is looked at or written. */

type LogState = { readonly open: OpenLog | null };

const SET = 'log/set';

function logReducer(
  state: LogState = { open: null },
  action: { type: string; payload?: unknown },
): LogState {
  return action.type === SET ? { open: action.payload as OpenLog | null } : state;
}
addToStore('log', logReducer as never);

const logIn = (state: unknown): OpenLog | null =>
  (state as { readonly log?: LogState }).log?.open ?? null;

const ALIVE = 'gangway.log.';
const holds = (name: string): string => `${ALIVE}${name}`;
// Held for as long as this tab lives: what it keeps is then its own to send.
if (navigator.locks) void navigator.locks.request(holds(tab), () => new Promise(() => {}));

export const logKeeper = makeLogKeeper({
  ...around,
  getLog: () => logIn(store.getState()),
  setLog: (log) => store.dispatch({ type: SET, payload: log }),
  drafts: draftsOf<Outbox>(OUTBOXES, readOutbox, places),
  keeps: () => storageTrouble.get() === null,
  runs: async (other) => {
    if (!navigator.locks) return false;
    const { held = [] } = await navigator.locks.query();
    return held.some(({ name }) => name === holds(other));
  },
});

onLogs.add(logKeeper.tell);
addEventListener('online', () => {
  logKeeper.tryNow();
  void logKeeper.sendOthers();
});
addEventListener('pagehide', logKeeper.keep);

/** The log of a job, as soon as it is asked for; null while another job’s is put away. */
export function useLog(jobId: string): OpenLog | null {
  useEffect(() => {
    void logKeeper.open(jobId);
  }, [jobId]);
  const log = useAppSelector((state) => logIn(state));
  return log?.jobId === jobId ? log : null;
}

/** The lines of a log; the same list as long as none is changed. */
export const useLines = ({ all, gone }: OpenLog): readonly Logged[] =>
  useMemo(() => linesOf({ all, gone }), [all, gone]);
