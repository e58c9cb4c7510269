import { useMemo, type ReactNode } from 'react';
import {
  doneOtherwise,
  isDoubtful,
  saysNothing,
  type Logged,
  type LogColumn,
  type Otherwise,
  type Station,
  type Units,
} from '@gangway/station';
import { CellEditor } from './cell-editor.js';

/** One line of the log’s table. */

export const ROW_PX = 34;

/** What a column is called in the words of what was planned. */
const NAMES: Readonly<Record<string, string>> = { f_number: 'stop', time_s: 'time', iso: 'ISO', focus_m: 'focus' }; // prettier-ignore

interface RowProps {
  readonly index: number;
  readonly start: number;
  readonly template: string;
  readonly wide: { readonly width: number; readonly minWidth: string };
  readonly line: Logged;
  readonly columns: readonly LogColumn[];
  readonly stations: ReadonlyMap<string, Station>;
  readonly units: Units;
  readonly selected: boolean;
  readonly active: number | null;
  readonly editing: { readonly column: number; readonly first: string | null } | null;
  readonly onTick: (range: boolean) => void;
  readonly onCell: (column: number, edit: boolean) => void;
  readonly onDone: (column: number, text: string | null, step: 'stay' | 'down' | 'right') => string | null; // prettier-ignore
}

export function LogRow(props: RowProps) {
  const { index, line, columns, stations, units, selected, active, editing } = props;
  const station = line.station === undefined ? undefined : stations.get(line.station);
  const otherwise = useMemo(() => doneOtherwise(station, line, units), [station, line, units]);
  const spoilt = line.kept === false;
  return (
    <div
      role="row"
      aria-rowindex={index + 2}
      aria-selected={selected}
      className={`absolute grid border-b border-rule ${selected ? 'bg-stage' : ''} ${editing ? 'z-10' : ''}`}
      style={{
        gridTemplateColumns: props.template,
        height: ROW_PX,
        contain: 'layout style',
        transform: `translateY(${props.start}px)`,
        ...props.wide,
      }}
    >
      <span
        role="gridcell"
        className={`sticky left-0 flex items-center justify-center ${selected ? 'bg-stage' : 'bg-paper'}`}
      >
        <input
          type="checkbox"
          tabIndex={-1}
          aria-label={`Select line ${index + 1}`}
          checked={selected}
          onClick={(event) => props.onTick(event.shiftKey)}
          onChange={() => undefined}
          className="size-5 accent-current"
        />
      </span>
      {columns.map((column, i) => {
        if (editing?.column === i) {
          return (
            <CellEditor
              key={column.path}
              label={column.label}
              start={editing.first ?? (column.path === 'at' ? line.at : column.shown(line, units))}
              onDone={(text, step) => props.onDone(i, text, step)}
            />
          );
        }
        return (
          // eslint-disable-next-line jsx-a11y/click-events-have-key-events -- the grid hears the keys
          <span
            key={column.path}
            id={`cell-${index}-${i}`}
            role="gridcell"
            tabIndex={-1}
            aria-colindex={i + 2}
            onClick={() => props.onCell(i, false)}
            onDoubleClick={() => props.onCell(i, true)}
            className={`touch-manipulation truncate px-2 leading-8 ${column.numeric ? 'figure text-right' : ''} ${spoilt ? 'text-quiet line-through decoration-1' : ''} ${active === i ? 'outline-2 -outline-offset-2 outline-ink' : ''}`}
          >
            {cellText(column, line, units, otherwise, station !== undefined && !saysNothing(line))}
          </span>
        );
      })}
    </div>
  );
}

/** A cell’s text; what was done otherwise than planned stands out, with what was planned beside it. */
function cellText(
  column: LogColumn,
  line: Logged,
  units: Units,
  otherwise: readonly Otherwise[],
  known: boolean,
): ReactNode {
  const text = column.shown(line, units);
  if (column.path === 'planned') {
    // Without a plan, or without a word of what was set, nothing can be compared.
    if (!known) return line.planned ? text : '';
    if (otherwise.length === 0) return <span className="text-within">as planned</span>;
    return <span className="text-costs">{otherwise.length} changed</span>;
  }
  if (column.path === 'file' && text !== '') {
    const doubt = isDoubtful(line);
    return <span className={doubt ? 'text-costs underline decoration-dotted underline-offset-4' : ''}>{doubt ? `${text} ?` : text}</span>; // prettier-ignore
  }
  const name = NAMES[column.path] ?? column.label;
  const own = column.path === 'at' ? undefined : otherwise.find((each) => each.name === name);
  if (!own) return text;
  return (
    <span
      className="text-costs underline decoration-dotted underline-offset-4"
      title={`Planned: ${own.planned}`}
    >
      {text === '' ? '—' : text}
      <span className="sr-only">, planned {own.planned}</span>
    </span>
  );
}
