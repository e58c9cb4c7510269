import { fStop } from '../../words/format.js';
import { contactsKnown } from '../../document/chain.js';
import type { Station } from '../../document/station.js';
import { partName } from './mounting.js';
import { named, type Check, type Finding } from './problem.js';

/** A stop can only be set by a ring, or by a body that speaks to the lens. */
export const irisStuck: Check = ({ station }) => {
  const { lens, chain, aperture } = station;
  const planned = Math.abs(aperture - lens.f_min) > 1e-6;
  if (lens.iris === 'none') {
    if (!planned) return [];
    const open = fStop(lens.f_min);
    return [
      {
        severity: 'stop',
        joint: 0,
        message: `The lens has no iris: it works at ${open} only, not at ${fStop(aperture)}.`,
        cure: `Plan at ${open}, or use a lens with an iris.`,
      },
    ];
  }
  const reach = contactsKnown(station);
  if (lens.iris !== 'electronic' || reach === 'yes') return [];
  if (reach === 'unknown') return [perhapsStuck(station)];
  const open = fStop(lens.f_min);
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

/** Nobody said whether the contacts are carried through: nothing to rely on. */
function perhapsStuck({ lens, chain, back }: Station): Finding {
  const open = fStop(lens.f_min);
  const at = chain.findIndex((part) => part.kind !== 'board' && part.contacts === undefined);
  const part = chain[at];
  const name = part ? partName(part) : named(back, 'the back');
  return {
    severity: 'warn',
    joint: at < 0 ? chain.length : at,
    message: `The iris is set electronically, and whether ${name} carries the contacts is not known: without them it is stuck at ${open}.`,
    cure: `Look for contacts on ${name} and say so in the kit; until then plan at ${open}.`,
  };
}
