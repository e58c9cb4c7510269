import type { Station } from '../../document/station.js';
import type { State } from '../../optical/state.js';
import type { Propose } from '../../ways/way.js';

export interface Question {
  readonly station: Station;
  /** What is wrong. */
  readonly state: Exclude<State, 'sharp'>;
  /** Whether a changed station is cured of it. */
  readonly cures: (station: Station) => boolean;
}

export type Kind = Propose<Question, Station>;
