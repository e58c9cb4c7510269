export * from './card.js';
export * from './care.js';
export * from './settle.js';
export { tapesOf, type Tape } from './stand.js';
export type { CardPart, CardStep } from './step.js';
export * from './text.js';
