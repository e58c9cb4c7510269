import { createSelector } from '@reduxjs/toolkit';
import {
  assumptionsOf,
  measurementsOf,
  cardVerdict,
  coverDrawing,
  coverVerdict,
  finderOf,
  focusVerdict,
  readingOf,
  scalesOf,
  isBare,
  sceneOf,
  unsettled,
  viewVerdict,
  waysOut,
  type Station,
} from '@gangway/station';
import type { OpenStation } from './station.js';
import type { RootState } from './store.js';

/** The open station; screens below the station layout are only shown when there is one. */
export const selectOpen = (state: RootState): OpenStation => {
  if (state.station.kind !== 'open') throw new Error('no station is open');
  return state.station.open;
};

export const selectStation = (state: RootState): Station => selectOpen(state).present;

/** The server’s revision that what is open goes on from; null where nothing is open. */
export const selectRevision = (state: RootState): number | null =>
  state.station.kind === 'open' ? state.station.open.baseRevision : null;

/** The one place where a station becomes figures. */
export const selectReport = createSelector(selectStation, readingOf);
export const selectAssumed = createSelector(selectStation, (station) => assumptionsOf(station));
export const selectMeasured = createSelector(selectStation, measurementsOf);
export const selectScales = createSelector(selectStation, scalesOf);
export const selectDrawing = createSelector(selectStation, coverDrawing);
export const selectWaysOut = createSelector(selectStation, waysOut);
const selectUnits = (state: RootState) => state.preferences.units;
export const selectCoverVerdict = createSelector(
  selectStation,
  selectReport,
  selectUnits,
  coverVerdict,
);
export const selectFocusVerdict = createSelector(
  selectStation,
  selectReport,
  selectUnits,
  focusVerdict,
);
/** The card of a station without frames and exposure. */
export const selectPlainCardVerdict = createSelector(
  selectStation,
  selectReport,
  (station, report) => cardVerdict(unsettled(station, report)),
);
export const selectViewVerdict = createSelector(selectStation, selectReport, viewVerdict);

/** What the drawing shows: the change that is looked at, else the station as it is. */
export const selectShown = (state: RootState): Station =>
  selectOpen(state).preview?.station ?? selectStation(state);
export const selectShownReport = createSelector(selectShown, readingOf);
export const selectShownDrawing = createSelector(selectShown, coverDrawing);
export const selectShownVerdict = createSelector(
  selectShown,
  selectShownReport,
  selectUnits,
  coverVerdict,
);

/** The scene goes by the things in it; a drag of a movement leaves it as it is. */
const selectScene = createSelector(
  (state: RootState) => selectShown(state).facade,
  (state: RootState) => selectShown(state).site,
  (state: RootState) => selectShown(state).camera.height_m,
  // Marks are drawn into the scene only where nothing else stands in it.
  (state: RootState) => (isBare(selectShown(state)) ? selectShown(state).marks : undefined),
  (facade, site, height_m, marks) => sceneOf({ facade, site, camera: { height_m }, marks }),
);
export const selectFinder = createSelector(selectShown, selectScene, finderOf);
