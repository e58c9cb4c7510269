import type { Settings, Station } from './station.js';

/**
 * Stations were once worked out with the lens kept on the sensor's normal. A leaned back turns about
 * its own middle now; one that was last saved before says so until it is saved again.
 */

const leans = ({ movements }: Pick<Settings, 'movements'>): boolean =>
  (movements.rear_tilt_deg ?? 0) !== 0 || (movements.rear_swing_deg ?? 0) !== 0;

const leansAnywhere = (station: Station): boolean =>
  leans(station) || (station.variants?.kept ?? []).some(({ settings }) => leans(settings));

export const leanReadAnew = (station: Station): boolean =>
  station.lean_checked !== true && leansAnywhere(station);

/** The station as it is saved from now on. */
export const withLeanChecked = (station: Station): Station =>
  leanReadAnew(station) ? { ...station, lean_checked: true } : station;
