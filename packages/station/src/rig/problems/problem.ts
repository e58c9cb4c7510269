import type { RigFacts } from '../../optical/facts.js';
import type { Setup } from '../../optical/setup.js';
import type { Severity, ValuesOf } from '../../words/findings.js';
import type { ProblemCode, RIG_SAYS, RigPlace } from '../../words/rig-problems.js';

/** One fault that a check of one code finds: how grave, where, and the values its sentence is made of. */
export type Finding<Code extends ProblemCode> = RigPlace & {
  readonly severity: Severity;
  readonly values: ValuesOf<typeof RIG_SAYS, Code>;
};

/** A check that the gear alone decides: asked once for a rig. */
export type GearCheck<Code extends ProblemCode> = (facts: RigFacts) => Finding<Code>[];

/** A check that goes by what is set. */
export type SettingCheck<Code extends ProblemCode> = (s: Setup) => Finding<Code>[];

/** A part by its name, or else by its kind. */
export const named = (part: { name?: string | undefined }, otherwise: string): string =>
  part.name?.trim() ? `“${part.name.trim()}”` : otherwise;
