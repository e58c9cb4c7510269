import {
  imageDistanceFromDistance,
  LONGEST_FIGURE,
  magnificationAt,
  nearestDistanceMm,
} from '@gangway/optics';
import { parseEdited, type Problem, type Result } from '../document/parse.js';
import {
  readDevelopments,
  readReciprocity,
  writeDevelopments,
  writeReciprocity,
} from './film-texts.js';
import { readFrameStops, writeFrameStops } from './frame-stops.js';
import { fieldsOf, type FieldDef, type Input } from './fields.js';
import { parsePixels } from '../words/pixels.js';
import { parseKitItem } from './parse.js';
import type { KitItem, Kind } from './schema.js';
import {
  parseAngleDeg,
  parseFNumber,
  parseLengthMm,
  parseRatio,
  parseStops,
} from '../words/figures.js';

/** An item as it is written by hand, field by field: what a form holds, and a line of a table. */
export type Texts = Readonly<Record<string, string>>;

type Read = { ok: true; value: unknown } | { ok: false; message: string };

const no = (message: string): Read => ({ ok: false, message });

/** Lists of figures may be this long, and each part of them as long as one figure. */
const LONGEST_LIST = 8000;

const tooLong = (part: string): Read | null =>
  part.length > LONGEST_FIGURE
    ? no(`One part is too long for a figure; write at most ${LONGEST_FIGURE} characters.`)
    : null;

const minus = (text: string): string => text.replaceAll('−', '-');

const number: (text: string) => Read = (text) => {
  const plain = minus(text.trim()).replace(/^(-?\d*),(\d+)$/, '$1.$2');
  const value = Number(plain);
  return Number.isFinite(value) ? { ok: true, value } : no(`“${text.trim()}” is not a number.`);
};

/** `±11`, `11`, `-8 to 12`, `0 … 5`: least and greatest. */
function range(text: string, one: (text: string) => Read): Read {
  const plain = minus(text).trim();
  const ends = plain.split(/\s*(?:\bto\b|…|\.\.\.?|;)\s*/);
  const read = ends.map((end) => one(end.replace(/^±/, '')));
  const bad = read.find((each) => !each.ok);
  if (bad) return bad;
  const values = read.map((each) => (each as { value: number }).value);
  if (values.length === 1) {
    const size = Math.abs(values[0]!);
    return { ok: true, value: [-size + 0, size] };
  }
  if (values.length !== 2) return no('Write one figure for both ways, or two: −8 to 12.');
  return { ok: true, value: values };
}

const listed = (text: string): string[] =>
  text
    .split(/[;\n]+/)
    .map((part) => part.trim())
    .filter(Boolean);

/** `f/3.5 62; f/8 67`, one stop and one diameter each. */
function circle(text: string): Read {
  const rows: { f_number: number; diameter_mm: number }[] = [];
  for (const part of listed(text)) {
    const long = tooLong(part);
    if (long) return long;
    const cut = /^(\S+?)\s*[:=\s]\s*(.+)$/.exec(part.replace(/^f\s*\/\s*/i, 'f/'));
    if (!cut) return no(`“${part}” is not a stop and a diameter; write f/8: 67.`);
    const stop = parseFNumber(cut[1]!);
    const diameter = parseLengthMm(cut[2]!, 'mm');
    if (!stop.ok) return stop;
    if (!diameter.ok) return diameter;
    rows.push({ f_number: stop.value, diameter_mm: diameter.value });
  }
  return { ok: true, value: rows.sort((a, b) => a.f_number - b.f_number) };
}

/** `f/3.5 to f/5.6: 8`, the length of the shift between two stops. */
function reduced(text: string): Read {
  const rows: { f_from: number; f_to: number; shift_mm: number }[] = [];
  for (const part of listed(text)) {
    const long = tooLong(part);
    if (long) return long;
    const cut = /^(.+?)\s+to\s+(.+?)\s*:\s*(.+)$/.exec(part);
    const [from, to] = [parseFNumber(cut?.[1] ?? ''), parseFNumber(cut?.[2] ?? '')];
    const length = parseLengthMm(cut?.[3] ?? '', 'mm');
    if (!cut || !from.ok || !to.ok || !length.ok) {
      return no(`“${part}” is not two stops and a length; write f/3.5 to f/5.6: 8.`);
    }
    rows.push({ f_from: from.value, f_to: to.value, shift_mm: length.value });
  }
  return { ok: true, value: rows };
}

/** A turn that is divided evenly: “every 30”. */
const EVERY = /^every\s+/i;
const ONLY = /^only\s+/i;

function angles(text: string): Read {
  const written = text.trim();
  if (EVERY.test(written)) return evenly(written.replace(EVERY, ''));
  if (ONLY.test(written)) return angleList(written.replace(ONLY, ''));
  const read = angleList(written);
  if (!read.ok || (read.value as number[]).length !== 1) return read;
  const [one] = read.value as [number];
  return one === 0
    ? read
    : no(`Every ${one}°, or one stop at ${one}°? Write “every ${one}” or “only ${one}”.`);
}

