export { BesidePage } from './beside-page.js';
export { LensPage } from './lens-page.js';
export { LensesPage } from './lenses-page.js';
export { MethodPage } from './method-page.js';
