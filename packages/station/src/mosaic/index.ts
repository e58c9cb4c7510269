export * from './layout.js';
export { carrierOf, findable, withinCarrier, type Carrier, type FrameStop } from './carrier.js';
export { mosaicPicture, type MosaicPicture } from './picture.js';
export * from './depths.js';
export * from './parallax.js';
export * from './work.js';
export * from './report.js';
export { framesSaid, type MosaicProblem } from './problems.js';
