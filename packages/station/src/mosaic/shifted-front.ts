import type { Station } from '../document/station.js';
import { fixed, mm } from '../words/format.js';
import type { Layout } from './layout.js';
import { mostOf } from '@gangway/optics';

/** A front that weighs this much, so far off its middle, sags or tips. */
const HEAVY_G = 700;
const FAR_MM = 8;

/** How far a heavy front hangs out to the side; null where it does not matter. */
export function shiftedFrontSaid({ lens }: Station, { mosaic, frames }: Layout): string | null {
  if (mosaic.moves !== 'lens' || lens.mass_g === undefined || lens.mass_g < HEAVY_G) return null;
  const far = mostOf(frames.map(({ set }) => Math.hypot(set.shiftMm, set.riseMm)));
  return far < FAR_MM
    ? null
    : `The lens, ${fixed(lens.mass_g, 0)} g, hangs ${mm(far, 0)} off its middle: lock every clamp and look whether the frame sags.`;
}
