import { significant, type ControlId, type Rests, type Segment } from '@gangway/station';

/** What the stretches of a scale are called. */
export const STANDING_NAMES = {
  within: 'within reach',
  costs: 'covered, a corner soft',
  outside: 'outside the circle',
} as const;

/** What each scale would be cut otherwise with, were it given. */
export const RESTS_OF: Readonly<Record<ControlId, readonly Rests[]>> = {
  rise: ['circle'],
  shift: ['circle'],
  tilt: ['circle'],
  swing: ['circle'],
  aperture: ['circle'],
  distance: ['reach'],
};

const end = (value: number): string =>
  value === Infinity ? 'infinity' : String(significant(value, 3)).replace('-', '−');

/** A stretch of a scale in words. */
export const stretchWords = ({ from, to, standing, beyond }: Segment): string =>
  `${end(from)} to ${end(to)}: ${beyond ? 'past the mechanism' : STANDING_NAMES[standing]}`;
