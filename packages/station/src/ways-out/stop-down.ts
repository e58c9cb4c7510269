import { engravedStops, stopsBetween } from '@gangway/optics';
import { fStop, stops } from '../format.js';
import type { Kind } from './kind.js';

/** Past this diffraction takes back what the larger circle gives. */
export const DIFFRACTION_FROM = 16;

/** The widest engraved stop at which the larger circle, or its larger core, reaches the corner. */
export const stopDown: Kind = {
  name: 'stop down',
  propose: ({ station, cures }) => {
    const { f_min, f_max } = station.lens;
    for (const fNumber of engravedStops(f_min, f_max, 'third')) {
      if (fNumber <= station.aperture * 1.001) continue;
      const after = { ...station, aperture: fNumber };
      if (!cures(after)) continue;
      const lost = stopsBetween(station.aperture, fNumber);
      const past = Math.max(0, stopsBetween(DIFFRACTION_FROM, fNumber));
      return [
        {
          id: 'stop-down',
          title: `Stop down to ${fStop(fNumber)}`,
          price: `costs ${stops(lost)}`,
          cost: lost + past,
          after,
        },
      ];
    }
    return [];
  },
};
