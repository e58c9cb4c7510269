import Papa from 'papaparse';
import {
  fieldWith,
  LOG_COLUMNS,
  parseLogged,
  sameField,
  unguarded,
  type CellRead,
  type FieldChange,
  type Logged,
  type LogChange,
  type LogColumn,
  type Station,
  type Units,
  mostOf,
} from '@gangway/station';
import { counted } from '../ui/counted.js';

/** Edits of the log’s table as changes: one cell, many lines at once, a block from a spreadsheet. */

export type Edit =
  | { readonly ok: true; readonly changes: readonly LogChange[] }
  | { readonly ok: false; readonly message: string };

interface Names {
  readonly byId: ReadonlyMap<string, { readonly name: string }>;
  /** By the name in small letters; null where several stations share it. */
  readonly idByName: ReadonlyMap<string, string | null>;
}

export interface StationNames extends Names {
  readonly byId: ReadonlyMap<string, Station>;
}

/** Stations by their names, which several may share. */
export function stationNames<Of extends Names['byId']>(byId: Of): Names & { readonly byId: Of } {
  const idByName = new Map<string, string | null>();
  for (const [id, { name }] of byId) {
    const key = name.trim().toLowerCase();
    idByName.set(key, idByName.has(key) ? null : id);
  }
  return { byId, idByName };
}

/** The station’s column, by the stations’ names, and all the others. */
export function columnsFor({ byId, idByName }: Names): readonly LogColumn[] {
  const shown = ({ station }: Logged): string =>
    station === undefined ? '' : (byId.get(station)?.name ?? '');
  // Where its name does not tell which one it is, the id does.
  const plain = (line: Logged): string => {
    const name = shown(line);
    return line.station !== undefined && idByName.get(name.trim().toLowerCase()) !== line.station
      ? line.station
      : name;
  };
  const read = (text: string): CellRead => {
    const name = text.trim();
    if (name === '') return { ok: true, value: undefined };
    const id = byId.has(name) ? name : idByName.get(name.toLowerCase());
    if (id) return { ok: true, value: id };
    return {
      ok: false,
      message:
        id === null
          ? `Several stations of this job are called “${name}”; give one of them another name first.`
          : `There is no station “${name}” in this job.`,
    };
  };
  const station: LogColumn = { path: 'station', label: 'station', numeric: false, shown, plain, read }; // prettier-ignore
  const [at, ...others] = LOG_COLUMNS;
  return [at!, station, ...others];
}

/** What makes a file’s match one that was set by hand. */
const byHand = (path: string, value: unknown): Record<string, unknown> =>
  path === 'file'
    ? { file_fixed: value === undefined ? undefined : true, file_sure: undefined }
    : {};

/** A line with one cell set, as the fields that change. */
function cellFields(line: Logged, path: string, value: unknown): Record<string, FieldChange> {
  const [field, to] = fieldWith(line, path, value);
  const now = line as unknown as Record<string, unknown>;
  const set = { [field]: to, ...byHand(path, value) };
  return Object.fromEntries(
    Object.entries(set)
      .filter(([name, next]) => !(now[name] === undefined && next === undefined))
      .map(([name, next]) => [name, { was: now[name], to: next }]),
  );
}

function changesAny(set: Readonly<Record<string, FieldChange>>): boolean {
  for (const name in set) {
    const { was, to } = set[name]!;
    // Of twenty thousand lines most are plain figures: those are compared as they are.
    const plain = typeof was !== 'object' && typeof to !== 'object';
    if (plain ? was !== to : !sameField(was, to)) return true;
  }
  return false;
}

/** Why a line cannot have a value; null where it can. */
function faultIn(line: Logged, path: string, value: unknown): string | null {
  const [field, to] = fieldWith(line, path, value);
  const read = parseLogged({ ...line, [field]: to });
  return read.ok ? null : `This ${read.problems[0]!.message}.`;
}

/** One text into one column of many lines. What it says is checked once: it is the same for all. */
export function fillLines(lines: readonly Logged[], column: LogColumn, text: string): Edit {
  const [first] = lines;
  if (!first) return { ok: true, changes: [] };
  const read = column.read(text);
  if (!read.ok) return read;
  if (column.path === 'at' && read.value === undefined) {
    return { ok: false, message: 'Every line needs its time.' };
  }
  if (column.path === 'planned' && read.value === undefined) {
    return { ok: false, message: 'Write yes or no.' };
  }
  const fault = faultIn(first, column.path, read.value);
  if (fault !== null) return { ok: false, message: fault };
  // Of thousands of lines most were alike before: then what changes is alike, too.
  const alike = new Map<unknown, Record<string, FieldChange>>();
  const whole = !column.path.includes('.') && column.path !== 'file';
  const setOf = (line: Logged): Record<string, FieldChange> => {
    if (!whole) return cellFields(line, column.path, read.value);
    const was = (line as unknown as Record<string, unknown>)[column.path];
    const made = alike.get(was) ?? cellFields(line, column.path, read.value);
    alike.set(was, made);
    return made;
  };
  const changes = lines.flatMap((line): LogChange[] => {
    const set = setOf(line);
    return changesAny(set) ? [{ id: line.id, set }] : [];
  });
  return { ok: true, changes };
}

