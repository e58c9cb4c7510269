import equal from 'fast-deep-equal';
import type { Draft, Drafts } from './drafts.js';
import { refusalShape, storedShape } from './shapes.js';

/**
 * Edits of a document that was left while the server was away: they are sent from whichever page is
 * open, and until then it is told which wait. The document that is open here sends its own.
 */

/** How an edit that was left behind stands: on its way, or to be decided where it is opened. */
export type Waiting = 'waits' | 'to decide';

export interface LeftSurroundings<T> {
  readonly address: string;
  readonly drafts: Drafts<Draft<T>>;
  readonly tab: string;
  readonly fetch: typeof fetch;
  readonly wait: (ms: number) => Promise<void>;
  /** The document that is open in this tab. */
  readonly openId: () => string | null;
  /** Whether another tab lives: what it keeps is its own to send. */
  readonly runs: (tab: string) => Promise<boolean>;
  readonly onWaiting: (waiting: ReadonlyMap<string, Waiting>) => void;
}

const AGAIN_MS = [1000, 2000, 4000, 8000];
const REQUEST_MS = 15_000;

type Sent = 'done' | 'away' | 'to decide';

export function makeLeftBehind<T>(around: LeftSurroundings<T>) {
  const { address, drafts, tab } = around;
  const waiting = new Map<string, Waiting>();
  let running = false;
  let wake: (() => void) | null = null;

  const tell = (): void => around.onWaiting(new Map(waiting));

  async function put(id: string, draft: Draft<T>, baseRevision: number): Promise<Response | null> {
    try {
      return await around.fetch(`${address}/${id}`, {
        method: 'PUT',
        headers: { 'Content-Type': 'application/json' },
        body: JSON.stringify({ baseRevision, document: draft.document }),
        signal: AbortSignal.timeout(REQUEST_MS),
      });
    } catch {
      return null;
    }
  }

  /** Text in a field that is no value yet stays for the person who typed it. */
  async function settled(id: string, of: string, draft: Draft<T>, revision: number): Promise<void> {
    const found = (await drafts.all(id)).drafts.find((each) => each.tab === of);
    // It moved on meanwhile: whoever moved it sends it.
    if (!found || !equal(found.draft.document, draft.document)) return;
    if (Object.keys(found.draft.typed).length === 0) await drafts.drop(id, of);
    else drafts.keep(id, of, { ...found.draft, baseRevision: revision, unanswered: [] });
  }

  async function sendOne(id: string, of: string, draft: Draft<T>, base: number): Promise<Sent> {
    const response = await put(id, draft, base);
    if (!response || response.status >= 500) return 'away';
    const body: unknown = await response.json().catch(() => null);
    if (response.status === 200) {
      const read = storedShape.safeParse(body);
      if (!read.success) return 'away';
      await settled(id, of, draft, read.data.revision);
      return 'done';
    }
    const current = refusalShape.safeParse(body).data?.current;
    if (response.status !== 409 || !current || current.revision <= base) return 'to decide';
    if (equal(current.document, draft.document)) {
      await settled(id, of, draft, current.revision);
      return 'done';
    }
    // An answer was lost: what the server has came from here.
    return draft.unanswered.some((sent) => equal(sent, current.document))
      ? sendOne(id, of, draft, current.revision)
      : 'to decide';
  }

  /** Only text in a field was left: the document is as the server has it. */
  async function typedOnly(id: string, draft: Draft<T>): Promise<boolean> {
    if (Object.keys(draft.typed).length === 0) return false;
    const response = await around
      .fetch(`${address}/${id}`, { signal: AbortSignal.timeout(REQUEST_MS) })
      .catch(() => null);
    if (response?.status !== 200) return false;
    const read = storedShape.safeParse(await response.json().catch(() => null));
    return read.success && equal(read.data.document, draft.document);
  }

  /** Every edit that this tab, or one that is gone, left behind. @returns whether all found the server */
  async function once(): Promise<boolean> {
    let there = true;
    for (const id of await drafts.ids()) {
      if (id === around.openId()) continue;
      const [newest] = (await drafts.all(id)).drafts;
      if (!newest || (newest.tab !== tab && (await around.runs(newest.tab)))) continue;
      if (!waiting.has(id) && (await typedOnly(id, newest.draft))) continue;
      if (!waiting.has(id)) {
        waiting.set(id, 'waits');
        tell();
      }
      const { draft, tab: of } = newest;
      const sent = await sendOne(id, of, draft, draft.baseRevision);
      if (sent === 'done') waiting.delete(id);
      else waiting.set(id, sent === 'away' ? 'waits' : 'to decide');
      there = there && sent !== 'away';
      tell();
    }
    const kept = new Set(await drafts.ids());
    for (const id of waiting.keys()) {
      if (!kept.has(id) || id === around.openId()) waiting.delete(id);
    }
    tell();
    return there;
  }

  /** Sends all, again and again while the server is away. */
  async function send(): Promise<void> {
    if (running) {
      wake?.();
      return;
    }
    running = true;
    try {
      for (let missed = 0; !(await once()); missed++) {
        const ms = AGAIN_MS[Math.min(missed, AGAIN_MS.length - 1)] ?? 1000;
        await Promise.race([around.wait(ms), new Promise<void>((resolve) => (wake = resolve))]);
      }
    } finally {
      running = false;
    }
  }

  return { send };
}
