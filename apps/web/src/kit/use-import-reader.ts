import { useCallback, useEffect, useRef } from 'react';
import type { ImportAsk, ImportMessage, ImportRead, ImportRow } from './read-import.js';

/** Reads in a worker, so that twenty thousand lines hold up nothing. */
export function useImportReader(): (ask: Omit<ImportAsk, 'ask'>) => Promise<ImportRead> {
  const worker = useRef<Worker | null>(null);
  const count = useRef(0);
  useEffect(() => () => worker.current?.terminate(), []);
  return useCallback((ask) => {
    worker.current ??= new Worker(new URL('./import-worker.ts', import.meta.url), {
      type: 'module',
    });
    const number = ++count.current;
    const at = worker.current;
    return new Promise((resolve) => {
      const rows: ImportRow[] = [];
      const hear = ({ data }: MessageEvent<ImportMessage>): void => {
        if (data.ask !== number) return;
        if (data.kind === 'rows') {
          rows.push(...data.rows);
          return;
        }
        at.removeEventListener('message', hear);
        resolve(data.read.kind === 'refused' ? data.read : { ...data.read, rows });
      };
      at.addEventListener('message', hear);
      at.postMessage({ ...ask, ask: number }, [ask.bytes]);
    });
  }, []);
}
