import { popsFor } from '@gangway/optics';
import type { Exposure, Station } from '../document/station.js';
import { meteredFNumber, type Light } from './light.js';

/** What a flash has to do; shares are of its full power. */
export interface FlashAnswer {
  /** Stop to set at the power that was metered, for one pop. */
  f_number: number;
  /** Power of each pop at the station’s own stop. */
  power: number;
  pops: number;
  /** More light than at its least power, in stops; 0 where it goes low enough. */
  over_stops: number;
}

/** The answer of a flash meter’s reading, which is an f-number; null without one. */
export function flashAnswer(
  station: Station,
  { meter, flash, flash_power: given }: Exposure,
  { allStops, apertureStops }: Light,
): FlashAnswer | null {
  if (!flash || meter?.f_number === undefined) return null;
  const metered = given?.metered ?? 1;
  const needed = metered * 2 ** allStops;
  const pops = popsFor(needed);
  const least = given?.least ?? 0;
  return {
    f_number: meteredFNumber(station) / 2 ** ((allStops - apertureStops) / 2),
    power: Math.min(1, Math.max(least, needed / pops)),
    pops,
    over_stops: needed < least ? Math.log2(least / needed) : 0,
  };
}
