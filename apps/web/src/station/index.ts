export { CoverStep } from './cover/cover-step.js';
export { StationLayout } from './station-layout.js';
