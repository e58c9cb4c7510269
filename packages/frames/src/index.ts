export { boxOf, composed, type LaidFrame, type Laying, type Look } from './preview/compose.js';
export { halved, levelsOf, shownOf, type Shown } from './preview/shown.js';
export { fromSrgb, luminanceOf, toSrgb, type Samples } from './planes/light.js';
export { cut, quarterTurned, reduced, type Area, type Plane } from './planes/plane.js';
export { reducedBy, reducedWhole, type FrameFile, type LoadedFrame } from './planes/source.js';
export type { Plan, PlannedFrame, PlannedPair, Xy } from './prove/plan.js';
export { inShootingOrder, prove } from './prove/prove.js';
export type { Proof, ProvedFrame, ProvedOverlap, ProvedTile, SetAside } from './prove/result.js';
export { VERDICTS, type Verdict } from './prove/verdict.js';
export { Stopped, type Work } from './numbers/work.js';
export { blocksOfPicture } from './lens/blocks.js';
export {
  fallsTo,
  measureEdge,
  type EdgeFigures,
  type EdgeMeasured,
  type EdgeProblem,
} from './lens/edge.js';
export {
  CIRCLE_ENDS_STOPS,
  measureFlat,
  type FlatMeasured,
  type FlatProblem,
  type FlatShot,
} from './lens/flat.js';
export {
  measureSeries,
  ZONES,
  type Lag,
  type Place,
  type SeriesFile,
  type SeriesMeasured,
  type SeriesProblem,
  type Zone,
} from './lens/series.js';
export { measureZero, type ZeroFile, type ZeroMeasured, type ZeroProblem } from './lens/zero.js';
