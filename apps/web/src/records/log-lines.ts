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

export interface OpenLog extends Lines {
  readonly jobId: string;
  /** Whether the server’s lines are here. */
  readonly loaded: boolean;
  readonly latest: number;
  /** Places the server gave; lines it does not have yet have none and come last. */
  readonly positions: ReadonlyMap<string, number>;
  /** Not sent yet, or not answered for, the oldest first. */
  readonly waiting: readonly LogChange[];
  readonly clashes: readonly LogClash[];
  readonly refused: readonly RefusedChange[];
  readonly past: readonly LogStep[];
  readonly future: readonly LogStep[];
  readonly save: LogSave;
}

/** Lists, not tables by id: a change of one line of many thousands copies a list of references. */
interface Lines {
  /** In the order they were made, those that were taken out too. */
  readonly all: readonly Logged[];
  /** Where each line lies in the list, by its id. */
  readonly at: ReadonlyMap<string, number>;
  readonly gone: ReadonlySet<string>;
  readonly films: readonly Loaded[];
}

export const emptyLog = (jobId: string): OpenLog => ({
  jobId,
  loaded: false,
  latest: 0,
  all: [],
  at: new Map(),
  positions: new Map(),
  gone: new Set(),
  films: [],
  waiting: [],
  clashes: [],
  refused: [],
  past: [],
  future: [],
  save: { kind: 'saved' },
});

/** One line, whether it is in the log or was taken out. */
export const lineIn = ({ all, at }: Pick<Lines, 'all' | 'at'>, id: string): Logged | undefined => {
  const index = at.get(id);
  return index === undefined ? undefined : all[index];
};

const indexOf = (all: readonly Logged[]): Map<string, number> =>
  new Map(all.map(({ id }, i) => [id, i]));

const setFields = (line: Logged, set: FieldChanges): Logged => {
  const next: Record<string, unknown> = { ...line };
  for (const [name, { to }] of Object.entries(set)) {
    if (to === undefined) delete next[name];
    else next[name] = to;
  }
  return next as unknown as Logged;
};

const turnedOf = new WeakMap<FieldChanges, FieldChanges>();

/** The way back of fields; thousands of lines may share one change. */
function turned(set: FieldChanges): FieldChanges {
  const before = turnedOf.get(set);
  if (before) return before;
  const back = Object.fromEntries(
    Object.entries(set).map(([name, { was, to }]) => [name, { was: to, to: was }]),
  );
  turnedOf.set(set, back);
  return back;
}

/** Carries changes out on what is here. @returns what is here then, and the way back */
export function carriedOut(
  log: Lines,
  changes: readonly LogChange[],
): Lines & { back: LogChange[] } {
  const all = [...log.all];
  const at = new Map<string, number>();
  const gone = new Set(log.gone);
  const placeOf = (id: string): number | undefined => at.get(id) ?? log.at.get(id);
  let { films } = log;
  const back: LogChange[] = [];
  for (const change of changes) {
    const { id } = change;
    if ('films' in change) {
      back.push({ id, films: { was: change.films.to, to: change.films.was } });
      films = (change.films.to ?? []) as Loaded[];
    } else if ('add' in change) {
      const place = placeOf(id) ?? all.length;
      at.set(id, place);
      all[place] = change.add;
      gone.delete(id);
      back.push({ id, remove: true });
    } else if ('set' in change) {
      const place = placeOf(id);
      if (place === undefined) continue;
      all[place] = setFields(all[place]!, change.set);
      back.push({ id, set: turned(change.set) });
    } else if ('remove' in change) {
      gone.add(id);
      back.push({ id, restore: true });
    } else {
      gone.delete(id);
      back.push({ id, remove: true });
    }
  }
  return {
    all,
    at: at.size === 0 ? log.at : new Map([...log.at, ...at]),
    gone,
    films,
    back: back.reverse(),
  };
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
  const positions = new Map(log.positions);
  const gone = new Set(log.gone);
  const told = new Map<string, Logged>();
  let moved = false;
  for (const { position, gone: out, document } of rows) {
    const { id } = document;
    moved ||= positions.get(id) !== position;
    positions.set(id, position);
    const here = lineIn(log, id);
    told.set(id, here && sameField(here, document) ? here : document);
    if (out) gone.add(id);
    else gone.delete(id);
  }
  const here = log.all.map((line) => told.get(line.id) ?? line);
  const fresh = [...told.values()].filter(({ id }) => !log.at.has(id));
  const placeOf = ({ id }: Logged): number => positions.get(id) ?? Infinity;
  const all = moved
    ? [...here, ...fresh].sort((a, b) => (placeOf(a) === placeOf(b) ? 0 : placeOf(a) - placeOf(b)))
    : here;
  const films = sameField(log.films, head.films) ? log.films : head.films;
  const lines: Lines = { all, at: moved ? indexOf(all) : log.at, gone, films };
  // What waits for other lines lies over them already.
  const waiting = log.waiting.filter((change) => told.has(change.id) || 'films' in change);
  const { back: _, ...over } = carriedOut(lines, waiting);
  return { ...log, ...over, positions, loaded: true, latest: head.latest };
}

/** Changes that were kept here before this page was opened, ahead of those made since. */
export function takenUp(log: OpenLog, waiting: readonly LogChange[]): OpenLog {
  const all = [...waiting, ...log.waiting];
  const { back: _, ...over } = carriedOut(log, all);
  return { ...log, ...over, waiting: all };
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
  const refused = outcomes.flatMap(({ outcome, message = '' }, i) =>
    outcome === 'refused' ? [{ change: sent[i]!, message }] : [],
  );
  const clashes = new Map(log.clashes.map((clash) => [clash.change.id, clash]));
  let { all } = log;
  outcomes.forEach(({ id, outcome, document }, i) => {
    const change = sent[i]!;
    if (outcome === 'clash' && 'set' in change) {
      const set = { ...clashes.get(id)?.change.set, ...change.set };
      clashes.set(id, { change: { ...change, set }, theirs: document ?? null });
    }
    const place = log.at.get(id);
    if (!document || outcome === 'refused' || place === undefined) return;
    // It is kept otherwise than it was sent: as the server has it, with what still waits.
    const later = waiting.filter((other) => other.id === id);
    const line = later.reduce(
      (now, other) => ('set' in other ? setFields(now, other.set) : now),
      document,
    );
    all = all.map((each, at) => (at === place ? line : each));
  });
  return {
    ...log,
    all,
    waiting,
    refused: [...log.refused, ...refused],
    clashes: clashes.size === 0 ? log.clashes : [...clashes.values()],
  };
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
export const linesOf = ({ all, gone }: Pick<Lines, 'all' | 'gone'>): readonly Logged[] =>
  gone.size === 0 ? all : all.filter(({ id }) => !gone.has(id));
