import { parseRig, readKept, type Rig } from '@gangway/station';
import type { KeptDocument } from '../records/open.js';

/** Reads a stored rig, whatever it holds: apart from stations, which need none of it. */
export function readRig(document: unknown): KeptDocument<Rig> {
  const { value, faults } = readKept(parseRig, document);
  if (!value) return { kind: 'broken', faults };
  return faults.length === 0
    ? { kind: 'sound', document: value }
    : { kind: 'faulty', document: value, faults };
}
