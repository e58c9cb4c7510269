import { useCallback, useDeferredValue, useEffect, useMemo, useState } from 'react';
import { Link } from 'react-router';
import { columnAt, type Logged, type LogColumn } from '@gangway/station';
import { newId } from '../browser/new-id.js';
import { saveBlob } from '../browser/save-file.js';
import { lineIn, type OpenLog } from '../records/log-lines.js';
import { logKeeper, useLines } from '../store/log.js';
import { useAppSelector } from '../store/store.js';
import { ActionMenu } from '../ui/action-menu.js';
import { Button } from '../ui/button.js';
import { Choosing } from '../ui/choosing.js';
import { useNotice } from '../ui/notices.js';
import { fileName } from '../files/paper-choice.js';
import { counted } from '../ui/counted.js';
import { ChangeMany } from './change-many.js';
import { ClockNotice } from './clock-notice.js';
import { DayStrip } from './day-strip.js';
import { blockText, logCsv, logJson } from './export.js';
import { LogState } from './log-bar.js';
import { LogFrame } from './log-frame.js';
import { LogTable, type Cell } from './log-table.js';
import { momentNow } from './now.js';
import {
  blockFrom,
  columnsFor,
  columnsShown,
  fillLines,
  pasteBlock,
  type Edit,
} from './table-edits.js';
import type { ReadNames } from './use-stations.js';
import { linesShown, WHICH, type WhichLines } from './which-lines.js';

/** Nobody shoots longer without a pause. */
const SAME_DAY_MS = 12 * 3_600_000;

/** The log of a job, as a table. */
export function LogPage() {
  return (
    <LogFrame tall>
      {({ log, job, names }) => <Log log={log} name={job || 'log'} names={names} />}
    </LogFrame>
  );
}

