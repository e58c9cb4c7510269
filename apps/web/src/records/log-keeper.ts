import * as z from 'zod';
import { LOG_CHANGES_AT_ONCE, type Loaded, type Logged, type LogChange } from '@gangway/station';
import type { Drafts } from './drafts.js';
import {
  answered,
  changed,
  decided,
  emptyLog,
  heard,
  lineIn,
  redone,
  takenUp,
  undone,
  type HeardLine,
  type LogSave,
  type LogStep,
  type OpenLog,
  type Outcome,
  type RefusedChange,
} from './log-lines.js';

/**
 * Brings a log to the server and back: changes wait in their order in the browser’s own storage and
 * are sent one part after the other, again and again while the server is away. A change that was
 * carried out already is carried out once, so that a lost answer costs nothing.
 */

/** What of a log lies in the browser until the server has it. */
export interface Outbox {
  readonly keptAt: number;
  readonly waiting: readonly LogChange[];
  readonly refused: readonly RefusedChange[];
}

const outboxShape = z.object({
  keptAt: z.number().catch(0),
  waiting: z.array(z.looseObject({ id: z.string() })).catch([]),
  refused: z.array(z.object({ change: z.looseObject({ id: z.string() }), message: z.string() })).catch([]), // prettier-ignore
});

export const readOutbox = async (kept: unknown): Promise<Outbox | null> =>
  (outboxShape.safeParse(kept).data as Outbox | undefined) ?? null;

const answerShape = z.object({
  before: z.number(),
  latest: z.number(),
  results: z.array(
    z.looseObject({
      id: z.string(),
      outcome: z.enum(['done', 'clash', 'refused']),
      message: z.string().optional(),
      fields: z.array(z.string()).optional(),
    }),
  ),
});
const headShape = z.object({ latest: z.number(), total: z.number(), films: z.array(z.unknown()) });
const detailShape = z.object({ detail: z.string() });

export interface LogSurroundings {
  readonly getLog: () => OpenLog | null;
  readonly setLog: (log: OpenLog | null) => void;
  readonly drafts: Drafts<Outbox>;
  readonly tab: string;
  /** Whether another tab that kept something still runs and sends it by itself. */
  readonly runs: (tab: string) => Promise<boolean>;
  readonly fetch: typeof fetch;
  readonly wait: (ms: number) => Promise<void>;
  readonly now: () => number;
  /** Whether the browser keeps anything at all. */
  readonly keeps: () => boolean;
}

const AGAIN_MS = [500, 1000, 2000, 3000, 5000];
const REQUEST_MS = 15_000;
const AWAY = 'The server does not answer. Everything is kept here and will be sent.';
const AWAY_UNKEPT =
  'The server does not answer, and this browser keeps nothing: leave this page open until it is sent.';
const MOST_STEPS = 100;
/** More at once are laid by a moment later, so that the page shows them first. */
const MANY = 200;
const LATER_MS = 150;
/** Lines taken in between two looks at what else there is to do. */
const AT_ONCE = 2000;

interface LeftBehind {
  readonly waiting: readonly LogChange[];
  readonly refused: readonly RefusedChange[];
  /** Those that kept it. */
  readonly tabs: readonly string[];
}

