import type { Station } from '../document/station.js';
import { fixed, mm, trimmed } from '../words/format.js';
import { CORNER_NAMES } from '../words/names.js';
import { standardSaid } from '../words/hands.js';
import { findable, withinCarrier } from './carrier.js';
import type { Depths } from './depths.js';
import { joinedOf, type Gap, type Joined } from './joined.js';
import { overlapOf, type Layout } from './layout.js';
import { cornersPast } from './light.js';
import { FLAT_ENDS_DEG, type MosaicPicture } from './picture.js';
import { offLevelDeg, tooClose } from './turn-hindrance.js';

export interface MosaicProblem {
  code:
    | 'standard_still'
    | 'no_frames'
    | 'out_of_reach'
    | 'apart'
    | 'no_picture'
    | 'past_half_turn'
    | 'past_whole_turn'
    | 'not_covered'
    | 'thin_overlap'
    | 'between_stops'
    | 'pitched'
    | 'turned_close'
    | 'behind_lens'
    | 'cropped'
    | 'no_turning_back'
    | 'wish';
  severity: 'stop' | 'warn';
  message: string;
}

/** What a look needs: the layout and what came of it. */
interface Looked {
  readonly station: Station;
  readonly layout: Layout;
  readonly picture: MosaicPicture | null;
  readonly depths: Depths | null;
  readonly joined: Joined;
}

type Look = (looked: Looked) => MosaicProblem[];

const stop = (code: MosaicProblem['code'], message: string): MosaicProblem[] => [
  { code, severity: 'stop', message },
];
const warn = (code: MosaicProblem['code'], message: string): MosaicProblem[] => [
  { code, severity: 'warn', message },
];

/** Frames by their numbers: “frame 2”, “frames 1, 2 and 5”. */
export function framesSaid(indices: readonly number[]): string {
  const numbers = indices.map((i) => String(i + 1));
  if (numbers.length === 1) return `frame ${numbers[0]}`;
  if (numbers.length > 6) return `${numbers.length} frames`;
  return `frames ${numbers.slice(0, -1).join(', ')} and ${numbers.at(-1)}`;
}

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

const which = ({ frames }: Layout, of: (index: number) => boolean): number[] =>
  frames.map((_, i) => i).filter(of);

const standing: Look = ({ station, layout: { mosaic, carrier } }) => {
  if (mosaic.moves === 'camera' || carrier) return [];
  const own = station.movement_limits.moves === 'rear' ? 'back' : 'lens';
  const asked = mosaic.moves === 'rear' ? 'back' : 'lens';
  return stop(
    'standard_still',
    `The mosaic asks for the ${asked} to move; on this rig only the ${own} does.`,
  );
};

const noFrames: Look = ({ layout: { frames } }) =>
  frames.length > 0
    ? []
    : stop('no_frames', 'No frame is laid out yet; add one, or choose another pattern.');

const outOfReach: Look = ({ station, layout }) => {
  const { carrier, frames } = layout;
  if (!carrier || layout.mosaic.moves === 'camera') return [];
  // A turning adapter carries its frames round by itself; its stops are looked at below.
  if (layout.mosaic.pattern === 'pinwheel') return [];
  const past = which(layout, (i) => !withinCarrier(carrier, frames[i]!.set));
  if (past.length === 0) return [];
  const most = past.reduce(
    (far, i) => Math.max(far, Math.hypot(frames[i]!.set.riseMm, frames[i]!.set.shiftMm)),
    0,
  );
  return stop(
    'out_of_reach',
    `${capital(standardSaid(station, carrier.standard))} does not go as far as ${framesSaid(past)}, ${past.length === 1 ? '' : 'up to '}${mm(most)} from zero.`,
  );
};

const gapWords = ({ a, b, gapMm, px }: Gap): string =>
  `${framesSaid([a, b])} are ${px === null ? mm(gapMm, 2) : `${fixed(px, 0)} px`} apart`;

const apart: Look = ({ joined: { gap } }) => {
  return gap ? stop('apart', `${capital(gapWords(gap))}: nothing joins them.`) : [];
};

const noPicture: Look = ({ layout, picture }) => {
  const { turn, mosaic, frames } = layout;
  if (picture || frames.length === 0) return [];
  if (
    turn &&
    mosaic.pattern === 'turn' &&
    mosaic.projection === 'flat' &&
    turn.horizontalDeg >= FLAT_ENDS_DEG
  ) {
    return stop(
      'past_half_turn',
      `A flat picture ends before ${FLAT_ENDS_DEG}°; this turn sees ${fixed(turn.horizontalDeg, 0)}°. Take fewer frames, or lay it on a cylinder.`,
    );
  }
  return stop(
    'no_picture',
    turn
      ? 'Nothing is left all along: the frames are cut too far above or below.'
      : 'The middle of the layout lies in no frame or gets no light; add a frame in the middle.',
  );
};

