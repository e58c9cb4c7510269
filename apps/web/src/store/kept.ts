import { keptStation, type Station } from '@gangway/station';
import type { KeptDocument } from '../records/open.js';

/**
 * Reads a stored station, whatever it holds. Loaded with the first document that is opened: lists need
 * none of the physics it brings.
 */
export function readStation(document: unknown): KeptDocument<Station> {
  const kept = keptStation(document);
  if (kept.kind === 'broken') return kept;
  const { station } = kept;
  return kept.kind === 'sound'
    ? { kind: 'sound', document: station }
    : { kind: 'faulty', document: station, faults: kept.faults };
}
