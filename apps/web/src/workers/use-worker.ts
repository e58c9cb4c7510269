import { useEffect, useRef, useState } from 'react';
import { latestOf } from './latest.js';

/**
 * The latest answer of a worker, with what it is for; null before the first.
 * @param make the same function at every call
 */
export function useWorker<Ask, Answer>(
  make: () => Worker,
  ask: Ask,
): { readonly ask: Ask; readonly answer: Answer } | null {
  const [found, setFound] = useState<{ ask: Ask; answer: Answer } | null>(null);
  const put = useRef<(ask: Ask) => void>(() => undefined);

  useEffect(() => {
    const worker = make();
    put.current = latestOf<Ask, Answer>(worker, (of, answer) => setFound({ ask: of, answer }));
    return () => {
      worker.terminate();
      put.current = () => undefined;
    };
  }, [make]);

  useEffect(() => put.current(ask), [make, ask]);
  return found;
}
