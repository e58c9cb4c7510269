export { contactsKnown, contactsReach } from './document/contacts.js';
export { focusingLensOf, movementCarrier } from './document/focusing.js';
export * from './document/lengths.js';
export type { RigParts } from './document/rig-parts.js';
export * from './document/criterion.js';
export * from './document/differences.js';
export * from './document/edited.js';
export * from './document/lean-checked.js';
export { migrated } from './document/migrations.js';
export * from './document/movements.js';
export * from './document/new-station.js';
export * from './document/parse.js';
export { readingKept } from './document/reading-kept.js';
export * from './document/schema.js';
export { hasSecondStandard } from './document/standards.js';
export * from './document/station.js';
export { cutText, isWellFormed } from './document/text.js';
export {
  isFileName,
  isMoment,
  loadedListSchema,
  SHUTTERS,
  SIDES,
  type FilmExposed,
  type Loaded,
  type Logged,
  isDoubtful,
} from './document/logged.js';
export { CARES, type CareKind } from './document/stand.js';
export * from './document/status.js';
export * from './document/variants.js';
export * from './words/cells.js';
export * from './words/diffraction.js';
export * from './words/format.js';
export * from './words/times.js';
export * from './words/formats.js';
export * from './words/hands.js';
export * from './words/names.js';
export { atLeast, atMost } from './words/rounded.js';
export * from './words/pixels.js';
export * from './words/sharpness.js';
export { sensorPitchDeg } from './optical/places.js';
export { turnedBack } from './optical/facts.js';
export { backCocUm, sharpFraction, DEFAULT_SHARP_FRACTION } from './optical/setup.js';
export * from './optical/sharpness.js';
export { circleGiven } from './optical/setup.js';
export { standingOf, stateOf, type Standing, type State } from './optical/state.js';
export { stopsOnScale } from './optical/dots.js';
export { focusControl, type FocusControl } from './document/focusing.js';
export * from './optical/held.js';
export * from './optical/pivot.js';
export * from './optical/turning.js';
export * from './controls/at.js';
export * from './controls/controls.js';
export * from './controls/rig-edits.js';
export * from './controls/scales.js';
export * from './ways/changes.js';
export * from './ways/way.js';
export * from './scene/blur-raster.js';
export * from './scene/edits.js';
export * from './scene/finder.js';
export * from './scene/measure.js';
export * from './scene/plan.js';
export { isBare, sceneOf, type Shape, type Look } from './scene/scene.js';
export * from './rig/blanks.js';
export * from './rig/problems/index.js';
export * from './kit/assemble.js';
export * from './kit/csv.js';
export * from './kit/cures.js';
export * from './kit/fields.js';
export * from './kit/own-rig.js';
export * from './kit/parse.js';
export * from './kit/rig-document.js';
export * from './kit/rig-name.js';
export * from './kit/schema.js';
export * from './kit/summary.js';
export { readReciprocity, writeReciprocity } from './kit/film-texts.js';
export * from './kit/texts.js';
export * from './kit/updates.js';
export * from './mosaic/index.js';
export * from './exposure/index.js';
export { marksByFrame } from './report/frame-marks.js';
export * from './facade/correction.js';
export { framed, movementsAsked, facadeView } from './facade/facade.js';
export * from './facade/step.js';
export * from './facade/stretch.js';
export { lensSwaps } from './facade/swaps.js';
export * from './facade/turn-in.js';
export * from './facade/verdict.js';
export { framingWays, type FramingWay } from './facade/ways/index.js';
export type { FramingQuestion } from './facade/ways/kind.js';
export * from './cover/corners.js';
export * from './cover/coverage.js';
export * from './cover/drawing.js';
export * from './cover/frame-drag.js';
export * from './cover/limits-table.js';
export { markWays } from './cover/ways/frame-marks.js';
export * from './cover/ways/index.js';
export * from './focus/index.js';
export * from './report/assumed.js';
export * from './report/evaluate.js';
export { faultSentence, keptStation, nameOf as keptName, type KeptStation } from './report/kept.js';
export { stationDigest, type StationDigest } from './report/digest.js';
export { holdInvariants, notFinite } from './report/invariants.js';
export { Reading, readingOf, readings } from './report/readings.js';
export * from './report/report.js';
export * from './report/verdicts.js';
export * from './explain/index.js';
export * from './orders/index.js';
export * from './card/index.js';
export * from './job/index.js';
export * from './log/index.js';
export * from './compare/bench.js';
export * from './compare/compare.js';
export * from './compare/match.js';
export {
  clipToRectangle,
  stretchWithin,
  leastOf,
  mostOf,
  engravedFNumber,
  meantFNumber,
  engravedStops,
  type LimitedBy,
  type Point,
  type Ellipse,
} from '@gangway/optics';
export * from './lens/index.js';
export { circleTable, measuredOf, mtf50At, sharpRadiusMm } from './optical/measured.js';
export { measuredFor, measuredWhy, measurementsOf, type Measurement } from './report/measured.js';
export type { MeasuredLens } from './document/measured.js';
export {
  parseAngleDeg,
  parseDistanceM,
  parseFNumber,
  parseLengthMm,
  parseRatio,
  parseStops,
  parseTimeS,
  type Parsed,
} from './words/figures.js';
