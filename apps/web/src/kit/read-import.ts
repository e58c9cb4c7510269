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

/** Reading a file of kit for its preview: pure, so that it runs in a worker and in a test. */

export type Encoding = 'utf-8' | 'utf-16le' | 'windows-1252';

export interface ImportAsk {
  readonly ask: number;
  readonly bytes: ArrayBuffer;
  readonly name: string;
  /** Null: found out. */
  readonly encoding: Encoding | null;
  readonly table: Table | null;
  readonly mapping: Mapping | null;
  /** Names the kit has already, by kind, in small letters; lenses whole, for circle tables. */
  readonly taken: readonly string[];
  readonly lenses: readonly Stored<KitItemOf<'lens'>>[];
}

export interface ImportRow {
  readonly line: number;
  readonly name: string;
  readonly state: 'good' | 'same_name' | 'bad';
  readonly message: string | null;
  /** What would be added, or the item as it would be after. */
  readonly item: KitItem | null;
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
}

export type ImportRead = ImportPreview | { readonly kind: 'refused'; readonly message: string };

/** What the worker says: the lines in parts, then the rest. */
export type ImportMessage =
  | { readonly ask: number; readonly kind: 'rows'; readonly rows: readonly ImportRow[] }
  | { readonly ask: number; readonly kind: 'end'; readonly read: ImportRead };

/** Most lines a table may have; past it, split it. */
export const MOST_LINES = 50_000;

const refused = (message: string): ImportRead => ({ kind: 'refused', message });

function decoded(
  bytes: ArrayBuffer,
  wanted: Encoding | null,
): { text: string; encoding: Encoding; doubt: string | null } {
  const head = new Uint8Array(bytes.slice(0, 2));
  const guessed: Encoding = head[0] === 0xff && head[1] === 0xfe ? 'utf-16le' : 'utf-8';
  const encoding = wanted ?? guessed;
  try {
    const text = new TextDecoder(encoding, { fatal: true }).decode(bytes);
    return { text, encoding, doubt: null };
  } catch {
    // Spreadsheets of old write one byte a letter; it reads without fault, rightly or not.
    return {
      text: new TextDecoder('windows-1252').decode(bytes),
      encoding: 'windows-1252',
      doubt:
        'The file is not in UTF-8. It is read as Western European; look whether names with accents are right, or save it as UTF-8.',
    };
  }
}

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
    item,
    changes: null,
  };
}

function bad(line: number, name: string, message: string): ImportRow {
  return { line, name, state: 'bad', message, item: null, changes: null };
}

/** A problem in the words of the table: the column, then what is wrong. */
function sentenceOf(pointer: string, message: string, fields: readonly FieldDef[]): string {
  const path = pointer.slice(1).replaceAll('/', '.');
  const column = fields.find((field) => path === field.path || path.startsWith(`${field.path}.`));
  const place = column?.label ?? path;
  const plain = message.replace(/^This /, '').replace(/\.$/, '');
  return place === '' ? `The line ${plain}.` : `${place}: ${plain}.`;
}

function circleRows(
  rows: readonly { line: number; cells: string[] }[],
  mapping: Mapping,
  lenses: ImportAsk['lenses'],
): ImportRow[] {
  const byName = new Map(
    lenses.map((stored) => [stored.document.name.trim().toLowerCase(), stored]),
  );
  const fields = columnsOf('circle');
  const lines = new Map<string, { line: number; lines: CircleLine[] }>();
  const out: ImportRow[] = [];
  for (const row of rows) {
    const read = circleFromRow(row, mapping);
    if (!read.ok) {
      const { pointer, message } = read.problems[0]!;
      out.push(bad(row.line, row.cells[0] ?? '', sentenceOf(pointer, message, fields)));
      continue;
    }
    const key = read.value.lens.trim().toLowerCase();
    if (!byName.has(key)) {
      out.push(
        bad(row.line, read.value.lens, 'The kit has no lens of this name; import the lens first.'),
      );
      continue;
    }
    const group = lines.get(key) ?? { line: row.line, lines: [] };
    group.lines.push(read.value);
    lines.set(key, group);
  }
  for (const [key, group] of lines) {
    const stored = byName.get(key)!;
    const made = withCircles(stored.document, group.lines);
    out.push(
      made.ok
        ? {
            line: group.line,
            name: stored.document.name,
            state: 'good',
            message: `${group.lines.length} ${group.lines.length === 1 ? 'stop' : 'stops'} for this lens.`,
            item: made.value,
            changes: { id: stored.id, revision: stored.revision },
          }
        : bad(
            group.line,
            stored.document.name,
            sentenceOf(made.problems[0]!.pointer, made.problems[0]!.message, fields),
          ),
    );
  }
  return out.sort((a, b) => a.line - b.line);
}

