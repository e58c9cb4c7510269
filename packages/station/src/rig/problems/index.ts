import type { Reach } from '@gangway/optics';
import { reachOf, lengthsOf, type Lengths } from '../../document/chain.js';
import { setup as setupOf, type Setup } from '../../optical/setup.js';
import type { Station } from '../../document/station.js';
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
import type { Asked, Check, Finding } from './problem.js';
import { ringCuts } from './ring.js';

/** Every check by its code, in the order they are told. */
const CHECKS = {
  mount_mismatch: mountMismatch,
  throat_too_narrow: throatTooNarrow,
  rear_element_strikes: rearElementStrikes,
  register_no_room: registerNoRoom,
  no_infinity: noInfinity,
  past_infinity: pastInfinity,
  bellows_too_long: bellowsTooLong,
  bellows_too_short: bellowsTooShort,
  bellows_cramped: bellowsCramped,
  focus_out_of_reach: focusOutOfReach,
  focus_by_wire: focusByWire,
  nothing_to_focus_with: nothingToFocusWith,
  iris_stuck: irisStuck,
  circle_small: circleSmall,
  no_movement: noMovement,
  converter_clips: converterClips,
  ring_cuts: ringCuts,
  throat_shades: throatShades,
  axes_locked: axesLocked,
  front_heavy: frontHeavy,
  open_shutter: openShutter,
  modified,
} satisfies Record<string, Check>;

export type ProblemCode = keyof typeof CHECKS;

export interface RigProblem extends Finding {
  readonly code: ProblemCode;
}

/** Those that keep the parts from going together at all. */
const MOUNTING: ReadonlySet<ProblemCode> = new Set<ProblemCode>([
  'mount_mismatch',
  'throat_too_narrow',
  'rear_element_strikes',
  'register_no_room',
]);

export const keepsApart = ({ code, severity }: Pick<RigProblem, 'code' | 'severity'>): boolean =>
  severity === 'stop' && MOUNTING.has(code);

const LISTED = Object.entries(CHECKS) as [ProblemCode, Check][];

/** All that is wrong or noteworthy with how a station's rig is put together, worst first. */
export function rigProblems(
  station: Station,
  setup: Setup = setupOf(station),
  lengths: Lengths = lengthsOf(station),
  reach: Reach = reachOf(station, lengths),
): RigProblem[] {
  // Held in the hand, the lens is not mounted: nothing of how it would be is asked.
  if (station.held_off) return [];
  const asked: Asked = { station, setup, lengths, reach };
  const found: RigProblem[] = [];
  for (const [code, check] of LISTED) {
    for (const finding of check(asked)) found.push({ code, ...finding });
  }
  const weight = { stop: 0, warn: 1 };
  return found.sort((a, b) => weight[a.severity] - weight[b.severity]);
}

export type { Finding, Severity, Want } from './problem.js';
