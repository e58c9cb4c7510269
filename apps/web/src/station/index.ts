export { CoverStep } from './cover/cover-step.js';
export { StationLayout } from './station-layout.js';
export { ViewStep } from './view/view-step.js';
