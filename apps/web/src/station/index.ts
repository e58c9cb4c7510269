export { StationLayout } from './station-layout.js';
