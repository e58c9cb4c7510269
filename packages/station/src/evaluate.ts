import { facadeWays } from './framing/ways/index.js';
import { readings } from './readings.js';
import type { Report } from './report.js';
import type { Station } from './schema.js';

/** Everything Gangway knows about a station, from the station alone. */
export function evaluate(station: Station): Report {
  const { facade, ...rest } = readings(station);
  return facade ? { ...rest, facade: { ...facade, ways_out: facadeWays(station) } } : rest;
}
