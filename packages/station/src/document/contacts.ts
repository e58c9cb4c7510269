import type { RigParts } from './rig-parts.js';
import type { ChainPart } from './station.js';

/**
 * Whether the electrical contacts reach from the body to the lens. Bellows carry none unless they
 * are said to; a lens straight on a body speaks to it unless that is said to have none.
 */
export function contactsKnown({ chain, back }: RigParts): 'yes' | 'no' | 'unknown' {
  const parts = chain.filter(({ kind }) => kind !== 'board') as Exclude<
    ChainPart,
    { kind: 'board' }
  >[];
  const broken = parts.some(
    ({ kind, contacts }) => contacts === false || (kind === 'view_camera' && contacts !== true),
  );
  if (broken || back.contacts === false) return 'no';
  const through = parts.every(({ contacts }) => contacts === true);
  return parts.length === 0 || (through && back.contacts === true) ? 'yes' : 'unknown';
}

/** The same where what is not known is taken to be there. */
export const contactsReach = (rig: RigParts): boolean => contactsKnown(rig) !== 'no';
