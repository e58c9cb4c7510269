import { engravedStops, stopsBetween } from '@gangway/optics';
import { fStop, stops } from '../../format.js';
import { placed } from '../place.js';
import type { FramingKind } from './kind.js';
import { DIFFRACTION_FROM } from '../../ways-out/stop-down.js';

/** The widest stop whose larger circle lets the movement reach. */
export const stopDown: FramingKind = ({ station }) => {
  for (const fNumber of engravedStops(station.lens.f_min, station.lens.f_max, 'third')) {
    if (fNumber <= station.aperture * 1.001) continue;
    const after = placed({ ...station, aperture: fNumber });
    if (!after) continue;
    const lost = stopsBetween(station.aperture, fNumber);
    return [
      {
        id: 'frame-stop-down',
        title: `Stop down to ${fStop(fNumber)}`,
        price: `costs ${stops(lost)}`,
        cost: lost + Math.max(0, stopsBetween(DIFFRACTION_FROM, fNumber)),
        after,
      },
    ];
  }
  return [];
};
