import { useEffect, useRef, useState } from 'react';

/**
 * A value that follows at most every so often, and always reaches the last one: for what is read, not
 * steered, while a hand moves something else.
 */
export function usePaced<T>(value: T, everyMs: number): T {
  const [shown, setShown] = useState(value);
  const due = useRef(0);
  useEffect(() => {
    if (Object.is(shown, value)) return undefined;
    const wait = setTimeout(
      () => {
        due.current = performance.now() + everyMs;
        setShown(value);
      },
      Math.max(0, due.current - performance.now()),
    );
    return () => clearTimeout(wait);
  }, [shown, value, everyMs]);
  return shown;
}

/** A value once it has stayed the same for a while; the one before until then. */
export function useRested<T>(value: T, afterMs: number): T {
  const [rested, setRested] = useState(value);
  useEffect(() => {
    const wait = setTimeout(() => setRested(value), afterMs);
    return () => clearTimeout(wait);
  }, [value, afterMs]);
  return rested;
}
