import type { Logged } from '../document/logged.js';
import type { Station } from '../document/station.js';
import {
  degrees,
  distance,
  fStop,
  mm,
  ringDistance,
  trimmed,
  type Units,
} from '../words/format.js';
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

type ReadKey = 'ring_m' | 'ring_magnification' | 'bed_mm' | 'drawn_mm';

/** Whether a line says what a ring or a bed read. */
const readByHand = (settings: LineSettings): boolean =>
  settings.ring_m !== undefined ||
  settings.ring_magnification !== undefined ||
  settings.bed_mm !== undefined ||
  settings.drawn_mm !== undefined;

const focus = (
  name: string,
  key: ReadKey,
  said: (value: number | null, units: Units) => string,
): Compared => ({
  name,
  said: ({ [key]: value }, units) => (value === undefined ? null : said(value, units)),
  parts: ({ [key]: a }, { [key]: b }) =>
    a !== undefined && b !== undefined && said(a, 'metric') !== said(b, 'metric'),
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
  focus('focusing ring', 'ring_m', (value, units) => ringDistance(value, units)),
  focus('magnification', 'ring_magnification', (value) => `${trimmed(value ?? 0, 3)} ×`),
  focus('bed', 'bed_mm', (value) => mm(value ?? 0)),
  focus('drawn out', 'drawn_mm', (value) => mm(value ?? 0)),
  {
    name: 'focus',
    // What the hand read goes before where the plane then lay.
    said: (settings, units) =>
      settings.focus_m === undefined || readByHand(settings)
        ? null
        : distance(settings.focus_m, units),
    parts: (planned, done) =>
      !(readByHand(planned) && readByHand(done)) &&
      planned.focus_m !== undefined &&
      done.focus_m !== undefined &&
      distance(planned.focus_m, 'metric') !== distance(done.focus_m, 'metric'),
  },
  {
    name: 'held off',
    said: ({ held_off: hand }) => (hand ? `${mm(hand.gap_mm)}, ${degrees(hand.lean_deg)}` : null),
    parts: ({ held_off: a }, { held_off: b }) =>
      a !== undefined &&
      b !== undefined &&
      (Math.abs(a.gap_mm - b.gap_mm) > SAME_MM || Math.abs(a.lean_deg - b.lean_deg) > SAME_MM),
  },
];

/** Whether a line tells nothing of how it was set: then nothing is known to be otherwise. */
export const saysNothing = (line: LineSettings): boolean =>
  [
    line.f_number,
    line.time_s,
    line.iso,
    line.shutter,
    line.flash,
    line.filters,
    line.movements,
    line.focus_m,
    line.held_off,
  ].every((each) => each === undefined);

const known = new WeakMap<
  Logged,
  { station: Station | undefined; units: Units; found: Otherwise[] }
>();

/**
 * What was done otherwise than it was planned when it was shot; of a line that kept no plan, than the
 * station has it planned now.
 */
export function doneOtherwise(
  station: Station | undefined,
  line: Logged,
  units: Units = 'metric',
): Otherwise[] {
  const before = known.get(line);
  const by = line.plan ? undefined : station;
  if (before && before.station === by && before.units === units) return before.found;
  const found = comparedAnew(by, line, units);
  known.set(line, { station: by, units, found });
  return found;
}

function comparedAnew(station: Station | undefined, line: Logged, units: Units): Otherwise[] {
  if (saysNothing(line)) return [];
  const which = { frame: line.frame ?? null, bracket: line.bracket ?? null };
  const planned: LineSettings | undefined =
    line.plan ?? (station ? plannedFor(station, which) : undefined);
  if (!planned) return [];
  return COMPARED.filter(({ parts }) => parts(planned, line)).map(({ name, said }) => ({
    name,
    planned: said(planned, units) ?? NOTHING,
    done: said(line, units) ?? NOTHING,
  }));
}

/** Where the hand focused, as it read it; else where the plane lay. */
function focusSaid(line: LineSettings, units: Units): string {
  const { ring_m: ring, ring_magnification: ratio, bed_mm: bed, drawn_mm: drawn } = line;
  const { held_off: hand, focus_m: plane } = line;
  if (hand) return `held off ${mm(hand.gap_mm)}, leaned ${degrees(hand.lean_deg)}`;
  const read = [
    ring === undefined ? '' : `ring at ${ringDistance(ring, units)}`,
    ratio === undefined ? '' : `ring at ${trimmed(ratio, 3)} ×`,
    bed === undefined ? '' : `bed at ${mm(bed)}`,
    drawn === undefined ? '' : `drawn out ${mm(drawn)}`,
  ].filter(Boolean);
  if (read.length > 0) return read.join(', ');
  return plane === undefined ? '' : `focused at ${distance(plane, units)}`;
}

/** What was set, in one sentence: Stop f/11, 1/4 s, ISO 100, 24 mm, rise 8 mm. */
export function setSaid(
  line: LineSettings & Pick<Logged, 'film'>,
  units: Units = 'metric',
): string {
  const { f_number, time_s, iso, lens, focal_length_mm, flash, filters, movements, film } = line;
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
    focusSaid(line, units),
    film?.stock ?? '',
  ].filter(Boolean);
  return parts.join(', ');
}
