import type { Setup } from '../optical/setup.js';
import { assumed, type Assumption } from '../words/assumptions.js';

/** A lens in the hand: how far its own register leaves it from the body, and where they would touch. */
export function heldAssumed({ station: { held_off: hand } }: Setup): Assumption[] {
  if (!hand) return [];
  const { lens_register_mm: lens, body_register_mm: body } = hand;
  const all: Assumption[] = [];
  if (lens === undefined || body === undefined) {
    const pointer =
      lens === undefined ? '/held_off/lens_register_mm' : '/held_off/body_register_mm';
    all.push(assumed('held_registers', null, pointer, null, ['held']));
  }
  if (hand.flange_diameter_mm === undefined && hand.throat_mm === undefined) {
    all.push(assumed('held_throat', null, '/held_off/throat_mm', null, ['clearance']));
  }
  return all;
}
