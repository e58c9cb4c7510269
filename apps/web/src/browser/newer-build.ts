import { readFrom, whyNotKept, writeTo, type Shelf } from './storage.js';

const RELOADED = 'gangway.reloaded';
const RELOAD_AGAIN_MS = 30_000;

export const serverThere = async (): Promise<boolean> => {
  try {
    return (await fetch('/', { method: 'HEAD', cache: 'no-store' })).ok;
  } catch {
    return false;
  }
};

interface Surroundings {
  readonly shelf: Shelf;
  readonly now: () => number;
  /** Whether the server answers. */
  readonly there: () => Promise<boolean>;
  readonly reload: () => void;
}

/**
 * A part of the app could not be fetched: most often the server has a newer build. The page is
 * loaded anew, once in a while; edits and unfinished text are kept in this browser. While the server
 * is away the page stays as it is: loaded anew it would end in the browser's own error page.
 */
export async function loadAnew({ shelf, now, there, reload }: Surroundings): Promise<void> {
  // Where that cannot be noted, the page would load itself again for ever.
  if (whyNotKept(shelf)) return;
  if (now() - Number(readFrom(shelf, RELOADED) ?? 0) < RELOAD_AGAIN_MS) return;
  if (!(await there())) return;
  writeTo(shelf, RELOADED, String(now()));
  reload();
}
