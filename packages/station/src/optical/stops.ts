import {
  airyDiameterUm,
  circleDiameterMm,
  coneHalfAngleRad,
  diffractionByStandard,
  diffractionOnPixels,
  effectiveFNumber,
  magnificationAt,
  ringStops,
  type Diffraction,
} from '@gangway/optics';
import { contactsKnown, multiplied } from '../document/chain.js';
import { judgedByPixels } from '../document/criterion.js';
import type { Station } from '../document/station.js';
import { circleTable, fallTable } from './measured.js';
import { coreMmAt, mechanism, type Setup } from './setup.js';

/** A setup at another stop: what the aperture changes, and nothing else. */
export function atStop(station: Station, s: Setup, fNumber: number): Setup {
  const { circleMm } = multiplied(
    station.chain,
    circleDiameterMm(circleTable(station.lens), fNumber),
  );
  const half = (diameterMm: number): number =>
    coneHalfAngleRad(diameterMm, s.engravedMm, s.pupilRatio);
  const measured = fallTable(station.lens, fNumber, s.pupilRatio);
  const fall = measured ? { fall: measured } : {};
  return {
    ...s,
    fNumber: fNumber * s.combined,
    circleMm,
    cone: { ...s.cone, ...fall, halfAngleRad: half(circleMm) },
    core: {
      ...s.core,
      ...fall,
      halfAngleRad: half(coreMmAt(station.lens, fNumber, { ...s, circleMm })),
    },
    mechanism: mechanism({ ...station, aperture: fNumber }),
  };
}

/** Whether the iris cannot be moved from wide open, as far as that is known. */
export const irisStays = (station: Station): boolean =>
  station.lens.iris === 'none' ||
  (station.lens.iris === 'electronic' && contactsKnown(station) === 'no');

/** The smallest opening a hand can set. */
export const smallestStop = (station: Station): number =>
  irisStays(station) ? station.lens.f_min : station.lens.f_max;

/** The stops a hand can set, as they act. */
export const stopsOf = (station: Station): number[] =>
  ringStops(station.lens.f_min, smallestStop(station));

/** f-number that acts on the back at the focus set. */
export function actingFNumber(s: Setup): number {
  const m = magnificationAt(s.focalLengthMm, s.axis[2], s.imageDistanceMm);
  return effectiveFNumber(s.fNumber, m, s.pupilRatio) * s.factor;
}

/** How far diffraction takes from the picture at the stop set, on this back. */
export function diffractionAt(station: Station, s: Setup): Diffraction {
  const acting = actingFNumber(s);
  return judgedByPixels(station.back)
    ? diffractionOnPixels(acting, s.pixelPitchMm! * 1000)
    : diffractionByStandard(airyDiameterUm(acting), s.cocMm * s.factor * 1000);
}
