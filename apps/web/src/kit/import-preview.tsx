import { useVirtualizer } from '@tanstack/react-virtual';
import { useMemo, useRef } from 'react';
import {
  columnsOf,
  KIND_WORDS,
  TABLES,
  unmapped,
  type Mapping,
  type Table,
} from '@gangway/station';
import { Button } from '../ui/button.js';
import type { Encoding, ImportPreview, ImportRow } from './read-import.js';

/** A file to look at, and how it is to be read; null: found out. */
export interface Wanted {
  file: File;
  encoding: Encoding | null;
  table: Table | null;
  mapping: Mapping | null;
}

const TABLE_WORDS: Record<Table, string> = {
  lens: 'Lenses',
  back: 'Backs',
  circle: 'Circles of lenses in the kit',
};

const ENCODINGS: readonly (readonly [Encoding, string])[] = [
  ['utf-8', 'UTF-8'],
  ['utf-16le', 'UTF-16'],
  ['windows-1252', 'Western European'],
];

const nounOf = (table: Table | null, count: number): string => {
  const noun = table === 'circle' ? 'change' : 'item';
  return count === 1 ? noun : `${noun}s`;
};

/** What a file holds, how its columns are understood, and each line’s standing. */
export function Preview({
  preview,
  wanted,
  chosen,
  withSame,
  onWithSame,
  onLook,
  onTake,
}: {
  preview: ImportPreview;
  wanted: Wanted;
  chosen: readonly ImportRow[];
  withSame: boolean;
  onWithSame: (on: boolean) => void;
  onLook: (next: Wanted) => void;
  onTake: () => void;
}) {
  const { rows, table } = preview;
  const bad = rows.filter(({ state }) => state === 'bad').length;
  const same = rows.filter(({ state }) => state === 'same_name').length;
  const missing = table ? unmapped(table, preview.mapping) : [];
  const select =
    'min-h-9 border-b border-rule bg-page font-medium text-ink pointer-coarse:min-h-11';
  return (
    <>
      {preview.doubt !== null && (
        <p className="mb-3 border-l-4 border-costs px-3 py-1">{preview.doubt}</p>
      )}
      {table && (
        <div className="mb-3 flex flex-wrap items-baseline gap-x-6 gap-y-2">
          <label className="flex items-baseline gap-2 text-quiet">
            A table of
            <select
              value={table}
              onChange={(event) =>
                onLook({ ...wanted, table: event.target.value as Table, mapping: null })
              }
              className={select}
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
              value={preview.encoding}
              onChange={(event) => onLook({ ...wanted, encoding: event.target.value as Encoding })}
              className={select}
            >
              {ENCODINGS.map(([key, words]) => (
                <option key={key} value={key}>
                  {words}
                </option>
              ))}
            </select>
          </label>
        </div>
      )}
      {table && (
        <section
          aria-label="Columns"
          className="mb-3 max-h-44 overflow-y-auto border-y border-rule py-2"
        >
          <div className="grid grid-cols-[repeat(auto-fill,minmax(15rem,1fr))] gap-x-6 gap-y-1">
            {preview.headings.map((heading, index) => (
              <label key={index} className="flex items-baseline justify-between gap-2">
                <span className="truncate text-quiet">{heading || `Column ${index + 1}`}</span>
                <select
                  aria-label={`Column “${heading || index + 1}” holds`}
                  value={preview.mapping[index] ?? ''}
                  onChange={(event) =>
                    onLook({
                      ...wanted,
                      table,
                      mapping: preview.mapping.map((path, i) => {
                        const next = event.target.value === '' ? null : event.target.value;
                        if (i === index) return next;
                        return path === next ? null : path;
                      }),
                    })
                  }
                  className="min-h-8 w-36 border-b border-rule bg-page font-medium text-ink"
                >
                  <option value="">leave out</option>
                  {columnsOf(table).map(({ path, label }) => (
                    <option key={path} value={path}>
                      {label}
                    </option>
                  ))}
                </select>
              </label>
            ))}
          </div>
        </section>
      )}
      {missing.length > 0 ? (
        <p className="border-l-4 border-costs px-3 py-1">
          Say which column holds {missing.map(({ label }) => label.toLowerCase()).join(', ')}.
        </p>
      ) : (
        <div className="mb-2 flex flex-wrap items-center gap-x-6 gap-y-2">
          <p>
            <span className="figure text-[20px]">{rows.length}</span> read
            {bad > 0 && (
              <>
                , <span className="figure text-[20px] text-outside">{bad}</span> cannot be used
              </>
            )}
            {same > 0 && (
              <>
                , <span className="figure text-[20px] text-costs">{same}</span> of a name that is
                taken
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
          <Button look="strong" disabled={chosen.length === 0} onClick={onTake}>
            Take in {chosen.length} {nounOf(table, chosen.length)}
          </Button>
        </div>
      )}
      <Rows rows={rows} />
    </>
  );
}

const ROW_PX = 40;
const STATE_WORDS = { good: 'Good', same_name: 'Same name', bad: 'Cannot be used' } as const;
const STATE_COLOURS = {
  good: 'text-within',
  same_name: 'text-costs',
  bad: 'text-outside',
} as const;

/** Bad lines first, since they are what one has to look at. */
function Rows({ rows }: { rows: readonly ImportRow[] }) {
  const sorted = useMemo(() => {
    const isBad = ({ state }: ImportRow): boolean => state === 'bad';
    return [...rows.filter(isBad), ...rows.filter((row) => !isBad(row))];
  }, [rows]);
  const box = useRef<HTMLDivElement>(null);
  const shown = useVirtualizer({
    count: sorted.length,
    getScrollElement: () => box.current,
    estimateSize: () => ROW_PX,
    overscan: 10,
  });
  return (
    <div ref={box} className="min-h-40 flex-1 overflow-y-auto border-t border-rule">
      <ol
        aria-label="Lines of the file"
        className="relative"
        style={{ height: shown.getTotalSize() }}
      >
        {shown.getVirtualItems().map(({ index, start }) => {
          const row = sorted[index]!;
          return (
            <li
              key={`${row.line}-${index}`}
              aria-setsize={sorted.length}
              aria-posinset={index + 1}
              style={{ height: ROW_PX, transform: `translateY(${start}px)` }}
              className="absolute inset-x-0 top-0 flex items-baseline gap-4 border-b border-rule py-2"
            >
              <span className="figure w-16 text-right text-quiet">{row.line}</span>
              <span className={`w-32 font-medium ${STATE_COLOURS[row.state]}`}>
                {STATE_WORDS[row.state]}
              </span>
              <span className="w-56 truncate font-medium">{row.name || '—'}</span>
              <span className="min-w-0 flex-1 truncate text-quiet" title={row.message ?? undefined}>
                {row.message ?? (row.item ? KIND_WORDS[row.item.kind].one : '')}
              </span>
            </li>
          );
        })}
      </ol>
    </div>
  );
}
