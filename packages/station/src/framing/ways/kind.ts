import type { Units } from '../../format.js';
import type { Station } from '../../schema.js';

export interface FramingQuestion {
  readonly station: Station;
  /** Units the scene is spoken of in. */
  readonly units: Units;
  /** The same rig with another lens of the kit in it, each under the lens's name. */
  readonly swaps: readonly { readonly name: string; readonly station: Station }[];
}

/** One change that would frame the façade; whether it does is checked before it is offered. */
export interface FramingDraft {
  readonly id: string;
  readonly title: string;
  readonly price: string;
  /** Against the others: one stop of light is 1. */
  readonly cost: number;
  readonly after: Station;
}

export type FramingKind = (question: FramingQuestion) => FramingDraft[];
