import equal from 'fast-deep-equal';
import { cutText, type KeptStation, type Station } from '@gangway/station';
import type { ProblemDetails, StoredStation } from '../records/api.js';
import { stationDrafts } from '../records/drafts.js';
import type { Shelf } from '../browser/storage.js';
import {
  missing,
  opened,
  opening,
  rebased,
  unreadable,
  saveBegan,
  saveDone,
  saveStopped,
  type OpenStation,
  type StationState,
} from './station.js';

/**
 * Brings edits to the server: one save in flight, the newest document next, again and again
 * while the server or its database is away. What the server does not have yet lies in a draft.
 */
export interface Surroundings {
  readonly getState: () => StationState;
  readonly dispatch: (action: { type: string; payload?: unknown }) => void;
  readonly shelf: Shelf;
  readonly tab: string;
  readonly fetch: typeof fetch;
  /** What can be done with a stored station. */
  readonly keptStation: (document: unknown) => Promise<KeptStation>;
  readonly wait: (ms: number) => Promise<void>;
  readonly now: () => number;
}

const QUIET_MS = 400;
const AGAIN_MS = [1000, 2000, 3000, 5000];
/** Enough to know one's own again after a bad spell, few enough for the browser's storage. */
const MOST_UNANSWERED = 10;
const REQUEST_MS = 15_000;

const AWAY = 'The server does not answer.';
const WILL_BE_SENT = 'Your edits are kept here and will be sent.';
const NO_ROOM = 'This browser cannot keep edits; leave the page open until they are saved.';

type Answer = { status: number; body: unknown } | null;

async function ask(
  { fetch }: Pick<Surroundings, 'fetch'>,
  url: string,
  init?: RequestInit,
): Promise<Answer> {
  try {
    const response = await fetch(url, { ...init, signal: AbortSignal.timeout(REQUEST_MS) });
    return { status: response.status, body: await response.json().catch(() => null) };
  } catch {
    return null;
  }
}

/** Whether a version came from this page, its answer lost or still on the way. */
const isOwn = (document: Station, unanswered: readonly Station[]): boolean =>
  unanswered.some((sent) => equal(sent, document));

const detailOf = (answer: Answer, otherwise: string): string =>
  (answer?.body as ProblemDetails | null)?.detail ?? otherwise;

