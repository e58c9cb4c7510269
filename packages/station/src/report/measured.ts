import type { Station } from '../document/station.js';
import { measuredOf } from '../optical/measured.js';
import type { Rests } from '../words/assumptions.js';
import { saidOf, type ValuesOf } from '../words/findings.js';
import { MEASURED_SAYS } from '../words/measured.js';

type Part = keyof typeof MEASURED_SAYS;

/** What of a station was measured rather than given, and the figures that rest on it. */
export interface Measurement {
  /** JSON pointer of what was measured. */
  readonly pointer: string;
  readonly code: Part;
  readonly values: ValuesOf<typeof MEASURED_SAYS, Part>;
  readonly rests: readonly Rests[];
}

const RESTS: Readonly<Record<Part, readonly Rests[]>> = {
  circle: ['circle'],
  falloff: ['light'],
  sharpness: ['core', 'stop'],
  detail: ['stop'],
};

const PARTS = Object.keys(RESTS) as Part[];

/** In use: the ideal, when it is asked for to compare, has none. */
export function measurementsOf({ lens }: Pick<Station, 'lens'>): Measurement[] {
  const measured = measuredOf(lens);
  if (!measured) return [];
  const { on, back } = measured;
  const values = { ...(on ? { on } : {}), ...(back ? { back } : {}) };
  return PARTS.filter((code) => (measured[code] ?? []).length > 0).map((code) => ({
    pointer: `/lens/measured/${code}`,
    code,
    values,
    rests: RESTS[code],
  }));
}

/** One sentence: what was measured, and when. */
export const measuredWhy = (measurement: Measurement): string => saidOf(MEASURED_SAYS, measurement);

/** Those that a figure would move with. */
export const measuredFor = (all: readonly Measurement[], rests: readonly Rests[]): Measurement[] =>
  all.filter((each) => each.rests.some((one) => rests.includes(one)));
