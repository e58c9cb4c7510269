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

function laidOf(station: Station): Laid | null {
  const { mosaic } = station;
  if (!mosaic) return null;
  const layout = layoutOf(station);
  return {
    station,
    layout,
    picture: mosaicPicture(layout),
    report: reportMosaic(station, mosaic),
    seams: seamsOf(layout),
    troubles: seamTroubles(station, layout),
  };
}

/** The layout that is looked at, else the station's own; null with nothing laid out. */
export const selectLaid = createSelector(selectShown, laidOf);

export const selectMosaicVerdict = createSelector(selectStation, ({ mosaic, ...rest }) =>
  mosaic ? mosaicVerdict(reportMosaic({ ...rest, mosaic }, mosaic)) : null,
);
