import type { Propose } from '../../ways/way.js';
import type { Units } from '../../words/format.js';
import type { Station } from '../../document/station.js';

export interface FramingQuestion {
  readonly station: Station;
  /** Units the scene is spoken of in. */
  readonly units: Units;
  /** The same rig with another lens of the kit in it, each under the lens's name. */
  readonly swaps: readonly { readonly name: string; readonly station: Station }[];
}

export type FramingKind = Propose<FramingQuestion, Station>;
