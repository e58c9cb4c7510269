import { REGISTER_PLAY_MM } from '@gangway/optics';
import { distance, mm, trimmed } from '../../words/format.js';
import type { ChainPart } from '../../document/station.js';
import { settingOf } from '../../optical/setup.js';
import { contactsKnown } from '../../document/chain.js';
import { partName } from './mounting.js';
import type { Asked, Check, Finding } from './problem.js';

/** An adapter in the chain, other than what may not be made thinner. */
const adapterAt = (chain: readonly ChainPart[]): number =>
  chain.findLastIndex((part) => part.kind === 'adapter');

/** The part whose length is wrong, in words, and what it ought to be. */
function otherThickness({ station, lengths }: Asked): Pick<Finding, 'cure' | 'want' | 'joint'> {
  const [excess] = lengths.excessMm;
  const at = adapterAt(station.chain);
  const adapter = station.chain[at];
  if (adapter?.kind === 'adapter') {
    const thicknessMm = adapter.thickness_mm - excess;
    if (thicknessMm >= 0) {
      return {
        joint: at,
        cure: `Use an adapter of ${mm(thicknessMm, 2)} instead of ${mm(adapter.thickness_mm, 2)}.`,
        want: { kind: 'adapter', thicknessMm },
      };
    }
  }
  if (excess < 0) {
    return {
      joint: at < 0 ? station.chain.length : at,
      cure: `Put an adapter of ${mm(-excess, 2)} between lens and body.`,
      want: { kind: 'adapter', thicknessMm: -excess },
    };
  }
  return {
    joint: station.chain.length,
    cure: `Take ${mm(excess, 2)} out between lens and body, or keep it for near work.`,
  };
}

export const noInfinity: Check = (asked) => {
  const { reach, lengths } = asked;
  if (lengths.bellows || reach.leastM <= 0) return [];
  const far = distance((reach.farthestMm ?? 0) / 1000, 'metric');
  return [
    {
      severity: 'warn',
      message: `Infinity is out of reach: the lens stands ${mm(lengths.excessMm[0], 2)} too far out and focuses to ${far} at most.`,
      ...otherThickness(asked),
    },
  ];
};

export const pastInfinity: Check = (asked) => {
  const { reach, lengths } = asked;
  if (lengths.bellows || !reach.pastInfinity) return [];
  return [
    {
      severity: 'warn',
      message: `The lens stands ${mm(-lengths.excessMm[0], 2)} too far in and focuses past infinity: its distance marks no longer tell.`,
      ...otherThickness(asked),
    },
  ];
};

const SLACK_M = 1e-6;

export const focusOutOfReach: Check = ({ lengths, reach, setup }) => {
  if (lengths.bellows) return [];
  // Stops and bellows limit where the lens stands, whichever way it leans.
  const m = settingOf(setup);
  const f = setup.focalLengthMm / setup.ahead;
  const straight = setup.axis[2] === 1 && setup.stance.still;
  const { leastM, greatestM } = reach;
  if (greatestM !== null && greatestM < 0) {
    return [
      {
        severity: 'stop',
        joint: null,
        message: `The lens stands ${mm(-lengths.excessMm[1], 2)} too far in: this rig focuses at no distance.`,
        cure: 'Put an extension between lens and body.',
      },
    ];
  }
  if (m < leastM - Math.max(SLACK_M, REGISTER_PLAY_MM)) {
    return [
      {
        severity: 'stop',
        joint: null,
        message:
          straight || reach.farthestMm !== Infinity
            ? `The focus set lies further than this rig reaches, ${distance((reach.farthestMm ?? 0) / 1000, 'metric')}.`
            : `As lens and back lean, the focus set wants the lens ${mm((leastM - m) * f, 2)} further in than this rig lets it.`,
        cure: straight ? 'Focus nearer, or shorten the chain.' : 'Focus nearer, or lean less.',
      },
    ];
  }
  if (greatestM !== null && m > greatestM * (1 + 1e-4) + SLACK_M) {
    const closest =
      reach.closestMm === null
        ? 'This rig has nothing to focus with'
        : `This rig focuses to ${distance(reach.closestMm / 1000, 'metric')}, ${trimmed(greatestM * setup.ahead * setup.factor, 2)} × at most`;
    return [
      {
        severity: 'stop',
        joint: null,
        message: straight
          ? `${closest}; the focus set lies nearer.`
          : `${closest}; as lens and back lean, the focus set wants it ${mm((m - greatestM) * f, 2)} further out.`,
        cure: straight
          ? 'Step back, or put an extension between lens and body.'
          : 'Step back, lean less, or put an extension between lens and body.',
      },
    ];
  }
  return [];
};

export const focusByWire: Check = ({ station }) => {
  const { lens, chain } = station;
  const reach = contactsKnown(station);
  if (lens.focus_by !== 'wire' || reach === 'yes') return [];
  const at = chain.findIndex((part) => part.kind !== 'board' && part.contacts !== true);
  const part = chain[at];
  if (reach === 'unknown') {
    const name = part ? partName(part) : 'the body';
    return [
      {
        severity: 'warn',
        joint: at < 0 ? chain.length : at,
        message: `The lens focuses by wire, and whether ${name} carries the contacts is not known: without them its focus stays where it rests.`,
        cure: `Look for contacts on ${name} and say so in the kit.`,
      },
    ];
  }
  return [
    {
      severity: 'warn',
      joint: at < 0 ? chain.length : at,
      message: `The lens focuses by wire and ${part ? partName(part) : 'the body'} carries no contacts: its focus stays where it rests.`,
      cure: 'Use an adapter with contacts, a bellows, or move the camera to focus.',
    },
  ];
};

export const nothingToFocusWith: Check = ({ station, lengths }) => {
  if (station.lens.focus_by !== 'bellows' || lengths.bellows) return [];
  if (lengths.excessMm[1] > lengths.excessMm[0]) return [];
  return [
    {
      severity: 'warn',
      joint: 0,
      message: 'The lens has no focusing of its own and nothing in the chain draws out.',
      cure: 'Put it on a bellows camera, or on a focusing adapter.',
    },
  ];
};
