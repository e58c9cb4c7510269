import { evOf, timeOfEv } from '@gangway/optics';
import type { Exposure, Station } from '../document/station.js';
import { originOf, type Stored } from '../kit/assemble.js';
import type { KitItemOf } from '../kit/schema.js';
import { evOfSpots, meteredFNumber } from './light.js';

/** Changes of an exposure as the pages make them. */

export const withExposure = (station: Station, change: Partial<Exposure>): Station => {
  const next: Record<string, unknown> = { ...station.exposure, ...change };
  for (const [name, value] of Object.entries(change)) if (value === undefined) delete next[name];
  return { ...station, exposure: next };
};

/** A filter from the kit beside those that are on; a sentence where the kit does not say what it takes. */
export function withFilter(
  station: Station,
  stored: Stored<KitItemOf<'filter'>>,
): Station | string {
  const { name, stops, centre } = stored.document;
  if (stops === undefined) {
    return `The kit does not say how much light “${name}” takes: give it there, or type it here.`;
  }
  const filter = { name, stops, ...(centre ? { centre } : {}), ...originOf(stored) };
  return withExposure(station, { filters: [...(station.exposure?.filters ?? []), filter] });
}

export const withPlainFilter = (
  station: Station,
  filter: { readonly name?: string; readonly stops: number; readonly centre?: true },
): Station =>
  withExposure(station, { filters: [...(station.exposure?.filters ?? []), { ...filter }] });

export const withoutFilter = (station: Station, index: number): Station => {
  const filters = (station.exposure?.filters ?? []).filter((_, i) => i !== index);
  return withExposure(station, { filters: filters.length > 0 ? filters : undefined });
};

type Meter = NonNullable<Exposure['meter']>;

/** A reading said one way only: as a time, as EV or as spots. */
export function withReading(
  station: Station,
  reading: Pick<Meter, 'time_s' | 'ev' | 'spots'>,
): Station {
  const { time_s: _t, ev: _e, spots: _s, ...rest } = station.exposure?.meter ?? {};
  return withExposure(station, { meter: { ...rest, ...reading } });
}

/** What a flash meter read; a time and what it was metered at give way to it. */
export function withFlashReading(station: Station, f_number: number): Station {
  const { time_s: _, ...rest } = station.exposure?.meter ?? {};
  return withExposure(station, { meter: { ...rest, f_number } });
}

export type ReadAs = 'time' | 'ev' | 'spots';

export const readAs = ({ exposure }: Station): ReadAs =>
  exposure?.meter?.spots ? 'spots' : exposure?.meter?.ev !== undefined ? 'ev' : 'time';

/** An EV is read to hundredths, a time to four figures. */
const hundredth = (value: number): number => Number(value.toFixed(2));

/** The same reading told another way; where nothing was read yet, nothing is made up. */
export function withReadAs(station: Station, way: ReadAs): Station {
  const { meter } = station.exposure ?? {};
  if (readAs(station) === way) return station;
  const fNumber = meteredFNumber(station);
  const ev =
    meter?.ev ??
    (meter?.spots
      ? evOfSpots(meter.spots)
      : meter?.time_s === undefined
        ? null
        : evOf(meter.time_s, fNumber));
  if (ev === null) return withReading(station, way === 'spots' ? { spots: [] } : {});
  if (way === 'ev') return withReading(station, { ev: hundredth(ev) });
  if (way === 'spots') return withReading(station, { spots: [{ ev: hundredth(ev) }] });
  return withReading(station, { time_s: Number(timeOfEv(ev, fNumber).toPrecision(4)) });
}
