import { setupOf } from '../optical/setup.js';
import { standingOf, stateOf } from '../optical/state.js';
import type { Station } from '../document/station.js';
import { movementsAsked, facadeView, framed } from './facade.js';
import { atLaidFrame, layoutOf, type Layout } from '../mosaic/layout.js';

const HAIR_MM = 1e-6;

/**
 * The frames at the corners of a grid. All others lie between them, and what light and mechanism
 * allow has no dents: where these four serve, every frame does.
 */
function outermost({ frames, mosaic }: Layout): number[] {
  if (mosaic.pattern !== 'grid' || frames.length === 0) return [];
  const last = frames.length - 1;
  const { columns = 1 } = mosaic;
  return [...new Set([0, columns - 1, frames.length - columns, last])];
}

/** Whether the frames of a station's grid, joined, hold the façade with its rooms. */
function joined(station: Station, layout: Layout): boolean {
  const { facade } = station;
  if (!facade) return true;
  const frames = outermost(layout).map((i) => setupOf(atLaidFrame(station, layout, i)));
  const asks = frames.map((s) => movementsAsked(facadeView(s, facade)));
  const some = (serves: (i: number) => boolean): boolean => frames.some((_, i) => serves(i));
  return (
    asks.every((each) => each !== null) &&
    some((i) => frames[i]!.set.riseMm >= asks[i]!.top - HAIR_MM) &&
    some((i) => frames[i]!.set.riseMm <= asks[i]!.foot + HAIR_MM) &&
    some((i) => frames[i]!.set.shiftMm >= asks[i]!.right - HAIR_MM) &&
    some((i) => frames[i]!.set.shiftMm <= asks[i]!.left + HAIR_MM)
  );
}

/**
 * Whether the façade is wholly in the picture as everything is set, within circle, filter ring
 * and mechanism; with a grid, in its frames together.
 */
export function framedWell(station: Station): boolean {
  if (station.mosaic?.pattern === 'grid') {
    const layout = layoutOf(station);
    return (
      layout.frames.length > 0 &&
      joined(station, layout) &&
      outermost(layout).every(
        (i) => standingOf(stateOf(atLaidFrame(station, layout, i))) !== 'outside',
      )
    );
  }
  return framed(setupOf(station)) && standingOf(stateOf(station)) !== 'outside';
}
