import type { MovementLimits } from '../document/station.js';
import type { Rig } from '../kit/rig-document.js';

/** Where the true zero of a lean is kept: with the part of the rig that leans. */

type Lean = 'tilt_deg' | 'swing_deg';

/** A scale off by less than this is not corrected, degrees: nobody sets finer. */
export const LEAST_ZERO_DEG = 0.02;

const leans = (movement: MovementLimits | undefined, lean: Lean): boolean => movement !== undefined && (movement[lean] !== undefined || movement.radial_tilt_deg !== undefined); // prettier-ignore

function zeroed(movement: MovementLimits, lean: Lean, deg: number): MovementLimits {
  const { zero: { [lean]: _, ...others } = {}, ...rest } = movement;
  const zero = Math.abs(deg) < LEAST_ZERO_DEG ? others : { ...others, [lean]: deg };
  return Object.keys(zero).length > 0 ? { ...rest, zero } : rest;
}

/**
 * A rig with what its scale reads when it is straight; 0 takes it away.
 * @returns null where nothing of the rig leans that way
 */
export function withZero(rig: Rig, lean: Lean, deg: number): Rig | null {
  const { lens } = rig;
  if (lens && leans(lens.movement, lean)) return { ...rig, lens: { ...lens, movement: zeroed(lens.movement!, lean, deg) } }; // prettier-ignore
  const at = rig.chain.findIndex((part) => 'movement' in part && leans(part.movement, lean));
  if (at < 0) return null;
  return {
    ...rig,
    chain: rig.chain.map((part, i) => i === at && 'movement' in part ? { ...part, movement: zeroed(part.movement!, lean, deg) } : part), // prettier-ignore
  };
}

/** What a rig's scale reads when it is straight, where that was measured. */
export const zeroOf = ({ lens, chain }: Pick<Rig, 'lens' | 'chain'>, lean: Lean): number | null =>
  [lens, ...chain].map((part) => (part && 'movement' in part ? part.movement?.zero?.[lean] : undefined)).find((deg) => deg !== undefined) ?? null; // prettier-ignore
