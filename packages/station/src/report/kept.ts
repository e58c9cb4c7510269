import { parseStation, readKept, type Problem } from '../document/parse.js';
import { readings } from './readings.js';
import type { Station } from '../document/station.js';

/** A station as it is stored, whatever it holds: what can be done with it. */
export type KeptStation =
  | { readonly kind: 'sound'; readonly station: Station }
  /** It can be worked with; some of its values a rule that came later forbids. */
  | { readonly kind: 'faulty'; readonly station: Station; readonly faults: readonly Problem[] }
  /** It cannot be read, or nothing comes of it that could be shown. */
  | { readonly kind: 'broken'; readonly name: string; readonly faults: readonly Problem[] };

export function keptStation(document: unknown): KeptStation {
  const { value, faults } = readKept(parseStation, document);
  if (value && faults.length === 0) return { kind: 'sound', station: value };
  if (value && worksOut(value)) return { kind: 'faulty', station: value, faults };
  return { kind: 'broken', name: nameOf(document), faults };
}

/** Whether all that a station gives outright are finite numbers. */
function worksOut(station: Station): boolean {
  try {
    return allFinite(readings(station));
  } catch {
    return false;
  }
}

function allFinite(value: unknown): boolean {
  if (typeof value === 'number') return Number.isFinite(value);
  if (typeof value !== 'object' || value === null) return true;
  return Object.values(value).every(allFinite);
}

/** What to call a document that may be anything. */
export function nameOf(document: unknown): string {
  const name = (document as { name?: unknown } | null | undefined)?.name;
  return typeof name === 'string' && name.trim() !== '' ? name : 'Without a name';
}

/** A problem as one sentence with its place: “Camera, height (m) must be …”. */
export function faultSentence({ pointer, message }: Problem): string {
  const place = pointer
    .slice(1)
    .split('/')
    .map((name) => name.replace(/_(mm|m|deg|px|um|s|g)$/, ' ($1)').replaceAll('_', ' '))
    .join(', ');
  return `${place === '' ? 'It' : place.charAt(0).toUpperCase() + place.slice(1)} ${message}.`;
}
