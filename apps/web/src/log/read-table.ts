import Papa from 'papaparse';
import {
  fieldsBetween,
  fieldWith,
  parseLogged,
  setSaid,
  unguarded,
  type Logged,
  type LogChange,
  type LogColumn,
} from '@gangway/station';
import { decoded, type Encoding } from '../kit/decode.js';

/** Reading a table into the log, line by line: pure, so that it runs in a worker and in a test. */

export const LARGEST_LOG_TABLE_BYTES = 50_000_000;
const MOST_LINES = 100_000;

export interface TableAsked {
  readonly encoding: Encoding | null;
  /** Which column of the log each column of the file fills; null: guessed. */
  readonly mapping: readonly (string | null)[] | null;
  /** Lines that are there, by id: a line that names one changes it. */
  readonly there: ReadonlyMap<string, Logged>;
  readonly columns: readonly LogColumn[];
  /** Where a time has no offset: that of the machine. */
  readonly offset: (local: string) => string;
  readonly newId: () => string;
}

export interface TableRow {
  /** Of the file, the heading being 1. */
  readonly line: number;
  readonly state: 'new' | 'changes' | 'same' | 'bad';
  readonly said: string;
}

export interface TableRead {
  readonly encoding: Encoding;
  readonly doubt: string | null;
  readonly headings: readonly string[];
  readonly mapping: readonly (string | null)[];
  readonly rows: readonly TableRow[];
  readonly changes: readonly LogChange[];
  /** Times that had no offset. */
  readonly local: number;
}

const plain = (text: string): string => text.toLowerCase().replace(/[^a-z0-9]+/g, '');

/** What other tables head their columns with. */
const ALSO: Readonly<Record<string, string>> = {
  date: 'at',
  datetime: 'at',
  timestamp: 'at',
  aperture: 'f_number',
  fnumber: 'f_number',
  fstop: 'f_number',
  shutterspeed: 'time_s',
  exposuretime: 'time_s',
  seconds: 'time_s',
  sensitivity: 'iso',
  filename: 'file',
  picture: 'file',
  comment: 'note',
  notes: 'note',
  remarks: 'note',
  stars: 'rating',
};

export function guessColumns(
  headings: readonly string[],
  columns: readonly LogColumn[],
): (string | null)[] {
  const taken = new Set<string>();
  return headings.map((heading) => {
    const key = plain(heading);
    if (key === 'id' && !taken.has('id')) {
      taken.add('id');
      return 'id';
    }
    const found = columns.find(({ path, label }) => !taken.has(path) && (plain(path) === key || plain(label) === key || ALSO[key] === path)); // prettier-ignore
    if (!found || key === '') return null;
    taken.add(found.path);
    return found.path;
  });
}

/** `2026-05-14 09:30` as the log writes it, its offset told where it has none. */
export function momentFrom(
  text: string,
  offset: (local: string) => string,
): { at: string; local: boolean } {
  const written = text.trim().replace(' ', 'T').replace(/\s+/g, '');
  const bare = /^(\d{4}-\d\d-\d\dT\d\d:\d\d)(:\d\d(?:\.\d{1,3})?)?$/.exec(written);
  if (bare) {
    const local = `${bare[1]}${bare[2] ?? ':00'}`;
    return { at: `${local}${offset(local)}`, local: true };
  }
  return { at: written.replace(/T(\d\d:\d\d)(Z|[+-])/, 'T$1:00$2'), local: false };
}

const ID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/;

interface Made {
  readonly line: Logged | null;
  readonly fault: string | null;
  readonly local: boolean;
}

