import { REGISTER_PLAY_MM } from '@gangway/optics';
import { focusControl, standsBare } from '../document/focusing.js';
import { drawMm, extensionSetMm } from './draw.js';
import { settingOf, type Setup } from './setup.js';

/** Rounding of a focus that was typed or found, as a magnification. */
const SLACK_M = 1e-6;

/**
 * By how much a setting lies outside what ring and draw reach, as a magnification of the lens that is
 * focused; 0 within. Below 0: past the far end. Stops limit where the lens stands, whichever way it
 * leans; bellows are told by their draw.
 */
export function missedM(s: Setup): number {
  const { facts } = s;
  const { lengths, reach } = facts;
  // A bed that nobody described goes anywhere.
  const anywhere = standsBare(facts) && focusControl(facts).by !== 'ring';
  if (lengths.bellows || anywhere) return 0;
  const m = settingOf(s);
  const { leastM, greatestM } = reach;
  if (m < leastM - Math.max(SLACK_M, REGISTER_PLAY_MM)) return m - leastM;
  return greatestM !== null && m > greatestM * (1 + 1e-4) + SLACK_M ? m - greatestM : 0;
}

/** The same as draw, mm. */
export const missedMm = (s: Setup): number => missedM(s) * (s.focalLengthMm / s.ahead);

/** By how much a setting asks bellows to be longer than they go, mm; below 0: shorter. */
export function bellowsMissedMm(s: Setup): number {
  const { lengths } = s.facts;
  if (!lengths.bellows) return 0;
  const { bellows_min_mm: least, bellows_max_mm: most } = lengths.bellows;
  const draw = drawMm(lengths, extensionSetMm(s));
  if (draw < least - 1e-6) return draw - least;
  return draw > most + 1e-6 ? draw - most : 0;
}
