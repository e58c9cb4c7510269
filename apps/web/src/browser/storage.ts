/** What of the browser's storage is used here. Writing throws when it is full or forbidden. */
export interface Shelf {
  readonly length: number;
  key(index: number): string | null;
  getItem(key: string): string | null;
  setItem(key: string, value: string): void;
  removeItem(key: string): void;
}

/** Stands in where the browser forbids storage: nothing is there and nothing can be kept. */
const nothing: Shelf = {
  length: 0,
  key: () => null,
  getItem: () => null,
  setItem: () => {
    throw new Error('This browser keeps nothing for the page.');
  },
  removeItem: () => {},
};

/** Merely asking for it may throw, when the user forbids it or the page is shown inside another. */
function asked(open: () => Shelf): Shelf {
  try {
    return open();
  } catch {
    return nothing;
  }
}

export const local = asked(() => localStorage);
export const session = asked(() => sessionStorage);

/** Reads without fail. */
export function readFrom(shelf: Shelf, key: string): string | null {
  try {
    return shelf.getItem(key);
  } catch {
    return null;
  }
}

/** @returns whether it is kept */
export function writeTo(shelf: Shelf, key: string, value: string): boolean {
  try {
    shelf.setItem(key, value);
    return true;
  } catch {
    return false;
  }
}

export function dropFrom(shelf: Shelf, key: string): void {
  try {
    shelf.removeItem(key);
  } catch {
    // Nothing can be kept, so nothing is.
  }
}

/** As long as a small edit: storage may have room for a letter and none for an edit. */
const PROBE = 'x'.repeat(20_000);

/** Why nothing can be kept in this browser, tried out; null when it can. */
export function whyNotKept(shelf: Shelf): 'forbidden' | 'full' | null {
  if (shelf === nothing) return 'forbidden';
  const kept = writeTo(shelf, 'gangway.probe', PROBE);
  dropFrom(shelf, 'gangway.probe');
  return kept ? null : 'full';
}

type Trouble = ReturnType<typeof whyNotKept>;

/** Whether edits can be kept here, as the last try showed; screens that promise it listen. */
let trouble: Trouble = null;
const listeners = new Set<() => void>();

export function noteKept(kept: boolean): void {
  const now = kept ? null : (whyNotKept(local) ?? 'full');
  if (now === trouble) return;
  trouble = now;
  for (const each of listeners) each();
}

export const storageTrouble = {
  get: (): Trouble => trouble,
  subscribe: (hear: () => void): (() => void) => {
    listeners.add(hear);
    return () => listeners.delete(hear);
  },
};
