import equal from 'fast-deep-equal';
import * as z from 'zod';
import { dropFrom, readFrom, writeTo, type Shelf } from '../browser/storage.js';
import type { KeptDocument, OpenDocument, Step } from './open.js';

/** The way back and forth of an open document, kept in the tab so that a reload leaves it as it was. */
export interface Trail<T> {
  readonly past: readonly Step<T>[];
  readonly future: readonly Step<T>[];
}

/** More steps than this nobody goes back; and a tab's storage is small. */
const MOST_STEPS = 40;
const MOST_CHARS = 1_500_000;

const step = z.object({ document: z.unknown(), label: z.string() });
const shape = z.object({
  id: z.string(),
  present: z.unknown(),
  past: z.array(step),
  future: z.array(step),
});

/** Keeps as much of the way as there is room for, the nearest steps first. */
export function keepTrail<T>(shelf: Shelf, key: string, open: OpenDocument<T>): void {
  const { id, present, past, future } = open;
  if (past.length === 0 && future.length === 0) {
    dropFrom(shelf, key);
    return;
  }
  for (let most = MOST_STEPS; most >= 1; most = Math.floor(most / 2)) {
    const text = JSON.stringify({
      id,
      present,
      past: past.slice(-most),
      future: future.slice(-most),
    });
    if (text.length <= MOST_CHARS && writeTo(shelf, key, text)) return;
  }
  dropFrom(shelf, key);
}

/**
 * The way that leads to and from a document, when it was kept for just that document.
 * @param read what a document of the way is now; one that cannot be read ends it
 */
export async function findTrail<T>(
  shelf: Shelf,
  key: string,
  { id, present }: Pick<OpenDocument<T>, 'id' | 'present'>,
  read: (document: unknown) => Promise<KeptDocument<T>>,
): Promise<Trail<T> | null> {
  const kept = shape.safeParse(parsed(readFrom(shelf, key))).data;
  // As it is stored and read again: a list that was empty, or a value of −0, may be written otherwise.
  if (!kept || kept.id !== id || !equal(kept.present, JSON.parse(JSON.stringify(present)))) {
    return null;
  }
  const steps = async (of: z.infer<typeof step>[]): Promise<Step<T>[]> => {
    const found: Step<T>[] = [];
    for (const { document, label } of of.toReversed()) {
      const now = await read(document);
      if (now.kind === 'broken') break;
      found.unshift({ document: now.document, label });
    }
    return found;
  };
  return { past: await steps(kept.past), future: await steps(kept.future) };
}

function parsed(text: string | null): unknown {
  try {
    return JSON.parse(text ?? 'null');
  } catch {
    return null;
  }
}
