import { engravedStops, stopsBetween, type Diffraction } from '@gangway/optics';
import type { Station } from '../document/station.js';
import { setupOf } from '../optical/setup.js';
import { atStop, diffractionAt, smallestStop } from '../optical/stops.js';
import { DIFFRACTION_WORDS } from '../words/diffraction.js';
import { fStop, stops } from '../words/format.js';
import type { Draft } from './way.js';

/** What diffraction takes back of what the larger circle gives, in stops: a choice, no source. */
const TAKEN: Record<Diffraction, number> = { none: 0, begins: 0.3, visible: 1, plain: 2.5 };

/**
 * The widest engraved stop, smaller than the one set, that serves; none where the iris stays open.
 * @param at the station set for it at a stop; null where that does not serve
 */
export function stopDown(
  station: Station,
  id: string,
  at: (stopped: Station) => Station | null,
): Draft<Station>[] {
  for (const fNumber of engravedStops(station.lens.f_min, smallestStop(station), 'third')) {
    if (fNumber <= station.aperture * 1.001) continue;
    const after = at({ ...station, aperture: fNumber });
    if (!after) continue;
    const lost = stopsBetween(station.aperture, fNumber);
    const diffraction = diffractionAt(atStop(setupOf(after), fNumber));
    return [
      {
        id,
        says: ['/aperture'],
        title: `Stop down to ${fStop(fNumber)}`,
        price: `costs ${stops(lost)}${diffraction === 'none' ? '' : `; diffraction ${DIFFRACTION_WORDS[diffraction]}`}`,
        cost: lost + TAKEN[diffraction],
        after,
      },
    ];
  }
  return [];
}
