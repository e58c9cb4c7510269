import {
  getCoreRowModel,
  getFilteredRowModel,
  getSortedRowModel,
  useReactTable,
  type ColumnDef,
  type RowSelectionState,
  type SortingState,
} from '@tanstack/react-table';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useMemo, useRef, useState, type KeyboardEvent } from 'react';
import type { Logged, LogColumn, Station, Units } from '@gangway/station';
import { LogRow, ROW_PX } from './log-row.js';
import { CLOCK_ONLY, searchText } from './table-edits.js';

export interface Cell {
  readonly row: number;
  readonly column: number;
}

const NUMBERS: Readonly<Record<string, true>> = { at: true };

/** Raw values where columns are sorted by them. */
function sortValue(line: Logged, { path, plain, numeric }: LogColumn): string | number {
  const text = plain(line);
  if (!numeric) return NUMBERS[path] ? text : text.toLowerCase();
  return text === '' ? -Infinity : text === 'infinity' ? Infinity : Number(text);
}

/** Lines by what stands in a column; those without come first. */
function compared(a: Logged | undefined, b: Logged | undefined, column: LogColumn): number {
  if (!a || !b) return 0;
  const [x, y] = [sortValue(a, column), sortValue(b, column)];
  return x === y ? 0 : x < y ? -1 : 1;
}

const WIDTHS: Readonly<Record<string, number>> = {
  at: 170,
  station: 210,
  note: 180,
  file: 150,
  lens: 200,
  planned: 96,
  frame: 66,
  bracket: 76,
  f_number: 72,
  iso: 66,
  'film.stock': 160,
  filters: 160,
};
const widthOf = ({ path, label }: LogColumn): number =>
  path === 'at' && label === CLOCK_ONLY ? 88 : (WIDTHS[path] ?? 88);

export interface TableProps {
  /** In the order they were made; the same list as long as none comes or goes. */
  readonly ids: readonly string[];
  /** A line as it is now. */
  readonly lineOf: (id: string) => Logged | undefined;
  readonly columns: readonly LogColumn[];
  readonly stations: ReadonlyMap<string, Station>;
  readonly units: Units;
  readonly filter: string;
  readonly selected: RowSelectionState;
  readonly onSelect: (next: RowSelectionState) => void;
  readonly active: Cell | null;
  readonly onActive: (cell: Cell | null) => void;
  /** Those that are shown, sorted and filtered. */
  readonly onShown: (ids: readonly string[]) => void;
  readonly onEdit: (line: Logged, column: LogColumn, text: string) => string | null;
  readonly onClear: (line: Logged, column: LogColumn) => void;
  readonly onCopy: (cell: Cell) => string;
  readonly onPaste: (cell: Cell, text: string) => void;
  readonly onFill: () => void;
}

