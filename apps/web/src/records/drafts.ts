import type { Station } from '@gangway/station';
import { dropFrom, noteKept, readFrom, writeTo, type Shelf } from '../browser/storage.js';

/**
 * What this browser keeps of an edit until the server has it. One entry a tab, so that two tabs on
 * one thing never write over each other.
 */
interface Kept {
  readonly keptAt: number;
}

export interface Found<T> {
  readonly tab: string;
  readonly draft: T;
}

export interface Drafts<T> {
  /** @returns false when the browser's storage is full or forbidden */
  keep(shelf: Shelf, id: string, tab: string, draft: T): boolean;
  drop(shelf: Shelf, id: string, tab: string): void;
  /** All that are kept of a thing, the newest first. */
  all(shelf: Shelf, id: string): Found<T>[];
  /** This tab's draft; without one, the newest that another tab left behind. */
  find(shelf: Shelf, id: string, tab: string): Found<T> | null;
}

/**
 * @param prefix of the keys it is kept under
 * @param sound whether what was read is a draft at all
 */
export function draftsOf<T extends Kept>(prefix: string, sound: (draft: T) => boolean): Drafts<T> {
  // Those of a time when tabs shared one entry have no tab in their key.
  const keyOf = (id: string, tab: string): string => `${prefix}${id}${tab === '' ? '' : `.${tab}`}`;

  const read = (shelf: Shelf, key: string): T | null => {
    try {
      const draft = JSON.parse(readFrom(shelf, key) ?? 'null') as T | null;
      return draft && sound(draft) ? draft : null;
    } catch {
      return null;
    }
  };

  const keysOf = (shelf: Shelf, id: string): string[] => {
    try {
      return Array.from({ length: shelf.length }, (_, i) => shelf.key(i) ?? '').filter(
        (key) => key === keyOf(id, '') || key.startsWith(`${prefix}${id}.`),
      );
    } catch {
      return [];
    }
  };

  const all = (shelf: Shelf, id: string): Found<T>[] =>
    keysOf(shelf, id)
      .flatMap((key) => {
        const draft = read(shelf, key);
        return draft ? [{ tab: key.slice(prefix.length + id.length + 1), draft }] : [];
      })
      .sort((a, b) => (b.draft.keptAt ?? 0) - (a.draft.keptAt ?? 0));

  return {
    keep: (shelf, id, tab, draft) => {
      const kept = writeTo(shelf, keyOf(id, tab), JSON.stringify(draft));
      noteKept(kept);
      return kept;
    },
    drop: (shelf, id, tab) => dropFrom(shelf, keyOf(id, tab)),
    all,
    find: (shelf, id, tab) => {
      const found = all(shelf, id);
      return found.find((each) => each.tab === tab) ?? found[0] ?? null;
    },
  };
}

export interface Draft extends Kept {
  baseRevision: number;
  document: Station;
  /** Text in fields that is not, or not yet, a value: pointer → text. */
  typed: Record<string, string>;
  /** Sent, but not answered for: the server may have any of them. */
  unanswered: Station[];
}

export const stationDrafts = draftsOf<Draft>('gangway.draft.', ({ document }) => Boolean(document));
