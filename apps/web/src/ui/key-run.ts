import { useCallback, useRef } from 'react';

/** A key pressed again this soon goes on with the same step of undo. */
const SAME_RUN_MS = 800;

/**
 * Names the run of key presses that a press belongs to, so that one undo takes the whole run: a
 * key that is held stays in its run however slowly it repeats, and so does one pressed again soon.
 */
export function useKeyRun(): (of: string, repeat: boolean) => string {
  const run = useRef({ of: '', at: -Infinity, count: 0 });
  return useCallback((of, repeat) => {
    const now = performance.now();
    const { current } = run;
    if (current.of !== of || !(repeat || now - current.at <= SAME_RUN_MS)) current.count += 1;
    run.current = { of, at: now, count: current.count };
    return `keys-${of}-${current.count}`;
  }, []);
}