const wholeTurn: Look = ({ layout: { turn } }) =>
  turn && turn.horizontalDeg > 360
    ? stop(
        'past_whole_turn',
        `The frames go round past themselves, ${fixed(turn.horizontalDeg, 0)}°; take fewer.`,
      )
    : [];

const notCovered: Look = ({ layout }) => {
  const lost = which(layout, (i) => cornersPast(layout.cone, layout.frames[i]!).length > 0);
  if (lost.length === 0) return [];
  const [first] = lost;
  const corners = cornersPast(layout.cone, layout.frames[first!]!);
  return warn(
    'not_covered',
    lost.length === 1
      ? `${capital(framesSaid(lost))} is black in ${corners.length === 1 ? `its ${CORNER_NAMES[corners[0]!]} corner` : `${corners.length} corners`}; the picture is cut to what is lit.`
      : `${capital(framesSaid(lost))} have black corners; the picture is cut to what is lit.`,
  );
};

/** Rounding of what was typed; less than asked by this much is as asked. */
const SHARE_SLACK = 1e-3;

const thin: Look = ({ layout, joined: { gap, weakest } }) => {
  const wanted = overlapOf(layout.mosaic);
  if (gap || weakest === null || weakest.share >= wanted - SHARE_SLACK) return [];
  if (layout.mosaic.pattern === 'grid' || layout.mosaic.pattern === 'turn') return [];
  const { a, b, share } = weakest;
  return warn(
    'thin_overlap',
    `${capital(framesSaid([a, b]))} share ${fixed(100 * share, 0)} % only; ${fixed(100 * wanted, 0)} % is wanted.`,
  );
};

const betweenStops: Look = ({ layout }) => {
  const { carrier, frames, mosaic } = layout;
  if (!carrier || mosaic.moves === 'camera') return [];
  const between = which(layout, (i) => !findable(carrier, frames[i]!.set, frames[i]!.rotationDeg));
  if (between.length === 0) return [];
  const what = carrier.stops
    ? `at no stop of the ${carrier.standard === 'back' ? 'back' : 'lens'}`
    : carrier.turns
      ? 'at an angle at which nothing stops, or between detents'
      : `between detents of ${trimmed(carrier.detentMm ?? 0, 2)} mm`;
  const said = `${capital(framesSaid(between))} ${between.length === 1 ? 'lies' : 'lie'} ${what}`;
  return carrier.stops
    ? stop('between_stops', `${said}.`)
    : warn('between_stops', `${said}; set by the scale.`);
};

const turnedClose: Look = ({ layout: { turn, s } }) => {
  const said = turn && tooClose(s);
  return said ? warn('turned_close', said) : [];
};

const pitched: Look = ({ station, layout: { turn } }) => {
  const off = offLevelDeg(station);
  return turn && Math.abs(off) > 0.05
    ? warn(
        'pitched',
        `The camera points ${fixed(Math.abs(off), 1)}° ${off > 0 ? 'up' : 'down'}: turned about the upright, its frames climb and the figures here do not hold. Level it and use rise.`,
      )
    : [];
};

const behindLens: Look = ({ layout: { mosaic, s }, depths }) =>
  mosaic.moves === 'lens' && depths && depths.nearMm <= s.imageDistanceMm
    ? warn(
        'behind_lens',
        `The nearest thing, ${fixed(depths.nearMm, 0)} mm from the sensor, lies behind the lens; give another.`,
      )
    : [];

const cropped: Look = ({ station }) =>
  station.crop
    ? warn(
        'cropped',
        'The crop of the single picture is not used here: frames are taken whole. Ask for a shape of the picture instead.',
      )
    : [];

const turningBack: Look = ({ station, layout: { mosaic } }) => {
  if (mosaic.pattern !== 'pinwheel') return [];
  const stops = station.movement_limits.frame_stops;
  return stops && 'turns' in stops
    ? []
    : warn(
        'no_turning_back',
        'No turning adapter is named in the rig, so whether it reaches these places is not known; give its stops in the kit.',
      );
};

/** Everything that may stand in the way, the gravest first. */
const LOOKS: readonly Look[] = [
  standing,
  noFrames,
  outOfReach,
  wholeTurn,
  apart,
  noPicture,
  betweenStops,
  notCovered,
  thin,
  pitched,
  turnedClose,
  behindLens,
  cropped,
  turningBack,
];

/** What stands in the way of a planned mosaic, and what to know of it; stops first. */
export const problemsOf = (given: Omit<Looked, 'joined'>): MosaicProblem[] => {
  const looked = { ...given, joined: joinedOf(given.layout) };
  const found = LOOKS.flatMap((look) => look(looked));
  return [
    ...found.filter(({ severity }) => severity === 'stop'),
    ...found.filter(({ severity }) => severity === 'warn'),
  ];
};
