import { isFileName, isMoment, type Logged } from '../document/logged.js';
import { MOVEMENTS, REAR_MOVEMENTS } from '../document/movements.js';
import {
  degrees,
  distance,
  fStop,
  mm,
  ringDistance,
  trimmed,
  type Units,
} from '../words/format.js';
import { MOVEMENT_NAMES } from '../words/names.js';
import { setTimeSaid } from '../words/times.js';
import {
  parseAngleDeg,
  parseDistanceM,
  parseFNumber,
  parseLengthMm,
  parseTimeS,
  type Parsed,
} from '../words/figures.js';

/** The log as a table: each column with how it is written for people and for other programs, and read. */

export type CellRead =
  { readonly ok: true; readonly value: unknown } | { readonly ok: false; readonly message: string };

export interface LogColumn {
  /** As a table of comma-separated values heads it: names of the job file, joined by dots. */
  readonly path: string;
  readonly label: string;
  readonly numeric: boolean;
  /** As people see it. */
  readonly shown: (line: Logged, units: Units) => string;
  /** As other programs read it, and this one again. */
  readonly plain: (line: Logged) => string;
  /** What people write; an empty cell is no value. */
  readonly read: (text: string) => CellRead;
}

const ok = (value: unknown): CellRead => ({ ok: true, value });
const no = (message: string): CellRead => ({ ok: false, message });
const asCell = (parsed: Parsed): CellRead => (parsed.ok ? ok(parsed.value) : no(parsed.message));

function valueIn(line: Logged, [first, inner]: readonly string[]): unknown {
  const value = (line as unknown as Record<string, unknown>)[first!];
  if (inner === undefined || typeof value !== 'object' || value === null) {
    return inner === undefined ? value : undefined;
  }
  return (value as Record<string, unknown>)[inner];
}

const plainOf = (value: unknown): string =>
  value === undefined || value === null ? '' : String(value);

interface Kind<T> {
  readonly numeric?: true;
  readonly shown: (value: T, units: Units) => string;
  readonly plain?: (value: T) => string;
  readonly read: (text: string) => CellRead;
}

/** As many figures as one log has of a kind; past that they are worked out anew. */
const MOST_REMEMBERED = 4000;

/** The same few figures stand in thousands of lines. */
function remembered<T>(shown: (value: T, units: Units) => string): typeof shown {
  const known: Record<Units, Map<T, string>> = { metric: new Map(), feet: new Map() };
  return (value, units) => {
    const before = known[units].get(value);
    if (before !== undefined) return before;
    if (known[units].size >= MOST_REMEMBERED) known[units].clear();
    const made = shown(value, units);
    known[units].set(value, made);
    return made;
  };
}

function column<T>(path: string, label: string, kind: Kind<T>): LogColumn {
  const names = path.split('.');
  const said = kind.numeric ? remembered(kind.shown) : kind.shown;
  const at = (line: Logged): T | undefined => valueIn(line, names) as T | undefined;
  return {
    path,
    label,
    numeric: kind.numeric ?? false,
    shown: (line, units) => {
      const value = at(line);
      return value === undefined ? '' : said(value, units);
    },
    plain: (line) => {
      const value = at(line);
      return value === undefined ? '' : (kind.plain ?? plainOf)(value);
    },
    read: (text) => (text.trim() === '' ? ok(undefined) : kind.read(text.trim())),
  };
}

const number =
  (least: number, most: number, whole: boolean) =>
  (text: string): CellRead => {
    const value = Number(
      text
        .replace(',', '.')
        .replace('−', '-')
        .replace(/^ISO\s*/i, ''),
    );
    const fits = Number.isFinite(value) && value >= least && value <= most;
    if (fits && (!whole || Number.isInteger(value))) return ok(value);
    return no(`Write ${whole ? 'a whole number' : 'a number'} from ${least} to ${most}.`);
  };

const figure = (most: number, whole = true, least = 1): Kind<number> => ({
  numeric: true,
  shown: (value) => trimmed(value, 1),
  read: number(least, most, whole),
});

const words = (most: number): Kind<string> => ({
  shown: (value) => value,
  read: (text) => (text.length <= most ? ok(text) : no(`Write at most ${most} characters.`)),
});

const YES = /^(?:yes|y|true|1|x)$/i;
const NO = /^(?:no|n|false|0)$/i;
const yesNo = (yes: string, other: string): Kind<boolean> => ({
  shown: (value) => (value ? yes : other),
  read: (text) =>
    YES.test(text) || text === yes ? ok(true) : NO.test(text) || text === other ? ok(false) : no('Write yes or no.'), // prettier-ignore
});

const choice = <T extends string>(names: Readonly<Record<T, string>>): Kind<T> => ({
  shown: (value) => names[value],
  read: (text) => {
    const plain = text.toLowerCase().replace(/[ -]/g, '_');
    const found = Object.keys(names).find((name) => name.toLowerCase() === plain);
    return found ? ok(found) : no(`Write one of ${Object.values(names).join(', ')}.`);
  },
});