function Log({ log, name, names }: { log: OpenLog; name: string; names: ReadNames }) {
  const units = useAppSelector((state) => state.preferences.units);
  const notice = useNotice();
  const [filter, setFilter] = useState('');
  const [station, setStation] = useState<string | null>(null);
  const [selected, setSelected] = useState<Record<string, boolean>>({});
  const [active, setActive] = useState<Cell | null>(null);
  const [shown, setShown] = useState<readonly string[]>([]);
  const [changing, setChanging] = useState(false);
  const all = useLines(log);
  const columns = useMemo(() => columnsFor(names), [names]);
  const [which, setWhich] = useState<WhichLines>('all');
  const lines = useMemo(
    () => linesShown(all, { which, station }, names.byId, units),
    [all, which, station, names.byId, units],
  );
  // Which columns there are follows what is in them.
  const settled = useDeferredValue(all);
  const visible = useSteady(
    useMemo(() => columnsShown(columns, settled), [columns, settled]),
    sameColumns,
  );
  const calm = useDeferredValue(filter);
  const chosen = useMemo(() => shown.filter((id) => selected[id]), [shown, selected]);
  const [added, setAdded] = useState<{ id: string; column: number } | null>(null);
  const onShown = useCallback(
    (next: readonly string[]): void => {
      setShown(next);
      // What was just added is what is written next.
      const row = added === null ? -1 : next.indexOf(added.id);
      if (added === null || row < 0) return;
      setAdded(null);
      setActive({ row, column: added.column });
    },
    [added],
  );
  const ids = useSteady(
    useMemo(() => lines.map(({ id }) => id), [lines]),
    sameIds,
  );

  useKeys();

  const take = (label: string, edit: Edit): string | null => {
    if (!edit.ok) return edit.message;
    logKeeper.change({ label, changes: edit.changes });
    return null;
  };
  const told = (fault: string | null): void => {
    if (fault !== null) notice([fault]);
  };
  const onEdit = (line: Logged, column: LogColumn, text: string): string | null =>
    take(`Change ${column.label}`, fillLines([line], column, text));
  const onPaste = ({ row, column }: Cell, text: string): void => {
    const block = blockFrom(text);
    if (block.length === 0) return;
    // One value on many selected lines is one change of all of them.
    const single = block.length === 1 && block[0]!.length === 1 && chosen.length > 1;
    told(
      take(
        `Paste ${counted(block.length, 'line')}`,
        single
          ? fillLines(linesWith(chosen), visible[column]!, block[0]![0]!)
          : pasteBlock(linesWith(shown), visible, { row, column }, block),
      ),
    );
  };
  const onCopy = ({ row, column }: Cell): string =>
    chosen.length > 0
      ? blockText(linesWith(chosen), visible)
      : blockText(linesWith(shown.slice(row, row + 1)), visible.slice(column, column + 1));
  const onFill = (): void => {
    if (!active) return;
    const [from] = linesWith(shown.slice(active.row, active.row + 1));
    const column = visible[active.column];
    if (!from || !column) return;
    const text = column.path === 'at' ? from.at : column.plain(from);
    const onto = chosen.length > 0 ? chosen : shown.slice(active.row + 1);
    told(take(`Fill down ${column.label}`, fillLines(linesWith(onto), column, text)));
  };
  const remove = (): void => {
    logKeeper.change({
      label: `Take out ${counted(chosen.length, 'line')}`,
      changes: chosen.map((id) => ({ id, remove: true })),
    });
    setSelected({});
  };
  const addLine = (): void => {
    const id = newId();
    const last = all.at(-1);
    const now = momentNow();
    // Long after the day it is a frame that was forgotten: its time is written first.
    const late = last !== undefined && Date.parse(now) - Date.parse(last.at) > SAME_DAY_MS;
    const line: Logged = {
      id,
      ...(last?.station ? { station: last.station } : {}),
      at: late ? last.at : now,
      planned: false,
    };
    logKeeper.change({ label: 'Add a line', changes: [{ id, add: line }] });
    setAdded({ id, column: late ? 0 : 1 });
  };
  const count = chosen.length;
  return (
    <main className="flex min-h-0 flex-1 flex-col">
      <div className="flex flex-wrap items-center gap-x-3 gap-y-2 px-5 py-3">
        <h1 className="mr-2 text-[24px] font-semibold">
          Log <span className="figure text-quiet">{all.length}</span>
        </h1>
        <input
          type="search"
          aria-label="Find in the log"
          placeholder="Find"
          value={filter}
          onChange={(event) => setFilter(event.target.value)}
          className="min-h-9 w-44 border border-rule-strong bg-paper px-2 pointer-coarse:min-h-11 max-sm:w-36"
        />
        <Choosing
          label="Show"
          value={which}
          options={Object.entries(WHICH) as [WhichLines, string][]}
          onChoose={setWhich}
        />
        <span role="status" className="text-quiet">
          {shown.length !== all.length ? `${shown.length} shown` : ''}
          {count > 0 ? ` ${count} selected` : ''}
        </span>
        <span className="flex-1 max-sm:hidden" />
        {active && (
          <Button onClick={onFill} title="Ctrl D">
            Fill down
          </Button>
        )}
        {count > 0 ? (
          <>
            <Button onClick={() => setChanging(true)}>Change {count} …</Button>
            <Button onClick={remove}>Take out</Button>
          </>
        ) : (
          <WholeLog jobId={log.jobId} name={name} lines={all} names={names} onAdd={addLine} />
        )}
      </div>
      <div className="px-5 empty:hidden">
        <LogState log={log} />
        {names.error && (
          <p role="alert" className="text-costs">
            {names.error}
          </p>
        )}
        <ClockNotice lines={all} />
        <Clashes log={log} />
      </div>
      <DayStrip lines={all} stations={names.byId} chosen={station} onChoose={setStation} />
      {!log.loaded ? (
        <p role="status" className="px-5 py-6 text-quiet">
          Loading the log …
        </p>
      ) : all.length === 0 ? (
        <p className="max-w-xl px-5 py-8 text-[17px]">
          Nothing is logged yet. Open a station’s card at the camera and tap <b>Shot</b> after each
          exposure; or add a line here, or bring in a table.
        </p>
      ) : (
        <LogTable
          ids={ids}
          lineOf={logKeeper.lineOf}
          columns={visible}
          stations={names.byId}
          units={units}
          filter={calm}
          selected={selected}
          onSelect={setSelected}
          active={active}
          onActive={setActive}
          onShown={onShown}
          onEdit={onEdit}
          onClear={(line, column) => told(onEdit(line, column, ''))}
          onCopy={onCopy}
          onPaste={onPaste}
          onFill={onFill}
        />
      )}
      {changing && (
        <ChangeMany
          count={count}
          columns={columns}
          onClose={() => setChanging(false)}
          onChange={(column, text) => {
            const fault = take(
              `Change ${column.label} of ${count}`,
              fillLines(linesWith(chosen), column, text),
            );
            if (fault === null) setChanging(false);
            return fault;
          }}
        />
      )}
    </main>
  );
}

