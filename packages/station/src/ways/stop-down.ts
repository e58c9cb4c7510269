import { engravedStops, stopsBetween } from '@gangway/optics';
import type { Station } from '../document/station.js';
import { fStop, stops } from '../words/format.js';
import type { Draft } from './way.js';

/** Past this diffraction takes back what the larger circle gives. */
const DIFFRACTION_FROM = 16;

/**
 * The widest engraved stop, smaller than the one set, that serves.
 * @param at the station set for it at a stop; null where that does not serve
 */
export function stopDown(
  station: Station,
  id: string,
  at: (stopped: Station) => Station | null,
): Draft<Station>[] {
  for (const fNumber of engravedStops(station.lens.f_min, station.lens.f_max, 'third')) {
    if (fNumber <= station.aperture * 1.001) continue;
    const after = at({ ...station, aperture: fNumber });
    if (!after) continue;
    const lost = stopsBetween(station.aperture, fNumber);
    return [
      {
        id,
        title: `Stop down to ${fStop(fNumber)}`,
        price: `costs ${stops(lost)}`,
        cost: lost + Math.max(0, stopsBetween(DIFFRACTION_FROM, fNumber)),
        after,
      },
    ];
  }
  return [];
}
