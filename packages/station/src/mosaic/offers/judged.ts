import { covers, spend, type Cone, type Effort } from '@gangway/optics';
import type { Mosaic, Station } from '../../document/station.js';
import type { Limit } from '../../words/wish.js';
import { findable, withinCarrier } from '../carrier.js';
import { joinedOf } from '../joined.js';
import { framesAsked, layoutOf, type Layout } from '../layout.js';
import { cornersPast } from '../light.js';
import { mosaicPicture, type MosaicPicture } from '../picture.js';

/** A layout that was tried: it can be set, is lit, hangs together, and gives a picture. */
export interface Judged {
  readonly after: Station;
  readonly layout: Layout;
  readonly picture: MosaicPicture;
}

const SHARE_SLACK = 1e-3;

/** What laying out and joining costs for each frame, and for each pair of frames that may lie anywhere. */
const [FRAME_STEPS, PAIR_STEPS] = [1000, 50];

function stepsFor({ mosaic }: Station): number {
  const frames = mosaic ? framesAsked(mosaic) : 1;
  const pairs = mosaic?.pattern === 'grid' ? frames : (frames * frames) / 2;
  return FRAME_STEPS * frames + PAIR_STEPS * pairs;
}

/** What is asked of every layout that is tried, and what trying may still cost. */
export interface Asked {
  /** Least overlap, as a share of the frame's side. */
  readonly overlap: number;
  readonly sharp: boolean;
  readonly effort: Effort;
}

/**
 * Tries a layout on the gear: every frame within reach, at stops and detents, lit to its corners (or
 * in the core) and joined to the rest by the overlap that is wanted. Null where it fails, and where
 * nothing is left of the budget to try it with.
 */
export function judged(after: Station, { overlap, sharp, effort }: Asked): Judged | null {
  if (!spend(effort, stepsFor(after))) return null;
  const layout = layoutOf(after);
  const { frames, carrier, mosaic } = layout;
  const cone = sharp ? layout.core : layout.cone;
  const turn = mosaic.pattern === 'turn';
  if (!turn && !carrier) return null;
  // A turning back goes round by itself: its own stops are the reach it has.
  const reached = (i: number): boolean =>
    turn ||
    (findable(carrier!, frames[i]!.set, frames[i]!.rotationDeg) &&
      (mosaic.pattern === 'pinwheel' || withinCarrier(carrier!, frames[i]!.set)));
  if (!frames.every((frame, i) => cornersPast(cone, frame).length === 0 && reached(i))) return null;
  const { gap, weakest } = joinedOf(layout);
  if (gap || (weakest && weakest.share < overlap - SHARE_SLACK && mosaic.pattern !== 'free')) {
    return null;
  }
  const picture = mosaicPicture(layout);
  return picture && { after, layout, picture };
}

/** As near to an edge as makes no difference, mm; on detents nearer cannot be told. */
const TOUCHING_MM = 0.2;
const touching = ({ carrier }: Layout): number => Math.max(TOUCHING_MM, carrier?.detentMm ?? 0);

const touches = (cone: Cone, layout: Layout): boolean =>
  layout.frames.some(({ corners, centre }) =>
    corners.some((corner) => {
      const away = Math.hypot(corner.x - centre.x, corner.y - centre.y);
      const t = 1 + touching(layout) / away;
      return !covers(cone, {
        x: centre.x + t * (corner.x - centre.x),
        y: centre.y + t * (corner.y - centre.y),
      });
    }),
  );

/** What keeps a layout from being larger; null where nothing near does. */
export function limitOf(station: Station, layout: Layout, sharp: boolean): Limit | null {
  const { carrier, frames, mosaic } = layout;
  if (touches(sharp ? layout.core : layout.cone, layout)) {
    return { by: sharp ? 'core' : 'circle', aperture: station.aperture };
  }
  if (!carrier || mosaic.moves === 'camera') return null;
  const what = carrier.standard === 'back' ? 'back' : 'lens';
  const near = touching(layout);
  // What cannot move at all ends nothing.
  const at = (value: number, [low, high]: readonly [number, number]): boolean =>
    high > low && (value < low + near || value > high - near);
  const ends = frames.map(({ set }) => ({
    shift: at(set.shiftMm, carrier.shift),
    rise: at(set.riseMm, carrier.rise),
    radial: Math.hypot(set.shiftMm, set.riseMm) >= carrier.radialMm - near,
  }));
  const ended = (by: 'shift' | 'rise'): Limit => {
    const [lowMm, highMm] = carrier[by];
    return { by, what, lowMm, highMm };
  };
  if (ends.some(({ shift }) => shift)) return ended('shift');
  if (ends.some(({ rise }) => rise)) return ended('rise');
  if (ends.some(({ radial }) => radial)) return { by: 'travel', what, mostMm: carrier.radialMm };
  return carrier.stops ? { by: 'stops', what } : null;
}

/** What goes from one layout of a station to the next. */
export function baseOf(
  station: Station,
): Pick<Mosaic, 'overlap' | 'output' | 'near_m' | 'far_m' | 'seconds_each' | 'bits' | 'wish'> {
  const { overlap, output, near_m, far_m, seconds_each, bits, wish } = station.mosaic ?? {};
  const kept = { overlap, output, near_m, far_m, seconds_each, bits, wish };
  return Object.fromEntries(
    Object.entries(kept).filter(([, value]) => value !== undefined),
  ) as typeof kept;
}
