import type { Station } from '@gangway/station';

/** Swung more than tilted, the wedge lies across the plan; from the side nothing is to be seen of it. */
export const isSwung = ({ movements: { tilt_deg, swing_deg } }: Station): boolean =>
  Math.abs(swing_deg) > Math.max(0.5, Math.abs(tilt_deg));
