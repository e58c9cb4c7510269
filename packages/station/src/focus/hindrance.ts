import { fixed, fStop, trimmed } from '../words/format.js';
import type { Station } from '../document/station.js';
import { irisStays, smallestStop } from '../optical/stops.js';
import { beyondMechanism, opticalState } from '../optical/state.js';
import { MOVEMENT_NAMES } from '../words/names.js';
import { worstCorner } from '@gangway/optics';
import type { FocusAnswer } from './solve.js';
import { sortedMarks, type Numbered } from './question.js';

/** Said wherever a search ended for its steps were used up. */
export const STOPPED =
  'The search stopped early, there being so much to look through; with fewer marks it looks further.';

export const nameOf = ({ mark, index }: Pick<Numbered, 'mark' | 'index'>): string =>
  mark.label || `Mark ${index + 1}`;

/** More names than these are counted, not read out. */
const MOST_NAMES = 6;

const list = (all: readonly string[]): string => {
  const more = all.length - MOST_NAMES;
  const names = more > 1 ? [...all.slice(0, MOST_NAMES), `${more} more`] : all;
  return names.length < 2
    ? (names[0] ?? '')
    : `${names.slice(0, -1).join(', ')} and ${names.at(-1)!}`;
};

/** Why no setting serves, in one sentence that says which limit and by how much; null when one does. */
export function hindrance(station: Station, answer: FocusAnswer | null): string | null {
  const { sharp, behind } = sortedMarks(station);
  if (behind.length > 0) {
    const verb = behind.length === 1 ? 'lies' : 'lie';
    const rest = sharp.length > 0 ? ' What is given is the best for the others.' : '';
    return `${list(behind.map(nameOf))} ${verb} behind the camera: turn the camera, or take ${behind.length === 1 ? 'the mark' : 'the marks'} out.${rest}`;
  }
  if (!answer) return 'Nothing that must be sharp lies ahead of the camera.';
  const reason =
    nearer(answer) ?? circle(answer) ?? mechanism(answer) ?? soft(answer) ?? stop(station, answer);
  return reason !== null && answer.stopped ? `${reason} ${STOPPED}` : reason;
}

/** Marks inside the focal length, or past what the rig draws out to. */
function nearer(answer: FocusAnswer): string | null {
  const { focalLengthMm: f } = answer.setup;
  const within = answer.marks.sharp.filter(
    ({ mark }, i) => !mark.infinite && !(answer.solved.depthsMm[i]! > 0),
  );
  if (within.length > 0 && answer.solved.fNumber > answer.station.lens.f_max) {
    return `${list(within.map(nameOf))} ${within.length === 1 ? 'lies' : 'lie'} nearer than this lens can focus at all, inside ${fixed(2 * f, 0)} mm: step back, or use a shorter lens.`;
  }
  if (answer.bounds.includes('close_focus') && !answer.held) {
    const m = answer.solved.setting * answer.setup.factor;
    return `The marks ask for more draw than there is: this rig goes to ${trimmed(m, 2)}× with the lens straight, and no further. Step back, or add extension.`;
  }
  return null;
}

function circle(answer: FocusAnswer): string | null {
  const { station, setup: s } = answer;
  const state = opticalState(s);
  if (state === 'ring') {
    return `The filter ring cuts a corner at ${fStop(station.aperture)} whichever way the lens leans: shift less, or use a larger filter on a step-up ring.`;
  }
  if (state !== 'outside') return null;
  const short = Math.abs(worstCorner(s.cone, s.frame).marginMm) * s.factor;
  if (answer.marks.soft.length > 0 && answer.bounds.includes('soft')) {
    return `With ${list(answer.marks.soft.map(nameOf))} as soft as wanted a corner lies ${fixed(short, 1)} mm outside the image circle at ${fStop(station.aperture)}: ask for less blur, or see to the frame in Cover.`;
  }
  return `A corner lies ${fixed(short, 1)} mm outside the image circle at ${fStop(station.aperture)}, however the lens leans: see to the frame in Cover first.`;
}

function mechanism({ station }: FocusAnswer): string | null {
  const beyond = beyondMechanism(station);
  return beyond.length === 0
    ? null
    : `The ${list(beyond.map((name) => MOVEMENT_NAMES[name]))} is set further than the mechanism goes.`;
}

function soft(answer: FocusAnswer): string | null {
  if (!answer.bounds.includes('soft')) return null;
  return `${list(answer.marks.soft.map(nameOf))} cannot be left as soft as wanted while the rest is sharp: what is given comes nearest to it.`;
}

function stop(station: Station, answer: FocusAnswer): string | null {
  if (answer.held) return null;
  const most = smallestStop(station);
  const ends = answer.bounds.flatMap((bound) => END_WORDS[bound] ?? []);
  const because = ends.length > 0 ? `, held by ${list(ends)}` : '';
  return `The best wedge asks for f/${fixed(answer.engravedNeeded, 0)}${because}; this lens ${irisStays(station) ? 'stays at' : 'stops down to'} ${fStop(most)}.`;
}

const END_WORDS: Partial<Record<string, string>> = {
  tilt: 'the end of the tilt',
  swing: 'the end of the swing',
  lean: 'the end of the lean',
  rear_tilt: 'the end of the rear tilt',
  rear_swing: 'the end of the rear swing',
  circle: 'the image circle',
  ring: 'the filter ring',
  close_focus: 'the closest focus',
  far_focus: 'the far end of the focus',
};
