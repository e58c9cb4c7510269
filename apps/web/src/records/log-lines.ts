import {
  sameField,
  withFields,
  type FieldChanges,
  type Loaded,
  type Logged,
  type LogChange,
} from '@gangway/station';

/** A job’s log as this page has it: what the server gave, with what is not sent yet laid over it. */

/** One thing a person did, and the way back. */
export interface LogStep {
  readonly label: string;
  readonly changes: readonly LogChange[];
  readonly back: readonly LogChange[];
}

/** A line that was changed elsewhere to something else. */
export interface LogClash {
  readonly change: LogChange & { readonly set: FieldChanges };
  /** As it is elsewhere; null: it was taken out. */
  readonly theirs: Logged | null;
}

export interface RefusedChange {
  readonly change: LogChange;
  readonly message: string;
}

export type LogSave =
  | { readonly kind: 'saved' }
  | { readonly kind: 'sending' }
  | { readonly kind: 'away'; readonly message: string }
  | { readonly kind: 'stopped'; readonly message: string };

export interface OpenLog {
  readonly jobId: string;
  /** Whether the server’s lines are here. */
  readonly loaded: boolean;
  readonly latest: number;
  /** Ids in the order the lines were made, those that were taken out too. */
  readonly order: readonly string[];
  readonly positions: Readonly<Record<string, number>>;
  readonly lines: Readonly<Record<string, Logged>>;
  readonly gone: Readonly<Record<string, true>>;
  readonly films: readonly Loaded[];
  /** Not sent yet, or not answered for, the oldest first. */
  readonly waiting: readonly LogChange[];
  readonly clashes: readonly LogClash[];
  readonly refused: readonly RefusedChange[];
  readonly past: readonly LogStep[];
  readonly future: readonly LogStep[];
  readonly save: LogSave;
}

export const emptyLog = (jobId: string): OpenLog => ({
  jobId,
  loaded: false,
  latest: 0,
  order: [],
  positions: {},
  lines: {},
  gone: {},
  films: [],
  waiting: [],
  clashes: [],
  refused: [],
  past: [],
  future: [],
  save: { kind: 'saved' },
});

const setFields = (line: Logged, set: FieldChanges): Logged => {
  const next: Record<string, unknown> = { ...line };
  for (const [name, { to }] of Object.entries(set)) {
    if (to === undefined) delete next[name];
    else next[name] = to;
  }
  return next as unknown as Logged;
};

type Lines = Pick<OpenLog, 'order' | 'lines' | 'gone' | 'films'>;

/** Carries changes out on what is here. @returns what is here then, and the way back */
export function carriedOut(
  log: Lines,
  changes: readonly LogChange[],
): Lines & { back: LogChange[] } {
  const lines: Record<string, Logged> = { ...log.lines };
  const gone: Record<string, true> = { ...log.gone };
  const added: string[] = [];
  let { films } = log;
  const back: LogChange[] = [];
  for (const change of changes) {
    const { id } = change;
    if ('films' in change) {
      back.push({ id, films: { was: change.films.to, to: change.films.was } });
      films = (change.films.to ?? []) as Loaded[];
    } else if ('add' in change) {
      if (!lines[id]) added.push(id);
      lines[id] = change.add;
      delete gone[id];
      back.push({ id, remove: true });
    } else if ('set' in change) {
      if (!lines[id]) continue;
      lines[id] = setFields(lines[id], change.set);
      const turned = Object.entries(change.set).map(([name, { was, to }]) => [name, { was: to, to: was }]); // prettier-ignore
      back.push({ id, set: Object.fromEntries(turned) as FieldChanges });
    } else if ('remove' in change) {
      gone[id] = true;
      back.push({ id, restore: true });
    } else {
      delete gone[id];
      back.push({ id, remove: true });
    }
  }
  const order = added.length > 0 ? [...log.order, ...added] : log.order;
  return { order, lines, gone, films, back: back.reverse() };
}

/** What a line that was taken out once needs to come again. */
const again = (change: LogChange): LogChange =>
  'add' in change ? { id: change.id, restore: true } : change;

export const changed = (log: OpenLog, step: Pick<LogStep, 'label' | 'changes'>): OpenLog => {
  const { back, ...lines } = carriedOut(log, step.changes);
  return {
    ...log,
    ...lines,
    past: [...log.past, { ...step, back }],
    future: [],
    waiting: [...log.waiting, ...step.changes],
  };
};

export function undone(log: OpenLog): OpenLog {
  const step = log.past.at(-1);
  if (!step) return log;
  const { back: _, ...lines } = carriedOut(log, step.back);
  return {
    ...log,
    ...lines,
    past: log.past.slice(0, -1),
    future: [...log.future, step],
    waiting: [...log.waiting, ...step.back],
  };
}

