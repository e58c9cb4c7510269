import type { Xy } from './plan.js';
import { LEAST_MATCHED, PARALLAX_PX, type PairFound } from './pair.js';

/** What became of an overlap, of the worst first. */
export const VERDICTS = ['unsure', 'moving', 'parallax', 'slipped', 'light', 'still'] as const;
export type Verdict = (typeof VERDICTS)[number];

/** Off the plan by this, whichever is more. */
export const SLIP_MM = 0.1;
export const SLIP_PX = 3;
/** Exposure differs by this, stops. */
export const LIGHT_STOPS = 1 / 3;
/** Tiles that fit, of those with something to see; below it the overlap as a whole says nothing. */
const LEAST_SHARE = 0.35;
/** More than this left over, pixels, is not still, whatever the reason. */
const STILL_PX = 1;
/** A region that goes along the travel is taken for a near thing from this share of the tiles on. */
const NEAR_SHARE = 0.25;

export interface Judged {
  readonly found: PairFound;
  readonly tiles: number;
  /** Off the plan, less what even the farthest thing goes, pixels. */
  readonly slipPx: number;
  readonly pitchMm: number;
  readonly lensTravels: boolean;
  /** What near and far are expected to part by, pixels; null where nothing says. */
  readonly expectedPx: number | null;
}

/** The first that applies. */
export function verdictOf({ found, slipPx, pitchMm, lensTravels, expectedPx }: Judged): Verdict {
  const { matched, seen, partsPx, region, stops, residualPx } = found;
  if (matched < LEAST_MATCHED || matched < LEAST_SHARE * seen) return 'unsure';
  const parts = partsPx >= PARALLAX_PX;
  if (region.length > 0 && region.length < matched) {
    if (!parts || !alongOnly(found)) return 'moving';
  }
  if (parts) {
    // A small region that goes along the travel, where nothing near can, moved by itself.
    const odd = found.left.filter(astray).length;
    const small = odd < NEAR_SHARE * matched;
    const more = expectedPx !== null && partsPx > 1.5 * expectedPx + PARALLAX_PX;
    return small && (!lensTravels || more) ? 'moving' : 'parallax';
  }
  if (slipPx > Math.max(SLIP_MM / pitchMm, SLIP_PX)) return 'slipped';
  if (stops !== null && Math.abs(stops) > LIGHT_STOPS) return 'light';
  return residualPx > STILL_PX ? 'unsure' : 'still';
}

/** Whether a tile disagrees with its overlap as a whole. */
export const astray = (left: Xy | null): boolean => left !== null && Math.hypot(left.x, left.y) > 1;

/** Whether the odd region is one that matched nothing, rather than one that went aside. */
const alongOnly = ({ region, left }: PairFound): boolean => region.every((i) => left[i] === null);

/**
 * All overlaps in one word: the worst that is known; where none is, unsure when frames hang loose.
 * @param loose whether some frame is tied to the rest by no overlap that says anything
 */
export function overall(verdicts: readonly Verdict[], loose: boolean): Verdict {
  const worst = VERDICTS.slice(1, -1).find((each) => verdicts.includes(each));
  return worst ?? (loose ? 'unsure' : 'still');
}
