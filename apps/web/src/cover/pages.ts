export { LimitsPage } from './limits-page.js';
export { SoftwarePage } from './software-page.js';
export { TurnInPage } from './turn-in-page.js';
export { VariantsPage } from './variants-page.js';
