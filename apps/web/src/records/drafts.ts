import { openDB, type IDBPDatabase } from 'idb';
import * as z from 'zod';
import { dropFrom, noteKept, readFrom, writeTo, type Shelf } from '../browser/storage.js';

/**
 * What this browser keeps of an edit until the server has it. One entry a tab, so that two tabs on
 * one thing never write over each other. Drafts lie in IndexedDB, which has room; the last edit is
 * written to local storage first, which keeps it at once, and goes from there when the other has it.
 */

interface Kept {
  readonly keptAt: number;
}

export interface Found<T> {
  readonly tab: string;
  readonly draft: T;
  /** What was read is no draft that can be gone on with; it stays until a person lets it go. */
  readonly unreadable?: undefined;
}

export interface UnreadableDraft {
  readonly tab: string;
  readonly unreadable: unknown;
}

/** Where drafts lie: IndexedDB, or what stands in for it in a test. */
export interface Roomy {
  put(key: string, draft: unknown): Promise<void>;
  drop(key: string): Promise<void>;
  /** All whose keys begin so. */
  under(prefix: string): Promise<[string, unknown][]>;
}

let database: Promise<IDBPDatabase> | null = null;

const opened = (): Promise<IDBPDatabase> => {
  database ??= openDB('gangway', 1, {
    upgrade: (db) => void db.createObjectStore('drafts'),
    // Another tab upgrades the database: close this connection, and open another when needed.
    blocking: (_now, _next, event) => {
      database = null;
      (event.target as IDBDatabase).close();
    },
    terminated: () => (database = null),
  });
  database.catch(() => (database = null));
  return database;
};

export const indexedRoom: Roomy = {
  put: async (key, draft) => void (await (await opened()).put('drafts', draft, key)),
  drop: async (key) => (await opened()).delete('drafts', key),
  under: async (prefix) => {
    const db = await opened();
    const range = IDBKeyRange.bound(prefix, `${prefix}\uffff`);
    const [keys, values] = await Promise.all([
      db.getAllKeys('drafts', range),
      db.getAll('drafts', range),
    ]);
    return keys.map((key, i) => [String(key), values[i]]);
  },
};

export interface Drafts<T> {
  /** At once where the browser keeps at once; there is room for it a moment later. What is too large for that is kept there only. */
  keep(id: string, tab: string, draft: T, when?: 'at once' | 'later'): void;
  drop(id: string, tab: string): Promise<void>;
  /** Of which things any are kept. */
  ids(): Promise<string[]>;
  /** All that are kept of a thing, the newest first, and those that cannot be read. */
  all(id: string): Promise<{ drafts: Found<T>[]; unreadable: UnreadableDraft[] }>;
  /** This tab's draft; without one, the newest that another tab left behind. */
  find(id: string, tab: string): Promise<Found<T> | null>;
}

function onShelf(shelf: Shelf, under: string): [string, unknown][] {
  try {
    return Array.from({ length: shelf.length }, (_, i) => shelf.key(i) ?? '')
      .filter((key) => key.startsWith(under))
      .map((key) => [key, parsed(readFrom(shelf, key))]);
  } catch {
    return [];
  }
}

/** Things of which drafts are kept under a prefix. */
export async function idsUnder(
  prefix: string,
  { shelf, room }: { shelf: Shelf; room: Roomy },
): Promise<string[]> {
  const found = [...(await room.under(prefix).catch(() => [])), ...onShelf(shelf, prefix)];
  return [...new Set(found.map(([key]) => key.slice(prefix.length).split('.')[0]!))];
}

/**
 * @param prefix of the keys they are kept under
 * @param read a draft from what was kept, brought to its present form; null when it is none
 */
