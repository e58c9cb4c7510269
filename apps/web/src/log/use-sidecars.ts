import { useCallback, useEffect, useRef, useState } from 'react';
import type { SidecarsAsked, SidecarsTold } from './sidecar-worker.js';
import type { Preparation } from './sidecars.js';

export interface Preparing {
  readonly found: Preparation | null;
  /** How far it is; null when nothing is under way. */
  readonly progress: { readonly done: number; readonly of: number } | null;
  readonly stopped: boolean;
  readonly stop: () => void;
}

/** What would be written, worked out in a worker. */
export function useSidecars({ job, lines, stations, pictures }: SidecarsAsked): Preparing {
  const [state, setState] = useState<Omit<Preparing, 'stop'>>({
    found: null,
    progress: null,
    stopped: false,
  });
  const worker = useRef<Worker | null>(null);
  useEffect(() => {
    const own = new Worker(new URL('./sidecar-worker.ts', import.meta.url), { type: 'module' });
    worker.current = own;
    own.onmessage = ({ data }: MessageEvent<SidecarsTold>) => {
      if (data.kind === 'done') setState({ found: data.found, progress: null, stopped: false });
      else {
        const { done, of } = data;
        setState(({ found }) => ({ found, progress: { done, of }, stopped: false }));
      }
    };
    const named = pictures.pictures.map((each) => ({ ...each, thumb: null }));
    const { sidecars } = pictures;
    own.postMessage({
      job,
      lines,
      stations,
      pictures: { pictures: named, sidecars },
    } satisfies SidecarsAsked);
    return () => own.terminate();
  }, [job, lines, stations, pictures]);
  const stop = useCallback((): void => {
    worker.current?.terminate();
    setState({ found: null, progress: null, stopped: true });
  }, []);
  return { ...state, stop };
}
