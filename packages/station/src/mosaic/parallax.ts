import type { Point } from '@gangway/optics';
import type { Station } from '../document/station.js';
import { depthsOf, type Depths } from './depths.js';
import type { Layout, Neighbours } from './layout.js';

/** How near and far part between two frames because the lens went from one place to another. */
export interface Parallax {
  /** The two neighbours that part most; null where there are none. */
  readonly pair: Neighbours | null;
  /** How far the lens goes between them, mm as set. */
  readonly travelMm: number;
  /** Near against far on the back, mm; null where nothing says how far things are. */
  readonly partsMm: number | null;
}

/** Whether the lens stays where it is, on its own or because the body is moved back. */
export const lensStays = ({ mosaic, carrier }: Layout): boolean =>
  mosaic.moves !== 'lens' || ('body_follows' in mosaic && mosaic.body_follows === true) || !carrier;

const apart = (a: Point, b: Point): number => Math.hypot(a.x - b.x, a.y - b.y);

/** Between the two neighbouring frames that part most. */
export function parallaxOf(layout: Layout, depths: Depths | null): Parallax {
  const { neighbours, frames, mosaic, imageDistanceMm: v, s } = layout;
  if (mosaic.moves !== 'lens' || neighbours.length === 0) {
    return { pair: null, travelMm: 0, partsMm: 0 };
  }
  const travel = ({ a, b }: Neighbours): number => {
    const [one, other] = [frames[a]!.set, frames[b]!.set];
    return apart({ x: one.shiftMm, y: one.riseMm }, { x: other.shiftMm, y: other.riseMm });
  };
  const pair = neighbours.reduce((most, each) => (travel(each) > travel(most) ? each : most));
  const travelMm = travel(pair);
  if (lensStays(layout)) return { pair, travelMm, partsMm: 0 };
  return { pair, travelMm, partsMm: depths && partsMm(v, s.imageDistanceMm, travelMm, depths) };
}

/**
 * Two depths part by v × travel × (1/z₁ − 1/z₂) when the pupil travels across.
 * @param v image distance on the back
 * @param toSensorMm from the sensor plane to the lens centre, which depths are told from
 * @returns mm on the back; null where the nearest thing lies behind the lens
 */
export function partsMm(
  v: number,
  toSensorMm: number,
  travelMm: number,
  { nearMm, farMm }: Pick<Depths, 'nearMm' | 'farMm'>,
): number | null {
  const [near, far] = [nearMm - toSensorMm, farMm - toSensorMm];
  return near > 0 ? v * travelMm * (1 / near - 1 / far) : null;
}

/**
 * How far the pupil may be off the axis of turning for near and far to part by no more than this:
 * a turn by a step carries it by offset × 2 sin(step/2).
 * @returns mm; Infinity where nothing parts
 */
export function nodalToleranceMm(
  { turn, imageDistanceMm: v, s }: Layout,
  depths: Depths,
  allowedMm: number,
): number {
  if (!turn || turn.yawsDeg.length < 2) return Infinity;
  const one = partsMm(v, s.imageDistanceMm, 1, depths);
  const perMm = (one ?? 0) * 2 * Math.sin((turn.stepDeg * Math.PI) / 360);
  return perMm > 0 ? allowedMm / perMm : Infinity;
}

/** How well the pupil has to stand over the axis of a turn for one pixel; null where nothing says. */
export function pupilWithinMm(station: Station, layout: Layout): number | null {
  const depths = layout.turn && depthsOf(station, layout);
  if (!depths || layout.pixelPitchMm === null) return null;
  const within = nodalToleranceMm(layout, depths, layout.pixelPitchMm);
  return Number.isFinite(within) ? within : null;
}
