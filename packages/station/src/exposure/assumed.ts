import { bellowsStops, magnificationAt } from '@gangway/optics';
import type { Setup } from '../optical/setup.js';
import { assumed, type Assumption } from '../words/assumptions.js';
import { crossesInFocus } from './passing.js';

/** From here on whether the meter saw the bellows would be noticed, in stops. */
const METER_SEES = 1 / 6;

export function exposureAssumed(s: Setup): Assumption[] {
  const { exposure: set, chain, focus } = s.station;
  if (!set) return [];
  const m = magnificationAt(s.focalLengthMm, s.axis[2], s.imageDistanceMm);
  const between =
    Math.abs(bellowsStops(m, s.pupilRatio)) > METER_SEES ||
    chain.some(({ kind }) => kind === 'multiplier');
  const all: Assumption[] = [];
  if (set.meter && set.meter.through_lens === undefined && between) {
    all.push(assumed('meter', null, '/exposure/meter/through_lens', false, ['meter']));
  }
  if (set.shutter?.steps === undefined && !set.flash) {
    all.push(assumed('shutter_steps', null, '/exposure/shutter/steps', 'third', ['dial']));
  }
  if (set.crossing && set.crossing.distance_m === undefined && crossesInFocus(s) !== null) {
    const value = focus.distance_m ?? null;
    all.push(assumed('crossing', null, '/exposure/crossing/distance_m', value, ['crossing']));
  }
  return all;
}
