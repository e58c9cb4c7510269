import equal from 'fast-deep-equal';
import { cutText } from '@gangway/station';
import type { Drafts, Draft } from './drafts.js';
import {
  documentOf,
  type Happened,
  type KeptDocument,
  type OpenActions,
  type OpenDocument,
  type OpenState,
  type Other,
} from './open.js';
import { refusalShape, storedShape, type StoredDocument } from './shapes.js';

/**
 * Brings edits to the server: one save in flight, the newest document next, again and again while
 * the server or its database is away. What the server does not have yet lies in a draft. One for
 * all kinds of documents that save by themselves.
 */
export interface Surroundings<T> {
  /** As sentences name it: “station”. */
  readonly what: string;
  /** Where the server has it: “/api/stations”. */
  readonly address: string;
  readonly actions: OpenActions<T>;
  readonly getState: () => OpenState<T>;
  readonly dispatch: (happened: Happened) => void;
  readonly drafts: Drafts<Draft<T>>;
  readonly tab: string;
  readonly fetch: typeof fetch;
  /** What can be done with a stored document. */
  readonly readKept: (document: unknown) => Promise<KeptDocument<T>>;
  readonly wait: (ms: number) => Promise<void>;
  readonly now: () => number;
}

const QUIET_MS = 400;
const AGAIN_MS = [1000, 2000, 3000, 5000];
/** Enough to recognise this page's own saves after an outage, few enough for the browser's storage. */
const MOST_UNANSWERED = 10;
const REQUEST_MS = 15_000;

const AWAY = 'The server does not answer.';
const WILL_BE_SENT = 'Your edits are kept here and will be sent.';

type Answer =
  | { readonly kind: 'stored'; readonly stored: StoredDocument }
  | { readonly kind: 'stale'; readonly current: StoredDocument }
  | { readonly kind: 'refused'; readonly message: string | null }
  | { readonly kind: 'away'; readonly message: string };

async function ask<T>(
  { fetch }: Pick<Surroundings<T>, 'fetch'>,
  url: string,
  init?: RequestInit,
): Promise<Answer> {
  try {
    const response = await fetch(url, { ...init, signal: AbortSignal.timeout(REQUEST_MS) });
    const body: unknown = await response.json().catch(() => null);
    if (response.status === 200) {
      const read = storedShape.safeParse(body);
      return read.success
        ? { kind: 'stored', stored: read.data }
        : { kind: 'away', message: 'The server’s answer cannot be read.' };
    }
    const { detail, current } = refusalShape.safeParse(body).data ?? {};
    if (response.status === 409 && current) return { kind: 'stale', current };
    return response.status < 500
      ? { kind: 'refused', message: detail ?? null }
      : { kind: 'away', message: detail ?? AWAY };
  } catch {
    return { kind: 'away', message: AWAY };
  }
}

/** Whether this page sent that version and its answer was lost, or is still on the way. */
const isOwn = (document: unknown, unanswered: readonly unknown[]): boolean =>
  unanswered.some((sent) => equal(sent, document));

