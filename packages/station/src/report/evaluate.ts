import { newBudget, SEARCH_STEPS, within, type Budget } from '@gangway/optics';
import { reportSolution } from '../focus/report.js';
import { facadeWays } from '../facade/ways/index.js';
import { exposureReport } from '../exposure/report.js';
import { WISH_STEPS } from '../mosaic/offers/index.js';
import { mosaicReport } from '../mosaic/offers/report.js';
import { finiteThroughout } from './invariants.js';
import { readings } from './readings.js';
import type { Readings, Report } from './report.js';
import type { Station } from '../document/station.js';
import { beyondMechanism } from '../optical/state.js';

/** As `framedWell` would find, from what was read already; a grid has to be looked at frame by frame. */
const seenWhole = (station: Station, { facade, coverage }: Readings): boolean =>
  station.mosaic?.pattern !== 'grid' &&
  facade?.framed === true &&
  coverage.covered &&
  coverage.filter_clear &&
  beyondMechanism(station).length === 0;

/** What all searches of one station may cost together. */
const ALL_STEPS = SEARCH_STEPS + WISH_STEPS;

/**
 * Everything Gangway knows about a station, from the station alone.
 * @param budget steps its searches may take; a new one when left out
 */
export function evaluate(station: Station, budget: Budget = newBudget(ALL_STEPS)): Report {
  const read = readings(station);
  const solution = within(budget, SEARCH_STEPS, (part) => reportSolution(station, part));
  const { facade, ...rest } = read;
  const searched = {
    ...rest,
    ...(solution ? { solution } : {}),
    ...(station.exposure ? { exposure: exposureReport(station, station.exposure) } : {}),
    ...(station.mosaic ? { mosaic: mosaicReport(station, station.mosaic, budget) } : {}),
  };
  if (!facade) return finiteThroughout(searched);
  const ways_out = seenWhole(station, read) ? [] : facadeWays(station);
  return finiteThroughout({ ...searched, facade: { ...facade, ways_out } });
}
