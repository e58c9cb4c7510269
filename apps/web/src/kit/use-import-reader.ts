import { useCallback, useEffect, useMemo, useRef } from 'react';
import type { ImportAnswers, ImportAsk, ImportMessage } from './import-worker.js';
import type { Progress, Question } from './read-import.js';

interface Waiting {
  readonly resolve: (answer: never) => void;
  readonly progress: Progress;
}

/** Reads in a worker, so that a million lines hold up nothing; it keeps what it read. */
export function useImportReader() {
  const worker = useRef<Worker | null>(null);
  const waiting = useRef(new Map<number, Waiting>());
  const count = useRef(0);

  /** Stops reading at once; no result follows. */
  const stop = useCallback((): void => {
    worker.current?.terminate();
    worker.current = null;
    waiting.current.clear();
  }, []);
  useEffect(() => stop, [stop]);

  const ask = useCallback(
    <K extends ImportAsk['kind']>(
      of: ImportAsk & { kind: K },
      progress: Progress = () => {},
    ): Promise<ImportAnswers[K]> => {
      if (!worker.current) {
        worker.current = new Worker(new URL('./import-worker.ts', import.meta.url), {
          type: 'module',
        });
        worker.current.onmessage = ({ data }: MessageEvent<ImportMessage>) => {
          const asked = waiting.current.get(data.ask);
          if (!('answer' in data)) {
            asked?.progress(data.done, data.of);
            return;
          }
          waiting.current.delete(data.ask);
          asked?.resolve(data.answer as never);
        };
      }
      const number = ++count.current;
      const answer = new Promise<ImportAnswers[K]>((resolve) => {
        waiting.current.set(number, { resolve, progress });
      });
      worker.current.postMessage({ ask: number, of });
      return answer;
    },
    [],
  );

  return useMemo(
    () => ({
      stop,
      read: (file: Blob, question: Question, progress: Progress) =>
        ask({ kind: 'read', file, question }, progress),
      lines: (from: number, to: number) => ask({ kind: 'lines', from, to }),
      columns: (words: string) => ask({ kind: 'columns', words }),
      part: (from: number, most: number, withSame: boolean) =>
        ask({ kind: 'part', from, most, withSame }),
    }),
    [ask, stop],
  );
}

export type ImportReader = ReturnType<typeof useImportReader>;
