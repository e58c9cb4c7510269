/// <reference lib="webworker" />
import {
  focusWays,
  hindrance,
  solveStation,
  tiltOrStack,
  wiggleFor,
  type Effort,
  type FocusAnswer,
  type FocusOption,
  type Station,
  type Wiggle,
} from '@gangway/station';

declare const self: DedicatedWorkerGlobalScope;

export interface SolveAsk {
  readonly ask: number;
  readonly station: Station;
}

/** Everything that has to be searched for at one station. */
export interface Solution {
  readonly answer: FocusAnswer | null;
  /** Why no setting serves; null when one does. */
  readonly reason: string | null;
  readonly ways: readonly FocusOption[];
  readonly wiggle: Wiggle | null;
  readonly efforts: readonly Effort[];
}

export interface SolveAnswer {
  readonly ask: number;
  readonly solution: Solution;
}

self.onmessage = ({ data: { ask, station } }: MessageEvent<SolveAsk>) => {
  const answer = solveStation(station);
  const solution: Solution = {
    answer,
    reason: hindrance(station, answer),
    ways: answer ? focusWays(station, answer) : [],
    wiggle: answer ? wiggleFor(answer) : null,
    efforts: answer ? tiltOrStack(station) : [],
  };
  self.postMessage({ ask, solution } satisfies SolveAnswer);
};
