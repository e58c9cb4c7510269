import { throughMultipliers, type Multiplier } from '@gangway/optics';
import { movementCarrier } from '../document/focusing.js';
import type { ChainPart } from '../document/station.js';

const asMultipliers = (chain: readonly ChainPart[]): Multiplier[] =>
  chain.flatMap((part) =>
    part.kind === 'multiplier'
      ? [{ factor: part.factor, circleLimitMm: part.circle_limit_mm ?? null }]
      : [],
  );

export interface Multiplied {
  /** Factor of what stands between lens and movements: it makes another lens of the two. */
  readonly combined: number;
  /** Factor of what stands behind the movements: the back acts 1/factor the size. */
  readonly behind: number;
  /** Circle before the movements, after combining and after all clipping, mm. */
  readonly circleMm: number;
}

/** Multipliers on either side of the movements, in order from the lens. */
export function multiplied(chain: readonly ChainPart[], bareCircleMm: number): Multiplied {
  if (!chain.some((part) => part.kind === 'multiplier')) {
    return { combined: 1, behind: 1, circleMm: bareCircleMm };
  }
  const at = movementCarrier(chain);
  const front = throughMultipliers(asMultipliers(chain.slice(0, at + 1)), bareCircleMm);
  const circle = front.bareCircleMm * front.factor;
  const rear = throughMultipliers(asMultipliers(chain.slice(at + 1)), circle);
  return { combined: front.factor, behind: rear.factor, circleMm: rear.bareCircleMm };
}
