import {
  circleDiameterMm,
  coneHalfAngleRad,
  type CircleAtStop,
  type FallAt,
  type FocusingLens,
  type Reach,
} from '@gangway/optics';
import { contactsKnown } from '../document/contacts.js';
import { focusingLensOf } from '../document/focusing.js';
import { lengthsOf, type Lengths } from '../document/lengths.js';
import type { RigParts } from '../document/rig-parts.js';
import type { Back, ChainPart, Lens, MovementLimits } from '../document/station.js';
import { circleTable, fallTable } from './measured.js';
import { multiplied } from './multiplied.js';
import { aheadOfFocus, reachOf } from './reach.js';

export type Gear = RigParts & { readonly movement_limits: MovementLimits };

/** What a lens comes to at one stop on its rig. */
export interface StopFacts {
  /** Circle at infinity at the movements, after clipping by a converter, mm. */
  readonly circleMm: number;
  readonly halfAngleRad: number;
  /** Falloff as it was measured; null where it was not. */
  readonly fall: readonly FallAt[] | null;
}

/** Width and height of the back as it is turned, mm. */
export function turnedBack(back: Back): { widthMm: number; heightMm: number } {
  return back.orientation === 'portrait'
    ? { widthMm: back.height_mm, heightMm: back.width_mm }
    : { widthMm: back.width_mm, heightMm: back.height_mm };
}

/** So many stops of one rig are remembered: a ring has fewer, a dragged scale has more. */
const MOST_STOPS = 256;

/**
 * All that hangs on the gear alone. Worked out once for a rig and found again while its parts are the
 * same objects; what few ask for is worked out when it is first asked.
 */
export class RigFacts {
  readonly lens: Lens;
  readonly chain: readonly ChainPart[];
  readonly back: Back;
  readonly limits: MovementLimits;
  readonly circles: readonly CircleAtStop[];
  /** Factor of the multipliers before the movements; part of the focal lengths and f-number here. */
  readonly combined: number;
  /** Factor of those behind the movements. */
  readonly behind: number;
  /** Magnification here over that of the lens that is focused: `combined`, or 1 where a draw behind it focuses. */
  readonly ahead: number;
  /** As the lens acts at infinity, where circles are quoted. */
  readonly engravedMm: number;
  readonly pupilRatio: number;
  /** The back as it is turned and as the movements see it, mm. */
  readonly size: { readonly widthMm: number; readonly heightMm: number };
  readonly pixelPitchMm: number | null;
  readonly focusing: FocusingLens;
  #lengths: Lengths | undefined;
  #reach: Reach | undefined;
  #contacts: ReturnType<typeof contactsKnown> | undefined;
  readonly #stops = new Map<number, StopFacts>();

  constructor({ lens, chain, back, movement_limits }: Gear) {
    this.lens = lens;
    this.chain = chain;
    this.back = back;
    this.limits = movement_limits;
    this.circles = circleTable(lens);
    const { combined, behind } = multiplied(chain, 0);
    this.combined = combined;
    this.behind = behind;
    this.ahead = aheadOfFocus(this, combined);
    this.engravedMm = lens.focal_length_mm * combined;
    this.pupilRatio = lens.pupil_ratio ?? 1;
    const turned = turnedBack(back);
    this.size = { widthMm: turned.widthMm / behind, heightMm: turned.heightMm / behind };
    this.pixelPitchMm = back.width_px === undefined ? null : back.width_mm / back.width_px;
    this.focusing = focusingLensOf(this);
  }

  get lengths(): Lengths {
    return (this.#lengths ??= lengthsOf(this));
  }

  get reach(): Reach {
    return (this.#reach ??= reachOf(this, this.lengths));
  }

  get contacts(): ReturnType<typeof contactsKnown> {
    return (this.#contacts ??= contactsKnown(this));
  }

  /** Circle, cone and falloff at a stop. */
  at(fNumber: number): StopFacts {
    const known = this.#stops.get(fNumber);
    if (known) return known;
    const circleMm = this.circleMm(fNumber);
    const found = {
      circleMm,
      halfAngleRad: coneHalfAngleRad(circleMm, this.engravedMm, this.pupilRatio),
      fall: fallTable(this.lens, fNumber, this.pupilRatio),
    };
    if (this.#stops.size >= MOST_STOPS) this.#stops.clear();
    this.#stops.set(fNumber, found);
    return found;
  }

  /** Circle at infinity at the movements at a stop, mm. */
  circleMm(fNumber: number): number {
    return multiplied(this.chain, circleDiameterMm(this.circles, fNumber)).circleMm;
  }
}

/** Rigs by their lens: an edit leaves alone what it does not touch, so that identity tells. */
const KNOWN = new WeakMap<Lens, RigFacts[]>();
/** As many rigs of one lens are remembered: level and upright, and a few that are compared. */
const MOST_RIGS = 8;

export function rigFacts(gear: Gear): RigFacts {
  const { lens, chain, back, movement_limits: limits } = gear;
  const known = KNOWN.get(lens);
  if (known) {
    for (const facts of known) {
      if (facts.back === back && facts.limits === limits && facts.chain === chain) return facts;
    }
  }
  const facts = new RigFacts(gear);
  if (!known) KNOWN.set(lens, [facts]);
  else {
    known.unshift(facts);
    if (known.length > MOST_RIGS) known.pop();
  }
  return facts;
}

/** Something more that hangs on the gear alone, worked out once for each rig. */
export function perRig<T>(make: (facts: RigFacts) => T): (facts: RigFacts) => T {
  const known = new WeakMap<RigFacts, { readonly value: T }>();
  return (facts) => {
    const found = known.get(facts);
    if (found) return found.value;
    const value = make(facts);
    known.set(facts, { value });
    return value;
  };
}
