import { createSelector } from '@reduxjs/toolkit';
import {
  coverDrawing,
  coverVerdict,
  evaluate,
  scalesOf,
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

/** The one place where a station becomes figures. */
export const selectReport = createSelector(selectStation, evaluate);
export const selectScales = createSelector(selectStation, scalesOf);
export const selectDrawing = createSelector(selectStation, coverDrawing);
export const selectWaysOut = createSelector(selectStation, selectReport, waysOut);
export const selectCoverVerdict = createSelector(selectStation, selectReport, coverVerdict);
export const selectViewVerdict = createSelector(selectStation, selectReport, viewVerdict);
