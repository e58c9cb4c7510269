export * from './problems.js';
export * from './frame-at.js';
export * from './kept.js';
export * from './told.js';
export * from './zero.js';
export * from './use.js';
