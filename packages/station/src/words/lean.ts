import { turnedTiltOf, type TiltSwing } from '@gangway/optics';
import type { Station } from '../document/station.js';
import { degrees } from './format.js';

/** Less than this nobody sets. */
const SEEN_DEG = 0.05;

/** The length of the lean that a tilt and a swing make together, degrees. */
export const leanSizeDeg = (lean: TiltSwing): number => turnedTiltOf(lean).leanDeg;

/** How a lens leans, in words: “tilt 3.2° forward, swing 1.0° left”. */
export const leanSaid = ({
  tilt_deg,
  swing_deg,
}: Pick<Station['movements'], 'tilt_deg' | 'swing_deg'>): string =>
  [
    ['tilt', tilt_deg, tilt_deg > 0 ? 'forward' : 'back'] as const,
    ['swing', swing_deg, swing_deg > 0 ? 'right' : 'left'] as const,
  ]
    .filter(([, deg]) => Math.abs(deg) >= SEEN_DEG)
    .map(([name, deg, way]) => `${name} ${degrees(Math.abs(deg))} ${way}`)
    .join(', ') || 'no lean';
