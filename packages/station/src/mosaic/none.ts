import type { Standing } from '../optical/state.js';

/** The step’s verdict: its largest figure, the words beside it, and all of it as one sentence. */
export interface MosaicVerdict {
  readonly standing: Standing;
  readonly figure: string;
  readonly words: string;
  readonly sentence: string;
}

/** What is said before anything is laid out. */
export const NO_MOSAIC: Omit<MosaicVerdict, 'standing'> & { readonly standing: null } = {
  // Nothing to judge.
  standing: null,
  figure: 'One',
  words: 'frame, nothing laid out',
  sentence: 'One frame; no mosaic is laid out.',
};

export const HELD_MOSAIC: MosaicVerdict = {
  standing: 'costs',
  figure: 'No',
  words: 'mosaic from the hand',
  sentence: 'The lens is held off the body; frames from the hand do not join.',
};
