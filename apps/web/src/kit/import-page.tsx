import { useVirtualizer } from '@tanstack/react-virtual';
import { useCallback, useEffect, useEffectEvent, useMemo, useRef, useState } from 'react';
import { Link } from 'react-router';
import {
  columnsOf,
  KIND_WORDS,
  TABLES,
  unmapped,
  type KitItemOf,
  type Mapping,
  type Stored,
  type Table,
} from '@gangway/station';
import { onKitDropped } from '../files/dropped-kit.js';
import { isAway, sentence } from '../store/api.js';
import { useAppDispatch } from '../store/store.js';
import { Button } from '../ui/button.js';
import { PageTop } from '../ui/page-top.js';
import { Sections } from '../ui/sections.js';
import { kitApi, useImportPartMutation, useKitQuery, useTakeBackImportMutation } from './api.js';
import type {
  Encoding,
  ImportAsk,
  ImportMessage,
  ImportPreview,
  ImportRead,
  ImportRow,
} from './read-import.js';

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

/** Items sent at once: a part is taken whole or not at all. */
const PART = 1000;

interface Wanted {
  file: File;
  encoding: Encoding | null;
  table: Table | null;
  mapping: Mapping | null;
}

/** Reads in a worker, so that twenty thousand lines hold up nothing. */
function useReader(): (ask: Omit<ImportAsk, 'ask'>) => Promise<ImportRead> {
  const worker = useRef<Worker | null>(null);
  const count = useRef(0);
  useEffect(() => () => worker.current?.terminate(), []);
  return useCallback((ask) => {
    worker.current ??= new Worker(new URL('./import-worker.ts', import.meta.url), {
      type: 'module',
    });
    const number = ++count.current;
    const at = worker.current;
    return new Promise((resolve) => {
      const rows: ImportRow[] = [];
      const hear = ({ data }: MessageEvent<ImportMessage>): void => {
        if (data.ask !== number) return;
        if (data.kind === 'rows') {
          rows.push(...data.rows);
          return;
        }
        at.removeEventListener('message', hear);
        resolve(data.read.kind === 'refused' ? data.read : { ...data.read, rows });
      };
      at.addEventListener('message', hear);
      at.postMessage({ ...ask, ask: number }, [ask.bytes]);
    });
  }, []);
}

type Standing =
  | { kind: 'none' }
  | { kind: 'reading' }
  | { kind: 'refused'; message: string }
  | { kind: 'preview'; preview: ImportPreview }
  | { kind: 'sending'; sent: number; of: number }
  | { kind: 'done'; importId: string; added: number; changed: number; failed: string | null }
  | { kind: 'undone'; message: string };

