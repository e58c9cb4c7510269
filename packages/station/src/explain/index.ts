import { measuredFor, measuredWhy, measurementsOf } from '../report/measured.js';
import { readings } from '../report/readings.js';
import type { Station } from '../document/station.js';
import { setupOf } from '../optical/setup.js';
import { whyBestStop } from './best-stop.js';
import { EXPOSURE_REASONS } from './exposure.js';
import { whyFacadeRise } from './facade-rise.js';
import { whyImageDistance } from './image-distance.js';
import { whyLimits } from './limits.js';
import { whyMargin } from './margin.js';
import { MOSAIC_REASONS } from './mosaic.js';
import { whySolution } from './solution.js';
import { whyTurnIn } from './turn-in.js';
import type { Asked, Why } from './why.js';

export type { Why } from './why.js';

/** Results that open to their reason. To add one: write a file beside this and name it here. */
const REASONS = {
  margin: whyMargin,
  limits: whyLimits,
  imageDistance: whyImageDistance,
  facadeRise: whyFacadeRise,
  turnIn: whyTurnIn,
  solution: whySolution,
  bestStop: whyBestStop,
  ...MOSAIC_REASONS,
  ...EXPOSURE_REASONS,
} satisfies Record<string, (asked: Asked) => Why>;

export type Reason = keyof typeof REASONS;

/** The reason for a result; where it rests on what was measured, it says so. */
export function why(reason: Reason, station: Station): Why {
  const found = REASONS[reason]({ station, report: readings(station), setup: setupOf(station) });
  const measured = measuredFor(measurementsOf(station), found.rests);
  return { ...found, words: [found.words, ...measured.map(measuredWhy)].join(' ') };
}