export function makeSaver<T>(around: Surroundings<T>) {
  const { actions, dispatch, drafts, tab, what } = around;
  let running = false;
  let wake: (() => void) | null = null;
  /** Heard while a save was under way, which its answer may or may not settle. */
  let unheard: { readonly id: string; readonly revision: number | null } | null = null;

  const openNow = (): OpenDocument<T> | null => {
    const state = around.getState();
    return state.kind === 'open' ? state.open : null;
  };

  /** Waits, but goes on early when somebody asks to try at once. */
  const pause = (ms: number): Promise<void> =>
    Promise.race([around.wait(ms), new Promise<void>((resolve) => (wake = resolve))]);

  const otherOf = async (stored: StoredDocument): Promise<Other<T>> => ({
    ...stored,
    kept: await around.readKept(stored.document),
  });

  /** Keeps what is unsaved as a draft, and drops the draft when nothing is. */
  function keep(): void {
    const open = openNow();
    if (!open) return;
    const texts = Object.entries(open.typed).map(([pointer, { text }]) => [pointer, text]);
    if (open.save.kind === 'saved' && texts.length === 0) {
      void drafts.drop(open.id, tab);
      return;
    }
    drafts.keep(open.id, tab, {
      baseRevision: open.baseRevision,
      document: open.present,
      typed: Object.fromEntries(texts) as Record<string, string>,
      unanswered: open.unanswered.slice(-MOST_UNANSWERED),
      keptAt: around.now(),
    });
  }

  const put = ({ id, present, holds }: OpenDocument<T>, baseRevision: number): Promise<Answer> =>
    ask(around, `${around.address}/${id}`, {
      method: 'PUT',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ baseRevision, document: present, ...(holds.length > 0 ? { holds } : {}) }), // prettier-ignore
    });

  /** Drops the draft of a document left behind, unless it has moved on since this was sent. */
  async function dropSent(id: string, sent: T): Promise<void> {
    const found = await drafts.find(id, tab);
    const texts = Object.keys(found?.draft.typed ?? {});
    if (found?.tab === tab && texts.length === 0 && equal(found.draft.document, sent)) {
      await drafts.drop(id, tab);
    }
  }

  async function saveOnce(open: OpenDocument<T>): Promise<'again' | 'away' | 'settled'> {
    const { id, present, unanswered, holds } = open;
    dispatch(actions.saveBegan({ sent: present }));
    keep();
    const answer = await put(open, open.baseRevision);
    if (openNow()?.id !== id) {
      if (answer.kind === 'stored') await dropSent(id, present);
      return 'settled';
    }
    switch (answer.kind) {
      case 'stored': {
        const { revision } = answer.stored;
        dispatch(
          actions.saveDone({
            id,
            revision,
            document: present,
            holds: holds.length,
            at: around.now(),
          }),
        );
        keep();
        return 'again';
      }
      case 'stale': {
        const current = await otherOf(answer.current);
        if (isOwn(documentOf(current), [...unanswered, present])) {
          dispatch(actions.rebased({ id, revision: current.revision }));
          return 'again';
        }
        dispatch(actions.saveStopped({ id, save: { kind: 'conflict', current } }));
        return 'settled';
      }
      case 'refused': {
        const message = answer.message ?? `The server refuses this ${what}.`;
        dispatch(actions.saveStopped({ id, save: { kind: 'refused', message } }));
        return 'settled';
      }
      case 'away': {
        const message = `${answer.message} ${WILL_BE_SENT}`;
        dispatch(actions.saveStopped({ id, save: { kind: 'offline', message } }));
        keep();
        return 'away';
      }
    }
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
        hearAgain();
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

  /** Fetches a document, again while the server is away, and lays this browser's draft over it. */
  async function open(id: string): Promise<void> {
    dispatch(actions.opening({ id, message: null }));
    const waits = (): boolean => {
      const state = around.getState();
      return state.kind === 'loading' && state.id === id;
    };
    for (let missed = 0; ; missed++) {
      const answer = await ask(around, `${around.address}/${id}`);
      if (!waits()) return;
      if (answer.kind === 'stored') {
        const { stored } = answer;
        const [kept, found] = await Promise.all([
          around.readKept(stored.document),
          drafts.find(id, tab),
        ]);
        if (waits()) settle(stored, kept, found);
        return;
      }
      if (answer.kind !== 'away') {
        const message =
          (answer.kind === 'refused' && answer.message) || `This ${what} cannot be opened.`;
        dispatch(actions.missing({ id, message }));
        return;
      }
      dispatch(actions.opening({ id, message: answer.message }));
      await pause(AGAIN_MS[Math.min(missed, AGAIN_MS.length - 1)] ?? 1000);
    }
  }

  function settle(
    stored: StoredDocument,
    kept: KeptDocument<T>,
    found: Awaited<ReturnType<typeof drafts.find>>,
  ): void {
    if (kept.kind === 'broken') {
      dispatch(actions.unreadable({ stored, faults: kept.faults }));
      return;
    }
    const { document } = kept;
    const faulty = kept.kind === 'faulty';
    const saved = { kind: 'saved' as const, at: Date.parse(stored.updatedAt) };
    if (!found) {
      dispatch(actions.opened({ stored, present: document, save: saved, typed: {}, faulty }));
      return;
    }
    const { draft } = found;
    const same = equal(draft.document, document);
    const ownAnswerLost = isOwn(document, draft.unanswered);
    const upToDate = draft.baseRevision === stored.revision || ownAnswerLost;
    const conflict = !same && !upToDate;
    dispatch(
      actions.opened({
        stored,
        // Until a person decides, the draft is what it was: on old ground, and never sent over the other.
        ...(conflict ? { baseRevision: draft.baseRevision } : {}),
        present: same ? document : draft.document,
        save: same
          ? saved
          : conflict
            ? { kind: 'conflict', current: { ...stored, kept } }
            : { kind: 'pending' },
        typed: draft.typed,
        faulty,
      }),
    );
    if (found.tab !== tab) void drafts.drop(stored.id, found.tab);
    keep();
    if (!same && upToDate) void run();
  }

  /** Leaving a document: what is on its way is kept and sent without waiting; what is settled leaves no draft. */
  function leave(): void {
    const left = openNow();
    if (!left) return;
    keep();
    if (left.save.kind === 'pending') void sendLeft(left, left.baseRevision);
  }

  /** Anything but success leaves the draft for the next time the document is opened. */
  async function sendLeft(left: OpenDocument<T>, baseRevision: number): Promise<void> {
    const answer = await put(left, baseRevision);
    if (answer.kind === 'stored') await dropSent(left.id, left.present);
    if (answer.kind !== 'stale') return;
    // The save that was under way when the document was left came first.
    const current = await otherOf(answer.current);
    if (current.revision > baseRevision && isOwn(documentOf(current), left.unanswered)) {
      await sendLeft(left, current.revision);
    }
  }

  /**
   * It was saved somewhere. Where nothing is unsaved here the page follows; where something is,
   * the question is put before the save is refused.
   */
  async function heard(id: string, revision: number | null): Promise<void> {
    const behind = (): OpenDocument<T> | null => {
      const open = openNow();
      if (!open || open.id !== id) return null;
      if (open.save.kind === 'saving') {
        // It is this page's own save, most likely: that is known once its answer is there.
        unheard = { id, revision };
        return null;
      }
      if (revision !== null && open.baseRevision >= revision) return null;
      return open.save.kind === 'conflict' && open.save.current.revision === revision ? null : open;
    };
    if (!behind()) return;
    const answer = await ask(around, `${around.address}/${id}`);
    if (answer.kind !== 'stored') return;
    const other = await otherOf(answer.stored);
    const open = behind();
    if (!open || other.revision <= open.baseRevision) return;
    if (isOwn(documentOf(other), open.unanswered)) return;
    const unsaved = open.save.kind !== 'saved' || Object.keys(open.typed).length > 0;
    dispatch(
      unsaved && !equal(open.present, documentOf(other))
        ? actions.saveStopped({ id, save: { kind: 'conflict', current: other } })
        : actions.followed({ other, at: Date.parse(other.updatedAt) }),
    );
    keep();
  }

  function hearAgain(): void {
    const word = unheard;
    unheard = null;
    if (word) void heard(word.id, word.revision);
  }

  return { keep, run, open, leave, heard, tryNow: () => wake?.() };
}

export type Saver = ReturnType<typeof makeSaver>;

/** Names a copy kept beside the other version of a conflict. */
export const keptBeside = <T extends { name: string }>(mine: T): T => ({
  ...mine,
  name: `${cutText(mine.name, 180)} (mine)`,
});
