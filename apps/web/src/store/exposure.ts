import { createSelector } from '@reduxjs/toolkit';
import {
  exposureReport,
  exposureVerdict,
  NO_EXPOSURE,
  type ExposureReport,
  type Station,
} from '@gangway/station';
import { selectShown, selectStation } from './selectors.js';

/** A station with what its exposure comes to. */
export interface Exposed {
  readonly station: Station;
  readonly report: ExposureReport;
}

const known = new WeakMap<Station, Exposed>();

/** A station’s exposure, worked out once however many look at it; of one without, what would be added. */
export function exposedOf(station: Station): Exposed {
  const before = known.get(station);
  if (before) return before;
  const exposed = { station, report: exposureReport(station, station.exposure ?? {}) };
  known.set(station, exposed);
  return exposed;
}

/** The exposure that is looked at, else the station's own. */
export const selectExposed = createSelector(selectShown, exposedOf);

export const selectExposureVerdict = createSelector(selectStation, (station) =>
  station.exposure ? exposureVerdict(station, exposedOf(station).report) : NO_EXPOSURE,
);
