/// <reference lib="webworker" />
import { searchOffers, type MosaicFound, type Station } from '@gangway/station';

declare const self: DedicatedWorkerGlobalScope;

export interface OffersAnswer {
  readonly found: MosaicFound;
  /** How far it is; null at the end. */
  readonly share: number | null;
}

/** What is told on the way is told this often. */
const EVERY_MS = 120;

self.onmessage = ({ data: station }: MessageEvent<Station>) => {
  const search = searchOffers(station);
  let told = performance.now();
  for (;;) {
    const { done, value } = search.next();
    if (done) {
      self.postMessage({ found: value, share: null } satisfies OffersAnswer);
      return;
    }
    if (performance.now() - told < EVERY_MS) continue;
    told = performance.now();
    self.postMessage({ found: value.found, share: value.share } satisfies OffersAnswer);
  }
};
