export { BellowsPage } from './bellows-page.js';
export { TapesPage } from './tapes-page.js';
export { TimePage } from './time-page.js';
