import { focalLengthAtSetting } from './breathing.js';

/**
 * The mechanical chain from lens to sensor. All lengths along the axis, mm. The flange is the face
 * the lens is screwed on by; its register is the distance from there to the sensor at infinity.
 */

/** Play in flange distances below which infinity counts as reached, mm: rounding, not engineering. */
export const REGISTER_PLAY_MM = 1e-6;

/** Thickness of the adapter that puts a lens at its own register: negative when none can exist. */
export const adapterThicknessMm = (lensRegisterMm: number, bodyRegisterMm: number): number =>
  lensRegisterMm - bodyRegisterMm;

/**
 * Draw between the standards: flange focal distance, plus the extension for the focus, plus a
 * board's recess, less a board's extension, less what stands behind the rear standard.
 * @param boardOffsetMm positive for an extension board, negative for a recessed one
 */
export const bellowsDrawMm = (
  flangeFocalMm: number,
  extensionMm: number,
  boardOffsetMm: number,
  behindMm = 0,
): number => flangeFocalMm + extensionMm - boardOffsetMm - behindMm;

export interface Reach {
  readonly reachesInfinity: boolean;
  /** The rig can go nearer than infinity's setting at the far end. */
  readonly pastInfinity: boolean;
  /** From the sensor, mm; Infinity when infinity is reached; null when nothing can be focused. */
  readonly farthestMm: number | null;
  /** The nearest at any reachable draw, from the sensor, mm; null: not known, or nothing can be focused. */
  readonly closestMm: number | null;
  readonly largestMagnification: number | null;
  /** Magnifications (the lens's own, before any converter) at both ends; null: no end known. */
  readonly leastM: number;
  readonly greatestM: number | null;
}

/** A lens at its closest: focal length acting there, magnification, gap between its principal points. */
export interface ClosestSetting {
  readonly focalLengthMm: number;
  readonly magnification: number;
  readonly gapMm: number;
}

/** Distance from the sensor at magnification m of a thin lens: f (2 + m + 1/m); Infinity at m = 0. */
export const distanceAtMagnificationMm = (focalLengthMm: number, m: number): number =>
  m <= 0 ? Infinity : focalLengthMm * (2 + m + 1 / m);

/** The nearest thing between two magnifications: at life size, 4 f, where that lies between them. */
const nearestOf = (focalLengthMm: number, leastM: number, greatestM: number): number =>
  distanceAtMagnificationMm(focalLengthMm, Math.min(greatestM, Math.max(1, leastM)));

/** Settings of a lens's own focusing that are looked at once it may pass life size. */
const SETTINGS = 64;

/** The nearest thing at any setting of lens and draw, from the sensor, mm. */
function nearestSetting(
  focalLengthMm: number,
  close: ClosestSetting | null,
  [least, greatest]: readonly [number, number],
): number {
  if (!close) return nearestOf(focalLengthMm, least / focalLengthMm, greatest / focalLengthMm);
  const { focalLengthMm: f, magnification, gapMm } = close;
  const at = (own: number, acting: number): number =>
    nearestOf(acting, own + least / acting, own + greatest / acting) + gapMm;
  // Up to life size things only come nearer as the lens is drawn out.
  if (magnification + greatest / f <= 1) return at(magnification, f);
  const lens = { focalLengthMm, close: f < focalLengthMm ? close : null, excessMm: 0 };
  let nearest = Infinity;
  for (let i = 1; i <= SETTINGS; i++) {
    const own = (magnification * i) / SETTINGS;
    const mm = at(own, focalLengthAtSetting(lens, own));
    if (mm > 0) nearest = Math.min(nearest, mm);
  }
  return nearest;
}

/**
 * How far and how near a rig focuses.
 * @param excess least and greatest distance of the sensor behind the lens's own register, mm;
 *   equal where nothing draws out
 * @param own what the lens's own focusing adds: its closest setting, `none` without a helicoid,
 *   `unknown` where there is one of unknown travel
 */
export function focusReach(
  focalLengthMm: number,
  excess: readonly [number, number],
  own: ClosestSetting | 'none' | 'unknown',
): Reach {
  const [least, greatest] = excess;
  const close = typeof own === 'string' ? null : own;
  const leastM = Math.abs(least) <= REGISTER_PLAY_MM ? 0 : least / focalLengthMm;
  const farAt = close ? close.focalLengthMm : focalLengthMm;
  const ownM = close ? close.magnification : 0;
  const greatestM = own === 'unknown' ? null : ownM + greatest / farAt;
  const nowhere = greatestM !== null && greatestM < -REGISTER_PLAY_MM / focalLengthMm;
  const reachesInfinity = leastM <= 0 && !nowhere;
  const focuses = greatestM !== null && greatestM > 0;
  return {
    reachesInfinity,
    pastInfinity: least < -REGISTER_PLAY_MM && !nowhere,
    farthestMm: nowhere ? null : distanceAtMagnificationMm(focalLengthMm, leastM),
    closestMm: focuses ? nearestSetting(focalLengthMm, close, excess) : null,
    largestMagnification: greatestM === null ? null : Math.max(0, greatestM),
    leastM,
    greatestM,
  };
}

/**
 * Turning moment of what hangs in front of the tripod foot, N·m.
 * @param parts mass in g and distance of its centre ahead of the foot in mm (behind: negative)
 */
export const momentNm = (parts: readonly { massG: number; aheadMm: number }[]): number =>
  parts.reduce((sum, { massG, aheadMm }) => sum + (massG / 1000) * 9.81 * (aheadMm / 1000), 0);

/**
 * Clear diameter a throat must have for the whole stop to be seen from a frame corner.
 * The stop (diameter P, at the image distance v) and the corner are joined by a cone that crosses
 * the throat, z ahead of the sensor and centred on it: similar triangles.
 * @returns NaN when the throat does not lie between stop and sensor
 */
export function throatNeededMm(
  stopDiameterMm: number,
  imageDistanceMm: number,
  throatAheadMm: number,
  corners: readonly { x: number; y: number }[],
  lensOffset: { x: number; y: number },
): number {
  const share = throatAheadMm / imageDistanceMm;
  if (!(share > 0 && share < 1)) return NaN;
  const furthest = Math.max(
    ...corners.map(({ x, y }) =>
      Math.hypot(x * (1 - share) + lensOffset.x * share, y * (1 - share) + lensOffset.y * share),
    ),
  );
  return 2 * furthest + stopDiameterMm * share;
}
