import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useRef, useState } from 'react';
import { columnsOf, TABLES, type FieldDef, type Table } from '@gangway/station';
import { Button } from '../ui/button.js';
import type { Encoding } from './decode.js';
import type { Column, ImportHead, ShownLine } from './import-desk.js';
import type { ImportReader } from './use-import-reader.js';

/** A file to look at, and how it is to be read; null: found out. */
export interface Wanted {
  file: File;
  encoding: Encoding | null;
  table: Table | null;
  /** Which field each column fills, by the column's number. */
  mapping: Readonly<Record<number, string>> | null;
}

/** Most items taken in at once: a kit of more serves nobody. */
const MOST_TAKEN = 50_000;

const TABLE_WORDS: Record<Table, string> = {
  lens: 'Lenses',
  back: 'Backs',
  circle: 'Circles of lenses in the kit',
};

const ENCODINGS: readonly (readonly [Encoding, string])[] = [
  ['utf-8', 'UTF-8'],
  ['utf-16le', 'UTF-16, little end first'],
  ['utf-16be', 'UTF-16, big end first'],
  ['windows-1252', 'Western European'],
];

const nounOf = (table: Table | null, count: number): string => {
  const noun = table === 'circle' ? 'change' : 'item';
  return count === 1 ? noun : `${noun}s`;
};

const SELECT = 'min-h-9 border-b border-rule bg-page font-medium text-ink pointer-coarse:min-h-11';

interface Props {
  head: ImportHead;
  reader: ImportReader;
  wanted: Wanted;
  withSame: boolean;
  onWithSame: (on: boolean) => void;
  onLook: (next: Wanted) => void;
  onTake: (count: number) => void;
}

/** Needed fields that no column fills. */
const missingIn = (table: Table, { mapping }: ImportHead): FieldDef[] => {
  const there = new Set(Object.values(mapping));
  return columnsOf(table).filter(({ path, needed }) => needed && !there.has(path));
};

/** What a file holds, how its columns are understood, and each line’s standing. */
export function Preview({ head, reader, wanted, withSame, onWithSame, onLook, onTake }: Props) {
  const { table } = head;
  const missing = table ? missingIn(table, head) : [];
  return (
    <>
      {head.doubt !== null && (
        <p className="mb-3 border-l-4 border-costs px-3 py-1">{head.doubt}</p>
      )}
      {table && <HowRead {...{ table, head, wanted, onLook }} />}
      {table && <Columns {...{ table, head, reader, wanted, onLook }} />}
      {missing.length > 0 ? (
        <p className="border-l-4 border-costs px-3 py-1">
          Say which column holds {missing.map(({ label }) => label.toLowerCase()).join(', ')}.
        </p>
      ) : (
        <Taking {...{ head, withSame, onWithSame, onTake }} />
      )}
      <Rows count={head.rows} reader={reader} />
    </>
  );
}

function HowRead({
  table,
  head,
  wanted,
  onLook,
}: Pick<Props, 'head' | 'wanted' | 'onLook'> & { table: Table }) {
  return (
    <div className="mb-3 flex flex-wrap items-baseline gap-x-6 gap-y-2">
      <label className="flex items-baseline gap-2 text-quiet">
        A table of
        <select
          value={table}
          onChange={(event) =>
            onLook({ ...wanted, table: event.target.value as Table, mapping: null })
          }
          className={SELECT}
        >
          {TABLES.map((each) => (
            <option key={each} value={each}>
              {TABLE_WORDS[each]}
            </option>
          ))}
        </select>
      </label>
      <label className="flex items-baseline gap-2 text-quiet">
        Read as
        <select
          value={head.encoding}
          onChange={(event) => onLook({ ...wanted, encoding: event.target.value as Encoding })}
          className={SELECT}
        >
          {ENCODINGS.map(([key, words]) => (
            <option key={key} value={key}>
              {words}
            </option>
          ))}
        </select>
      </label>
    </div>
  );
}

/** The columns in use and the first of the others; a table may have any number of them. */
function Columns({
  table,
  head,
  reader,
  wanted,
  onLook,
}: Pick<Props, 'head' | 'reader' | 'wanted' | 'onLook'> & { table: Table }) {
  const [words, setWords] = useState('');
  const [found, setFound] = useState<readonly Column[] | null>(null);
  const many = head.columnCount > head.columns.length;
  useEffect(() => {
    if (words.trim() === '') return undefined;
    let current = true;
    void reader.columns(words).then((columns) => {
      if (current) setFound(columns);
    });
    return () => {
      current = false;
    };
  }, [words, reader]);
  const shown = words.trim() === '' ? head.columns : (found ?? head.columns);
  const choose = (index: number, path: string): void => {
    const kept = Object.entries(head.mapping).filter(
      ([at, of]) => Number(at) !== index && of !== path,
    );
    onLook({
      ...wanted,
      table,
      mapping: Object.fromEntries(path === '' ? kept : [...kept, [index, path]]),
    });
  };
  return (
    <section
      aria-label="Columns"
      className="mb-3 max-h-44 overflow-y-auto border-y border-rule py-2"
    >
      {many && (
        <p className="mb-2 flex flex-wrap items-baseline gap-x-4 text-quiet">
          <span>
            {head.columnCount.toLocaleString('en')} columns; those in use are shown, and some
            others.
          </span>
          <input
            type="search"
            aria-label="Find a column"
            placeholder="Find a column"
            value={words}
            onChange={(event) => setWords(event.target.value)}
            className="min-h-9 border-b border-rule bg-transparent text-ink placeholder:text-faint"
          />
        </p>
      )}
      <div className="grid grid-cols-[repeat(auto-fill,minmax(15rem,1fr))] gap-x-6 gap-y-1">
        {shown.map(({ index, heading, path }) => (
          <label key={index} className="flex items-baseline justify-between gap-2">
            <span className="truncate text-quiet">{heading || `Column ${index + 1}`}</span>
            <select
              aria-label={`Column “${heading || index + 1}” holds`}
              value={path ?? ''}
              onChange={(event) => choose(index, event.target.value)}
              className="min-h-8 w-36 border-b border-rule bg-page font-medium text-ink"
            >
              <option value="">leave out</option>
              {columnsOf(table).map((field) => (
                <option key={field.path} value={field.path}>
                  {field.label}
                </option>
              ))}
            </select>
          </label>
        ))}
      </div>
    </section>
  );
}