function readTable(
  text: string,
  ask: ImportAsk,
  encoding: Encoding,
  doubt: string | null,
): ImportRead {
  const parsed = Papa.parse<string[]>(text.replace(/^\uFEFF/, '').replace(/\r\n?/g, '\n'), {
    // Ends of lines may be mixed where tables were joined by hand.
    newline: '\n',
    skipEmptyLines: 'greedy',
  });
  const unclosed = parsed.errors.find(({ type }) => type === 'Quotes');
  if (unclosed) {
    return refused(
      `Line ${(unclosed.row ?? 0) + 1} has a quote that is not closed; everything after it would be one cell. Close it and try again.`,
    );
  }
  const [headings, ...lines] = parsed.data;
  if (!headings || headings.every((cell) => cell.trim() === '')) {
    return refused('The file is empty. A table begins with a line of headings.');
  }
  if (lines.length === 0) return refused('The table has headings and no lines under them.');
  if (lines.length > MOST_LINES) {
    return refused(
      `The table has ${lines.length} lines; ${MOST_LINES} at a time is the most. Split it.`,
    );
  }
  const table = ask.table ?? guessTable(headings);
  const mapping = ask.mapping ?? guessMapping(headings, table);
  const base = {
    kind: 'preview',
    form: 'table',
    encoding,
    doubt,
    table,
    headings,
    mapping,
  } as const;
  if (unmapped(table, mapping).length > 0) return { ...base, rows: [] };
  const numbered = lines.map((cells, index) => ({ line: index + 2, cells }));
  if (table === 'circle') return { ...base, rows: circleRows(numbered, mapping, ask.lenses) };
  const seen = new Set(ask.taken);
  const nameAt = mapping.indexOf('name');
  const fields = columnsOf(table);
  const rows = numbered.map((row) => {
    const read = itemFromRow(table, row, mapping);
    if (read.ok) return judged(row.line, read.value, seen);
    const { pointer, message } = read.problems[0]!;
    return bad(row.line, row.cells[nameAt] ?? '', sentenceOf(pointer, message, fields));
  });
  return { ...base, rows };
}

export function readImport(ask: ImportAsk): ImportRead {
  if (ask.bytes.byteLength > LARGEST_KIT_BYTES) {
    return refused(
      `The file is ${(ask.bytes.byteLength / 1e6).toFixed(0)} MB; a kit is at most ${LARGEST_KIT_BYTES / 1e6} MB.`,
    );
  }
  if (ask.bytes.byteLength === 0) return refused('The file is empty.');
  const { text, encoding, doubt } = decoded(ask.bytes, ask.encoding);
  if (text.includes('\u0000')) {
    return refused('The file is no text: it holds zero bytes. Save the sheet as CSV in UTF-8.');
  }
  if (!/^\s*[{[]/.test(text.replace(/^\uFEFF/, ''))) return readTable(text, ask, encoding, doubt);
  const read = readKitText(text);
  if (!read.ok) {
    const { pointer, message } = read.problems[0]!;
    return refused(`The file ${pointer ? `${pointer} ` : ''}${message}.`);
  }
  const seen = new Set(ask.taken);
  return {
    kind: 'preview',
    form: 'kit',
    encoding,
    doubt,
    table: null,
    headings: [],
    mapping: [],
    rows: read.value.map((each, index) =>
      each.ok
        ? judged(index + 1, each.value, seen)
        : bad(index + 1, '', sentenceOf(each.problems[0]!.pointer, each.problems[0]!.message, [])),
    ),
  };
}
