import { differences } from './differences.js';
import type { Exposure, Film } from './station.js';

/** What a film loaded brings with it, and takes along when it goes. */

const BROUGHT = ['iso', 'medium_range_stops', 'reciprocity'] as const;
type Brought = Partial<Pick<Exposure, (typeof BROUGHT)[number]>>;

/** What a film as it is developed says of an exposure. */
function broughtBy(film: Film | undefined, development: string | undefined): Brought {
  const chosen = film?.developments?.find(({ name }) => name === development);
  return {
    iso: chosen?.iso ?? film?.iso,
    medium_range_stops: chosen?.range_stops ?? film?.range_stops,
    reciprocity: film?.reciprocity,
  };
}

const same = (one: unknown, other: unknown): boolean =>
  differences({ value: one }, { value: other }).length === 0;

/**
 * An exposure with another film, or the same developed otherwise. What the last one brought goes
 * with it; what was set by hand stays where the new one says nothing, and with `byHand` anyway.
 */
export function filmed(
  exposure: Exposure,
  film: Film | undefined,
  development: string | undefined,
  byHand: 'stays' | 'yields',
): Exposure {
  const before = broughtBy(exposure.film, exposure.development);
  const now = broughtBy(film, development);
  const next: Record<string, unknown> = { ...exposure, film, development };
  for (const name of BROUGHT) {
    const own = !same(exposure[name], before[name]);
    if (own && (byHand === 'stays' || now[name] === undefined)) continue;
    next[name] = now[name];
  }
  for (const [name, value] of Object.entries(next)) if (value === undefined) delete next[name];
  return next;
}
