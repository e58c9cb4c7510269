export * from './packing.js';
