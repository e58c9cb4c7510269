import type { Back, ChainPart, Lens } from './station.js';

/** What a rig is made of; a station is one, and so is an assembly in the kit. */
export interface RigParts {
  readonly lens: Lens;
  readonly chain: readonly ChainPart[];
  readonly back: Back;
}
