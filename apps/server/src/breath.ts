import { setImmediate as nextTurn } from 'node:timers/promises';

/** Longer than this at a stretch others are kept waiting, ms. */
const STRETCH_MS = 3;

/** Lets others have their turn now and then during long work. */
export function breaths(): () => Promise<void> {
  let since = performance.now();
  return async () => {
    if (performance.now() - since < STRETCH_MS) return;
    await nextTurn();
    since = performance.now();
  };
}
