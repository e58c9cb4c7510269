import type { Rests } from '../report/assumed.js';
import type { Readings } from '../report/report.js';
import type { Station } from '../document/station.js';
import type { Setup } from '../optical/setup.js';

/** The reason for a result: formula in words and symbols, what went in, where it is from. */
export interface Why {
  readonly title: string;
  readonly result: string;
  readonly words: string;
  readonly formula: string;
  readonly numbers: readonly { symbol: string; meaning: string; value: string }[];
  readonly source: string;
  /** What the result would move with, where that is assumed. */
  readonly rests: readonly Rests[];
}

export interface Asked {
  readonly station: Station;
  readonly report: Readings;
  readonly setup: Setup;
}