export function redone(log: OpenLog): OpenLog {
  const step = log.future.at(-1);
  if (!step) return log;
  const changes = step.changes.map(again);
  const { back: _, ...lines } = carriedOut(log, changes);
  return {
    ...log,
    ...lines,
    past: [...log.past, step],
    future: log.future.slice(0, -1),
    waiting: [...log.waiting, ...changes],
  };
}

export interface HeardLine {
  readonly position: number;
  readonly gone: boolean;
  readonly document: Logged;
}

/** Lines as the server has them, with what waits here laid over them. */
export function heard(
  log: OpenLog,
  rows: readonly HeardLine[],
  head: { readonly latest: number; readonly films: readonly Loaded[] },
): OpenLog {
  const lines: Record<string, Logged> = { ...log.lines };
  const gone: Record<string, true> = { ...log.gone };
  const positions: Record<string, number> = { ...log.positions };
  let fresh = false;
  for (const { position, gone: out, document } of rows) {
    const { id } = document;
    if (positions[id] !== position) fresh = true;
    positions[id] = position;
    lines[id] = lines[id] && sameField(lines[id], document) ? lines[id] : document;
    if (out) gone[id] = true;
    else delete gone[id];
  }
  const at = (id: string): number => positions[id] ?? Infinity;
  const ids = fresh ? [...new Set([...log.order, ...rows.map(({ document }) => document.id)])] : log.order; // prettier-ignore
  const order = fresh ? [...ids].sort((a, b) => (at(a) === at(b) ? 0 : at(a) - at(b))) : ids;
  const films = sameField(log.films, head.films) ? log.films : head.films;
  const { back: _, ...over } = carriedOut({ order, lines, gone, films }, log.waiting);
  return { ...log, ...over, positions, loaded: true, latest: head.latest };
}

/** What became of one change that was sent. */
export interface Outcome {
  readonly id: string;
  readonly outcome: 'done' | 'clash' | 'refused';
  readonly message?: string | undefined;
  readonly fields?: readonly string[] | undefined;
  readonly document?: Logged | null | undefined;
}

/** The first changes that waited were answered for. */
export function answered(log: OpenLog, outcomes: readonly Outcome[]): OpenLog {
  const sent = log.waiting.slice(0, outcomes.length);
  const waiting = log.waiting.slice(outcomes.length);
  let next: OpenLog = { ...log, waiting };
  const lines: Record<string, Logged> = { ...log.lines };
  let touched = false;
  outcomes.forEach((each, i) => {
    const change = sent[i]!;
    if (each.outcome === 'refused') {
      next = { ...next, refused: [...next.refused, { change, message: each.message ?? '' }] };
    } else if (each.outcome === 'clash' && 'set' in change) {
      const others = next.clashes.filter(({ change: { id } }) => id !== change.id);
      const before = next.clashes.find(({ change: { id } }) => id === change.id);
      const set = { ...before?.change.set, ...change.set };
      next = { ...next, clashes: [...others, { change: { ...change, set }, theirs: each.document ?? null }] }; // prettier-ignore
    }
    // It is kept otherwise than it was sent: as the server has it, with what still waits.
    if (each.document && each.outcome !== 'refused') {
      const later = waiting.filter((other) => other.id === each.id && 'set' in other);
      lines[each.id] = later.reduce<Logged>(
        (line, other) => ('set' in other ? setFields(line, other.set) : line),
        each.document,
      );
      touched = true;
    }
  });
  return touched ? { ...next, lines } : next;
}

/** A clash decided: mine over theirs, or theirs. */
export function decided(log: OpenLog, id: string, mine: boolean): OpenLog {
  const clash = log.clashes.find(({ change }) => change.id === id);
  if (!clash) return log;
  const next = { ...log, clashes: log.clashes.filter((each) => each !== clash) };
  const { theirs } = clash;
  if (!mine || !theirs) return next;
  const now = theirs as unknown as Record<string, unknown>;
  const set = Object.fromEntries(
    Object.entries(clash.change.set).map(([name, { to }]) => [name, { was: now[name], to }]),
  );
  return changed(next, { label: 'Keep mine', changes: [{ id, set }] });
}

/** Whether a change can be made: what is wrong with it otherwise. */
export function faultOf(line: Logged, set: FieldChanges): string | null {
  const applied = withFields(line, set);
  return applied.kind === 'refused' ? applied.message : null;
}

/** Lines that are in the log, in the order they were made. */
export const linesOf = ({
  order,
  lines,
  gone,
}: Pick<OpenLog, 'order' | 'lines' | 'gone'>): Logged[] =>
  order.flatMap((id) => (gone[id] || !lines[id] ? [] : [lines[id]]));
