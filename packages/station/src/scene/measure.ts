import type { Facade, Station } from '../document/station.js';
import { rounded } from '../words/rounded.js';

export type Measured = NonNullable<Facade['measured']>;

/**
 * The level distance from the sensor mark that a reading stands for: a slope reading is the long
 * side of a triangle whose height is known, and the sensor may stand ahead of the tripod.
 * @returns m, or a sentence that says why there is none
 */
export function levelDistanceM(measured: Measured, cameraHeightM: number): number | string {
  const { reading_m: reading, slope, aimed_m, held_m, from, sensor_ahead_m: ahead = 0 } = measured;
  const rise = slope ? (aimed_m ?? 0) - (held_m ?? cameraHeightM) : 0;
  if (slope && Math.abs(rise) >= reading) {
    return `The reading, ${reading} m, is shorter than the height it spans, ${Math.abs(rise).toFixed(2)} m; read it again, or correct the heights.`;
  }
  const level = Math.sqrt(reading * reading - rise * rise) - (from === 'tripod' ? ahead : 0);
  return level > 0
    ? level
    : 'The sensor would stand in the wall; check how far it is ahead of the tripod.';
}

/** A façade whose distance comes from a reading, kept beside it. */
export function withMeasured(station: Station, measured: Measured): Station | string {
  const level = levelDistanceM(measured, station.camera.height_m);
  if (typeof level === 'string') return level;
  return {
    ...station,
    facade: { ...station.facade!, distance_m: rounded(level, 4), measured },
  };
}
