import type { Station } from '../document/station.js';
import { focusControl } from '../document/focusing.js';
import type { Order, Setting } from './order.js';

/**
 * The order of the hand at the shutter, by kind of camera (common practice, no source). A camera that
 * only has to be released gets no step of it.
 */

interface Act {
  readonly id: string;
  readonly says: string;
  readonly detail?: string;
}

const RELEASE: Act = { id: 'release', says: 'Release' };

/** Roll film is 56 mm high: what is higher than this comes in sheets, mm. */
const ROLL_MM = 60;

/** A holder’s slide keeps the film dark until the shutter is closed. */
function slideOf({ back, chain, exposure }: Station): 'sheet' | 'roll' | null {
  if (back.medium !== 'film' && exposure?.film === undefined) return null;
  if (Math.min(back.width_mm, back.height_mm) > ROLL_MM) return 'sheet';
  return chain.some(({ kind }) => kind === 'view_camera') ? 'roll' : null;
}

const SLIDE_OUT: Readonly<Record<'sheet' | 'roll', Act>> = {
  sheet: {
    id: 'slide out',
    says: 'Put in the holder and draw the slide out',
    detail: 'Look that the shutter is closed first.',
  },
  roll: { id: 'slide out', says: 'Slide out', detail: 'Look that the shutter is closed first.' },
};
const SLIDE_IN: Readonly<Record<'sheet' | 'roll', Act>> = {
  sheet: { id: 'slide in', says: 'Slide in, its exposed side out' },
  roll: { id: 'slide in', says: 'Slide in, then wind on' },
};

/** Whether a hand closes and cocks the shutter: a body that drives its lens does it by itself. */
const cockedByHand = (station: Station): boolean =>
  station.lens.needs_open_shutter === true || focusControl(station).by === 'bed';

function actsOf(station: Station): Act[] {
  const { lens, back, exposure } = station;
  const kind = exposure?.shutter?.kind;
  const mirror: Act[] = back.mirror
    ? [{ id: 'mirror', says: 'Mirror up, and wait until it is still' }]
    : [];
  if (kind === 'electronic' && lens.needs_open_shutter) {
    return [
      {
        id: 'open',
        says: 'Open the shutter in the lens',
        detail: 'By T, or by its lever for focusing.',
      },
      { id: 'lock', says: 'Lock it open' },
      ...mirror,
      { ...RELEASE, says: 'Release the electronic shutter' },
      { id: 'close', says: 'Close the shutter in the lens' },
    ];
  }
  if (kind === 'leaf' && cockedByHand(station)) {
    const slide = slideOf(station);
    return [
      { id: 'close', says: 'Close the shutter' },
      { id: 'cock', says: 'Cock it' },
      ...(slide ? [SLIDE_OUT[slide]] : []),
      ...mirror,
      RELEASE,
      ...(slide ? [SLIDE_IN[slide]] : []),
    ];
  }
  return mirror.length > 0 ? [...mirror, RELEASE] : [];
}

/** All of them in one line, for where they come again and again. */
const actsSaid = (station: Station): string =>
  actsOf(station)
    .map(({ says }) => `${says}.`)
    .join(' ');

/** What is done at the shutter for each frame of a mosaic; empty where it only has to be released. */
export const frameReleaseSaid = (station: Station): string =>
  station.exposure ? actsSaid(station) : '';

/**
 * What is done at the shutter. The exposures of a bracket are ticked one by one; those of a mosaic
 * are told with its frames.
 * @param times of a bracket, as they are set
 */
export function releaseOrders(station: Station, times: readonly Setting[]): Order[] {
  const acts = actsOf(station);
  if (acts.length === 0 || (station.mosaic && !station.held_off)) return [];
  if (times.length > 1) {
    return times.map(({ said }, i) => ({
      id: `release ${i}`,
      part: 'expose',
      says: `Exposure ${i + 1} of ${times.length}`,
      figure: said,
      detail: actsSaid(station),
      sets: [],
    }));
  }
  return acts.map(({ id, says, detail }) => ({
    id: `release ${id}`,
    part: 'expose',
    says,
    ...(detail === undefined ? {} : { detail }),
    sets: [],
  }));
}
