import Papa from 'papaparse';
import {
  circleFromRow,
  columnsOf,
  guessMapping,
  guessTable,
  itemFromRow,
  LARGEST_KIT_BYTES,
  readKitText,
  unmapped,
  withCircles,
  type CircleLine,
  type FieldDef,
  type KitItem,
  type KitItemOf,
  type Mapping,
  type Stored,
  type Table,
} from '@gangway/station';
import { decoded, type Encoding } from './decode.js';

/** Reading a file of kit for its preview: pure, so that it runs in a worker and in a test. */

export interface Question {
  /** Null: found out. */
  readonly encoding: Encoding | null;
  readonly table: Table | null;
  /** Which field a column fills, by the column's number; null: guessed. */
  readonly mapping: Readonly<Record<number, string>> | null;
  /** Names the kit has already, by kind, in small letters; lenses whole, for circle tables. */
  readonly taken: readonly string[];
  readonly lenses: readonly Stored<KitItemOf<'lens'>>[];
}

export interface ImportRow {
  readonly line: number;
  readonly name: string;
  readonly state: 'good' | 'same_name' | 'bad';
  readonly message: string | null;
  /** The item a change is for. */
  readonly changes: { readonly id: string; readonly revision: number } | null;
}

export interface ImportPreview {
  readonly kind: 'preview';
  readonly form: 'kit' | 'table';
  readonly encoding: Encoding;
  /** Set when the file was not in the encoding expected. */
  readonly doubt: string | null;
  readonly table: Table | null;
  readonly headings: readonly string[];
  readonly mapping: Mapping;
  readonly rows: readonly ImportRow[];
  /**
   * What a line would add, or the item as it would be after; null for a bad one. Made anew each
   * time: a million lines are kept as they were read, not as items.
   */
  readonly itemOf: (index: number) => KitItem | null;
}

export interface Refused {
  readonly kind: 'refused';
  readonly message: string;
}

export type ImportRead = ImportPreview | Refused;

/** Told now and then how far it has come. */
export type Progress = (done: number, of: number) => void;

/** Most lines a table may have; past it, split it. */
const MOST_LINES = 1_000_000;
/** Largest table read, in bytes. */
const LARGEST_TABLE_BYTES = 200_000_000;
const TOLD_EVERY = 2000;

const refused = (message: string): Refused => ({ kind: 'refused', message });

const tooLarge = (bytes: number, what: string, most: number): Refused =>
  refused(`The file is ${(bytes / 1e6).toFixed(0)} MB; ${what} is at most ${most / 1e6} MB.`);

const nameKey = (item: KitItem): string => `${item.kind}:${item.name.trim().toLowerCase()}`;

/** Marks an item whose name the kit, or an earlier line, has already. */
function judged(line: number, item: KitItem, seen: Set<string>): ImportRow {
  const key = nameKey(item);
  const same = seen.has(key);
  seen.add(key);
  return {
    line,
    name: item.name,
    state: same ? 'same_name' : 'good',
    message: same ? 'The kit, or an earlier line, has one of this name and kind.' : null,
    changes: null,
  };
}

function bad(line: number, name: string, message: string): ImportRow {
  return { line, name, state: 'bad', message, changes: null };
}

/** A problem in the words of the table: the column, then what is wrong. */
function sentenceOf(pointer: string, message: string, fields: readonly FieldDef[]): string {
  const path = pointer.slice(1).replaceAll('/', '.');
  const column = fields.find((field) => path === field.path || path.startsWith(`${field.path}.`));
  const place = column?.label ?? path;
  const plain = message.replace(/^This /, '').replace(/\.$/, '');
  return place === '' ? `The line ${plain}.` : `${place}: ${plain}.`;
}

interface Lined {
  readonly line: number;
  readonly cells: string[];
}

interface Judged {
  readonly rows: readonly ImportRow[];
  readonly itemOf: (index: number) => KitItem | null;
}

function circleRows(rows: readonly Lined[], mapping: Mapping, lenses: Question['lenses']): Judged {
  const byName = new Map(
    lenses.map((stored) => [stored.document.name.trim().toLowerCase(), stored]),
  );
  const fields = columnsOf('circle');
  const lines = new Map<string, { line: number; lines: CircleLine[] }>();
  const out: { row: ImportRow; item: KitItem | null }[] = [];
  const put = (row: ImportRow, item: KitItem | null = null): void => void out.push({ row, item });
  for (const row of rows) {
    const read = circleFromRow(row, mapping);
    if (!read.ok) {
      const { pointer, message } = read.problems[0]!;
      put(bad(row.line, row.cells[0] ?? '', sentenceOf(pointer, message, fields)));
      continue;
    }
    const key = read.value.lens.trim().toLowerCase();
    if (!byName.has(key)) {
      const why = 'The kit has no lens of this name; import the lens first.';
      put(bad(row.line, read.value.lens, why));
      continue;
    }
    const group = lines.get(key) ?? { line: row.line, lines: [] };
    group.lines.push(read.value);
    lines.set(key, group);
  }
  for (const [key, group] of lines) {
    const { id, revision, document } = byName.get(key)!;
    const made = withCircles(document, group.lines);
    if (!made.ok) {
      const { pointer, message } = made.problems[0]!;
      put(bad(group.line, document.name, sentenceOf(pointer, message, fields)));
      continue;
    }
    const count = group.lines.length;
    const message = `${count} ${count === 1 ? 'stop' : 'stops'} for this lens.`;
    put(
      { line: group.line, name: document.name, state: 'good', message, changes: { id, revision } },
      made.value,
    );
  }
  out.sort((a, b) => a.row.line - b.row.line);
  return { rows: out.map(({ row }) => row), itemOf: (index) => out[index]?.item ?? null };
}

