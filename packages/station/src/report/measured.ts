import type { Station } from '../document/station.js';
import { measuredOf } from '../optical/measured.js';
import type { Rests } from '../words/assumptions.js';

/** What of a station was measured rather than given, and the figures that rest on it. */
export interface Measurement {
  /** JSON pointer of what was measured. */
  readonly pointer: string;
  /** One sentence: what, and when. */
  readonly why: string;
  readonly rests: readonly Rests[];
}

const PARTS = [
  { part: 'circle', says: 'The circle', rests: ['circle'] },
  { part: 'falloff', says: 'Falloff', rests: ['light'] },
  { part: 'sharpness', says: 'Sharpness', rests: ['core', 'stop'] },
  { part: 'detail', says: 'Detail by stop', rests: ['stop'] },
] as const;

/** In use: the ideal, when it is asked for to compare, has none. */
export function measurementsOf({ lens }: Pick<Station, 'lens'>): Measurement[] {
  const measured = measuredOf(lens);
  if (!measured) return [];
  const when = measured.on ? ` ${measured.on}` : '';
  return PARTS.filter(({ part }) => (measured[part] ?? []).length > 0).map(
    ({ part, says, rests }) => ({
      pointer: `/lens/measured/${part}`,
      why: `${says} is this lens’s own, measured${when}${measured.back ? ` on ${measured.back}` : ''}.`,
      rests,
    }),
  );
}

/** Those that a figure would move with. */
export const measuredFor = (all: readonly Measurement[], rests: readonly Rests[]): Measurement[] =>
  all.filter((each) => each.rests.some((one) => rests.includes(one)));
