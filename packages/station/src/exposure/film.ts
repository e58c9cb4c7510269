import { filmed } from '../document/filmed.js';
import type { Station } from '../document/station.js';
import { filmFrom, type Stored } from '../kit/assemble.js';
import type { KitItemOf } from '../kit/schema.js';

/** Changes of the film as the pages make them. */

/** The film loaded: its sensitivity, its answer to long times and its range come with it. */
export const withFilm = (station: Station, stored: Stored<KitItemOf<'film'>>): Station => ({
  ...station,
  exposure: filmed(station.exposure ?? {}, filmFrom(stored), undefined, 'yields'),
});

/** The film taken out; what it brought with it goes too, where it was not changed since. */
export const withoutFilm = (station: Station): Station =>
  station.exposure?.film
    ? { ...station, exposure: filmed(station.exposure, undefined, undefined, 'stays') }
    : station;

/** The film developed otherwise, or as usual: exposed at that sensitivity, holding that range. */
export function withDevelopment(station: Station, name: string | null): Station {
  const { exposure = {} } = station;
  return {
    ...station,
    exposure: filmed(exposure, exposure.film, name ?? undefined, 'yields'),
  };
}
