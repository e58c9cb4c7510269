import type { Result } from '../document/parse.js';
import { fieldsOf, type FieldDef } from './fields.js';
import { parseKitItem } from './parse.js';
import type { Kind, KitItem, KitItemOf } from './schema.js';
import { unguarded } from '../words/cells.js';
import { fieldText, itemFrom, readField } from './texts.js';

/** Tables of kit (RFC 4180): how their columns are understood, and each line on its own. */

export const TABLES = ['lens', 'back', 'circle'] as const;
export type Table = (typeof TABLES)[number];

const column = (path: string, label: string, input: FieldDef['input']): FieldDef => ({
  path,
  label,
  input,
  needed: true,
});

const CIRCLE_COLUMNS: readonly FieldDef[] = [
  column('lens', 'Lens', 'text'),
  column('f_number', 'Stop', 'fstop'),
  column('diameter_mm', 'Circle', 'length'),
];

/** Columns a table may have. */
export const columnsOf = (table: Table): readonly FieldDef[] =>
  table === 'circle' ? CIRCLE_COLUMNS : fieldsOf(table);

/** For each column of the file the field it fills, or null when it is left out. */
export type Mapping = readonly (string | null)[];

const LONGEST_HEADING = 200;

const plain = (text: string): string => text.toLowerCase().replace(/[^a-z0-9]+/g, '');

/** Other words people head their columns with. */
const ALSO: Readonly<Record<string, string>> = {
  focal: 'focal_length_mm',
  focallength: 'focal_length_mm',
  fl: 'focal_length_mm',
  maxaperture: 'f_min',
  aperture: 'f_min',
  fstop: 'f_number',
  stop: 'f_number',
  fnumber: 'f_number',
  minaperture: 'f_max',
  circle: 'circle',
  imagecircle: 'circle',
  diameter: 'diameter_mm',
  width: 'width_mm',
  height: 'height_mm',
  pixels: 'width_px',
  weight: 'mass_g',
  mass: 'mass_g',
  register: 'register_mm',
  flangedistance: 'register_mm',
  model: 'name',
  lensname: 'lens',
};

/** What the headings most likely mean; each field is taken once. */
export function guessMapping(headings: readonly string[], table: Table): (string | null)[] {
  const columns = columnsOf(table).map(({ path, label }) => ({
    path,
    keys: new Set([plain(path), plain(label)]),
  }));
  const taken = new Set<string>();
  return headings.map((heading) => {
    // A heading that long is none of ours.
    const key = heading.length > LONGEST_HEADING ? '' : plain(heading);
    if (key === '') return null;
    const also = Object.hasOwn(ALSO, key) ? ALSO[key] : undefined;
    const found = columns.find(
      ({ path, keys }) => !taken.has(path) && (keys.has(key) || also === path),
    );
    if (!found) return null;
    taken.add(found.path);
    return found.path;
  });
}

/** Which table the headings look like. */
export function guessTable(headings: readonly string[]): Table {
  const known = (table: Table): number =>
    guessMapping(headings, table).filter((path) => path !== null).length;
  const [best] = [...TABLES].sort((a, b) => known(b) - known(a));
  const keys = new Set(headings.map(plain));
  if (keys.has('diametermm') || (keys.has('lens') && known('circle') === 3)) return 'circle';
  return best ?? 'lens';
}

export interface Row {
  /** Line of the file, the heading being 1. */
  readonly line: number;
  readonly cells: readonly string[];
}

/** Needed fields that no column fills. */
export const unmapped = (table: Table, mapping: Mapping): FieldDef[] =>
  columnsOf(table).filter(({ path, needed }) => needed && !mapping.includes(path));

/** Names and values of one line, by field. */
function textsIn({ cells }: Row, mapping: Mapping): Record<string, string> {
  const texts: Record<string, string> = {};
  for (const [index, path] of filledBy(mapping)) {
    const cell = unguarded(cells[index] ?? '');
    if (cell.trim() !== '') texts[path] = cell;
  }
  return texts;
}

const filled = new WeakMap<Mapping, [number, string][]>();

/** The columns that fill a field: few, however many the table has. Worked out once for all lines. */
function filledBy(mapping: Mapping): [number, string][] {
  const known = filled.get(mapping);
  if (known) return known;
  const found = mapping.flatMap((path, index): [number, string][] =>
    path === null ? [] : [[index, path]],
  );
  filled.set(mapping, found);
  return found;
}

/** One line of a table of lenses or backs as an item. */
export function itemFromRow(table: 'lens' | 'back', row: Row, mapping: Mapping): Result<KitItem> {
  if (
    row.cells.length > mapping.length &&
    row.cells.slice(mapping.length).some((cell) => cell.trim())
  ) {
    return {
      ok: false,
      problems: [
        {
          pointer: '',
          message: `has ${row.cells.length} cells where the heading has ${mapping.length}; a cell with a comma needs quotes`,
        },
      ],
    };
  }
  return itemFrom(table, textsIn(row, mapping)).item;
}

export interface CircleLine {
  readonly lens: string;
  readonly f_number: number;
  readonly diameter_mm: number;
}

export function circleFromRow(row: Row, mapping: Mapping): Result<CircleLine> {
  const texts = textsIn(row, mapping);
  const line: Record<string, unknown> = {};
  for (const field of CIRCLE_COLUMNS) {
    const text = texts[field.path];
    const read = text === undefined ? null : readField(field, text);
    if (!read?.ok) {
      return {
        ok: false,
        problems: [
          {
            pointer: `/${field.path}`,
            message: read ? read.message : `Give this: ${field.label.toLowerCase()}.`,
          },
        ],
      };
    }
    line[field.path] = read.value;
  }
  return { ok: true, value: line as unknown as CircleLine };
}

/** A lens with the circles of several lines in place of those of the same stops. */
export function withCircles(
  lens: KitItemOf<'lens'>,
  lines: readonly CircleLine[],
): Result<KitItem> {
  const circle = new Map(lens.circle.map((entry) => [entry.f_number, entry.diameter_mm]));
  for (const { f_number, diameter_mm } of lines) circle.set(f_number, diameter_mm);
  return parseKitItem({
    ...lens,
    circle: [...circle]
      .sort(([a], [b]) => a - b)
      .map(([f_number, diameter_mm]) => ({ f_number, diameter_mm })),
  });
}

const ascii = (text: string): string => text.replaceAll('−', '-');

/** A kind’s items as a heading and lines, every field a column that any of them fills. */
export function tableOf(
  kind: Kind,
  items: readonly KitItem[],
): { heading: string[]; lines: string[][] } {
  const of = items.filter((item) => item.kind === kind);
  const used = fieldsOf(kind).filter(
    (field) => field.needed || of.some((item) => fieldText(field, item) !== ''),
  );
  return {
    heading: used.map(({ path }) => path),
    lines: of.map((item) =>
      used.map((field) =>
        ['text', 'notes'].includes(field.input)
          ? fieldText(field, item)
          : ascii(fieldText(field, item)),
      ),
    ),
  };
}

export function circleTableOf(items: readonly KitItem[]): { heading: string[]; lines: string[][] } {
  return {
    heading: CIRCLE_COLUMNS.map(({ path }) => path),
    lines: items.flatMap((item) =>
      item.kind === 'lens'
        ? item.circle.map((entry) => [item.name, String(entry.f_number), String(entry.diameter_mm)])
        : [],
    ),
  };
}
