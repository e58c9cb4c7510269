import { useCallback, useState } from 'react';
import type * as z from 'zod';
import { readFrom, session, writeTo } from './storage.js';

/**
 * A piece of state that a reload, and going away and back, leaves as it was. One a tab. What is not
 * of its shape was kept by another build: it begins anew.
 */
export function useKept<T>(key: string, shape: z.ZodType<T>, start: T): [T, (value: T) => void] {
  const [value, setValue] = useState<T>(() => {
    try {
      const kept = readFrom(session, `gangway.${key}`);
      return kept === null ? start : shape.parse(JSON.parse(kept));
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
