import { KIND_WORDS, type KitItem, type Table } from '@gangway/station';
import type { Encoding } from './decode.js';
import {
  readImport,
  type ImportPreview,
  type ImportRow,
  type Progress,
  type Question,
  type Refused,
} from './read-import.js';

/**
 * What was read lies here, in the worker, however long it is; the page asks for the lines in sight,
 * the columns that matter and the parts to be sent. Pure, so that a test may ask the same.
 */

export interface Column {
  readonly index: number;
  readonly heading: string;
  /** The field it fills, or null when it is left out. */
  readonly path: string | null;
}

/** What the page knows of a file. */
export interface ImportHead {
  readonly kind: 'preview';
  readonly form: 'kit' | 'table';
  readonly encoding: Encoding;
  readonly doubt: string | null;
  readonly table: Table | null;
  /** Those that fill a field and the first of the others. */
  readonly columns: readonly Column[];
  readonly columnCount: number;
  /** Which field each column fills, by the column's number. */
  readonly mapping: Readonly<Record<number, string>>;
  readonly rows: number;
  readonly bad: number;
  readonly same: number;
}

/** A line as it is shown. */
export interface ShownLine extends ImportRow {
  readonly what: string;
}

export interface ImportPart {
  readonly items: readonly KitItem[];
  readonly changes: readonly {
    readonly id: string;
    readonly baseRevision: number;
    readonly document: KitItem;
  }[];
  /** Where the next part begins, or null after the last. */
  readonly next: number | null;
}

/** Columns shown that fill nothing: a table may have a hundred thousand. */
const MOST_LEFT_OUT = 24;

const filledIn = ({ mapping }: ImportPreview): Record<number, string> =>
  Object.fromEntries(mapping.flatMap((path, index) => (path === null ? [] : [[index, path]])));

export function makeDesk() {
  let read: ImportPreview | null = null;
  /** Lines in the order they are shown, bad ones first: they are what one has to look at. */
  let order: Uint32Array = new Uint32Array(0);

  /** Columns whose heading holds the words: those in use, then the first of the others. */
  function columns(words: string): Column[] {
    if (!read) return [];
    const { headings, mapping } = read;
    const wanted = words.trim().toLowerCase();
    const [used, others]: [Column[], Column[]] = [[], []];
    headings.forEach((heading, index) => {
      const path = mapping[index] ?? null;
      const into = path === null ? others : used;
      if (path === null && others.length >= MOST_LEFT_OUT) return;
      if (wanted !== '' && !heading.toLowerCase().includes(wanted)) return;
      into.push({ index, heading: heading.slice(0, 200), path });
    });
    return [...used, ...others];
  }

  return {
    read(bytes: ArrayBuffer, question: Question, progress?: Progress): ImportHead | Refused {
      read = null;
      const found = readImport(bytes, question, progress);
      if (found.kind === 'refused') return found;
      read = found;
      const { form, encoding, doubt, table, rows } = found;
      const isBad = (index: number): boolean => rows[index]!.state === 'bad';
      const all = rows.map((_row, index) => index);
      order = Uint32Array.from([...all.filter(isBad), ...all.filter((index) => !isBad(index))]);
      const count = (state: ImportRow['state']): number =>
        rows.reduce((sum, row) => sum + (row.state === state ? 1 : 0), 0);
      return {
        kind: 'preview',
        ...{ form, encoding, doubt, table },
        columns: columns(''),
        columnCount: found.headings.length,
        mapping: filledIn(found),
        rows: rows.length,
        bad: count('bad'),
        same: count('same_name'),
      };
    },

    columns,

    /** Lines as they are shown, from one to before another. */
    lines(from: number, to: number): ShownLine[] {
      const { rows = [], itemOf = () => null } = read ?? {};
      return [...order.subarray(from, to)].map((index) => {
        const row = rows[index]!;
        const kind = row.message === null ? itemOf(index)?.kind : undefined;
        return { ...row, what: row.message ?? (kind ? KIND_WORDS[kind].one : '') };
      });
    },

    /** The next items to be taken in, so many at most, looking from a line on. */
    part(from: number, most: number, withSame: boolean): ImportPart {
      const { rows = [], itemOf = () => null } = read ?? {};
      const items: KitItem[] = [];
      const changes: ImportPart['changes'][number][] = [];
      let at = from;
      for (; at < rows.length && items.length + changes.length < most; at++) {
        const { state, changes: of } = rows[at]!;
        if (state !== 'good' && !(withSame && state === 'same_name')) continue;
        const document = itemOf(at);
        if (!document) continue;
        if (of) changes.push({ id: of.id, baseRevision: of.revision, document });
        else items.push(document);
      }
      return { items, changes, next: at < rows.length ? at : null };
    },
  };
}
