import type { Station } from '../document/station.js';
import type { Order } from './order.js';

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

/** Sheet film stands behind a slide, on whatever camera. */
const onSheet = ({ back, chain, exposure }: Station): boolean =>
  (back.medium === 'film' || exposure?.film !== undefined) &&
  (chain.some(({ kind }) => kind === 'view_camera') ||
    Math.max(back.width_mm, back.height_mm) > SHEET_MM);

/** Wider than this film comes in sheets, mm: roll film is 6 cm high and wider only for panoramas. */
const SHEET_MM = 115;

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
  if (kind === 'leaf') {
    const slide = onSheet(station);
    return [
      { id: 'close', says: 'Close the shutter' },
      { id: 'cock', says: 'Cock it' },
      ...(slide
        ? [
            {
              id: 'slide out',
              says: 'Put in the holder and draw the slide out',
              detail: 'Look that the shutter is closed first.',
            },
          ]
        : []),
      ...mirror,
      RELEASE,
      ...(slide ? [{ id: 'slide in', says: 'Slide in, its exposed side out' }] : []),
    ];
  }
  return mirror.length > 0 ? [...mirror, RELEASE] : [];
}

/** With flash in the dark, or in brackets and frames, the same is done every time. */
const repeats = ({ mosaic, exposure, held_off: held }: Station): boolean =>
  (mosaic !== undefined && !held) || (!exposure?.flash && (exposure?.brackets?.frames ?? 1) > 1);

export function releaseOrders(station: Station): Order[] {
  const acts = actsOf(station);
  if (acts.length === 0) return [];
  if (repeats(station)) {
    return [
      {
        id: 'release each',
        part: 'expose',
        says: 'For every exposure, in this order',
        detail: `${acts.map(({ says }) => says).join('. ')}.`,
        sets: [],
      },
    ];
  }
  return acts.map(({ id, says, detail }) => ({
    id: `release ${id}`,
    part: 'expose',
    says,
    ...(detail === undefined ? {} : { detail }),
    sets: [],
  }));
}
