export { BedPage } from './bed-page.js';
export { ClosePage } from './close-page.js';
export { FocusStep } from './focus-step.js';
export { HeldOffPage } from './held-off-page.js';
export { SoftPage } from './soft-page.js';
export { StackPage } from './stack-page.js';
export { StopPage } from './stop-page.js';
