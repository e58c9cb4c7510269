export { ComparePage } from './compare-page.js';
export { MatchPage } from './match-page.js';
export { RigPage } from './rig-page.js';
export { RigsPage } from './rigs-page.js';
