import { trimmed, type Units } from '../words/format.js';
import { ordersOf } from '../orders/orders.js';
import { cutText } from '../document/text.js';
import type { Station } from '../document/station.js';

/** A card’s settings as plain text, for a phone to read off the paper and for a luggage tag. */

/** The rest of a name that is longer is left out: a code has room for so much only. */
const NAME = 60;

/** What a station is set to, a line each, as the card has it carried out. */
export function cardText(planned: Station, units: Units = 'metric'): string {
  const { station, orders } = ordersOf(planned, units);
  const { back, lens } = station;
  const lines = [
    cutText(planned.name, NAME),
    `${cutText(lens.name ?? `${trimmed(lens.focal_length_mm, 1)} mm`, 40)} on ${trimmed(back.width_mm, 1)}×${trimmed(back.height_mm, 1)} mm, ${back.orientation === 'portrait' ? 'upright' : 'level'}`,
    ...orders.flatMap(({ short }) => (short === undefined ? [] : [short])),
    ...(station.mosaic && !station.held_off ? [`${station.mosaic.pattern}, see the card`] : []),
  ];
  return lines.filter(Boolean).join('\n');
}

/** Few lines for a luggage tag: two or three things on each. */
export function shortForm(planned: Station, units: Units = 'metric'): string[] {
  const [name, rig, ...rest] = cardText(planned, units).split('\n') as [
    string,
    string,
    ...string[],
  ];
  const lines: string[] = [name, rig];
  let line = '';
  for (const each of rest) {
    const longer = line === '' ? each : `${line} · ${each}`;
    if (longer.length > 44 && line !== '') {
      lines.push(line);
      line = each;
    } else line = longer;
  }
  return line === '' ? lines : [...lines, line];
}
