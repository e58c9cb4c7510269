import { createSelector } from '@reduxjs/toolkit';
import {
  layoutOf,
  mosaicPicture,
  mosaicVerdict,
  reportMosaic,
  seamsOf,
  seamTroubles,
  type Layout,
  type MosaicPicture,
  type MosaicReport,
  type Seam,
  type SeamTrouble,
  type Station,
} from '@gangway/station';
import { selectShown, selectStation } from './selectors.js';

/** Everything the Mosaic pages show of a layout. */
export interface Laid {
  readonly station: Station;
  readonly layout: Layout;
  readonly picture: MosaicPicture | null;
  readonly report: MosaicReport;
  readonly seams: readonly Seam[];
  readonly troubles: readonly SeamTrouble[];
}

const known = new WeakMap<Station, Laid>();

/** A station’s layout, worked out once however many look at it. */
export function laidOf(station: Station): Laid | null {
  const { mosaic } = station;
  if (!mosaic) return null;
  const before = known.get(station);
  if (before) return before;
  const layout = layoutOf(station);
  const picture = mosaicPicture(layout);
  const seams = seamsOf(layout);
  const laid = {
    station,
    layout,
    picture,
    report: reportMosaic(station, mosaic, layout, picture),
    seams,
    troubles: seamTroubles(station, layout, seams),
  };
  known.set(station, laid);
  return laid;
}

/** The layout that is looked at, else the station's own; null with nothing laid out. */
export const selectLaid = createSelector(selectShown, laidOf);

export const selectMosaicVerdict = createSelector(selectStation, (station) => {
  const laid = laidOf(station);
  return laid && mosaicVerdict(laid.report);
});
