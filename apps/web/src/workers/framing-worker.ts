/// <reference lib="webworker" />
import {
  framingWays,
  lensSwaps,
  type FramingWay,
  type KitItemOf,
  type Station,
  type Stored,
  type Units,
} from '@gangway/station';

declare const self: DedicatedWorkerGlobalScope;

export type FramingAsk =
  | { readonly kind: 'lenses'; readonly lenses: readonly Stored<KitItemOf<'lens'>>[] }
  | {
      readonly kind: 'ways';
      readonly ask: number;
      readonly station: Station;
      readonly units: Units;
    };

export interface FramingAnswer {
  readonly ask: number;
  readonly ways: readonly FramingWay[];
}

let lenses: readonly Stored<KitItemOf<'lens'>>[] = [];

self.onmessage = ({ data }: MessageEvent<FramingAsk>) => {
  if (data.kind === 'lenses') {
    lenses = data.lenses;
    return;
  }
  const { ask, station, units } = data;
  const answer: FramingAnswer = {
    ask,
    ways: framingWays(station, lensSwaps(station, lenses), units),
  };
  self.postMessage(answer);
};
