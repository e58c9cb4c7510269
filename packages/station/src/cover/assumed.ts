import { circleDiameterMm } from '@gangway/optics';
import { sharpRadiusMm } from '../optical/measured.js';
import { circleGiven, DEFAULT_SHARP_FRACTION, type Setup } from '../optical/setup.js';
import { assumed, type Assumption } from '../words/assumptions.js';

/** A circle at a stop outside those it is given for. */
export function circleAssumed({ station: { aperture }, facts }: Setup): Assumption[] {
  if (circleGiven(facts.circles, aperture)) return [];
  const { circles } = facts;
  const [{ fNumber: first }, { fNumber: last }] = [circles[0]!, circles.at(-1)!];
  const wider = aperture < first;
  const circleMm = circleDiameterMm(circles, aperture);
  const values = { wider, fromF: wider ? first : last, atF: aperture, circleMm };
  return [assumed('circle', values, '/lens/circle', circleMm, ['circle', 'core'])];
}

/** How much of the circle is sharp, where nobody measured it. */
export function coreAssumed(s: Setup): Assumption[] {
  const { lens } = s.facts;
  const { aperture } = s.station;
  if (lens.sharp_fraction !== undefined) return [];
  if (sharpRadiusMm(lens, aperture, s.cocMm / s.combined)?.beyond === false) return [];
  const share = DEFAULT_SHARP_FRACTION;
  return [assumed('sharp_fraction', { share }, '/lens/sharp_fraction', share, ['core'])];
}
