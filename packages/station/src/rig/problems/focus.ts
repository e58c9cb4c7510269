import { standsBare } from '../../document/focusing.js';
import type { ChainPart } from '../../document/station.js';
import type { RigFacts } from '../../optical/facts.js';
import { missedMm } from '../../optical/missed.js';
import type { OtherThickness, RigPlace } from '../../words/rig-problems.js';
import { partName } from './mounting.js';
import type { GearCheck, SettingCheck } from './problem.js';

/** An adapter in the chain, other than what may not be made thinner. */
const adapterAt = (chain: readonly ChainPart[]): number =>
  chain.findLastIndex((part) => part.kind === 'adapter');

/** The part whose length is wrong, and what it ought to be. */
function otherThickness({
  chain,
  lengths,
}: RigFacts): RigPlace & { readonly other: OtherThickness } {
  const [excess] = lengths.excessMm;
  const at = adapterAt(chain);
  const adapter = chain[at];
  if (adapter?.kind === 'adapter') {
    const thicknessMm = adapter.thickness_mm - excess;
    if (thicknessMm >= 0) {
      return {
        joint: at,
        other: { do: 'replace', thicknessMm, nowMm: adapter.thickness_mm },
        want: { kind: 'adapter', thicknessMm },
      };
    }
  }
  if (excess < 0) {
    return {
      joint: at < 0 ? chain.length : at,
      other: { do: 'add', thicknessMm: -excess },
      want: { kind: 'adapter', thicknessMm: -excess },
    };
  }
  return { joint: chain.length, other: { do: 'take', thicknessMm: excess } };
}

export const noInfinity: GearCheck<'no_infinity'> = (facts) => {
  const { reach, lengths } = facts;
  if (lengths.bellows || reach.leastM <= 0) return [];
  const { other, ...place } = otherThickness(facts);
  const { farthestMm } = reach;
  return [
    {
      severity: 'warn',
      values: { excessMm: lengths.excessMm[0], farthestMm, other },
      ...place,
    },
  ];
};

export const pastInfinity: GearCheck<'past_infinity'> = (facts) => {
  const { reach, lengths } = facts;
  if (lengths.bellows || !reach.pastInfinity) return [];
  const { other, ...place } = otherThickness(facts);
  return [{ severity: 'warn', values: { excessMm: lengths.excessMm[0], other }, ...place }];
};

export const focusOutOfReach: SettingCheck<'focus_out_of_reach'> = (s) => {
  const { lengths, reach } = s.facts;
  if (lengths.bellows) return [];
  const { greatestM, farthestMm, closestMm } = reach;
  const straight = s.axis[2] === 1 && s.stance.still;
  const stop = { severity: 'stop', joint: null } as const;
  if (greatestM !== null && greatestM < 0) {
    return [{ ...stop, values: { past: 'everything', excessMm: lengths.excessMm[1] } }];
  }
  const missed = missedMm(s);
  if (missed === 0) return [];
  if (missed < 0) {
    return straight || farthestMm !== Infinity
      ? [{ ...stop, values: { past: 'far', farthestMm, straight } }]
      : [{ ...stop, values: { past: 'far_leaned', byMm: -missed } }];
  }
  const largest = greatestM! * s.ahead * s.factor;
  return [
    { ...stop, values: { past: 'near', closestMm, largest, byMm: straight ? null : missed } },
  ];
};

export const focusByWire: GearCheck<'focus_by_wire'> = ({ lens, chain, contacts }) => {
  if (lens.focus_by !== 'wire' || contacts === 'yes') return [];
  const at = chain.findIndex((part) => part.kind !== 'board' && part.contacts !== true);
  const part = chain[at];
  return [
    {
      severity: 'warn',
      joint: at < 0 ? chain.length : at,
      values: { name: part ? partName(part) : 'the body', known: contacts === 'no' },
    },
  ];
};

export const nothingToFocusWith: GearCheck<'nothing_to_focus_with'> = (facts) => {
  const { lens, lengths } = facts;
  // Told by its figures alone it stands on a bed, or on a rail, that nobody described.
  if (lens.focus_by !== 'bellows' || lengths.bellows || standsBare(facts)) return [];
  if (lengths.excessMm[1] > lengths.excessMm[0]) return [];
  return [{ severity: 'warn', joint: 0, values: null }];
};
