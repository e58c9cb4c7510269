import { createSelector } from '@reduxjs/toolkit';
import { cardOf } from '@gangway/station';
import { selectStation } from './selectors.js';
import type { RootState } from './store.js';

/** The open station’s card, in the units in use. */
export const selectCard = createSelector(
  selectStation,
  (state: RootState) => state.preferences.units,
  cardOf,
);
