import {
  keptStation,
  parseRig,
  readKept,
  type Problem,
  type Rig,
  type Station,
} from '@gangway/station';

/**
 * Reads what is stored, whatever it holds. Loaded with the first document that is opened: lists need
 * none of the physics it brings.
 */
type Kept<T> =
  | { readonly kind: 'sound'; readonly document: T }
  | { readonly kind: 'faulty'; readonly document: T; readonly faults: readonly Problem[] }
  | { readonly kind: 'broken'; readonly faults: readonly Problem[] };

export function readStation(document: unknown): Kept<Station> {
  const kept = keptStation(document);
  if (kept.kind === 'broken') return kept;
  const { station } = kept;
  return kept.kind === 'sound'
    ? { kind: 'sound', document: station }
    : { kind: 'faulty', document: station, faults: kept.faults };
}

export function readRig(document: unknown): Kept<Rig> {
  const { value, faults } = readKept(parseRig, document);
  if (!value) return { kind: 'broken', faults };
  return faults.length === 0
    ? { kind: 'sound', document: value }
    : { kind: 'faulty', document: value, faults };
}
