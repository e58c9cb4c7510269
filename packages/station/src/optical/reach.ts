import {
  distanceAt,
  focusReach,
  leastDistanceMm,
  magnificationAt,
  type FocusingLens,
  type Leaned,
  type Reach,
} from '@gangway/optics';
import { combinedOf, focusesBehind, ownFocusing } from '../document/focusing.js';
import type { Lengths } from '../document/lengths.js';
import type { RigParts } from '../document/rig-parts.js';

/**
 * Factor between the magnification of the lens that is focused and that at the movements.
 * @param combined of the multipliers before the movements
 */
export const aheadOfFocus = (rig: RigParts, combined: number): number =>
  combined === 1 || focusesBehind(rig) ? 1 : combined;

/** How near and far the rig focuses, told of the lens that is focused, before any factor behind it. */
export function reachOf(rig: RigParts, lengths: Lengths): Reach {
  const own = ownFocusing(rig, lengths);
  const f = rig.lens.focal_length_mm;
  if (!focusesBehind(rig)) return focusReach(f, lengths.bareExcessMm, own);
  const combined = combinedOf(rig.chain);
  const [least, greatest] = lengths.bareExcessMm;
  return focusReach(
    f * combined,
    [least * combined ** 2, greatest * combined ** 2],
    typeof own === 'string'
      ? own
      : {
          focalLengthMm: own.focalLengthMm * combined,
          magnification: own.magnification * combined,
          gapMm: own.gapMm,
        },
  );
}

export interface FocusEnds {
  /** Least distance from the sensor that can be given, mm. */
  readonly nearMm: number;
  /** Greatest, Infinity where infinity is reached. */
  readonly farMm: number;
}

/** Ends of the distance scale, lens and back leaned. */
export function focusEnds(
  { reach, focusing: lens }: { readonly reach: Reach; readonly focusing: FocusingLens },
  leaned: Leaned,
): FocusEnds {
  const least = leastDistanceMm(lens, leaned);
  /** Straight ahead, with the lens where a straight one has magnification m; null past infinity. */
  const at = (f: number, m: number): { mm: number; m: number } | null => {
    const v = leaned.perMm * f * (1 + m) + leaned.plusMm;
    const there = magnificationAt(f, leaned.axisZ, v);
    return there > 1e-12 ? { mm: distanceAt(f, leaned.axisZ, v), m: there } : null;
  };
  const { greatestM, leastM } = reach;
  const closest =
    greatestM === null ? null : at(lens.close?.focalLengthMm ?? lens.focalLengthMm, greatestM);
  // Past life size a distance no longer tells one setting; the magnification does.
  const nearMm = Math.max(least, closest !== null && closest.m <= 1 ? closest.mm : 0);
  const farthest = leastM > 0 ? at(lens.focalLengthMm, leastM) : null;
  return { nearMm, farMm: Math.max(nearMm, farthest?.mm ?? Infinity) };
}
