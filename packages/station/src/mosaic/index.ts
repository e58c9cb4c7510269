export * from './customs.js';
export * from './layout.js';
export { carrierOf, findable, withinCarrier, type Carrier, type FrameStop } from './carrier.js';
export { mosaicPicture, type MosaicPicture } from './picture.js';
export * from './depths.js';
export * from './parallax.js';
export * from './work.js';
export * from './report.js';
export { limitSaid, noneServesSaid, type NoneServes } from '../words/wish.js';
export { framesSaid } from '../words/mosaic-problems.js';
export {
  offersOf,
  searchOffers,
  type Found as MosaicFound,
  type Offered,
  type Progress as MosaicProgress,
  type Wish,
} from './offers/index.js';
export { mosaicReport, offerReport } from './offers/report.js';
export * from './none.js';
export * from './verdict.js';
export * from './seams.js';
export * from './edits.js';
export * from './presets.js';
export * from './order.js';
export * from './checklist.js';
export * from './schools.js';
export { proofPlan } from './proof-plan.js';
export * from './proof-words.js';
