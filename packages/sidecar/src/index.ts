export { LARGEST_SIDECAR_BYTES, sidecarText, Unreadable } from './document.js';
export * from './merge.js';
export * from './plan.js';
export * from './wanted.js';
