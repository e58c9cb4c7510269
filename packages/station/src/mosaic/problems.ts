import { findingsOf, lookedOver, worstFirst, type Look as AnyLook } from '../words/findings.js';
import type { MOSAIC_SAYS } from '../words/mosaic-problems.js';
import { type MosaicFinding } from '../words/mosaic-problems.js';
import { MOST_MOSAIC_FRAMES } from '../document/most.js';
import type { Station } from '../document/station.js';
import { standardSaid } from '../words/hands.js';
import { findable, withinCarrier } from './carrier.js';
import type { Depths } from './depths.js';
import { joinedOf, type Joined } from './joined.js';
import { overlapOf, refocuses, setupAtFrame, tooManyFrames, type Layout } from './layout.js';
import { bellowsMissedMm, missedMm } from '../optical/missed.js';
import { cornersPast } from './light.js';
import { FLAT_ENDS_DEG, type MosaicPicture } from './picture.js';
import { leanLost } from './series.js';
import { turningPart } from '../optical/turning.js';
import { offLevelDeg, tooClose } from './turn-hindrance.js';

/** What a look needs: the layout and what came of it. */
interface Looked {
  readonly station: Station;
  readonly layout: Layout;
  readonly picture: MosaicPicture | null;
  readonly depths: Depths | null;
  readonly joined: Joined;
}

type Look = AnyLook<Looked, MosaicFinding>;

const { stop, warn } = findingsOf<typeof MOSAIC_SAYS>();

const which = ({ frames }: Layout, of: (index: number) => boolean): number[] =>
  frames.map((_, i) => i).filter(of);

const standing: Look = ({ station, layout: { mosaic, carrier } }) => {
  if (mosaic.moves === 'camera' || carrier) return [];
  const own = station.movement_limits.moves === 'rear' ? 'back' : 'lens';
  const asked = mosaic.moves === 'rear' ? 'back' : 'lens';
  return stop('standard_still', { asked, own });
};

const noFrames: Look = ({ layout: { frames, mosaic } }) => {
  if (frames.length > 0) return [];
  return tooManyFrames(mosaic)
    ? stop('too_many_frames', { most: MOST_MOSAIC_FRAMES })
    : stop('no_frames', null);
};

const outOfReach: Look = ({ station, layout }) => {
  const { carrier, frames } = layout;
  if (!carrier || layout.mosaic.moves === 'camera') return [];
  // A turning adapter carries its frames round by itself; its stops are looked at below.
  if (layout.mosaic.pattern === 'pinwheel') return [];
  const past = which(layout, (i) => !withinCarrier(carrier, frames[i]!.set));
  if (past.length === 0) return [];
  const mostMm = past.reduce(
    (far, i) => Math.max(far, Math.hypot(frames[i]!.set.riseMm, frames[i]!.set.shiftMm)),
    0,
  );
  return stop('out_of_reach', {
    standard: standardSaid(station, carrier.standard),
    frames: past,
    mostMm,
  });
};

const leanTurnedAway: Look = ({ station, layout }) => {
  const frames = leanLost(station, layout);
  return frames.length > 0 ? stop('lean_lost', { frames, part: turningPart(station) }) : [];
};

const focusLost: Look = ({ station, layout }) => {
  if (!refocuses(station)) return [];
  const bellows = layout.s.facts.lengths.bellows !== null;
  const missed = layout.frames.map((_, i) =>
    (bellows ? bellowsMissedMm : missedMm)(setupAtFrame(station, layout, i)),
  );
  const frames = which(layout, (i) => missed[i] !== 0);
  if (frames.length === 0) return [];
  const most = missed.reduce((a, b) => (Math.abs(b) > Math.abs(a) ? b : a));
  return stop('focus_lost', { frames, byMm: most, bellows });
};

const apart: Look = ({ joined: { gap } }) => (gap ? stop('apart', gap) : []);

const noPicture: Look = ({ layout, picture }) => {
  const { turn, mosaic, frames } = layout;
  if (picture || frames.length === 0) return [];
  if (
    turn &&
    mosaic.pattern === 'turn' &&
    mosaic.projection === 'flat' &&
    turn.horizontalDeg >= FLAT_ENDS_DEG
  ) {
    return stop('past_half_turn', {
      endDeg: FLAT_ENDS_DEG,
      horizontalDeg: turn.horizontalDeg,
    });
  }
  return stop('no_picture', { turns: turn !== null });
};

const wholeTurn: Look = ({ layout: { turn } }) =>
  turn && turn.horizontalDeg > 360
    ? stop('past_whole_turn', { horizontalDeg: turn.horizontalDeg })
    : [];

const notCovered: Look = ({ layout }) => {
  const lost = which(layout, (i) => cornersPast(layout.cone, layout.frames[i]!).length > 0);
  if (lost.length === 0) return [];
  const [first] = lost;
  const corners = cornersPast(layout.cone, layout.frames[first!]!);
  return warn('not_covered', { frames: lost, corners });
};

/** Rounding of what was typed; less than asked by this much is as asked. */
const SHARE_SLACK = 1e-3;

const thin: Look = ({ layout, joined: { gap, weakest } }) => {
  const wanted = overlapOf(layout.mosaic);
  if (gap || weakest === null || weakest.share >= wanted - SHARE_SLACK) return [];
  if (layout.mosaic.pattern === 'grid' || layout.mosaic.pattern === 'turn') return [];
  const { a, b, share } = weakest;
  return warn('thin_overlap', { a, b, share, wanted });
};

const betweenStops: Look = ({ layout }) => {
  const { carrier, frames, mosaic } = layout;
  if (!carrier || mosaic.moves === 'camera') return [];
  const between = which(layout, (i) => !findable(carrier, frames[i]!.set, frames[i]!.rotationDeg));
  if (between.length === 0) return [];
  const values = {
    frames: between,
    at: carrier.stops
      ? ('stops' as const)
      : carrier.turns
        ? ('turns' as const)
        : ('detents' as const),
    standard: carrier.standard === 'back' ? ('back' as const) : ('lens' as const),
    detentMm: carrier.detentMm ?? 0,
  };
  return carrier.stops ? stop('between_stops', values) : warn('between_stops', values);
};

const turnedClose: Look = ({ layout: { turn, s } }) => {
  return turn && tooClose(s) ? warn('turned_close', null) : [];
};

const pitched: Look = ({ station, layout: { turn } }) => {
  const off = offLevelDeg(station);
  return turn && Math.abs(off) > 0.05 ? warn('pitched', { offDeg: off }) : [];
};

const behindLens: Look = ({ layout: { mosaic, s }, depths }) =>
  mosaic.moves === 'lens' && depths && depths.nearMm <= s.imageDistanceMm
    ? warn('behind_lens', { nearMm: depths.nearMm })
    : [];

const cropped: Look = ({ station }) => (station.crop ? warn('cropped', null) : []);

const turningBack: Look = ({ station, layout: { mosaic } }) => {
  if (mosaic.pattern !== 'pinwheel') return [];
  const stops = station.movement_limits.frame_stops;
  return stops && 'turns' in stops ? [] : warn('no_turning_back', null);
};

/** Everything that may stand in the way, the gravest first. */
const LOOKS: readonly Look[] = [
  standing,
  noFrames,
  leanTurnedAway,
  focusLost,
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
export const findingsIn = (given: Omit<Looked, 'joined'>): MosaicFinding[] =>
  worstFirst(lookedOver(LOOKS, { ...given, joined: joinedOf(given.layout) }));