export function draftsOf<T extends Kept>(
  prefix: string,
  read: (kept: unknown) => Promise<T | null>,
  { shelf, room }: { shelf: Shelf; room: Roomy },
): Drafts<T> {
  // Those of a time when tabs shared one entry have no tab in their key.
  const keyOf = (id: string, tab: string): string => `${prefix}${id}${tab === '' ? '' : `.${tab}`}`;
  /** The last that was kept under a key: an older one that is written late must not win. */
  const latest = new Map<string, T | null>();

  const all = async (id: string) => {
    const roomy = await room.under(`${prefix}${id}`).catch(() => []);
    const byTab = new Map<string, unknown>();
    for (const [key, kept] of [...roomy, ...onShelf(shelf, `${prefix}${id}`)]) {
      if (key !== keyOf(id, '') && !key.startsWith(`${prefix}${id}.`)) continue;
      const tab = key.slice(prefix.length + id.length + 1);
      // Of one tab's two the later: the one may have had no room for it, the other no time.
      if (!byTab.has(tab) || ageOf(kept) >= ageOf(byTab.get(tab))) byTab.set(tab, kept);
    }
    const drafts: Found<T>[] = [];
    const unreadable: UnreadableDraft[] = [];
    for (const [tab, kept] of byTab) {
      const draft = await read(kept).catch(() => null);
      if (draft) drafts.push({ tab, draft });
      else unreadable.push({ tab, unreadable: kept });
    }
    drafts.sort((a, b) => b.draft.keptAt - a.draft.keptAt);
    return { drafts, unreadable };
  };

  return {
    keep: (id, tab, draft, when = 'at once') => {
      const key = keyOf(id, tab);
      latest.set(key, draft);
      const atOnce = when === 'at once' && writeTo(shelf, key, JSON.stringify(draft));
      room.put(key, draft).then(
        () => {
          noteKept(true);
          const now = latest.get(key);
          if (now === draft) dropFrom(shelf, key);
          // It was let go, or another came, while this was being written.
          else if (now === null) void room.drop(key).catch(() => {});
          else if (now) void room.put(key, now).catch(() => {});
        },
        () => noteKept(atOnce),
      );
    },
    drop: async (id, tab) => {
      const key = keyOf(id, tab);
      latest.set(key, null);
      dropFrom(shelf, key);
      await room.drop(key).catch(() => {});
    },
    ids: () => idsUnder(prefix, { shelf, room }),
    all,
    find: async (id, tab) => {
      const { drafts } = await all(id);
      return drafts.find((each) => each.tab === tab) ?? drafts[0] ?? null;
    },
  };
}

const ageOf = (kept: unknown): number =>
  z.object({ keptAt: z.number() }).safeParse(kept).data?.keptAt ?? 0;

function parsed(text: string | null): unknown {
  try {
    return JSON.parse(text ?? 'null');
  } catch {
    return text;
  }
}

/** A draft of a document that saves by itself. */
export interface Draft<T> extends Kept {
  readonly baseRevision: number;
  readonly document: T;
  /** Text in fields that is not, or not yet, a value: pointer → text. */
  readonly typed: Readonly<Record<string, string>>;
  /** Sent, but not answered for: the server may have any of them. */
  readonly unanswered: readonly T[];
}

const draftShape = z.object({
  keptAt: z.number().catch(0),
  baseRevision: z.number().int().min(1),
  document: z.unknown(),
  typed: z.record(z.string(), z.string()).catch({}),
  unanswered: z.array(z.unknown()).catch([]),
});

/**
 * Reads a draft of a document.
 * @param present the document in its present form; null when nothing can be made of it
 */
export const documentDraft =
  <T>(present: (document: unknown) => Promise<T | null>) =>
  async (kept: unknown): Promise<Draft<T> | null> => {
    const read = draftShape.safeParse(kept);
    if (!read.success) return null;
    const document = await present(read.data.document);
    if (document === null) return null;
    const sent = await Promise.all(read.data.unanswered.map(present));
    return { ...read.data, document, unanswered: sent.filter((each) => each !== null) };
  };
