import { useCallback, useEffect, useRef, useState } from 'react';
import type { MosaicFound, Station } from '@gangway/station';
import type { OffersAnswer } from '../workers/offers-worker.js';

export interface Offering {
  readonly found: MosaicFound;
  /** How far the search is, 0 to 1; null when it is done. */
  readonly share: number | null;
  /** Ended by hand, before it was done. */
  readonly stopped: boolean;
  readonly stop: () => void;
}

const NONE: MosaicFound = { offers: [], why: null, nearest: null, stopped: false };

/** The layouts that serve a station's wish, looked for in a worker; the best so far on the way. */
export function useOffers(station: Station): Offering {
  const [state, setState] = useState<(Omit<Offering, 'stop'> & { of: Station }) | null>(null);
  const worker = useRef<Worker | null>(null);

  useEffect(() => {
    const own = new Worker(new URL('../workers/offers-worker.ts', import.meta.url), {
      type: 'module',
    });
    worker.current = own;
    own.onmessage = ({ data: { found, share } }: MessageEvent<OffersAnswer>) =>
      setState({ of: station, found, share, stopped: false });
    own.postMessage(station);
    return () => own.terminate();
  }, [station]);

  const stop = useCallback(() => {
    worker.current?.terminate();
    setState((last) => ({ of: station, found: last?.found ?? NONE, share: null, stopped: true }));
  }, [station]);
  // What was found for another station stays in sight until there is something for this one.
  return state?.of === station
    ? { ...state, stop }
    : { found: state?.found ?? NONE, share: 0, stopped: false, stop };
}
