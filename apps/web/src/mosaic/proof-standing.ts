import { fixed, waySaid, type Standing } from '@gangway/station';
import type { ProvedOverlap, Verdict } from '@gangway/frames';

/** What a verdict is worth, and how it is said in a word or two. */

export const PROOF_STANDING: Readonly<Record<Verdict, Standing>> = {
  still: 'within',
  light: 'costs',
  unsure: 'costs',
  parallax: 'outside',
  moving: 'outside',
  slipped: 'outside',
};

/** As the head of a page says it of the whole. */
export const VERDICT_SAID: Readonly<Record<Verdict, string>> = {
  still: 'It stood still',
  light: 'The light changed',
  unsure: 'Not sure',
  parallax: 'Near and far part',
  moving: 'Something moved',
  slipped: 'It slipped',
};

/** On an overlap: the verdict with its figure. */
export function verdictMark({ verdict, residualPx, parallaxPx, exposureStops, offPx, slipPx, turnDeg }: ProvedOverlap): string {
  switch (verdict) {
    case 'still':
      return `still, ${fixed(Math.max(0.1, residualPx), 1)} px`;
    case 'light':
      return `light, ${fixed(Math.abs(exposureStops ?? 0), 1)} stops`;
    case 'parallax':
      return `parallax, ${fixed(parallaxPx, 1)} px`;
    case 'slipped':
      return Math.hypot(offPx.x, offPx.y) >= slipPx / 2 ? `slipped, ${waySaid(offPx)}` : `turned, ${fixed(Math.abs(turnDeg), 2)}°`;
    default:
      return verdict;
  }
} // prettier-ignore
