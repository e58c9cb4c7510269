import { useCallback, useState } from 'react';

/** A piece of state that a reload, and going away and back, leaves as it was. One a tab. */
export function useKept<T>(key: string, start: T): [T, (value: T) => void] {
  const [value, setValue] = useState<T>(() => {
    try {
      const kept = sessionStorage.getItem(`gangway.${key}`);
      return kept === null ? start : (JSON.parse(kept) as T);
    } catch {
      return start;
    }
  });
  const set = useCallback(
    (next: T): void => {
      setValue(next);
      try {
        sessionStorage.setItem(`gangway.${key}`, JSON.stringify(next));
      } catch {
        // Storage is full or forbidden: it holds as long as the page.
      }
    },
    [key],
  );
  return [value, set];
}