/** What is done with the log as a whole, while no line of it is selected. */
function WholeLog({
  jobId,
  name,
  lines,
  names,
  onAdd,
}: {
  jobId: string;
  name: string;
  lines: readonly Logged[];
  names: ReadNames;
  onAdd: () => void;
}) {
  return (
    <>
      <Button onClick={onAdd}>Add a line</Button>
      <ActionMenu
        label="Save"
        items={[
          {
            label: 'Save as a table (CSV)',
            onSelect: () => saveBlob(`${fileName(name)}, log.csv`, logCsv(lines, names)),
          },
          {
            label: 'Save as JSON',
            onSelect: () => saveBlob(`${fileName(name)}, log.json`, logJson(lines)),
          },
        ]}
      />
      <Link to={`/jobs/${jobId}/log/table`} className="underline underline-offset-4">
        Bring in a table
      </Link>
      <Link
        to={`/jobs/${jobId}/files`}
        className="inline-flex min-h-9 items-center rounded-sm border border-ink bg-ink px-3 font-medium text-on-strong pointer-coarse:min-h-11"
      >
        Match the files
      </Link>
    </>
  );
}

/** What a column does hangs on the stations' names, too; the time without its day is made each time. */
const isSame = (a: LogColumn, b: LogColumn): boolean =>
  a === b || (a.path === 'at' && b.path === 'at' && a.label === b.label);

const sameColumns = (a: readonly LogColumn[], b: readonly LogColumn[]): boolean =>
  a.length === b.length && a.every((column, i) => isSame(column, b[i]!));

const sameIds = (a: readonly string[], b: readonly string[]): boolean =>
  a.length === b.length && a.every((id, i) => id === b[i]);

/** The very same thing as before as long as it says the same: what hangs on it is not made anew. */
function useSteady<T>(now: T, same: (a: T, b: T) => boolean): T {
  const [steady, setSteady] = useState(now);
  if (steady === now || same(steady, now)) return steady;
  setSteady(now);
  return now;
}

const linesWith = (ids: readonly string[]): Logged[] =>
  ids.flatMap((id) => logKeeper.lineOf(id) ?? []);

/** Undo and redo by the keys, where nothing is being typed. */
function useKeys(): void {
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      const typing = (event.target as HTMLElement | null)?.closest('input:not([type=checkbox]), textarea, select'); // prettier-ignore
      if (typing || !(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== 'z') return;
      event.preventDefault();
      if (event.shiftKey) logKeeper.redo();
      else logKeeper.undo();
    };
    addEventListener('keydown', onKey);
    return () => removeEventListener('keydown', onKey);
  }, []);
}

/** What two hands changed, and what the server does not take. */
function Clashes({ log }: { log: OpenLog }) {
  const { clashes, refused } = log;
  if (clashes.length === 0 && refused.length === 0) return null;
  return (
    <ul className="border-l-2 border-outside pl-3">
      {clashes.slice(0, 20).map(({ change: { id, set }, theirs }) => (
        <li key={id} className="flex flex-wrap items-center gap-3 py-1">
          <span className="min-w-0 flex-1">
            {lineIn(log, id)?.at.slice(11, 16)}:{' '}
            {theirs === null
              ? 'this line was taken out elsewhere.'
              : Object.entries(set)
                  .map(
                    ([name, { to }]) =>
                      `${columnAt(name)?.label ?? name} was changed elsewhere to “${saidOf((theirs as unknown as Record<string, unknown>)[name])}”, here to “${saidOf(to)}”`,
                  )
                  .join('; ')}
          </span>
          <Button onClick={() => logKeeper.decide(id, true)}>Keep mine</Button>
          <Button onClick={() => logKeeper.decide(id, false)}>Take the other</Button>
        </li>
      ))}
      {refused.slice(0, 20).map(({ change, message }, i) => (
        <li key={`${change.id} ${i}`} className="py-1">
          Not taken: {message}
        </li>
      ))}
      {refused.length > 0 && (
        <li className="flex gap-3 py-1">
          <Button
            onClick={() =>
              saveBlob(
                'not-taken.json',
                new Blob([JSON.stringify(refused, null, 2)], { type: 'application/json' }),
              )
            }
          >
            Save these as a file
          </Button>
          <Button look="quiet" onClick={() => logKeeper.dropRefused()}>
            Let them go
          </Button>
        </li>
      )}
    </ul>
  );
}

const saidOf = (value: unknown): string =>
  value === undefined ? 'nothing' : typeof value === 'string' ? value : JSON.stringify(value);
