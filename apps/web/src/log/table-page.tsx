import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useMemo, useRef, useState, type ChangeEvent } from 'react';
import { useNavigate } from 'react-router';
import type { OpenLog } from '../records/log-lines.js';
import { useNarrow } from '../browser/use-narrow.js';
import { logKeeper, useLines } from '../store/log.js';
import { Button } from '../ui/button.js';
import { counted } from '../ui/counted.js';
import { LogFrame } from './log-frame.js';
import type { TableRead, TableResult, TableRow } from './read-table.js';
import { columnsFor, type StationNames } from './table-edits.js';
import type { TableWorkerAsked } from './table-worker.js';

/** A table of exposures on its way into the log: looked at first. */
export function TablePage() {
  return (
    <LogFrame under>
      {({ log, names }) => (
        <main className="mx-auto w-full max-w-5xl px-5 py-6">
          <h1 className="text-[24px] font-semibold">Bring in a table</h1>
          {log.loaded ? (
            <Choose log={log} names={names} />
          ) : (
            <p role="status" className="py-3 text-quiet">
              Loading the log …
            </p>
          )}
        </main>
      )}
    </LogFrame>
  );
}

interface Wanted {
  readonly file: File;
  readonly mapping: readonly (string | null)[] | null;
}

function Choose({ log, names }: { log: OpenLog; names: StationNames }) {
  const input = useRef<HTMLInputElement>(null);
  const [wanted, setWanted] = useState<Wanted | null>(null);
  const [found, setFound] = useState<{ wanted: Wanted; result: TableResult } | null>(null);
  const lines = useLines(log);
  useEffect(() => {
    if (!wanted) return;
    const worker = new Worker(new URL('./table-worker.ts', import.meta.url), { type: 'module' });
    worker.addEventListener('message', ({ data }: MessageEvent<TableResult>) => setFound({ wanted, result: data })); // prettier-ignore
    worker.postMessage({
      file: wanted.file,
      encoding: null,
      mapping: wanted.mapping,
      lines,
      stations: [...names.byId].map(([id, { name }]) => [id, name] as const),
    } satisfies TableWorkerAsked);
    return () => worker.terminate();
  }, [wanted, lines, names]);
  const onChange = (event: ChangeEvent<HTMLInputElement>): void => {
    const file = event.target.files?.[0];
    event.target.value = '';
    if (file) setWanted({ file, mapping: null });
  };
  const here = found && found.wanted === wanted ? found.result : null;
  return (
    <>
      <p className="max-w-2xl py-3 text-quiet">
        Comma-separated values, as the log saves them or from a spreadsheet. The first line names
        the columns; a line with the id of one that is in the log changes it.
      </p>
      <Button onClick={() => input.current?.click()}>
        {wanted ? 'Another table' : 'Choose a table'}
      </Button>
      <input
        ref={input}
        type="file"
        accept=".csv,text/csv,.txt,.tsv"
        aria-label="A table of the log"
        className="sr-only"
        tabIndex={-1}
        onChange={onChange}
      />
      {wanted && !here && (
        <p role="status" className="py-3 text-quiet">
          Reading {wanted.file.name} …
        </p>
      )}
      {here && 'refused' in here && (
        <p role="alert" className="py-3 text-outside">
          {here.refused}
        </p>
      )}
      {wanted && here && !('refused' in here) && (
        <Preview
          read={here}
          jobId={log.jobId}
          names={names}
          onMapping={(mapping) => setWanted({ ...wanted, mapping })}
        />
      )}
    </>
  );
}

const STATES: Record<TableRow['state'], readonly [words: string, tone: string]> = {
  new: ['new', 'text-within'],
  changes: ['changes', 'text-costs'],
  same: ['the same', 'text-quiet'],
  bad: ['left out', 'text-outside'],
};

/** On a phone what a line says stands under its state. */
const ROW_PX = { wide: 32, narrow: 68 } as const;