function evenly(text: string): Read {
  const step = parseAngleDeg(text);
  if (!step.ok) return step;
  const count = Math.round(360 / step.value);
  return step.value > 0 && count >= 2 && count <= 72 && Math.abs(count * step.value - 360) < 1e-6
    ? { ok: true, value: Array.from({ length: count }, (_, i) => i * step.value) }
    : no(
        'Stops that are spread evenly divide a whole turn: every 5, 15, 30, 45 or 90, for example.',
      );
}

function angleList(text: string): Read {
  const read = text.split(/[,;]\s*/).map((part) => parseAngleDeg(part));
  const bad = read.find((each) => !each.ok);
  return bad ?? { ok: true, value: read.map((each) => (each as { value: number }).value) };
}

const YES = new Set(['yes', 'true', '1', 'y', 'x']);
const NOT = new Set(['no', 'false', '0', 'n']);

function choice(text: string, options: NonNullable<FieldDef['options']>): Read {
  const plain = text.trim().toLowerCase();
  const found = options.find(([key, words]) => key === plain || words.toLowerCase() === plain);
  return found
    ? { ok: true, value: found[0] }
    : no(`“${text.trim()}” is none of ${options.map(([key]) => key).join(', ')}.`);
}

const READERS: Record<Input, (text: string, field: FieldDef) => Read> = {
  text: (text) => ({ ok: true, value: text.trim() }),
  notes: (text) => ({ ok: true, value: text.trim() }),
  length: (text) => parseLengthMm(text, 'mm'),
  offset: (text) => parseLengthMm(text, 'mm'),
  angle: (text) => parseAngleDeg(text),
  fstop: (text) => parseFNumber(text),
  number,
  ratio: (text) => parseRatio(text),
  mass: (text) => {
    const kg = /^(.*\d)\s*kg$/i.exec(text.trim());
    const read = number((kg ? kg[1]! : text.replace(/\s*g$/i, '')).trim());
    return read.ok && kg ? { ok: true, value: (read.value as number) * 1000 } : read;
  },
  pixels: (text) => parsePixels(text, undefined),
  choice: (text, field) => choice(text, field.options ?? []),
  yesno: (text) => {
    const plain = text.trim().toLowerCase();
    if (YES.has(plain)) return { ok: true, value: true };
    return NOT.has(plain)
      ? { ok: true, value: false }
      : no(`“${text.trim()}” is neither yes nor no.`);
  },
  range_mm: (text) => range(text, (one) => parseLengthMm(one, 'mm')),
  range_deg: (text) => range(text, (one) => parseAngleDeg(one)),
  angles,
  circle,
  reduced,
  frame_stops: readFrameStops,
  light: (text) => parseStops(text),
  reciprocity: readReciprocity,
  developments: readDevelopments,
};

/** How long each kind of text may be; names and notes are held by the schema. */
const LONGEST: Partial<Record<Input, number>> = {
  text: Infinity,
  notes: Infinity,
  angles: LONGEST_LIST,
  circle: LONGEST_LIST,
  reduced: LONGEST_LIST,
  reciprocity: LONGEST_LIST,
  developments: LONGEST_LIST,
};

/** Reads what was written in one field. */
export function readField(field: FieldDef, text: string): Read {
  const most = LONGEST[field.input] ?? LONGEST_FIGURE;
  const written = text.trim();
  return written.length > most
    ? no(`This is too long; write at most ${most} characters.`)
    : READERS[field.input](written, field);
}

const plainNumber = (value: unknown): string => String(value).replace('-', '−');

const WRITERS: Partial<Record<Input, (value: never) => string>> = {
  fstop: (value: number) => `f/${value}`,
  yesno: (value: boolean) => (value ? 'yes' : 'no'),
  range_mm: ([least, most]: [number, number]) =>
    least === -most ? `±${most}` : `${plainNumber(least)} to ${plainNumber(most)}`,
  range_deg: ([least, most]: [number, number]) =>
    least === -most ? `±${most}` : `${plainNumber(least)} to ${plainNumber(most)}`,
  angles: (value: number[]) => {
    const step = value[1] ?? 0;
    if (value.length === 1 && value[0] !== 0) return `only ${plainNumber(value[0])}`;
    return step > 0 &&
      value.length > 2 &&
      value.length * step === 360 &&
      value.every((deg, i) => deg === i * step)
      ? `every ${plainNumber(step)}`
      : value.map(plainNumber).join(', ');
  },
  circle: (value: { f_number: number; diameter_mm: number }[]) =>
    value.map((entry) => `f/${entry.f_number}: ${entry.diameter_mm}`).join('; '),
  frame_stops: writeFrameStops,
  reciprocity: writeReciprocity,
  developments: writeDevelopments,
  reduced: (value: { f_from: number; f_to: number; shift_mm: number }[]) =>
    value.map((each) => `f/${each.f_from} to f/${each.f_to}: ${each.shift_mm}`).join('; '),
};