export function makeLogKeeper(around: LogSurroundings) {
  const { drafts, tab } = around;
  let running = false;
  let wake: (() => void) | null = null;
  let fetching: Promise<void> | null = null;
  /** Told while something was being sent: most likely of that very change. */
  let told: number | null = null;
  /** Jobs whose logs are being sent without being open. */
  const delivering = new Set<string>();

  const openNow = (jobId: string): OpenLog | null => {
    const log = around.getLog();
    return log?.jobId === jobId ? log : null;
  };
  const update = (jobId: string, next: (log: OpenLog) => OpenLog): void => {
    const log = openNow(jobId);
    if (log) around.setLog(next(log));
  };
  const say = (jobId: string, save: LogSave): void => update(jobId, (log) => ({ ...log, save }));
  const pause = (ms: number): Promise<void> =>
    Promise.race([around.wait(ms), new Promise<void>((resolve) => (wake = resolve))]);

  /**
   * Lays by what is not answered for. What was answered meanwhile may stay in it: sent again it is
   * done once. So of many thousands it is not written anew at every part.
   */
  function keep({ jobId, waiting, refused }: OpenLog): void {
    if (waiting.length === 0 && refused.length === 0) void drafts.drop(jobId, tab);
    else {
      const outbox = { keptAt: around.now(), waiting, refused };
      drafts.keep(jobId, tab, outbox, waiting.length > MANY ? 'later' : 'at once');
    }
  }

  /** Does something to the log, keeps it and sends it. */
  function act(next: (log: OpenLog) => OpenLog): void {
    const before = around.getLog();
    if (!before) return;
    const log = next(before);
    if (log === before) return;
    around.setLog({ ...log, past: log.past.slice(-MOST_STEPS) });
    if (log.waiting.length <= MANY) keep(log);
    else void around.wait(LATER_MS).then(() => keep(openNow(log.jobId) ?? log));
    void send(log.jobId);
  }

  async function send(jobId: string): Promise<void> {
    if (running) return;
    running = true;
    try {
      for (let missed = 0; ;) {
        const log = openNow(jobId);
        if (!log || log.waiting.length === 0) {
          if (log && log.save.kind !== 'stopped') say(jobId, { kind: 'saved' });
          return;
        }
        if (log.save.kind === 'stopped') return;
        const outcome = await sendPart(jobId, log.waiting.slice(0, LOG_CHANGES_AT_ONCE));
        if (outcome === 'stopped') return;
        missed = outcome === 'away' ? missed + 1 : 0;
        if (missed > 0) await pause(AGAIN_MS[Math.min(missed, AGAIN_MS.length) - 1]!);
      }
    } finally {
      running = false;
      const log = around.getLog();
      if (log && log.waiting.length > 0 && log.save.kind === 'saved') void send(log.jobId);
    }
  }

  type Sent =
    | { readonly kind: 'sent'; readonly answer: z.infer<typeof answerShape> }
    | { readonly kind: 'away' }
    | { readonly kind: 'stopped'; readonly message: string };

  async function post(jobId: string, part: readonly LogChange[]): Promise<Sent> {
    try {
      const response = await around.fetch(`/api/jobs/${jobId}/log`, {
        method: 'POST',
        headers: { 'Content-Type': 'application/json' },
        body: JSON.stringify({ changes: part, now: around.now() }),
        signal: AbortSignal.timeout(REQUEST_MS),
      });
      const body: unknown = await response.json();
      const read = answerShape.safeParse(body);
      if (response.ok && read.success && read.data.results.length === part.length) {
        return { kind: 'sent', answer: read.data };
      }
      if (response.status < 500 && !response.ok) {
        const message = detailShape.safeParse(body).data?.detail ?? 'The server refuses the log.';
        const kept = around.keeps() ? 'is kept here' : 'is on this page alone: leave it open';
        return { kind: 'stopped', message: `${message} What is not sent ${kept}.` };
      }
    } catch {
      // The server or the way to it is gone.
    }
    return { kind: 'away' };
  }

  async function sendPart(jobId: string, part: readonly LogChange[]): Promise<Sent['kind']> {
    if (openNow(jobId)?.save.kind !== 'away') say(jobId, { kind: 'sending' });
    const sent = await post(jobId, part);
    if (sent.kind === 'away')
      say(jobId, { kind: 'away', message: around.keeps() ? AWAY : AWAY_UNKEPT });
    else if (sent.kind === 'stopped') say(jobId, { kind: 'stopped', message: sent.message });
    else {
      const { before, latest, results } = sent.answer;
      update(jobId, (log) => {
        const next = answered(log, results as readonly Outcome[]);
        const alone = before === next.latest && next.loaded;
        // Nobody else came in between: nothing has to be looked at anew.
        return { ...next, latest: alone ? latest : next.latest, save: { kind: 'sending' } };
      });
      const log = openNow(jobId);
      if (log && log.waiting.length <= MANY) keep(log);
      if (log && told !== null && told > log.latest) void look(jobId);
      if (told !== null && told <= latest) told = null;
    }
    return sent.kind;
  }

  /** Sends what was left behind in a log that is not open; then the outboxes it lay in are emptied. */
  async function deliver(jobId: string, { waiting, refused, tabs }: LeftBehind): Promise<void> {
    let left = waiting;
    const held: LogChange[] = [];
    for (let missed = 0; left.length > 0 && !openNow(jobId);) {
      const part = left.slice(0, LOG_CHANGES_AT_ONCE);
      const sent = await post(jobId, part);
      if (sent.kind === 'stopped') return;
      missed = sent.kind === 'away' ? missed + 1 : 0;
      if (sent.kind !== 'sent') {
        await pause(AGAIN_MS[Math.min(missed, AGAIN_MS.length) - 1]!);
        continue;
      }
      const { results } = sent.answer;
      // What a person has to look at waits until the log is opened, and is answered anew then.
      for (const each of part.filter((_, i) => results[i]!.outcome !== 'done')) held.push(each);
      left = left.slice(part.length);
    }
    // It was opened meanwhile: then all of this is in good hands.
    if (openNow(jobId)) return;
    if (held.length > 0 || refused.length > 0) {
      drafts.keep(jobId, tab, { keptAt: around.now(), waiting: held, refused });
    }
    const emptied = tabs.filter((each) => each !== tab || (held.length === 0 && refused.length === 0)); // prettier-ignore
    for (const each of emptied) await drafts.drop(jobId, each);
  }

  /** What was kept here, of this tab and of those that are gone, the oldest first. */
  async function leftBehind(jobId: string): Promise<LeftBehind> {
    const { drafts: found } = await drafts.all(jobId);
    const own = [];
    for (const each of found) {
      if (each.tab === tab || !(await around.runs(each.tab))) own.push(each);
    }
    own.sort((a, b) => a.draft.keptAt - b.draft.keptAt);
    return {
      waiting: own.flatMap(({ draft }) => draft.waiting),
      refused: own.flatMap(({ draft }) => draft.refused),
      tabs: own.map((each) => each.tab),
    };
  }

  /** Sends what waits of every log that is not open. */
  async function sendOthers(): Promise<void> {
    for (const jobId of await drafts.ids()) {
      if (openNow(jobId) || delivering.has(jobId)) continue;
      delivering.add(jobId);
      void leftBehind(jobId)
        .then((left) => (left.waiting.length > 0 ? deliver(jobId, left) : undefined))
        .finally(() => delivering.delete(jobId));
    }
  }

  /** Takes in what was kept here. */
  async function takeUp(jobId: string): Promise<void> {
    const { waiting, refused, tabs } = await leftBehind(jobId);
    if (waiting.length === 0 && refused.length === 0) return;
    update(jobId, (log) => ({ ...takenUp(log, waiting), refused }));
    const log = openNow(jobId);
    if (!log) return;
    keep(log);
    for (const each of tabs) if (each !== tab) await drafts.drop(jobId, each);
  }

  async function open(jobId: string): Promise<void> {
    if (openNow(jobId)) return look(jobId);
    const before = around.getLog();
    if (before && before.waiting.length > 0) {
      const { waiting, refused } = before;
      void deliver(before.jobId, { waiting, refused, tabs: [tab] });
    }
    around.setLog(emptyLog(jobId));
    await takeUp(jobId);
    await look(jobId);
    void send(jobId);
  }

  /** Fetches what was changed since the last look, again while the server is away. */
  function look(jobId: string): Promise<void> {
    fetching ??= lookUntilThere(jobId).finally(() => (fetching = null));
    return fetching;
  }

  async function lookUntilThere(jobId: string): Promise<void> {
    for (let missed = 0; openNow(jobId); missed++) {
      const outcome = await lookOnce(jobId).catch(() => 'away' as const);
      if (outcome !== 'away') return;
      if (openNow(jobId)?.save.kind !== 'away')
        say(jobId, { kind: 'away', message: around.keeps() ? AWAY : AWAY_UNKEPT });
      await pause(AGAIN_MS[Math.min(missed, AGAIN_MS.length - 1)]!);
    }
  }

  async function lookOnce(jobId: string): Promise<'there' | 'away'> {
    const since = openNow(jobId)?.latest ?? 0;
    const response = await around.fetch(`/api/jobs/${jobId}/log?since=${since}`);
    if (response.status >= 500) return 'away';
    if (!response.ok || !response.body) {
      say(jobId, { kind: 'stopped', message: 'There is no such job; its log cannot be read.' });
      return 'there';
    }
    const read: unknown[] = [];
    for await (const lines of linesFrom(response.body)) {
      for (const line of lines) read.push(JSON.parse(line));
      // A long log comes in parts, so that the page stays awake.
      await around.wait(0);
    }
    const head = headShape.parse(read[0]);
    const rows = read.slice(1) as HeardLine[];
    if (since === 0 && rows.length < head.total) return 'away';
    const found = { latest: head.latest, films: head.films as Loaded[] };
    update(jobId, (log) => {
      const next = heard(log, rows, found);
      return next.save.kind === 'away' && next.waiting.length === 0 ? { ...next, save: { kind: 'saved' } } : next; // prettier-ignore
    });
    return 'there';
  }

  function tell(jobId: string | null, latest: number | null): void {
    const log = around.getLog();
    if (!log || (jobId !== null && jobId !== log.jobId)) return;
    wake?.();
    if (latest !== null && running) told = Math.max(told ?? 0, latest);
    else if (latest === null || latest > log.latest || log.films.length > 0) void look(log.jobId);
  }

  return {
    /** A line as it is now. */
    lineOf: (id: string): Logged | undefined => {
      const log = around.getLog();
      return log ? lineIn(log, id) : undefined;
    },
    open,
    sendOthers,
    tell,
    /** Before the page goes. */
    keep: () => {
      const log = around.getLog();
      if (log) keep(log);
    },
    tryNow: () => wake?.(),
    change: (step: Pick<LogStep, 'label' | 'changes'>) =>
      act((log) => (step.changes.length === 0 ? log : changed(log, step))),
    undo: () => act(undone),
    redo: () => act(redone),
    decide: (id: string, mine: boolean) => act((log) => decided(log, id, mine)),
    /** Lets go of what the server refuses. */
    dropRefused: () => act((log) => ({ ...log, refused: [] })),
  };
}

export type LogKeeper = ReturnType<typeof makeLogKeeper>;

/** Lines of text as they come, in parts of a few hundred. */
async function* linesFrom(body: ReadableStream<Uint8Array>): AsyncGenerator<string[]> {
  const decoder = new TextDecoder();
  const reader = body.getReader();
  let rest = '';
  for (;;) {
    const { done, value } = await reader.read();
    rest += done ? decoder.decode() : decoder.decode(value, { stream: true });
    const lines = rest.split('\n');
    rest = done ? '' : (lines.pop() ?? '');
    const full = lines.filter((line) => line !== '');
    for (let i = 0; i < full.length; i += AT_ONCE) yield full.slice(i, i + AT_ONCE);
    if (done) return;
  }
}