export function ImportPage() {
  const { data: kit } = useKitQuery({ archived: false });
  const [wanted, setWanted] = useState<Wanted | null>(null);
  const [standing, setStanding] = useState<Standing>({ kind: 'none' });
  const [withSame, setWithSame] = useState(false);
  const read = useReader();
  const [send] = useImportPartMutation();
  const [takeBack] = useTakeBackImportMutation();
  const dispatch = useAppDispatch();
  const input = useRef<HTMLInputElement>(null);

  const look = async (next: Wanted): Promise<void> => {
    setWanted(next);
    setStanding({ kind: 'reading' });
    const question = async (lenses: ImportAsk['lenses']): Promise<ImportRead> =>
      read({
        bytes: await next.file.arrayBuffer(),
        name: next.file.name,
        encoding: next.encoding,
        table: next.table,
        mapping: next.mapping,
        taken: (kit ?? []).map(
          ({ document }) => `${document.kind}:${document.name.trim().toLowerCase()}`,
        ),
        lenses,
      });
    let answer = await question([]);
    if (answer.kind === 'preview' && answer.table === 'circle') {
      // Only a table of circles asks for the lenses themselves, which are many.
      answer = await question(
        (kit ?? []).flatMap((stored) =>
          stored.document.kind === 'lens' ? [stored as Stored<KitItemOf<'lens'>>] : [],
        ),
      );
    }
    setStanding(
      answer.kind === 'refused'
        ? { kind: 'refused', message: answer.message }
        : { kind: 'preview', preview: answer },
    );
  };

  const begin = useEffectEvent((file: File) => {
    void look({ file, encoding: null, table: null, mapping: null });
  });
  useEffect(() => (kit ? onKitDropped((file) => begin(file)) : undefined), [kit]);

  const rows = standing.kind === 'preview' ? standing.preview.rows : NO_ROWS;
  const chosen = useMemo(
    () => rows.filter(({ state }) => state === 'good' || (withSame && state === 'same_name')),
    [rows, withSame],
  );

  const take = async (): Promise<void> => {
    const importId = crypto.randomUUID();
    const parts = chosen.map((row) => ({ id: row.changes?.id ?? crypto.randomUUID(), row }));
    let [added, changed] = [0, 0];
    let failed: string | null = null;
    setStanding({ kind: 'sending', sent: 0, of: parts.length });
    for (let at = 0; at < parts.length && failed === null; at += PART) {
      const part = parts.slice(at, at + PART);
      const body = {
        id: importId,
        items: part
          .filter(({ row }) => !row.changes)
          .map(({ id, row }) => ({ id, document: row.item! })),
        changes: part
          .filter(({ row }) => row.changes)
          .map(({ id, row }) => ({ id, baseRevision: row.changes!.revision, document: row.item! })),
      };
      // A lost answer is asked for again: the same ids change nothing the second time.
      let made = await send(body);
      for (let tries = 0; made.error && isAway(made.error) && tries < 5; tries++) {
        await new Promise((resolve) => setTimeout(resolve, 1500));
        made = await send(body);
      }
      if (made.error) failed = sentence(made.error);
      else {
        added += made.data!.added;
        changed += made.data!.changed;
        setStanding({ kind: 'sending', sent: at + part.length, of: parts.length });
      }
    }
    dispatch(kitApi.util.invalidateTags(['Kit']));
    setStanding({ kind: 'done', importId, added, changed, failed });
  };

  const undo = async (importId: string): Promise<void> => {
    const made = await takeBack(importId);
    if (made.error) {
      setStanding({ kind: 'undone', message: `${sentence(made.error)} Nothing was taken back.` });
      return;
    }
    const { removed, restored, left } = made.data!;
    const kept =
      left.length === 0
        ? ''
        : ` Changed since and left as they are: ${left.slice(0, 5).join(', ')}${left.length > 5 ? ` and ${left.length - 5} more` : ''}.`;
    setStanding({
      kind: 'undone',
      message: `Taken back: ${removed} removed, ${restored} as before.${kept}`,
    });
  };

  return (
    <div className="flex h-full flex-col">
      <PageTop trail={<Sections />} />
      <main className="mx-auto flex min-h-0 w-full max-w-5xl flex-1 flex-col px-5 py-6">
        <div className="mb-3 flex flex-wrap items-center justify-between gap-3">
          <h1 className="text-2xl font-semibold">Import kit</h1>
          <Link to="/kit" className="text-quiet hover:text-ink">
            Back to the kit
          </Link>
        </div>
        <div className="mb-4 flex flex-wrap items-center gap-3">
          <Button look={wanted ? 'plain' : 'strong'} onClick={() => input.current?.click()}>
            Choose a file
          </Button>
          <input
            ref={input}
            type="file"
            accept=".csv,.json,text/csv,application/json"
            aria-label="Kit file or table to import"
            className="sr-only"
            tabIndex={-1}
            onChange={(event) => {
              const file = event.target.files?.[0];
              event.target.value = '';
              if (file) void look({ file, encoding: null, table: null, mapping: null });
            }}
          />
          <p className="min-w-0 flex-1 text-quiet">
            {wanted
              ? wanted.file.name
              : 'A kit file (JSON), or a table of lenses, backs or circles (CSV with headings).'}
          </p>
        </div>
        <div role="status" className="mb-2">
          {standing.kind === 'reading' && <p className="text-quiet">Reading …</p>}
          {standing.kind === 'refused' && (
            <p className="border-l-4 border-outside px-3 py-1">{standing.message}</p>
          )}
          {standing.kind === 'sending' && (
            <p>
              <span className="figure">{standing.sent}</span> of {standing.of} taken in …
            </p>
          )}
          {standing.kind === 'undone' && (
            <p className="border-l-4 border-within px-3 py-1">{standing.message}</p>
          )}
          {standing.kind === 'done' && (
            <div className="flex flex-wrap items-center gap-3">
              <p
                className={`border-l-4 px-3 py-1 ${standing.failed ? 'border-outside' : 'border-within'}`}
              >
                {standing.added} added, {standing.changed} changed.{' '}
                {standing.failed !== null && `Then it stopped: ${standing.failed}`}
              </p>
              <Button onClick={() => void undo(standing.importId)}>Take the import back</Button>
              <Link to="/kit" className="font-medium underline underline-offset-4">
                Look at the kit
              </Link>
            </div>
          )}
        </div>
        {standing.kind === 'preview' && wanted && (
          <Preview
            preview={standing.preview}
            wanted={wanted}
            chosen={chosen}
            withSame={withSame}
            onWithSame={setWithSame}
            onLook={(next) => void look(next)}
            onTake={() => void take()}
          />
        )}
      </main>
    </div>
  );
}

const nounOf = (table: Table | null, count: number): string => {
  const noun = table === 'circle' ? 'change' : 'item';
  return count === 1 ? noun : `${noun}s`;
};

const NO_ROWS: readonly ImportRow[] = [];

function Preview({
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
