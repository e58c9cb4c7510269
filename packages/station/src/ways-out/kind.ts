import type { Readings } from '../report.js';
import type { Station } from '../schema.js';
import type { Setup } from '../setup.js';
import type { State } from '../state.js';

export interface Question {
  readonly station: Station;
  readonly report: Readings;
  readonly setup: Setup;
  /** What is wrong. */
  readonly state: Exclude<State, 'sharp'>;
  /** Whether a changed station is cured of it. */
  readonly cures: (station: Station) => boolean;
}

/** One concrete change that would cure what is wrong, not yet checked. */
export interface Draft {
  /** Stable while the change stays the same kind, for lists on screen. */
  readonly id: string;
  /** What to do, in the imperative. */
  readonly title: string;
  /** What it costs, in words. */
  readonly price: string;
  /** What it costs against the others: one stop of light is 1. */
  readonly cost: number;
  readonly after: Station;
}

/** A kind of way out. To add one: write a file beside this and list it in index.ts. */
export interface Kind {
  readonly name: string;
  readonly propose: (question: Question) => Draft[];
}
