import { bellowsDrawMm } from '@gangway/optics';
import type { ChainPart } from '../document/station.js';
import type { Lengths } from '../document/lengths.js';
import type { Setup } from './setup.js';

/** How far bellows and standards are drawn out. */

/** Factor of the multipliers that stand between bellows and movements. */
function behindBellows(chain: readonly ChainPart[], combined: number): number {
  const before = chain.slice(
    0,
    chain.findIndex((part) => part.kind === 'view_camera'),
  );
  const ahead = before.reduce(
    (all, part) => all * (part.kind === 'multiplier' ? part.factor : 1),
    1,
  );
  return combined / ahead;
}

/** How far the standard stands out past infinity’s place at the focus set, mm along the bed. */
export const extensionSetMm = ({ facts, bedMm, focalLengthMm, combined }: Setup): number =>
  (bedMm - focalLengthMm) / behindBellows(facts.chain, combined) ** 2;

/** Draw of the bellows with the lens so far past infinity’s place, mm between the standards. */
export const drawMm = (
  { flangeFocalMm, boardOffsetMm, fixedMm }: Lengths,
  extensionMm: number,
): number => bellowsDrawMm(flangeFocalMm ?? 0, extensionMm, boardOffsetMm, fixedMm);