/** What a spreadsheet lays into the clipboard, as cells. */
export const blockFrom = (text: string): string[][] =>
  Papa.parse<string[]>(text.replace(/\r?\n$/, ''), { delimiter: '\t' }).data.map((cells) =>
    cells.map(unguarded),
  );

/** A block of cells put down from one cell on, to the right and downwards. All of it or nothing. */
export function pasteBlock(
  lines: readonly Logged[],
  columns: readonly LogColumn[],
  from: { readonly row: number; readonly column: number },
  block: readonly (readonly string[])[],
): Edit {
  const wide = mostOf(block.map((cells) => cells.length));
  if (from.row + block.length > lines.length) {
    return { ok: false, message: `${counted(block.length, 'line')} to paste, and only ${lines.length - from.row} from here on.` }; // prettier-ignore
  }
  if (from.column + wide > columns.length) {
    return { ok: false, message: `${counted(wide, 'column')} to paste, and only ${columns.length - from.column} from here on.` }; // prettier-ignore
  }
  const changes: LogChange[] = [];
  const known = new Map<string, CellRead & { fault?: string | null }>();
  for (const [r, cells] of block.entries()) {
    let line = lines[from.row + r]!;
    const set: Record<string, FieldChange> = {};
    for (const [c, text] of cells.entries()) {
      const column = columns[from.column + c]!;
      const key = `${column.path}\n${text}`;
      const read = known.get(key) ?? column.read(text);
      if (!known.has(key)) {
        const fault = read.ok ? faultIn(line, column.path, read.value) : null;
        known.set(key, { ...read, fault });
        if (!read.ok || fault !== null) {
          return { ok: false, message: `Line ${r + 1}, ${column.label}: ${read.ok ? fault : read.message} Nothing was pasted.` }; // prettier-ignore
        }
      }
      if (!read.ok) continue;
      for (const [field, change] of Object.entries(cellFields(line, column.path, read.value))) {
        set[field] = { was: set[field] ? set[field].was : change.was, to: change.to };
        line = { ...line, [field]: change.to };
      }
    }
    if (changesAny(set)) changes.push({ id: line.id, set });
  }
  return { ok: true, changes };
}

/** What the time’s column is called where the whole log is of one day. */
export const CLOCK_ONLY = 'at';

/** The time without its day, where all lines are of one. */
function withoutDay(column: LogColumn, lines: readonly Logged[]): LogColumn {
  const day = lines[0]?.at.slice(0, 10);
  if (column.path !== 'at' || lines.some(({ at }) => at.slice(0, 10) !== day)) return column;
  return { ...column, label: CLOCK_ONLY, shown: ({ at }) => at.slice(11, 19) };
}

/** Columns that are always shown, and those that any line fills. */
const ALWAYS = new Set(['at', 'station', 'frame', 'f_number', 'time_s', 'iso', 'planned', 'note', 'file', 'kept']); // prettier-ignore

/** What a line fills beside what is always shown: the paths of its fields. */
function* filledIn(line: Logged): Generator<string> {
  for (const [name, value] of Object.entries(line)) {
    if (value === undefined || ALWAYS.has(name)) continue;
    if (name !== 'movements' && name !== 'film') yield name;
    // Movements that stand at zero say nothing.
    else for (const inner in value as object) if ((value as Record<string, unknown>)[inner] !== 0) yield `${name}.${inner}`; // prettier-ignore
  }
}

export function columnsShown(columns: readonly LogColumn[], lines: readonly Logged[]): LogColumn[] {
  const used = new Set<string>(ALWAYS);
  for (const line of lines) for (const path of filledIn(line)) used.add(path);
  return columns.filter(({ path }) => used.has(path)).map((column) => withoutDay(column, lines));
}

const searchable = new WeakMap<readonly LogColumn[], WeakMap<Logged, string>>();

/** Everything a line shows, in small letters. */
export function searchText(line: Logged, columns: readonly LogColumn[], units: Units): string {
  const own = searchable.get(columns) ?? new WeakMap<Logged, string>();
  searchable.set(columns, own);
  const before = own.get(line);
  if (before !== undefined) return before;
  const made = columns
    .map((column) => column.shown(line, units))
    .join('\n')
    .toLowerCase();
  own.set(line, made);
  return made;
}
