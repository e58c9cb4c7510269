import type { Budget } from '@gangway/optics';
import type { Mosaic, Station } from '../../document/station.js';
import { reportMosaic, type MosaicOffer, type MosaicReport } from '../report.js';
import { noneServesSaid } from '../../words/wish.js';
import { offersOf, offerValues, type Offered } from './index.js';

/** An offer as the report prints it. */
export function offerReport(before: Station, offered: Offered): MosaicOffer {
  const { layout, picture } = offered;
  const pitch = layout.pixelPitchMm;
  const px = (mm: number): number | null => (pitch === null ? null : Math.round(mm / pitch));
  const [width, height] = [px(picture.widthMm), px(picture.heightMm)];
  return {
    kind: layout.mosaic.pattern,
    frames: layout.frames.length,
    megapixels: width === null || height === null ? null : (width * height) / 1e6,
    width_px: width,
    height_px: height,
    values: offerValues(before, offered),
    least: offered.least,
  };
}

/** Everything about a station's mosaic, with the layouts that serve its wish. */
export function mosaicReport(station: Station, mosaic: Mosaic, budget?: Budget): MosaicReport {
  const report = reportMosaic(station, mosaic);
  if (!mosaic.wish) return report;
  const { offers, why, stopped } = offersOf(station, budget);
  return {
    ...report,
    problems:
      why === null
        ? report.problems
        : [...report.problems, { code: 'wish', severity: 'warn', message: noneServesSaid(why) }],
    offers: offers.map((each) => offerReport(station, each)),
    ...(stopped ? { stopped: true } : {}),
  };
}
