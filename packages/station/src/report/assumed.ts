import { circleAssumed, coreAssumed } from '../cover/assumed.js';
import type { Station } from '../document/station.js';
import { exposureAssumed } from '../exposure/assumed.js';
import { heldAssumed } from '../focus/assumed.js';
import { mosaicAssumed } from '../mosaic/assumed.js';
import { levelAssumed, pupilAssumed, sharpnessAssumed } from '../optical/assumed.js';
import { perRig } from '../optical/facts.js';
import { setupOf, type Setup } from '../optical/setup.js';
import { mountingAssumed } from '../rig/assumed.js';
import { ASSUMED_SAYS, type Assumption, type Rests } from '../words/assumptions.js';
import { saidOf } from '../words/findings.js';

export type { Assumption, Rests } from '../words/assumptions.js';

/** Told of a lens that is mounted: of one in the hand none of it matters. */
const mounted = ({ station, facts }: Setup): readonly Assumption[] =>
  station.held_off ? [] : mountingAssumed(facts);

/** Every kind of blank that a figure may rest on, each in its subject's folder. */
const LOOKS: readonly ((s: Setup) => readonly Assumption[])[] = [
  circleAssumed,
  coreAssumed,
  pupilAssumed,
  sharpnessAssumed,
  heldAssumed,
  mounted,
  levelAssumed,
  mosaicAssumed,
  exposureAssumed,
];

/** Every input of a station that nobody gave and on which a figure rests, as its settings stand. */
export const assumptionsIn = (s: Setup): Assumption[] => {
  const all: Assumption[] = [];
  for (const look of LOOKS) for (const each of look(s)) all.push(each);
  return all;
};

export const assumptionsOf = (station: Station): Assumption[] => assumptionsIn(setupOf(station));

/** One sentence: what was taken, and why. */
export const assumedWhy = (assumption: Assumption): string => saidOf(ASSUMED_SAYS, assumption);

/** An assumption as the report tells it. */
interface AssumedLine {
  pointer: string;
  value: unknown;
  why: string;
}

const told = (each: Assumption): AssumedLine => ({
  pointer: each.pointer,
  value: each.value,
  why: assumedWhy(each),
});

const mountingTold = perRig((facts) => mountingAssumed(facts).map(told));

/** The report's `assumed` part. */
export function assumedLines(s: Setup): AssumedLine[] {
  const lines: AssumedLine[] = [];
  for (const look of LOOKS) {
    // Of the gear alone it is said once.
    const found = look === mounted ? mountingLines(s) : look(s).map(told);
    for (const line of found) lines.push(line);
  }
  return lines;
}

const mountingLines = ({ station, facts }: Setup): readonly AssumedLine[] =>
  station.held_off ? [] : mountingTold(facts);

/** Those that a figure would move with. */
export const assumedFor = (all: readonly Assumption[], rests: readonly Rests[]): Assumption[] =>
  all.filter((each) => each.rests.some((one) => rests.includes(one)));