export function LogTable(props: TableProps) {
  const { ids, lineOf, columns, units, filter, selected, onSelect, onActive, onShown } = props;
  const [sorting, setSorting] = useState<SortingState>([]);
  const defs = useMemo(
    (): ColumnDef<string>[] =>
      columns.map((column, i) => ({
        id: column.path,
        accessorFn: (id) => id,
        // The whole line is searched at once.
        enableGlobalFilter: i === 0,
        sortingFn: (a, b) => compared(lineOf(a.original), lineOf(b.original), column),
      })),
    [columns, lineOf],
  );
  // The table knows ids alone: what is edited stays where it is until it is sorted or searched anew,
  // and nothing is made anew for thousands of lines.
  const table = useReactTable({
    data: ids as string[],
    columns: defs,
    state: { sorting, globalFilter: filter, rowSelection: selected },
    onSortingChange: setSorting,
    onRowSelectionChange: (update) =>
      onSelect(typeof update === 'function' ? update(selected) : update),
    getRowId: (id) => id,
    getCoreRowModel: getCoreRowModel(),
    getFilteredRowModel: getFilteredRowModel(),
    getSortedRowModel: getSortedRowModel(),
    getColumnCanGlobalFilter: ({ columnDef }) => columnDef.enableGlobalFilter === true,
    globalFilterFn: ({ original }, _id, text: string) => {
      const line = lineOf(original);
      return line !== undefined && searchText(line, columns, units).includes(text.toLowerCase());
    },
  });
  const { rows } = table.getRowModel();
  // Where fewer are shown than before the cell may be gone.
  const active = props.active && props.active.row < rows.length ? props.active : null;
  useEffect(() => onShown(rows.map(({ id }) => id)), [rows, onShown]);
  const box = useRef<HTMLDivElement>(null);
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => box.current,
    estimateSize: () => ROW_PX,
    overscan: 3,
  });
  const activeRow = active?.row;
  useEffect(() => {
    if (activeRow !== undefined) virtual.scrollToIndex(activeRow);
  }, [virtual, activeRow]);
  const [editing, setEditing] = useState<{ cell: Cell; first: string | null } | null>(null);
  const lastTicked = useRef<number | null>(null);
  // Told in pixels: a grid as wide as its contents would be measured anew at every row.
  const wide = {
    width: columns.reduce((sum, column) => sum + widthOf(column), 44),
    minWidth: '100%',
  };
  const template = `44px ${columns.map((column) => `${widthOf(column)}px`).join(' ')}`;
  const go = (row: number, column: number): void => {
    const next = {
      row: Math.max(0, Math.min(rows.length - 1, row)),
      column: Math.max(0, Math.min(columns.length - 1, column)),
    };
    onActive(next);
  };
  const leave = (): void => {
    setEditing(null);
    box.current?.focus();
  };
  const onKey = (event: KeyboardEvent): void => {
    if (editing || !active) return;
    const { key, shiftKey, ctrlKey, metaKey, altKey } = event;
    const command = ctrlKey || metaKey;
    if (command && key.toLowerCase() === 'd') {
      event.preventDefault();
      props.onFill();
      return;
    }
    if (command || altKey) return;
    const page = Math.max(1, Math.floor((box.current?.clientHeight ?? 0) / ROW_PX) - 2);
    const moves: Readonly<Record<string, readonly [number, number]>> = {
      ArrowDown: [1, 0],
      ArrowUp: [-1, 0],
      ArrowLeft: [0, -1],
      ArrowRight: [0, 1],
      PageDown: [page, 0],
      PageUp: [-page, 0],
      Home: [0, -columns.length],
      End: [0, columns.length],
    };
    const move = moves[key];
    if (move) {
      event.preventDefault();
      go(active.row + move[0], active.column + move[1]);
    } else if (key === 'Enter' || key === 'F2') {
      event.preventDefault();
      setEditing({ cell: active, first: null });
    } else if (key === ' ' && !shiftKey) {
      event.preventDefault();
      tick(active.row, false);
    } else if (key === 'Delete' || key === 'Backspace') {
      event.preventDefault();
      const line = lineOf(rows[active.row]!.id);
      if (line) props.onClear(line, columns[active.column]!);
    } else if (key.length === 1) {
      event.preventDefault();
      setEditing({ cell: active, first: key });
    }
  };
  const tick = (row: number, range: boolean): void => {
    const own = rows[row];
    if (!own) return;
    const on = !selected[own.id];
    const from = range && lastTicked.current !== null ? lastTicked.current : row;
    const next = { ...selected };
    for (let i = Math.min(from, row); i <= Math.max(from, row); i++) {
      const id = rows[i]!.id;
      if (on) next[id] = true;
      else delete next[id];
    }
    lastTicked.current = row;
    onSelect(next);
  };
  const all = rows.length > 0 && rows.every(({ id }) => selected[id]);
  return (
    <div
      ref={box}
      role="grid"
      aria-label="Log"
      aria-rowcount={rows.length + 1}
      aria-colcount={columns.length + 1}
      aria-multiselectable
      aria-activedescendant={active ? `cell-${active.row}-${active.column}` : undefined}
      tabIndex={0}
      onKeyDown={onKey}
      onFocus={() => active ?? (rows.length > 0 && onActive({ row: 0, column: 0 }))}
      onPaste={(event) => {
        if (!active || editing) return;
        event.preventDefault();
        props.onPaste(active, event.clipboardData.getData('text/plain'));
      }}
      onCopy={(event) => {
        if (!active || editing) return;
        event.preventDefault();
        event.clipboardData.setData('text/plain', props.onCopy(active));
      }}
      className="min-h-48 flex-1 overflow-auto border-t border-rule bg-paper"
    >
      <div
        role="row"
        aria-rowindex={1}
        className="sticky top-0 z-10 grid border-b border-rule-strong bg-page text-[13px]"
        style={{ gridTemplateColumns: template, ...wide }}
      >
        <span
          role="columnheader"
          className="sticky left-0 flex items-center justify-center bg-page"
        >
          <input
            type="checkbox"
            aria-label="Select all that are shown"
            checked={all}
            onChange={() =>
              onSelect(all ? {} : Object.fromEntries(rows.map(({ id }) => [id, true])))
            }
            className="size-5 accent-current"
          />
        </span>
        {columns.map((column, i) => {
          const sorted = table.getColumn(column.path)?.getIsSorted() ?? false;
          return (
            <span
              key={column.path}
              role="columnheader"
              aria-colindex={i + 2}
              aria-sort={sorted === 'asc' ? 'ascending' : sorted === 'desc' ? 'descending' : 'none'}
            >
              <button
                type="button"
                tabIndex={-1}
                onClick={() => table.getColumn(column.path)?.toggleSorting()}
                className={`flex min-h-9 w-full items-center gap-1 px-2 ${column.numeric ? 'justify-end' : ''} text-quiet hover:text-ink`}
              >
                {column.label}
                <span aria-hidden className="w-2">
                  {sorted === 'asc' ? '↑' : sorted === 'desc' ? '↓' : ''}
                </span>
              </button>
            </span>
          );
        })}
      </div>
      <div className="relative" style={{ height: virtual.getTotalSize(), ...wide }}>
        {virtual.getVirtualItems().map(({ index, start }) => {
          const line = rows[index] && lineOf(rows[index].id);
          return (
            line && (
              <LogRow
                key={line.id}
                index={index}
                start={start}
                template={template}
                wide={wide}
                line={line}
                columns={columns}
                stations={props.stations}
                units={units}
                selected={selected[line.id] ?? false}
                active={active?.row === index ? active.column : null}
                editing={editing?.cell.row === index ? { column: editing.cell.column, first: editing.first } : null} // prettier-ignore
                onTick={(range) => tick(index, range)}
                onCell={(column, edit) => {
                  onActive({ row: index, column });
                  setEditing(edit ? { cell: { row: index, column }, first: null } : null);
                  if (!edit) box.current?.focus();
                }}
                onDone={(column, text, step) => {
                  const fault = text === null ? null : props.onEdit(line, columns[column]!, text);
                  if (fault !== null) return fault;
                  leave();
                  if (step === 'down') go(index + 1, column);
                  if (step === 'right') go(index, column + 1);
                  return null;
                }}
              />
            )
          );
        })}
      </div>
    </div>
  );
}
