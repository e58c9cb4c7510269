import { setupOf } from '../optical/setup.js';
import type { FocusAnswer } from './solve.js';

/** An answer as it goes from a worker to a page: facts stay where they are, a setup is made again. */
export type SentAnswer = Omit<FocusAnswer, 'setup'>;

export const sentAnswer = ({ setup: _, ...answer }: FocusAnswer): SentAnswer => answer;

export const receivedAnswer = (sent: SentAnswer): FocusAnswer => ({
  ...sent,
  setup: setupOf(sent.station),
});
