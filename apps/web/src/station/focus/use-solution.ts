import { useEffect, useRef, useState } from 'react';
import type { Station } from '@gangway/station';
import type { Solution, SolveAnswer, SolveAsk } from './solve-worker.js';

export interface Found {
  readonly station: Station;
  readonly solution: Solution;
}

/**
 * The solution for a station, searched for beside the page. Asked again as soon as the last answer
 * is in, so that a dragged mark is followed as quickly as it can be; null before the first.
 */
export function useSolution(station: Station): Found | null {
  const worker = useRef<Worker | null>(null);
  const [found, setFound] = useState<Found | null>(null);
  const busy = useRef(false);
  const next = useRef<Station | null>(null);
  const sent = useRef<{ ask: number; station: Station } | null>(null);

  useEffect(() => {
    const made = new Worker(new URL('./solve-worker.ts', import.meta.url), { type: 'module' });
    worker.current = made;
    made.onmessage = ({ data }: MessageEvent<SolveAnswer>) => {
      busy.current = false;
      if (sent.current?.ask === data.ask) {
        setFound({ station: sent.current.station, solution: data.solution });
      }
      post();
    };
    const post = (): void => {
      const waiting = next.current;
      if (busy.current || !waiting) return;
      next.current = null;
      busy.current = true;
      sent.current = { ask: (sent.current?.ask ?? 0) + 1, station: waiting };
      made.postMessage({ ask: sent.current.ask, station: waiting } satisfies SolveAsk);
    };
    posting.current = post;
    post();
    return () => {
      made.terminate();
      worker.current = null;
      busy.current = false;
    };
  }, []);

  const posting = useRef<() => void>(() => undefined);
  useEffect(() => {
    next.current = station;
    posting.current();
  }, [station]);
  return found;
}
