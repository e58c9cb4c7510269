import type { Reach } from '@gangway/optics';
import type { Station } from '../../document/station.js';
import type { Setup } from '../../optical/setup.js';
import type { Lengths } from '../../document/chain.js';

/** `stop`: the parts cannot be used like this. `warn`: they can, at a price that is named. */
export type Severity = 'stop' | 'warn';

/** What every check is told. */
export interface Asked {
  readonly station: Station;
  readonly setup: Setup;
  readonly lengths: Lengths;
  readonly reach: Reach;
}

/** A part that would cure it, for the kit to be searched by. */
export type Want =
  | { readonly kind: 'adapter'; readonly thicknessMm: number }
  | { readonly kind: 'board'; readonly offsetMm: readonly [number, number] };

export interface Finding {
  readonly severity: Severity;
  /** What is wrong, with the figures. */
  readonly message: string;
  /** What would help, in the imperative. */
  readonly cure: string;
  /** Where: joint 0 lies behind the lens, joint k behind part k of the chain; null: the whole rig. */
  readonly joint: number | null;
  readonly want?: Want;
}

/** One check. To add one: write it beside the others and list it in index.ts under its code. */
export type Check = (asked: Asked) => Finding[];

/** A part by its name, or else by its kind. */
export const named = (part: { name?: string | undefined }, otherwise: string): string =>
  part.name?.trim() ? `“${part.name.trim()}”` : otherwise;