function itemRows(
  table: 'lens' | 'back',
  lines: readonly Lined[],
  mapping: Mapping,
  taken: readonly string[],
  progress: Progress,
): Judged {
  const seen = new Set(taken);
  const nameAt = mapping.indexOf('name');
  const fields = columnsOf(table);
  const rows = lines.map((row, index) => {
    if (index % TOLD_EVERY === 0) progress(index, lines.length);
    const read = itemFromRow(table, row, mapping);
    if (read.ok) return judged(row.line, read.value, seen);
    const { pointer, message } = read.problems[0]!;
    return bad(row.line, row.cells[nameAt] ?? '', sentenceOf(pointer, message, fields));
  });
  const itemOf = (index: number): KitItem | null => {
    const read = lines[index] ? itemFromRow(table, lines[index], mapping) : null;
    return read?.ok ? read.value : null;
  };
  return { rows, itemOf };
}

/** A table's cells, or why they cannot be told apart. */
function cellsOf(text: string): string[][] | Refused {
  const parsed = Papa.parse<string[]>(text.replace(/^\uFEFF/, '').replace(/\r\n?/g, '\n'), {
    // Ends of lines may be mixed where tables were joined by hand.
    newline: '\n',
    skipEmptyLines: 'greedy',
  });
  const unclosed = parsed.errors.find(({ type }) => type === 'Quotes');
  return unclosed
    ? refused(
        `Line ${(unclosed.row ?? 0) + 1} has a quote that is not closed; everything after it would be one cell. Close it and try again.`,
      )
    : parsed.data;
}

const dense = (headings: readonly string[], given: Readonly<Record<number, string>>): Mapping =>
  headings.map((_heading, index) => given[index] ?? null);

function readTable(
  text: string,
  question: Question,
  encoding: Encoding,
  doubt: string | null,
  progress: Progress,
): ImportRead {
  const cells = cellsOf(text);
  if (!Array.isArray(cells)) return cells;
  const [headings, ...lines] = cells;
  if (!headings || headings.every((cell) => cell.trim() === '')) {
    return refused('The file is empty. A table begins with a line of headings.');
  }
  if (lines.length === 0) return refused('The table has headings and no lines under them.');
  if (lines.length > MOST_LINES) {
    return refused(
      `The table has ${lines.length.toLocaleString('en')} lines; ${MOST_LINES.toLocaleString('en')} at a time is the most. Split it.`,
    );
  }
  const table = question.table ?? guessTable(headings);
  const mapping = question.mapping
    ? dense(headings, question.mapping)
    : guessMapping(headings, table);
  const base = {
    kind: 'preview',
    form: 'table',
    encoding,
    doubt,
    table,
    headings,
    mapping,
  } as const;
  if (unmapped(table, mapping).length > 0) return { ...base, rows: [], itemOf: () => null };
  const numbered = lines.map((each, index) => ({ line: index + 2, cells: each }));
  return table === 'circle'
    ? { ...base, ...circleRows(numbered, mapping, question.lenses) }
    : { ...base, ...itemRows(table, numbered, mapping, question.taken, progress) };
}

function readKit(
  text: string,
  question: Question,
  encoding: Encoding,
  doubt: string | null,
): ImportRead {
  const read = readKitText(text);
  if (!read.ok) {
    const { pointer, message } = read.problems[0]!;
    return refused(`The file ${pointer ? `${pointer} ` : ''}${message}.`);
  }
  const seen = new Set(question.taken);
  const items = read.value;
  return {
    kind: 'preview',
    form: 'kit',
    encoding,
    doubt,
    table: null,
    headings: [],
    mapping: [],
    rows: items.map((each, index) => {
      if (each.ok) return judged(index + 1, each.value, seen);
      const { pointer, message } = each.problems[0]!;
      return bad(index + 1, '', sentenceOf(pointer, message, []));
    }),
    itemOf: (index) => {
      const item = items[index];
      return item?.ok ? item.value : null;
    },
  };
}

export function readImport(
  bytes: ArrayBuffer,
  question: Question,
  progress: Progress = () => {},
): ImportRead {
  const { byteLength } = bytes;
  if (byteLength > LARGEST_TABLE_BYTES) return tooLarge(byteLength, 'a table', LARGEST_TABLE_BYTES);
  if (byteLength === 0) return refused('The file is empty.');
  const { text, encoding, doubt } = decoded(bytes, question.encoding);
  if (text.includes('\u0000')) {
    return refused('This is not a text file: it holds zero bytes. Save the sheet as CSV in UTF-8.');
  }
  // The beginning is enough to tell them apart, however long the file.
  const isTable = !/^\s*[{[]/.test(text.slice(0, 200).replace(/^\uFEFF/, ''));
  if (isTable) return readTable(text, question, encoding, doubt, progress);
  if (byteLength > LARGEST_KIT_BYTES) return tooLarge(byteLength, 'a kit', LARGEST_KIT_BYTES);
  return readKit(text, question, encoding, doubt);
}