function Taking({
  head,
  withSame,
  onWithSame,
  onTake,
}: Pick<Props, 'head' | 'withSame' | 'onWithSame' | 'onTake'>) {
  const { rows, bad, same, table } = head;
  const chosen = rows - bad - (withSame ? 0 : same);
  return (
    <div className="mb-2 flex flex-wrap items-center gap-x-6 gap-y-2">
      <p>
        <Figure count={rows} /> read
        {bad > 0 && (
          <>
            , <Figure count={bad} tone="text-outside" /> cannot be used
          </>
        )}
        {same > 0 && (
          <>
            , <Figure count={same} tone="text-costs" /> of a name that is taken
          </>
        )}
      </p>
      {same > 0 && (
        <label className="flex items-center gap-2">
          <input
            type="checkbox"
            checked={withSame}
            onChange={(event) => onWithSame(event.target.checked)}
            className="size-4 accent-(--ink)"
          />
          Take those of the same name too
        </label>
      )}
      {chosen > MOST_TAKEN ? (
        <p className="text-outside">
          {MOST_TAKEN.toLocaleString('en')} at a time can be taken in; split the table.
        </p>
      ) : (
        <Button look="strong" disabled={chosen === 0} onClick={() => onTake(chosen)}>
          Take in {chosen} {nounOf(table, chosen)}
        </Button>
      )}
    </div>
  );
}

const Figure = ({ count, tone = '' }: { count: number; tone?: string }) => (
  <span className={`figure text-[20px] ${tone}`}>{count.toLocaleString('en')}</span>
);

/** A million lines of this height are as tall as a browser lets anything be. */
const ROW_PX = 32;
const STATE_WORDS = { good: 'Good', same_name: 'Same name', bad: 'Cannot be used' } as const;
const STATE_COLOURS = {
  good: 'text-within',
  same_name: 'text-costs',
  bad: 'text-outside',
} as const;

/** Lines fetched at once: some screens of them. */
const CHUNK = 100;

/** Lines of the file, those in sight fetched from where they were read; bad ones come first. */
function Rows({ count, reader }: { count: number; reader: ImportReader }) {
  const box = useRef<HTMLDivElement>(null);
  const [chunks, setChunks] = useState<ReadonlyMap<number, readonly ShownLine[]>>(new Map());
  const shown = useVirtualizer({
    count,
    getScrollElement: () => box.current,
    estimateSize: () => ROW_PX,
    overscan: 10,
  });
  const items = shown.getVirtualItems();
  const first = Math.floor((items[0]?.index ?? 0) / CHUNK);
  const last = Math.floor((items.at(-1)?.index ?? 0) / CHUNK);
  useEffect(() => {
    for (let chunk = first; chunk <= last && count > 0; chunk++) {
      void reader.lines(chunk * CHUNK, (chunk + 1) * CHUNK).then((lines) => {
        // Those far out of sight are fetched again when they are wanted.
        setChunks((now) => new Map([...now].slice(-8)).set(chunk, lines));
      });
    }
  }, [first, last, count, reader]);
  return (
    <div ref={box} className="min-h-40 flex-1 overflow-y-auto border-t border-rule">
      <ol
        aria-label="Lines of the file"
        className="relative"
        style={{ height: shown.getTotalSize() }}
      >
        {items.map(({ index, start }) => (
          <li
            key={index}
            aria-setsize={count}
            aria-posinset={index + 1}
            style={{ height: ROW_PX, transform: `translateY(${start}px)` }}
            className="absolute inset-x-0 top-0 flex items-baseline gap-4 border-b border-rule py-1"
          >
            <FileLine row={chunks.get(Math.floor(index / CHUNK))?.[index % CHUNK]} />
          </li>
        ))}
      </ol>
    </div>
  );
}

function FileLine({ row }: { row: ShownLine | undefined }) {
  if (!row) return <span className="w-16 text-right text-quiet">…</span>;
  return (
    <>
      <span className="figure w-16 text-right text-quiet">{row.line}</span>
      <span className={`w-32 font-medium ${STATE_COLOURS[row.state]}`}>
        {STATE_WORDS[row.state]}
      </span>
      <span className="w-56 truncate font-medium">{row.name || '—'}</span>
      <span className="min-w-0 flex-1 truncate text-quiet" title={row.what}>
        {row.what}
      </span>
    </>
  );
}