const length = (decimals: number): Kind<number> => ({
  numeric: true,
  shown: (value) => mm(value, decimals),
  read: (text) => asCell(parseLengthMm(text, 'mm')),
});

const movement = (field: (typeof MOVEMENTS)[number] | (typeof REAR_MOVEMENTS)[number]): LogColumn =>
  column<number>(`movements.${field}`, MOVEMENT_NAMES[field], {
    numeric: true,
    shown: (value) => (field.endsWith('_mm') ? mm(value) : degrees(value)),
    read: (text) => asCell(field.endsWith('_mm') ? parseLengthMm(text, 'mm') : parseAngleDeg(text)),
  });

const MOMENT: Kind<string> = {
  shown: (value) => value.replace('T', ' ').replace(/(?:Z|[+-]\d\d:\d\d)$/, ''),
  read: (text) => {
    const written = text.replace(' ', 'T');
    return isMoment(written) ? ok(written) : no('Write a time with its offset: 2026-05-14 09:30:00+02:00.'); // prettier-ignore
  },
};

const FILE: Kind<string> = {
  shown: (value) => value,
  read: (text) => (isFileName(text) && text.length <= 255 ? ok(text) : no('Write the name of a file, without folders.')), // prettier-ignore
};

const INFINITE = /^(?:∞|inf|infinity)$/i;

export const LOG_COLUMNS: readonly LogColumn[] = [
  column('at', 'time', MOMENT),
  column('frame', 'frame', figure(400)),
  column('bracket', 'bracket', figure(400)),
  column<number>('f_number', 'stop', {
    numeric: true,
    shown: fStop,
    read: (text) => asCell(parseFNumber(text)),
  }),
  column<number>('time_s', 'exposure', {
    numeric: true,
    shown: setTimeSaid,
    read: (text) => asCell(parseTimeS(text)),
  }),
  column('iso', 'ISO', figure(10_000_000, false, 0.01)),
  column('planned', 'as planned', yesNo('yes', 'changed')),
  column('note', 'note', words(1000)),
  column('file', 'file', FILE),
  ...MOVEMENTS.map(movement),
  column<number | null>('ring_m', 'ring', {
    numeric: true,
    shown: (value, units) => ringDistance(value, units),
    plain: (value) => (value === null ? 'infinity' : String(value)),
    read: (text) => (INFINITE.test(text) ? ok(null) : asCell(parseDistanceM(text, 'm'))),
  }),
  column('bed_mm', 'bed', length(1)),
  column('drawn_mm', 'drawn out', length(1)),
  column<number | null>('focus_m', 'plane ahead', {
    numeric: true,
    shown: (value, units) => distance(value, units),
    plain: (value) => (value === null ? 'infinity' : String(value)),
    // As in the file, null is infinity.
    read: (text) => (INFINITE.test(text) ? ok(null) : asCell(parseDistanceM(text, 'm'))),
  }),
  column('file_sure', 'file sure', yesNo('yes', 'no')),
  column('rating', 'rating', figure(5, true, 0)),
  column('kept', 'kept', yesNo('yes', 'no')),
  column('film.stock', 'film', words(200)),
  column('film.holder', 'holder', words(40)),
  column('film.side', 'side', choice({ A: 'A', B: 'B' })),
  column('film.roll', 'roll', words(40)),
  column('film.frame', 'film frame', figure(400)),
  column<string[]>('filters', 'filters', {
    shown: (value) => value.join(', '),
    plain: (value) => value.join('; '),
    read: (text) =>
      ok(
        text
          .split(/[;,]/)
          .map((each) => each.trim())
          .filter(Boolean),
      ),
  }),
  column('flash', 'flash', yesNo('yes', 'no')),
  column('shutter', 'shutter', choice({ leaf: 'leaf', focal_plane: 'focal plane', electronic: 'electronic' })), // prettier-ignore
  column('lens', 'lens', words(200)),
  column('focal_length_mm', 'focal length', length(1)),
  column('image_distance_mm', 'image distance', length(1)),
  column('ring_magnification', 'ring, magnification', figure(100, false, 0.0001)),
  column('circle_mm', 'circle', length(1)),
  ...REAR_MOVEMENTS.map(movement),
];

export const columnAt = (path: string): LogColumn | undefined =>
  LOG_COLUMNS.find((each) => each.path === path);

/** A line’s top field that a column lies in, and what it is with another value there; undefined: not there. */
export function fieldWith(
  line: Logged,
  path: string,
  value: unknown,
): [field: string, to: unknown] {
  const [field, inner] = path.split('.') as [keyof Logged & string, string | undefined];
  if (inner === undefined) return [field, value];
  const before = (line[field] ?? {}) as Record<string, unknown>;
  const { [inner]: _, ...rest } = before;
  const next = value === undefined ? rest : { ...before, [inner]: value };
  if (field !== 'movements') return [field, Object.keys(next).length === 0 ? undefined : next];
  // Movements are given together: what nobody said stands at zero.
  return [field, Object.keys(next).length === 0 ? undefined : { rise_mm: 0, shift_mm: 0, tilt_deg: 0, swing_deg: 0, ...next }]; // prettier-ignore
}
