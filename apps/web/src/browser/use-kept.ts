import { useCallback, useState } from 'react';
import { readFrom, session, writeTo } from './storage.js';

/** A piece of state that a reload, and going away and back, leaves as it was. One a tab. */
export function useKept<T>(key: string, start: T): [T, (value: T) => void] {
  const [value, setValue] = useState<T>(() => {
    try {
      const kept = readFrom(session, `gangway.${key}`);
      return kept === null ? start : (JSON.parse(kept) as T);
    } catch {
      return start;
    }
  });
  const set = useCallback(
    (next: T): void => {
      setValue(next);
      // Where storage is full or forbidden it holds as long as the page.
      writeTo(session, `gangway.${key}`, JSON.stringify(next));
    },
    [key],
  );
  return [value, set];
}
