/// <reference lib="webworker" />
import {
  advised,
  focusWays,
  hindrance,
  judged,
  stopTable,
  wiggleFor,
  sentAnswer,
  type SentAnswer,
  type Way,
  type Station,
  type StopLine,
  type Wiggle,
} from '@gangway/station';
import type { Answered, Asked } from './latest.js';

declare const self: DedicatedWorkerGlobalScope;

/** Everything that has to be searched for at one station. */
export interface Solution {
  readonly answer: SentAnswer | null;
  /** Why no setting serves; null when one does. */
  readonly reason: string | null;
  /** What the stop advised gives, and the one that is set in its place; null without an answer. */
  readonly stop: { readonly line: StopLine; readonly set: string } | null;
  /** Null while the hand moves. */
  readonly others: {
    readonly ways: readonly Way<Station>[];
    readonly wiggle: Wiggle | null;
  } | null;
}

export interface SolveAsk {
  readonly station: Station;
  /** Whether to look for other ways too: they take some ten times as long. */
  readonly rested: boolean;
}

function stopOf(found: Station, aperture: number): Solution['stop'] {
  const { set: line } = stopTable(found);
  const { set } = stopTable({ ...found, aperture });
  return { line, set: line.serves ? judged(set, line) : '' };
}

self.onmessage = ({ data: { id, ask } }: MessageEvent<Asked<SolveAsk>>) => {
  const { station, rested } = ask;
  const found = advised(station);
  const answer: Solution = {
    answer: found && sentAnswer(found),
    reason: hindrance(station, found),
    stop: found && stopOf(found.station, station.aperture),
    others: rested
      ? {
          ways: found ? focusWays(station, found) : [],
          wiggle: found ? wiggleFor(found) : null,
        }
      : null,
  };
  self.postMessage({ id, answer } satisfies Answered<Solution>);
};
