export * from './document.js';
export * from './format.js';
export * from './packing.js';
export * from './text.js';
