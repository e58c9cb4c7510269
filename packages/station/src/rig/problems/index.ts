import { perRig, type RigFacts } from '../../optical/facts.js';
import { setupOf, type Setup } from '../../optical/setup.js';
import type { Station } from '../../document/station.js';
import { saidOf, worstFirst } from '../../words/findings.js';
import {
  RIG_SAYS,
  type ProblemCode,
  type RigProblem,
  type RigSaid,
} from '../../words/rig-problems.js';
import { bellowsCramped, bellowsTooLong, bellowsTooShort } from './bellows.js';
import { circleSmall, converterClips, noMovement, throatShades } from './circle.js';
import {
  focusByWire,
  focusOutOfReach,
  noInfinity,
  nothingToFocusWith,
  pastInfinity,
} from './focus.js';
import { frontHeavy, modified, openShutter } from './handling.js';
import { irisStuck } from './iris.js';
import { mountMismatch, rearElementStrikes, registerNoRoom, throatTooNarrow } from './mounting.js';
import { axesLocked } from './movement.js';
import type { GearCheck, SettingCheck } from './problem.js';
import { ringCuts } from './ring.js';

type Checks = {
  readonly [Code in ProblemCode]:
    { readonly gear: GearCheck<Code> } | { readonly setting: SettingCheck<Code> };
};

/** Every check by its code, in the order they are told; those of the gear alone are asked once. */
const CHECKS: Checks = {
  mount_mismatch: { gear: mountMismatch },
  throat_too_narrow: { gear: throatTooNarrow },
  rear_element_strikes: { gear: rearElementStrikes },
  register_no_room: { gear: registerNoRoom },
  no_infinity: { gear: noInfinity },
  past_infinity: { gear: pastInfinity },
  bellows_too_long: { setting: bellowsTooLong },
  bellows_too_short: { setting: bellowsTooShort },
  bellows_cramped: { setting: bellowsCramped },
  focus_out_of_reach: { setting: focusOutOfReach },
  focus_by_wire: { gear: focusByWire },
  nothing_to_focus_with: { gear: nothingToFocusWith },
  iris_stuck: { setting: irisStuck },
  circle_small: { setting: circleSmall },
  no_movement: { setting: noMovement },
  converter_clips: { setting: converterClips },
  ring_cuts: { setting: ringCuts },
  throat_shades: { setting: throatShades },
  axes_locked: { setting: axesLocked },
  front_heavy: { gear: frontHeavy },
  open_shutter: { gear: openShutter },
  modified: { gear: modified },
};

/** Those that keep the parts from going together at all. */
const MOUNTING: ReadonlySet<ProblemCode> = new Set<ProblemCode>([
  'mount_mismatch',
  'throat_too_narrow',
  'rear_element_strikes',
  'register_no_room',
]);

export const keepsApart = ({ code, severity }: Pick<RigProblem, 'code' | 'severity'>): boolean =>
  severity === 'stop' && MOUNTING.has(code);

type Ask = (s: Setup) => readonly RigProblem[];

const coded = (code: ProblemCode, found: readonly object[]): RigProblem[] =>
  // The table holds each code to its own check; one type for all of them cannot say so.
  found.map((finding) => ({ code, ...finding }) as RigProblem);

const LISTED: readonly Ask[] = (Object.keys(CHECKS) as ProblemCode[]).map((code): Ask => {
  const check = CHECKS[code];
  if ('setting' in check) {
    return (s) => {
      const found = check.setting(s);
      return found.length === 0 ? NONE : coded(code, found);
    };
  }
  const once = perRig((facts: RigFacts) => coded(code, check.gear(facts)));
  return ({ facts }) => once(facts);
});

const NONE: readonly RigProblem[] = [];

/** All that is wrong or noteworthy with how a rig is put together, as it is set; worst first. */
export function problemsIn(s: Setup): RigProblem[] {
  // Held in the hand, the lens is not mounted: nothing of how it would be is asked.
  if (s.station.held_off) return [];
  const found: RigProblem[] = [];
  for (const ask of LISTED) for (const problem of ask(s)) found.push(problem);
  return found.length > 1 ? worstFirst(found) : found;
}

export const rigProblems = (station: Station): RigProblem[] => problemsIn(setupOf(station));

/** What a problem says, and what would help. */
export const rigProblemSaid = (problem: RigProblem): RigSaid => saidOf(RIG_SAYS, problem);

export type { Severity } from '../../words/findings.js';
export type { ProblemCode, RigProblem, RigSaid, Want } from '../../words/rig-problems.js';
