import {
  airyDiameterUm,
  coneHalfAngleRad,
  diffractionByStandard,
  diffractionOnPixels,
  effectiveFNumber,
  magnificationAt,
  ringStops,
  type Cone,
  type Diffraction,
} from '@gangway/optics';
import { judgedByPixels } from '../document/criterion.js';
import type { RigParts } from '../document/rig-parts.js';
import { perRig } from './facts.js';
import { coreMmAt, mechanism, type Setup } from './setup.js';
import { contactsKnown } from '../document/contacts.js';

/** A setup at another stop: what the aperture changes, and nothing else. */
export function atStop(s: Setup, fNumber: number): Setup {
  const { lens, limits } = s.facts;
  const { circleMm, halfAngleRad, fall } = s.facts.at(fNumber);
  const { cocMm, combined } = s;
  const coreMm = coreMmAt(lens, fNumber, { circleMm, cocMm, combined });
  const coreRad = coneHalfAngleRad(coreMm, s.engravedMm, s.pupilRatio);
  return {
    ...s,
    fNumber: fNumber * combined,
    circleMm,
    cone: lit(s.cone, halfAngleRad, fall),
    core: lit(s.core, coreRad, fall),
    mechanism: mechanism({ movement_limits: limits, aperture: fNumber }),
  };
}

const lit = (cone: Cone, halfAngleRad: number, fall: Cone['fall'] | null): Cone =>
  fall ? { ...cone, fall, halfAngleRad } : { ...cone, halfAngleRad };

/** Whether the iris cannot be moved from wide open, as far as that is known. */
export const irisStays = (rig: RigParts): boolean =>
  rig.lens.iris === 'none' || (rig.lens.iris === 'electronic' && contactsKnown(rig) === 'no');

/** The smallest opening a hand can set. */
export const smallestStop = (rig: RigParts): number =>
  irisStays(rig) ? rig.lens.f_min : rig.lens.f_max;

/** The same of a rig whose facts are known. */
export const stopsOn = perRig((facts) => stopsOf(facts));

/** The stops a hand can set, as they act. */
export const stopsOf = (rig: RigParts): number[] => ringStops(rig.lens.f_min, smallestStop(rig));

/** f-number that acts on the back at the focus set. */
export function actingFNumber(s: Setup): number {
  const m = magnificationAt(s.focalLengthMm, s.axis[2], s.imageDistanceMm);
  return effectiveFNumber(s.fNumber, m, s.pupilRatio) * s.factor;
}

/** How far diffraction takes from the picture at the stop set, on this back. */
export function diffractionAt(s: Setup): Diffraction {
  const { station } = s;
  const acting = actingFNumber(s);
  return judgedByPixels(station.back)
    ? diffractionOnPixels(acting, s.pixelPitchMm! * 1000)
    : diffractionByStandard(airyDiameterUm(acting), s.cocMm * s.factor * 1000);
}
