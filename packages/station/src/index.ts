export * from './controls.js';
export * from './cover/corners.js';
export * from './cover/limits-table.js';
export * from './cover/strip.js';
export * from './cover/turning.js';
export * from './differences.js';
export * from './drawing.js';
export * from './evaluate.js';
export * from './explain/index.js';
export * from './focus/index.js';
export * from './format.js';
export * from './frame-drag.js';
export * from './framing/correction.js';
export { framed, movementsAsked, facadeView } from './framing/facade.js';
export * from './framing/mosaic-frames.js';
export * from './framing/step.js';
export * from './framing/stretch.js';
export { lensSwaps } from './framing/swaps.js';
export * from './framing/turn-in.js';
export * from './framing/verdict.js';
export { framingWays, changesBetween, type FramingWay } from './framing/ways/index.js';
export type { FramingQuestion } from './framing/ways/kind.js';
export { faultSentence, keptStation, nameOf as keptName, type KeptStation } from './kept.js';
export * from './kit/assemble.js';
export * from './kit/bench.js';
export * from './kit/compare.js';
export * from './kit/csv.js';
export * from './kit/cures.js';
export * from './kit/fields.js';
export * from './kit/summary.js';
export * from './kit/texts.js';
export * from './kit/match.js';
export * from './kit/parse.js';
export * from './kit/updates.js';
export * from './kit/rig-document.js';
export * from './kit/schema.js';
export * from './lean-checked.js';
export { sensorPitchDeg } from './marks.js';
export * from './new-station.js';
export * from './parse.js';
export { readings } from './readings.js';
export * from './report.js';
export * from './scales.js';
export { cutText, isWellFormed } from './text.js';
export * from './rig-edits.js';
export * from './rig/problems/index.js';
export * from './rig/stack.js';
export * from './schema.js';
export { backCocUm, sharpFraction, turnedBack, DEFAULT_SHARP_FRACTION } from './setup.js';
export * from './site/edits.js';
export * from './site/finder.js';
export * from './site/measure.js';
export * from './site/plan.js';
export { sceneOf, type Shape, type Look } from './site/scene.js';
export { standingOf, stateOf, type Standing, type State } from './state.js';
export * from './ways-out/index.js';
export * from './variants.js';
export * from './words.js';
export {
  parseAngleDeg,
  parseDistanceM,
  parseFNumber,
  parseLengthMm,
  parseRatio,
  engravedStops,
  type LimitedBy,
  type Parsed,
  type Point,
  type Ellipse,
} from '@gangway/optics';
