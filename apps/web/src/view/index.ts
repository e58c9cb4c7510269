export { RigStep } from './rig-step.js';
export { SiteStep } from './site-step.js';
