import type { Standing } from '../optical/state.js';

/** The step’s verdict: its largest figure, the words beside it, and all of it as one sentence. */
export interface ExposureVerdict {
  /** Null: there is nothing to judge. */
  readonly standing: Standing | null;
  readonly figure: string;
  readonly words: string;
  readonly sentence: string;
}

/** What is said before anything was metered. */
export const NO_EXPOSURE: ExposureVerdict = {
  standing: null,
  figure: '—',
  words: 'not metered yet',
  sentence: 'Nothing is metered yet.',
};
