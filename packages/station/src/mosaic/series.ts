import type { Station } from '../document/station.js';
import { mechanicsOf, turningAt, turningOf, type Turning } from '../optical/turning.js';
import { atLaidFrame, type Layout } from './layout.js';

/** What turns on the way through the frames of a mosaic. */

/** Frames of more series than this are looked at one by one no further. */
const MOST_ANGLES = 144;

const stationsOf = (station: Station, layout: Layout): Station[] =>
  layout.frames.map((_, i) => atLaidFrame(station, layout, i));

/**
 * The one setting of what turns at which every frame is had, lean and all, as it stands at the frame
 * that is shifted furthest; null where each frame has to be turned to.
 */
export function seriesTurn(station: Station, layout: Layout): Turning | null {
  const made = mechanicsOf(station);
  if (!made?.shift || layout.frames.length === 0 || layout.carrier?.turns !== true) return null;
  const all = stationsOf(station, layout);
  const own = all.map((each) => turningOf(each)!);
  const tiltDeg = own[0]!.tiltAngleDeg;
  const angles = [
    ...new Set(
      made.stops.length > 0
        ? made.stops
        : own.flatMap(({ angleDeg }) => [angleDeg, (angleDeg + 180) % 360]),
    ),
  ].slice(0, MOST_ANGLES);
  // Forwards before back, each angle only for as long as it serves.
  let back: Turning[] | null = null;
  for (const deg of angles) {
    const turned = turnedAll(all, deg, tiltDeg);
    if (!turned) continue;
    if (turned[0]!.tiltDeg >= 0) return furthest(turned);
    back ??= turned;
  }
  return back && furthest(back);
}

/** Every frame at one angle; null where it does not serve them all. */
function turnedAll(all: readonly Station[], deg: number, tiltDeg: number | null): Turning[] | null {
  const turned: Turning[] = [];
  for (const each of all) {
    const there = turningAt(each, deg, tiltDeg);
    if (!there.reached) return null;
    turned.push(there);
  }
  return turned;
}

const furthest = (turned: readonly Turning[]): Turning =>
  turned.reduce((a, b) => (Math.abs(b.shiftMm) > Math.abs(a.shiftMm) ? b : a));

/** Less lean than this is none, degrees. */
const LEAN_SEEN = 0.05;

/** Frames at which a lean is lost, for what shifts them turns it away; from 0. */
export function leanLost(station: Station, layout: Layout): number[] {
  const made = mechanicsOf(station);
  const { tilt_deg, swing_deg } = station.movements;
  if (!made?.shift || !made.tilt || layout.carrier?.turns !== true) return [];
  if (Math.hypot(tilt_deg, swing_deg) < LEAN_SEEN || seriesTurn(station, layout)) return [];
  return stationsOf(station, layout).flatMap((each, i) => (turningOf(each)!.reached ? [] : [i]));
}
