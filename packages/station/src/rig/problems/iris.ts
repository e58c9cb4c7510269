import { fStop } from '../../words/format.js';
import { contactsReach } from '../../document/chain.js';
import { partName } from './mounting.js';
import type { Check } from './problem.js';

/** A stop can only be set by a ring, or by a body that speaks to the lens. */
export const irisStuck: Check = ({ station }) => {
  const { lens, chain, aperture } = station;
  const open = fStop(lens.f_min);
  const planned = Math.abs(aperture - lens.f_min) > 1e-6;
  if (lens.iris === 'none') {
    if (!planned) return [];
    return [
      {
        severity: 'stop',
        joint: 0,
        message: `The lens has no iris: it works at ${open} only, not at ${fStop(aperture)}.`,
        cure: `Plan at ${open}, or use a lens with an iris.`,
      },
    ];
  }
  if (lens.iris !== 'electronic' || contactsReach(station)) return [];
  const at = chain.findIndex((part) => part.kind !== 'board' && part.contacts !== true);
  const part = chain[at];
  return [
    {
      severity: planned ? 'stop' : 'warn',
      joint: at < 0 ? chain.length : at,
      message: `The iris is set electronically and ${part ? partName(part) : 'the body'} carries no contacts: it is stuck at ${open}.`,
      cure: `Plan at ${open}, use an adapter with contacts, or a lens with an aperture ring.`,
    },
  ];
};
