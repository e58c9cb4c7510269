import { useState } from 'react';

/** A key pressed again this soon goes on with the same step of undo. */
const SAME_RUN_MS = 800;

/** Names the run that a press belongs to. */
export type KeyRun = (of: string, repeat: boolean) => string;

/**
 * One undo takes a whole run of presses: a key that is held stays in its run however slowly it
 * repeats, and so does one pressed again soon.
 * @param nowMs the time, ms
 */
export function keyRuns(nowMs: () => number): KeyRun {
  let [last, at, count] = ['', -Infinity, 0];
  return (of, repeat) => {
    const now = nowMs();
    if (last !== of || !(repeat || now - at <= SAME_RUN_MS)) count += 1;
    [last, at] = [of, now];
    return `keys-${of}-${count}`;
  };
}

export function useKeyRun(): KeyRun {
  const [run] = useState(() => keyRuns(() => performance.now()));
  return run;
}