function Preview({
  read,
  jobId,
  names,
  onMapping,
}: {
  read: TableRead;
  jobId: string;
  names: StationNames;
  onMapping: (mapping: (string | null)[]) => void;
}) {
  const navigate = useNavigate();
  const columns = useMemo(() => columnsFor(names), [names]);
  const count = (state: TableRow['state']): number =>
    read.rows.filter((row) => row.state === state).length;
  const box = useRef<HTMLDivElement>(null);
  const rows = useMemo(() => [...read.rows].sort((a, b) => Number(b.state === 'bad') - Number(a.state === 'bad')), [read.rows]); // prettier-ignore
  const rowPx = ROW_PX[useNarrow() ? 'narrow' : 'wide'];
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => box.current,
    estimateSize: () => rowPx,
    overscan: 8,
  });
  useEffect(() => virtual.measure(), [virtual, rowPx]);
  const take = (): void => {
    logKeeper.change({
      label: `Bring in ${counted(read.changes.length, 'line')}`,
      changes: read.changes,
    });
    void navigate(`/jobs/${jobId}/log`);
  };
  const noTime = !read.mapping.includes('at') && count('new') + count('bad') > 0;
  return (
    <>
      <ul className="flex flex-wrap items-baseline gap-x-6 py-3" aria-label="What the table holds">
        {(Object.keys(STATES) as TableRow['state'][]).map((state) => (
          <li key={state}>
            <span
              className={`figure text-[26px] ${count(state) > 0 ? STATES[state][1] : 'text-quiet'}`}
            >
              {count(state)}
            </span>{' '}
            <span className="text-[13px] text-quiet">{STATES[state][0]}</span>
          </li>
        ))}
        <li className="flex-1 text-right">
          <Button
            look="strong"
            disabled={read.changes.length === 0}
            onClick={take}
            className="min-h-11 px-5"
          >
            Bring in {read.changes.length}
          </Button>
        </li>
      </ul>
      {read.doubt && (
        <p role="note" className="border-l-2 border-costs pl-3">
          {read.doubt}
        </p>
      )}
      {noTime && (
        <p role="alert" className="text-outside">
          No column gives the time of the exposures; choose the one that does.
        </p>
      )}
      {read.local > 0 && (
        <p role="note" className="border-l-2 border-costs pl-3">
          {read.local === 1
            ? 'One time has no offset; it is taken'
            : `${read.local} times have no offset; they are taken`}{' '}
          as of this machine’s own zone.
        </p>
      )}
      <table className="my-3 text-[14px]">
        <tbody>
          {read.headings.map((heading, i) => (
            <tr key={i}>
              <th scope="row" className="max-w-72 truncate pr-6 text-left font-medium">
                {heading || `Column ${i + 1}`}
              </th>
              <td>
                <select
                  aria-label={`What “${heading || `column ${i + 1}`}” fills`}
                  value={read.mapping[i] ?? ''}
                  onChange={(event) =>
                    onMapping(
                      read.mapping.map((path, at) =>
                        at === i
                          ? event.target.value || null
                          : path === event.target.value
                            ? null
                            : path,
                      ),
                    )
                  }
                  className={`min-h-9 border-b border-rule bg-page pointer-coarse:min-h-11 ${read.mapping[i] ? 'font-medium' : 'text-quiet'}`}
                >
                  <option value="">left out</option>
                  <option value="id">id</option>
                  {columns.map(({ path, label }) => (
                    <option key={path} value={path}>
                      {label}
                    </option>
                  ))}
                </select>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <div ref={box} className="max-h-[40vh] overflow-y-auto border-t border-rule">
        <ul
          className="relative"
          aria-label="Lines of the table"
          style={{ height: virtual.getTotalSize() }}
        >
          {virtual.getVirtualItems().map(({ index, start }) => {
            const row = rows[index]!;
            const [words, tone] = STATES[row.state];
            return (
              <li
                key={row.line}
                className="absolute inset-x-0 flex items-center gap-x-4 border-b border-rule max-sm:flex-wrap max-sm:content-center"
                style={{ height: rowPx, transform: `translateY(${start}px)` }}
              >
                <span className="figure w-16 text-right text-quiet max-sm:w-auto">{row.line}</span>
                <span className={`w-20 font-medium ${tone}`}>{words}</span>
                <span
                  className="min-w-0 flex-1 truncate max-sm:line-clamp-2 max-sm:flex-none max-sm:basis-full max-sm:text-[13px] max-sm:whitespace-normal"
                  title={row.said}
                >
                  {row.said}
                </span>
              </li>
            );
          })}
        </ul>
      </div>
    </>
  );
}
