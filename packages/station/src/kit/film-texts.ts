import type { Film } from '../document/station.js';
import { parseRatio, parseStops, parseTimeS } from '../words/figures.js';

/** What a film is, as people write it in one field each. */

type Read<T> = { ok: true; value: T } | { ok: false; message: string };

const no = (message: string): { ok: false; message: string } => ({ ok: false, message });

const listed = (text: string): string[] =>
  text
    .split(/[;\n]+/)
    .map((part) => part.trim())
    .filter(Boolean);

const EXPONENT = /^(?:exponent\s+)?(\S+)\s+(?:past|from|after)\s+(.+)$/i;

/** `1.31 past 1 s`, or a table, metered and given: `1 s: 1.5 s; 10 s: 25 s`. */
export function readReciprocity(text: string): Read<NonNullable<Film['reciprocity']>> {
  const power = EXPONENT.exec(text.trim());
  if (power) {
    const [exponent, from] = [parseRatio(power[1]!), parseTimeS(power[2]!)];
    if (!exponent.ok) return exponent;
    if (!from.ok) return from;
    return { ok: true, value: { exponent: exponent.value, from_s: from.value } };
  }
  const table: { metered_s: number; given_s: number }[] = [];
  for (const part of listed(text)) {
    const cut = /^(.+?)\s*(?::\s|=|→|\bto\b)\s*(.+)$/.exec(part);
    const [metered, given] = [parseTimeS(cut?.[1] ?? ''), parseTimeS(cut?.[2] ?? '')];
    if (!cut || !metered.ok || !given.ok) {
      return no(
        `“${part}” is not a metered and a given time; write 1 s: 1.5 s; 10 s: 25 s, or 1.3 past 1 s.`,
      );
    }
    table.push({ metered_s: metered.value, given_s: given.value });
  }
  return { ok: true, value: { table } };
}

const shown = (value: number): string => String(value).replace('-', '−');

export const writeReciprocity = (reciprocity: NonNullable<Film['reciprocity']>): string =>
  reciprocity.table
    ? reciprocity.table
        .map(({ metered_s, given_s }) => `${shown(metered_s)} s: ${shown(given_s)} s`)
        .join('; ')
    : `${shown(reciprocity.exponent!)} past ${shown(reciprocity.from_s!)} s`;

type Development = NonNullable<Film['developments']>[number];

const PARTS: readonly (readonly [RegExp, (text: string) => Read<Partial<Development>>])[] = [
  [
    /^(?:iso|ei)\s+(.+)$/i,
    (text) => {
      const read = parseRatio(text);
      return read.ok ? { ok: true, value: { iso: read.value } } : read;
    },
  ],
  [
    /^(?:holds\s+)?([\d.,/ ⅓½⅔]+)\s*stops?$/i,
    (text) => {
      const read = parseStops(text);
      return read.ok ? { ok: true, value: { range_stops: read.value } } : read;
    },
  ],
  [
    /^(?:push(?:ed)?\s+)?([+-].+)$/i,
    (text) => {
      const read = parseStops(text);
      return read.ok ? { ok: true, value: { push_stops: read.value } } : read;
    },
  ],
];

/** `Normal: ISO 100, 7 stops; Pushed: ISO 200, 6 stops, +1`. */
export function readDevelopments(text: string): Read<Development[]> {
  const all: Development[] = [];
  for (const part of listed(text.replaceAll('−', '-'))) {
    const cut = /^([^:]+):\s*(.*)$/.exec(part);
    const wrong = no(
      `“${part}” is no development; write a name, its ISO and the stops it holds: Pushed: ISO 200, 6 stops, +1.`,
    );
    if (!cut) return wrong;
    let development: Development = { name: cut[1]!.trim() };
    for (const piece of cut[2]!.split(/,\s+/).filter(Boolean)) {
      const reader = PARTS.find(([pattern]) => pattern.test(piece.trim()));
      const read = reader?.[1](reader[0].exec(piece.trim())![1]!);
      if (!read) return wrong;
      if (!read.ok) return read;
      development = { ...development, ...read.value };
    }
    all.push(development);
  }
  return { ok: true, value: all };
}

export const writeDevelopments = (all: readonly Development[]): string =>
  all
    .map(({ name, iso, range_stops: range, push_stops: push }) => {
      const parts = [
        iso === undefined ? '' : `ISO ${shown(iso)}`,
        range === undefined ? '' : `${shown(range)} stops`,
        push === undefined ? '' : push < 0 ? shown(push) : `+${shown(push)}`,
      ];
      return `${name}: ${parts.filter(Boolean).join(', ')}`;
    })
    .join('; ');
