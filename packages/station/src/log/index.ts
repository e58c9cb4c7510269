export * from './planned.js';
export * from './next.js';
export * from './changed.js';
export * from './match.js';
export * from './match-types.js';
export * from './changes.js';
export * from './columns.js';
export * from './clock.js';
