import { readingKept, withLeanChecked, type Station } from '@gangway/station';
import {
  openSlice,
  type Change,
  type OpenDocument,
  type SaveState as SaveStateOf,
} from '../records/open.js';

/** The open station. */
export type OpenStation = OpenDocument<Station>;
export type SaveState = SaveStateOf<Station>;

const { actions, reducer } = openSlice<Station>('station', (after, before) =>
  withLeanChecked(readingKept(after, before)),
);

export const stationActions = actions;
export const stationReducer = reducer;

/** A changed station, as most places say it. */
export const changed = ({
  station,
  ...change
}: { readonly station: Station } & Omit<Change<Station>, 'document'>) =>
  actions.changed({ document: station, ...change });

export const {
  closed,
  previewed,
  gestureEnded,
  undone,
  redone,
  typing,
  textRefused,
  textDropped,
  textsDropped,
  keptMine,
  tookTheirs,
} = actions;
