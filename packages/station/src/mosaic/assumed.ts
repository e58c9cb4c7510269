import type { Setup } from '../optical/setup.js';
import type { Station } from '../document/station.js';
import { assumed, type Assumption } from '../words/assumptions.js';
import { BITS, DEFAULT_OVERLAP, MOSAIC_SECONDS_EACH } from './customs.js';

/** Movements that carry the frames of a mosaic and whose ends nobody gave. */
function travel({ mosaic: laid, movement_limits: limits }: Station): Assumption[] {
  if (!laid || laid.moves === 'camera') return [];
  const own = laid.moves === (limits.moves === 'rear' ? 'rear' : 'lens');
  const stops = limits.frame_stops !== undefined && laid.moves === 'rear';
  const turned = own && (limits.radial_shift_mm !== undefined || laid.pattern === 'pinwheel');
  if (stops || turned) return [];
  const what = laid.moves === 'rear' ? 'back' : 'lens';
  return (['rise', 'shift'] as const).flatMap((way) => {
    const name = own ? (`${way}_mm` as const) : (`rear_${way}_mm` as const);
    if (limits[name] !== undefined) return [];
    return [assumed('travel', { what, way }, `/movement_limits/${name}`, null, ['travel'])];
  });
}

/** What is laid out in several frames, where the station leaves it to custom. */
export function mosaicAssumed({ station }: Setup): Assumption[] {
  const { mosaic: laid, marks, facade, site } = station;
  if (!laid) return [];
  const all = travel(station);
  if (laid.overlap === undefined && laid.pattern !== 'free' && laid.pattern !== 'ring') {
    const share = DEFAULT_OVERLAP;
    all.push(assumed('overlap', { share }, '/mosaic/overlap', share, ['overlap']));
  }
  if (laid.seconds_each === undefined) {
    const seconds = MOSAIC_SECONDS_EACH;
    all.push(assumed('seconds_each', { seconds }, '/mosaic/seconds_each', seconds, ['work']));
  }
  if (laid.bits === undefined) {
    all.push(assumed('bits', { bits: BITS }, '/mosaic/bits', BITS, ['work']));
  }
  const parts = laid.moves !== 'rear' && laid.near_m !== undefined && laid.far_m === undefined;
  const farKnown = marks?.length || facade || site?.room || site?.boxes?.length;
  if (parts && !farKnown) all.push(assumed('far', null, '/mosaic/far_m', null, ['depths']));
  return all;
}
