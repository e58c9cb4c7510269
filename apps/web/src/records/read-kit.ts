import {
  parseKitItem,
  parseRig,
  readKept,
  type Kept,
  type KitItem,
  type Result,
  type Rig,
  type Stored,
} from '@gangway/station';
import type { StoredDocument } from './shapes.js';

/** Reads what came from the server; the same document, asked again, is not read again. */
function once<T>(parse: (document: unknown) => Result<T>): (document: unknown) => Kept<T> {
  const known = new WeakMap<object, Kept<T>>();
  return (document) => {
    if (typeof document !== 'object' || document === null) return readKept(parse, document);
    const kept = known.get(document) ?? readKept(parse, document);
    known.set(document, kept);
    return kept;
  };
}

export const readItem = once<KitItem>(parseKitItem);
export const readRig = once<Rig>(parseRig);

export interface StoredItem extends Stored {
  readonly updatedAt: string;
  readonly archived: boolean;
}

/** A stored item with its document read; null when it cannot be. */
export function itemOf(stored: StoredDocument): StoredItem | null {
  const { value } = readItem(stored.document);
  return value && { ...stored, document: value };
}

/** Those that can be read. */
export const soundItems = (stored: readonly StoredDocument[]): StoredItem[] =>
  stored.flatMap((each) => itemOf(each) ?? []);