export function makeSaver(around: Surroundings) {
  const { dispatch, shelf, tab } = around;
  let running = false;
  let wake: (() => void) | null = null;

  const openNow = (): OpenStation | null => {
    const state = around.getState();
    return state.kind === 'open' ? state.open : null;
  };

  /** Waits, but no longer than until somebody asks to try at once. */
  const pause = (ms: number): Promise<void> =>
    Promise.race([around.wait(ms), new Promise<void>((resolve) => (wake = resolve))]);

  /** Lays the unsaved state by; nothing unsaved means nothing kept. */
  function keep(): void {
    const open = openNow();
    if (!open) return;
    const texts = Object.entries(open.typed).map(([pointer, { text }]) => [pointer, text]);
    if (open.save.kind === 'saved' && texts.length === 0) {
      stationDrafts.drop(shelf, open.id, tab);
      return;
    }
    const room = stationDrafts.keep(shelf, open.id, tab, {
      baseRevision: open.baseRevision,
      document: open.present,
      typed: Object.fromEntries(texts) as Record<string, string>,
      unanswered: open.unanswered.slice(-MOST_UNANSWERED),
      keptAt: around.now(),
    });
    if (!room && open.save.kind === 'offline' && open.save.message !== NO_ROOM) {
      dispatch(saveStopped({ id: open.id, save: { kind: 'offline', message: NO_ROOM } }));
    }
  }

  const put = (id: string, baseRevision: number, document: Station): Promise<Answer> =>
    ask(around, `/api/stations/${id}`, {
      method: 'PUT',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ baseRevision, document }),
    });

  /** Drops the draft of a station left behind, unless it has moved on since this was sent. */
  function dropSent(id: string, sent: Station): void {
    const found = stationDrafts.find(shelf, id, tab);
    const texts = Object.keys(found?.draft.typed ?? {});
    if (found?.tab === tab && texts.length === 0 && equal(found.draft.document, sent)) {
      stationDrafts.drop(shelf, id, tab);
    }
  }

  async function saveOnce(open: OpenStation): Promise<'again' | 'away' | 'settled'> {
    const { id, present, baseRevision, unanswered } = open;
    dispatch(saveBegan(present));
    keep();
    const answer = await put(id, baseRevision, present);
    if (openNow()?.id !== id) {
      if (answer?.status === 200) dropSent(id, present);
      return 'settled';
    }
    if (answer?.status === 200) {
      const { revision } = answer.body as StoredStation;
      dispatch(saveDone({ id, revision, document: present, at: around.now() }));
      keep();
      return 'again';
    }
    if (answer?.status === 409) {
      const current = (answer.body as ProblemDetails).current!;
      if (isOwn(current.document, unanswered)) {
        dispatch(rebased({ id, revision: current.revision }));
        return 'again';
      }
      dispatch(saveStopped({ id, save: { kind: 'conflict', current } }));
      return 'settled';
    }
    if (answer && answer.status >= 400 && answer.status < 500) {
      const message = detailOf(answer, 'The server refuses this station.');
      dispatch(saveStopped({ id, save: { kind: 'refused', message } }));
      return 'settled';
    }
    const message = `${detailOf(answer, AWAY)} ${WILL_BE_SENT}`;
    dispatch(saveStopped({ id, save: { kind: 'offline', message } }));
    keep();
    return 'away';
  }

  async function run(): Promise<void> {
    if (running) return;
    running = true;
    try {
      await around.wait(QUIET_MS);
      for (let missed = 0; ;) {
        const open = openNow();
        if (!open || (open.save.kind !== 'pending' && open.save.kind !== 'offline')) return;
        const outcome = await saveOnce(open);
        if (outcome === 'settled') return;
        missed = outcome === 'away' ? missed + 1 : 0;
        if (outcome === 'away') {
          await pause(AGAIN_MS[Math.min(missed, AGAIN_MS.length) - 1] ?? 1000);
        } else if (openNow()?.save.kind === 'pending') await around.wait(QUIET_MS);
      }
    } finally {
      running = false;
      // An edit may have come between the last look and here.
      if (openNow()?.save.kind === 'pending') void run();
    }
  }

  /** Fetches a station, again while the server is away, and lays this browser's draft over it. */
  async function open(id: string): Promise<void> {
    dispatch(opening({ id, message: null }));
    for (let missed = 0; ; missed++) {
      const answer = await ask(around, `/api/stations/${id}`);
      const state = around.getState();
      if (state.kind !== 'loading' || state.id !== id) return;
      if (answer?.status === 200) {
        const stored = answer.body as StoredStation;
        const kept = await around.keptStation(stored.document);
        const now = around.getState();
        if (now.kind === 'loading' && now.id === id) settle(stored, kept);
        return;
      }
      if (answer && answer.status < 500) {
        dispatch(missing({ id, message: detailOf(answer, 'This station cannot be opened.') }));
        return;
      }
      dispatch(opening({ id, message: detailOf(answer, 'The server does not answer.') }));
      await pause(AGAIN_MS[Math.min(missed, AGAIN_MS.length - 1)] ?? 1000);
    }
  }

  function settle(stored: StoredStation, kept: KeptStation): void {
    if (kept.kind === 'broken') {
      dispatch(unreadable({ stored, faults: kept.faults }));
      return;
    }
    const found = stationDrafts.find(shelf, stored.id, tab);
    const saved = { kind: 'saved' as const, at: Date.parse(stored.updatedAt) };
    if (!found) {
      dispatch(
        opened({
          stored,
          present: stored.document,
          save: saved,
          typed: {},
          unanswered: [],
          faulty: kept.kind === 'faulty',
        }),
      );
      return;
    }
    const { draft } = found;
    const same = equal(draft.document, stored.document);
    const ownAnswerLost = isOwn(stored.document, draft.unanswered);
    const upToDate = draft.baseRevision === stored.revision || ownAnswerLost;
    dispatch(
      opened({
        stored,
        present: same ? stored.document : draft.document,
        save: same ? saved : upToDate ? { kind: 'pending' } : { kind: 'conflict', current: stored },
        typed: draft.typed,
        unanswered: [],
        faulty: kept.kind === 'faulty',
      }),
    );
    if (found.tab !== tab) stationDrafts.drop(shelf, stored.id, found.tab);
    keep();
    if (!same && upToDate) void run();
  }

  /** Leaving a station with an edit on its way: keep it, and send it without waiting. */
  function leave(): void {
    const left = openNow();
    if (!left || left.save.kind === 'saved') return;
    keep();
    if (left.save.kind === 'pending') void sendLeft(left, left.baseRevision);
  }

  /** Anything but success leaves the draft for the next time the station is opened. */
  async function sendLeft(left: OpenStation, baseRevision: number): Promise<void> {
    const answer = await put(left.id, baseRevision, left.present);
    if (answer?.status === 200) dropSent(left.id, left.present);
    if (answer?.status !== 409) return;
    // The save that was under way when the station was left came first.
    const current = (answer.body as ProblemDetails).current!;
    if (current.revision > baseRevision && isOwn(current.document, left.unanswered)) {
      await sendLeft(left, current.revision);
    }
  }

  return { keep, run, open, leave, tryNow: () => wake?.() };
}

export type Saver = ReturnType<typeof makeSaver>;

/** Names a copy kept beside the other version of a conflict. */
export const keptBeside = (mine: Station): Station => ({
  ...mine,
  name: `${cutText(mine.name, 180)} (mine)`,
});
