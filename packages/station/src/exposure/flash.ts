import { popsFor } from '@gangway/optics';
import type { Exposure } from '../document/station.js';
import type { Light } from './light.js';

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

/** The f-number a flash meter read; that of a metered time says how the time was metered. */
export const flashReading = ({ meter }: Exposure): number | undefined =>
  meter?.time_s === undefined ? meter?.f_number : undefined;

/** The answer of a flash meter’s reading, which is an f-number; null without one, or without an image. */
export function flashAnswer(
  exposure: Exposure,
  { allStops, apertureStops, bellowsStops }: Light,
): FlashAnswer | null {
  const { flash, flash_power: given } = exposure;
  const reading = flashReading(exposure);
  if (!flash || reading === undefined || bellowsStops === null) return null;
  const metered = given?.metered ?? 1;
  const needed = metered * 2 ** allStops;
  const pops = popsFor(needed);
  const least = given?.least ?? 0;
  return {
    f_number: reading / 2 ** ((allStops - apertureStops) / 2),
    power: Math.min(1, Math.max(least, needed / pops)),
    pops,
    over_stops: needed < least ? Math.log2(least / needed) : 0,
  };
}
