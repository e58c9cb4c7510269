import { radians } from '@gangway/optics';
import type { Plan, PlannedFrame, PlannedPair } from '@gangway/frames';
import type { Station } from '../document/station.js';
import { depthsOf, type Depths } from './depths.js';
import { layoutOf, type LaidFrame, type Layout, type Neighbours } from './layout.js';
import { lensStays, partsMm } from './parallax.js';

/** A station's mosaic in the terms that pictures are proved in. */

/** Where a frame lies; of a turn along the cylinder that frames are rolled onto. */
function plannedFrame(
  { imageDistanceMm: v, turn }: Layout,
  frame: LaidFrame,
  i: number,
): PlannedFrame {
  return {
    order: i + 1,
    xMm: turn ? v * radians(frame.yawDeg ?? 0) : frame.centre.x,
    yMm: turn ? 0 : frame.centre.y,
    rotationDeg: frame.rotationDeg,
  };
}

/** What the travel of the lens does between two frames. Where nothing says how near things are, anything. */
function plannedPair(layout: Layout, depths: Depths | null, { a, b }: Neighbours): PlannedPair {
  if (lensStays(layout)) return { a, b, partsMm: 0, farMm: 0 };
  const [one, other] = [layout.frames[a]!.set, layout.frames[b]!.set];
  const travel = Math.hypot(one.shiftMm - other.shiftMm, one.riseMm - other.riseMm);
  const v = layout.imageDistanceMm;
  const parts = depths && partsMm(v, layout.s.imageDistanceMm, travel, depths);
  if (!depths || parts === null) return { a, b, partsMm: Infinity, farMm: 0 };
  const toFar = depths.farMm - layout.s.imageDistanceMm;
  return { a, b, partsMm: parts, farMm: (v * travel) / toFar };
}

/** @returns null where the station has no mosaic, or nothing is laid out */
export function proofPlan(station: Station): Plan | null {
  if (!station.mosaic) return null;
  const layout = layoutOf(station);
  if (layout.frames.length === 0) return null;
  const depths = depthsOf(station, layout);
  const { width_px, height_px, orientation } = station.back;
  return {
    frames: layout.frames.map((frame, i) => plannedFrame(layout, frame, i)),
    pairs: layout.neighbours.map((pair) => plannedPair(layout, depths, pair)),
    widthMm: layout.frame.widthMm,
    heightMm: layout.frame.heightMm,
    widthPx: (orientation === 'portrait' ? height_px : width_px) ?? null,
    lensTravels: !lensStays(layout),
    cylinderMm: layout.turn ? layout.imageDistanceMm : null,
  };
}
