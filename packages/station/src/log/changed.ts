import type { Logged } from '../document/logged.js';
import type { Station } from '../document/station.js';
import { degrees, distance, fStop, mm, trimmed, type Units } from '../words/format.js';
import { MOVEMENTS, REAR_MOVEMENTS } from '../document/movements.js';
import { MOVEMENT_NAMES, unitOf } from '../words/names.js';
import { setTimeSaid } from '../words/times.js';
import { plannedFor, type LineSettings } from './planned.js';

/** One setting that was made otherwise than planned. */
export interface Otherwise {
  readonly name: string;
  readonly planned: string;
  readonly done: string;
}

/** A third of a stop is one click; less than half of that is how a figure is written. */
const SAME_STOPS = 1 / 6;
const SAME_MM = 0.05;

const stopsApart = (a: number, b: number, per: number): boolean =>
  Math.abs(per * Math.log2(a / b)) > SAME_STOPS;

const NOTHING = '—';

const SHUTTER_NAMES = {
  leaf: 'leaf',
  focal_plane: 'focal plane',
  electronic: 'electronic',
} as const;

interface Compared {
  readonly name: string;
  readonly said: (settings: LineSettings, units: Units) => string | null;
  readonly parts: (a: LineSettings, b: LineSettings) => boolean;
}

const figure = (
  name: string,
  key: 'f_number' | 'time_s' | 'iso',
  per: number,
  said: (value: number) => string,
): Compared => ({
  name,
  said: (settings) => (settings[key] === undefined ? null : said(settings[key])),
  parts: ({ [key]: a }, { [key]: b }) =>
    // Where the plan, or the log, says nothing, nothing is known to differ.
    a !== undefined && b !== undefined && stopsApart(a, b, per),
});

const moved = (field: (typeof MOVEMENTS)[number] | (typeof REAR_MOVEMENTS)[number]): Compared => ({
  name: MOVEMENT_NAMES[field],
  said: ({ movements }) => {
    const value = movements?.[field];
    if (value === undefined) return null;
    return unitOf(field) === 'mm' ? mm(value) : degrees(value);
  },
  parts: ({ movements: a }, { movements: b }) =>
    // Where nothing was said of the movements nothing is known to differ.
    a !== undefined && b !== undefined && Math.abs((a[field] ?? 0) - (b[field] ?? 0)) > SAME_MM,
});

const COMPARED: readonly Compared[] = [
  figure('stop', 'f_number', 2, fStop),
  figure('time', 'time_s', 1, setTimeSaid),
  figure('ISO', 'iso', 1, (value) => trimmed(value, 1)),
  {
    name: 'shutter',
    said: ({ shutter }) => (shutter ? SHUTTER_NAMES[shutter] : null),
    parts: ({ shutter: a }, { shutter: b }) => a !== undefined && b !== undefined && a !== b,
  },
  {
    name: 'flash',
    said: ({ flash }) => (flash ? 'yes' : 'no'),
    parts: ({ flash: a = false }, { flash: b = false }) => a !== b,
  },
  {
    name: 'filters',
    said: ({ filters = [] }) => (filters.length > 0 ? filters.join(', ') : 'none'),
    parts: ({ filters: a = [] }, { filters: b = [] }) => a.join('\n') !== b.join('\n'),
  },
  ...[...MOVEMENTS, ...REAR_MOVEMENTS].map(moved),
  {
    name: 'focus',
    said: ({ focus_m: m }, units) => (m === undefined ? null : distance(m, units)),
    parts: ({ focus_m: a }, { focus_m: b }) =>
      a !== undefined && b !== undefined && distance(a, 'metric') !== distance(b, 'metric'),
  },
];

/** Whether a line tells nothing of how it was set: then nothing is known to be otherwise. */
export const saysNothing = (line: LineSettings): boolean =>
  [line.f_number, line.time_s, line.iso, line.shutter, line.flash, line.filters, line.movements, line.focus_m].every((each) => each === undefined); // prettier-ignore

const known = new WeakMap<Logged, { station: Station; units: Units; found: Otherwise[] }>();

/** What was done otherwise than the station has it planned now. */
export function doneOtherwise(
  station: Station,
  line: Logged,
  units: Units = 'metric',
): Otherwise[] {
  const before = known.get(line);
  if (before?.station === station && before.units === units) return before.found;
  const found = comparedAnew(station, line, units);
  known.set(line, { station, units, found });
  return found;
}

function comparedAnew(station: Station, line: Logged, units: Units): Otherwise[] {
  if (saysNothing(line)) return [];
  const planned = plannedFor(station, {
    frame: line.frame ?? null,
    bracket: line.bracket ?? null,
  });
  return COMPARED.filter(({ parts }) => parts(planned, line)).map(({ name, said }) => ({
    name,
    planned: said(planned, units) ?? NOTHING,
    done: said(line, units) ?? NOTHING,
  }));
}

/** What was set, in one sentence: Stop f/11, 1/4 s, ISO 100, 24 mm, rise 8 mm. */
export function setSaid(
  line: LineSettings & Pick<Logged, 'film'>,
  units: Units = 'metric',
): string {
  const { f_number, time_s, iso, lens, focal_length_mm, flash, filters, movements, focus_m, film } =
    line;
  const moves = [...MOVEMENTS, ...REAR_MOVEMENTS].flatMap((field) => {
    const value = movements?.[field] ?? 0;
    if (Math.abs(value) < SAME_MM) return [];
    return [`${MOVEMENT_NAMES[field]} ${unitOf(field) === 'mm' ? mm(value) : degrees(value)}`];
  });
  const parts = [
    lens ?? (focal_length_mm === undefined ? '' : `${trimmed(focal_length_mm, 1)} mm`),
    f_number === undefined ? '' : fStop(f_number),
    time_s === undefined ? '' : setTimeSaid(time_s),
    flash ? 'flash' : '',
    iso === undefined ? '' : `ISO ${trimmed(iso, 1)}`,
    ...(filters ?? []),
    ...moves,
    focus_m === undefined ? '' : `focused at ${distance(focus_m, units)}`,
    film?.stock ?? '',
  ].filter(Boolean);
  return parts.join(', ');
}