const at = (item: unknown, path: string): unknown =>
  path
    .split('.')
    .reduce<unknown>((value, key) => (value as Record<string, unknown> | undefined)?.[key], item);

/** One field of an item as it would be written. */
export function fieldText(field: FieldDef, item: unknown): string {
  const value = at(item, field.path);
  if (value === undefined || value === null) return '';
  const write = WRITERS[field.input];
  if (write) return write(value as never);
  return typeof value === 'number' ? plainNumber(value) : String(value);
}

export const textsOf = (item: KitItem): Texts =>
  Object.fromEntries(
    fieldsOf(item.kind)
      .map((field) => [field.path, fieldText(field, item)] as const)
      .filter(([, text]) => text !== ''),
  );

function put(item: Record<string, unknown>, path: string, value: unknown): void {
  const keys = path.split('.');
  let inner = item;
  for (const key of keys.slice(0, -1)) {
    const next = inner[key];
    // The item it is based on is not to be changed.
    inner[key] = typeof next === 'object' && next !== null ? { ...next } : {};
    inner = inner[key] as Record<string, unknown>;
  }
  const last = keys.at(-1)!;
  if (value === undefined) delete inner[last];
  else inner[last] = value;
}

/** The thin lens’s magnification at a distance, where none was measured. */
function thinMagnification(item: Record<string, unknown>): void {
  const close = item.close_focus as Record<string, unknown> | undefined;
  const f = item.focal_length_mm;
  if (!close || typeof f !== 'number') return;
  const distance = close.distance_mm;
  if (close.magnification !== undefined || typeof distance !== 'number') return;
  const m =
    distance > nearestDistanceMm(f, 1)
      ? magnificationAt(f, 1, imageDistanceFromDistance(f, 1, distance))
      : 1;
  close.magnification = Number(m.toPrecision(3));
}

/** The side that pixels lie along, which stands before them in the form. */
function sideOf(item: Record<string, unknown>, path: string): number | undefined {
  const side = item[path.replace('_px', '_mm')];
  return typeof side === 'number' && side > 0 ? side : undefined;
}

export interface Written {
  readonly item: Result<KitItem>;
  /** What is wrong, by the path of the field it is about. */
  readonly messages: Readonly<Record<string, string>>;
}

/** JSON pointer of a problem as the path of the field that shows it. */
function fieldPathOf(kind: Kind, { pointer }: Problem): string {
  const path = pointer.slice(1).replaceAll('/', '.');
  const fields = fieldsOf(kind);
  return (
    fields.find((field) => path === field.path || path.startsWith(`${field.path}.`))?.path ??
    fields.find((field) => field.path.startsWith(`${path}.`))?.path ??
    'name'
  );
}

/**
 * An item from what was written. Fields left empty are left out.
 * @param base the item as it was, whose fields unknown to the form are kept
 */
export function itemFrom(kind: Kind, texts: Texts, base: KitItem | null = null): Written {
  const item: Record<string, unknown> = { ...(base ?? {}), kind };
  const messages: Record<string, string> = {};
  for (const field of fieldsOf(kind)) {
    const text = texts[field.path] ?? '';
    if (text.trim() === '') {
      put(item, field.path, undefined);
      continue;
    }
    const read =
      field.input === 'pixels'
        ? parsePixels(text, sideOf(item, field.path))
        : readField(field, text);
    if (read.ok) put(item, field.path, read.value);
    else messages[field.path] = read.message;
  }
  for (const group of ['movement', 'close_focus']) {
    const value = item[group];
    if (value && Object.keys(value).every((key) => key === 'moves')) delete item[group];
  }
  const movement = item.movement as Record<string, unknown> | undefined;
  if (movement && movement.moves === undefined) {
    movement.moves = movement.frame_stops === undefined ? 'front' : 'rear';
  }
  thinMagnification(item);
  // A value that was there before a rule forbade it may stay as it is.
  const parsed = base ? parseEdited(parseKitItem, item, base) : parseKitItem(item);
  if (!parsed.ok) {
    for (const problem of parsed.problems) {
      const path = fieldPathOf(kind, problem);
      messages[path] ??= sentenceOf(problem.message, texts[path] ?? '');
    }
  }
  const problems = Object.entries(messages).map(([path, message]) => ({
    pointer: `/${path.replaceAll('.', '/')}`,
    message,
  }));
  return { item: problems.length > 0 ? { ok: false, problems } : parsed, messages };
}

const asked = (message: string): string =>
  /text|name/.test(message) ? 'a name' : message.replace(/^.*?(; give |: )/, '');

const sentenceOf = (message: string, text: string): string =>
  text.trim() === '' &&
  /^(is missing|must be a list|must hold at least one|must not be empty)/.test(message)
    ? `Give this: ${asked(message)}.`
    : `This ${message}.`;
