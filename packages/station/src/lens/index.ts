export * from './problems.js';
export * from './frame-at.js';
