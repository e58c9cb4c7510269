import type { RigFacts } from '../../optical/facts.js';
import { partName } from './mounting.js';
import { named, type Finding, type SettingCheck } from './problem.js';

/** A stop can only be set by a ring, or by a body that speaks to the lens. */
export const irisStuck: SettingCheck<'iris_stuck'> = ({ facts, station: { aperture } }) => {
  const { lens, chain, contacts } = facts;
  const openF = lens.f_min;
  const planned = Math.abs(aperture - openF) > 1e-6;
  if (lens.iris === 'none') {
    if (!planned) return [];
    return [{ severity: 'stop', joint: 0, values: { by: 'no_iris', openF, plannedF: aperture } }];
  }
  if (lens.iris !== 'electronic' || contacts === 'yes') return [];
  if (contacts === 'unknown') return [perhapsStuck(facts)];
  const at = chain.findIndex((part) => part.kind !== 'board' && part.contacts !== true);
  const part = chain[at];
  return [
    {
      severity: planned ? 'stop' : 'warn',
      joint: at < 0 ? chain.length : at,
      values: { by: 'no_contacts', openF, name: part ? partName(part) : 'the body' },
    },
  ];
};

/** Nobody said whether the contacts are carried through: nothing to rely on. */
function perhapsStuck({ lens, chain, back }: RigFacts): Finding<'iris_stuck'> {
  const at = chain.findIndex((part) => part.kind !== 'board' && part.contacts === undefined);
  const part = chain[at];
  return {
    severity: 'warn',
    joint: at < 0 ? chain.length : at,
    values: {
      by: 'unknown',
      openF: lens.f_min,
      name: part ? partName(part) : named(back, 'the back'),
    },
  };
}
