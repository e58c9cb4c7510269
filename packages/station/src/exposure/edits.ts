import type { Exposure, Film, Station } from '../document/station.js';
import { filmFrom, originOf, type Stored } from '../kit/assemble.js';
import type { KitItemOf } from '../kit/schema.js';

/** Changes of an exposure as the pages make them. */

export const withExposure = (station: Station, change: Partial<Exposure>): Station => {
  const next: Record<string, unknown> = { ...station.exposure, ...change };
  for (const [name, value] of Object.entries(change)) if (value === undefined) delete next[name];
  return { ...station, exposure: next };
};

/** The film loaded: its sensitivity, its answer to long times and its range come with it. */
export function withFilm(station: Station, stored: Stored<KitItemOf<'film'>>): Station {
  const film = filmFrom(stored);
  const { iso, range_stops, reciprocity } = film;
  return withExposure(station, {
    film,
    development: undefined,
    reciprocity,
    ...(iso === undefined ? {} : { iso }),
    ...(range_stops === undefined ? {} : { medium_range_stops: range_stops }),
  });
}

/** The film taken out; what it brought with it goes too, where it was not changed since. */
export function withoutFilm(station: Station): Station {
  const { film, reciprocity, medium_range_stops: medium } = station.exposure ?? {};
  if (!film) return station;
  return withExposure(station, {
    film: undefined,
    development: undefined,
    ...(reciprocity === film.reciprocity ? { reciprocity: undefined } : {}),
    ...(medium === film.range_stops ? { medium_range_stops: undefined } : {}),
  });
}

type Development = NonNullable<Film['developments']>[number];

/** The film developed otherwise: exposed at that sensitivity, holding that range. */
export function withDevelopment(station: Station, name: string | null): Station {
  const { film } = station.exposure ?? {};
  const chosen = film?.developments?.find((each) => each.name === name);
  const usual: Omit<Development, 'name'> = {
    ...(film?.iso === undefined ? {} : { iso: film.iso }),
    ...(film?.range_stops === undefined ? {} : { range_stops: film.range_stops }),
  };
  const { iso, range_stops: range } = chosen ?? usual;
  return withExposure(station, {
    development: chosen?.name,
    ...(iso === undefined ? {} : { iso }),
    ...(range === undefined ? {} : { medium_range_stops: range }),
  });
}

/** A filter from the kit, put before the others that are on. */
export const withFilter = (station: Station, stored: Stored<KitItemOf<'filter'>>): Station =>
  withExposure(station, {
    filters: [
      ...(station.exposure?.filters ?? []),
      { name: stored.document.name, stops: stored.document.stops ?? 0, ...originOf(stored) },
    ],
  });

export const withPlainFilter = (station: Station, name: string, stops: number): Station =>
  withExposure(station, { filters: [...(station.exposure?.filters ?? []), { name, stops }] });

export const withoutFilter = (station: Station, index: number): Station => {
  const filters = (station.exposure?.filters ?? []).filter((_, i) => i !== index);
  return withExposure(station, { filters: filters.length > 0 ? filters : undefined });
};

type Meter = NonNullable<Exposure['meter']>;

const pinned = (
  { aperture, exposure }: Station,
  { time_s }: Pick<Meter, 'time_s'>,
): Pick<Meter, 'f_number'> =>
  time_s === undefined || exposure?.meter?.f_number !== undefined ? {} : { f_number: aperture };

/** At another aperture, the reading staying what it was. */
export function atAperture(station: Station, aperture: number): Station {
  const { meter } = station.exposure ?? {};
  const next = { ...station, aperture };
  return meter ? withExposure(next, { meter: { ...meter, ...pinned(station, meter) } }) : next;
}

/**
 * A reading said one way only: as a time, as EV or as spots. A time is one at an aperture: that of
 * now is kept with it, so that stopping down afterwards asks for more.
 */
export function withReading(
  station: Station,
  reading: Pick<Meter, 'time_s' | 'ev' | 'spots'>,
): Station {
  const { time_s: _t, ev: _e, spots: _s, ...rest } = station.exposure?.meter ?? {};
  return withExposure(station, { meter: { ...rest, ...pinned(station, reading), ...reading } });
}

/** The same reading told another way, as far as it can be. */
export type ReadAs = 'time' | 'ev' | 'spots';
export const readAs = ({ exposure }: Station): ReadAs =>
  exposure?.meter?.spots ? 'spots' : exposure?.meter?.ev !== undefined ? 'ev' : 'time';