function lineFrom(
  cells: readonly string[],
  mapping: readonly (string | null)[],
  asked: TableAsked,
): Made {
  const byPath = new Map(asked.columns.map((column) => [column.path, column]));
  const bad = (fault: string): Made => ({ line: null, fault, local: false });
  if (cells.slice(mapping.length).some((cell) => cell.trim() !== '')) {
    return bad(`has ${cells.length} cells where the heading has ${mapping.length}; a cell with a comma needs quotes`); // prettier-ignore
  }
  const texts = mapping.flatMap((path, i) => (path === null ? [] : [[path, unguarded(cells[i] ?? '')] as const])); // prettier-ignore
  const given =
    texts
      .find(([path]) => path === 'id')?.[1]
      .trim()
      .toLowerCase() ?? '';
  if (given !== '' && !ID.test(given)) return bad('its id is no UUID');
  const before = asked.there.get(given);
  let line = (before ?? { id: given || asked.newId(), planned: false }) as Logged;
  let local = false;
  for (const [path, cell] of texts) {
    if (path === 'id') continue;
    const column = byPath.get(path)!;
    let text = cell;
    if (path === 'at' && cell.trim() !== '') {
      const moment = momentFrom(cell, asked.offset);
      text = moment.at;
      local = moment.local;
    }
    const read = column.read(text);
    if (!read.ok) return bad(`${column.label}: ${read.message}`);
    if (read.value === undefined && (path === 'at' || path === 'planned')) continue;
    const [field, to] = fieldWith(line, path, read.value);
    const { [field as 'note']: _, ...rest } = line;
    line = (to === undefined ? rest : { ...rest, [field]: to }) as Logged;
  }
  const read = parseLogged(line);
  if (read.ok) return { line: read.value, fault: null, local };
  const [{ pointer, message }] = read.problems as [{ pointer: string; message: string }];
  return bad(`${pointer.slice(1).replaceAll('/', ' ').replaceAll('_', ' ')} ${message}`);
}

const momentSaid = ({ at }: Logged): string => at.slice(0, 19).replace('T', ' ');

const saidOf = (columns: readonly LogColumn[], line: Logged): string => {
  const station = columns.find(({ path }) => path === 'station')?.plain(line);
  return [momentSaid(line), station, setSaid(line), line.note].filter(Boolean).join(' · ');
};

/** What a line becomes where it is changed: `stop f/8 → f/11`. */
const changesSaid = (columns: readonly LogColumn[], before: Logged, line: Logged): string =>
  columns
    .flatMap(({ path, label, plain: said }) => {
      const [was, now] = path === 'at' ? [before.at, line.at] : [said(before), said(line)];
      return was === now ? [] : [`${label} ${was || '—'} → ${now || '—'}`];
    })
    .join(', ');

export type TableResult = TableRead | { readonly refused: string };

export function readLogTable(bytes: ArrayBuffer, asked: TableAsked): TableResult {
  if (bytes.byteLength > LARGEST_LOG_TABLE_BYTES) {
    return { refused: `The file is ${Math.round(bytes.byteLength / 1e6)} MB; a table of the log is at most ${LARGEST_LOG_TABLE_BYTES / 1e6} MB.` }; // prettier-ignore
  }
  const { text, encoding, doubt } = decoded(bytes, asked.encoding);
  const { data } = Papa.parse<string[]>(text.replace(/^\uFEFF/, ''), { skipEmptyLines: 'greedy' });
  const [headings, ...body] = data;
  if (!headings || body.length === 0) return { refused: 'The table has no lines: its first line names the columns, the others are exposures.' }; // prettier-ignore
  if (body.length > MOST_LINES) return { refused: `The table has ${body.length} lines; at most ${MOST_LINES} are brought in at once.` }; // prettier-ignore
  const mapping = asked.mapping ?? guessColumns(headings, asked.columns);
  const rows: TableRow[] = [];
  const changes: LogChange[] = [];
  const seen = new Set<string>();
  let times = 0;
  body.forEach((cells, i) => {
    const { line, fault, local } = lineFrom(cells, mapping, asked);
    const twice = line !== null && seen.has(line.id);
    if (line === null || twice) {
      rows.push({ line: i + 2, state: 'bad', said: fault ?? 'its id is in the table twice' });
      return;
    }
    seen.add(line.id);
    if (local) times++;
    const before = asked.there.get(line.id);
    const set = before ? fieldsBetween(before, line) : null;
    if (before && set === null)
      rows.push({ line: i + 2, state: 'same', said: saidOf(asked.columns, line) });
    else if (before) {
      changes.push({ id: line.id, set: set! });
      rows.push({
        line: i + 2,
        state: 'changes',
        said: `${momentSaid(line)}: ${changesSaid(asked.columns, before, line)}`,
      });
    } else {
      changes.push({ id: line.id, add: line });
      rows.push({ line: i + 2, state: 'new', said: saidOf(asked.columns, line) });
    }
  });
  return { encoding, doubt, headings, mapping, rows, changes, local: times };
}
