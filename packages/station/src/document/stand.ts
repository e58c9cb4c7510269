import { list, oneOf, record, text } from './fields.js';

/** What there is to be careful of at a place. */
export const CARES = [
  'sun',
  'height',
  'road',
  'stairs',
  'water',
  'falling',
  'mains',
  'permission',
] as const;

export type CareKind = (typeof CARES)[number];

/** The tripod’s place: how it is found again, and what to be careful of there. */
export const standSchema = record({
  note: text(500).optional(),
  /** Those that apply; not given: what can be told from the station itself. */
  care: list(oneOf(CARES), 20).optional(),
});
