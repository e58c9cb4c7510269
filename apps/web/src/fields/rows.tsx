import {
  parseAngleDeg,
  parseFNumber,
  parseRatio,
  parseStops,
  parseTimeS,
  valueAt,
  withAt,
  withoutAt,
  type Parsed,
  type Station,
} from '@gangway/station';
import { Field } from './field.js';
import { given, parseMm, parseNumber, TextField, useStation } from './fields.js';
import { MetreField } from './metre-field.js';

/** How a value is written by hand. */
type Written =
  | 'text'
  | 'metre'
  | 'mm'
  | '°'
  | '×'
  | 'px'
  | 's'
  | 'MP'
  | 'number'
  | 'stop'
  | '%'
  | 'time'
  | 'stops';

/** A line of a form: where in the station it stands, what it is called, how it is written. */
export interface Row {
  readonly at: string;
  /** Where unfinished text is kept, and faults are looked for, when not there. */
  readonly pointer?: string;
  readonly label: string;
  readonly as: Written;
  /** Left empty it is taken away; a pointer: what goes with it. */
  readonly clear?: true | string;
  /** Shown where nothing is given. */
  readonly usual?: number | ((station: Station) => number);
  readonly placeholder?: string;
  readonly help?: string;
  /** Where what is shown is not simply what stands there. */
  readonly read?: (station: Station) => number | undefined;
  /** Where reading what is written takes more than the text. */
  readonly parse?: (text: string, station: Station) => Parsed;
  /** Where more changes than the value itself. */
  readonly write?: (station: Station, value: number) => Station;
  readonly when?: (station: Station) => boolean;
}

/** A share, written in per cent and kept as a fraction. */
export function parseShare(text: string): Parsed {
  const read = parseNumber(text.replace(/\s*%$/, ''));
  return read.ok ? { ok: true, value: read.value / 100 } : read;
}

/** A time as it is typed: a fraction where it is one. */
function timeText(timeS: number): string {
  const parts = 1 / timeS;
  return timeS < 0.3 && Math.abs(parts - Math.round(parts)) < 1e-6 * parts
    ? `1/${Math.round(parts)}`
    : given(Number(timeS.toPrecision(6)));
}

/** A value as it is shown in its field. */
function shownAs(as: Written, value: number | undefined): string {
  if (as === 'stop' && value !== undefined) return `f/${given(value)}`;
  if (as === 'time' && value !== undefined) return timeText(value);
  if (as === 'stops' && value !== undefined) return given(Number(value.toFixed(2)));
  return given(as === '%' && value !== undefined ? Number((100 * value).toFixed(1)) : value);
}

const PARSE: Record<Exclude<Written, 'text' | 'metre'>, (text: string) => Parsed> = {
  mm: parseMm,
  '°': parseAngleDeg,
  '×': parseRatio,
  px: parseNumber,
  s: parseNumber,
  MP: parseNumber,
  '%': parseShare,
  number: parseNumber,
  stop: parseFNumber,
  time: parseTimeS,
  stops: parseStops,
};

/** Units that are not written as their kind is called. */
const UNITS: Partial<Record<Written, string>> = { number: '', stop: '', time: 's', stops: 'stops' };

/** Lines of a form, made from a table. */
export function Rows({ rows }: { rows: readonly Row[] }) {
  const station = useStation();
  return rows
    .filter(({ when }) => when?.(station) ?? true)
    .map((row) => <OneRow key={row.at} row={row} station={station} />);
}

function OneRow({ row, station }: { row: Row; station: Station }) {
  const { at, label, as, clear, usual, placeholder, pointer = at } = row;
  const there = row.read ? row.read(station) : valueAt(station, at);
  if (as === 'text') {
    return (
      <TextField
        label={label}
        pointer={pointer}
        value={there as string | undefined}
        write={(now, text) => withAt(now, at, text)}
      />
    );
  }
  const value =
    (there as number | undefined) ?? (typeof usual === 'function' ? usual(station) : usual);
  const write = row.write ?? ((now: Station, next: number) => withAt(now, at, next));
  const cleared = clear
    ? { clear: (now: Station) => withoutAt(now, clear === true ? at : clear) }
    : {};
  if (as === 'metre') {
    return <MetreField {...{ label, pointer, value, write, placeholder }} {...cleared} />;
  }
  return (
    <Field
      label={label}
      pointer={pointer}
      unit={UNITS[as] ?? as}
      shown={shownAs(as, value)}
      parse={(text) => (row.parse ?? PARSE[as])(text, station)}
      {...(row.help ? { help: row.help } : {})}
      write={write}
      {...cleared}
      {...(clear ? { placeholder: placeholder ?? '—' } : {})}
    />
  );
}
