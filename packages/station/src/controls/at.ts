import type { Station } from '../document/station.js';

/**
 * Values of a station by their JSON pointers, for forms made from tables. What is written may give
 * a station that does not hold to the rules; the caller has it checked.
 */

const keysOf = (pointer: string): string[] => pointer.split('/').slice(1);

/** What stands at a pointer; undefined where nothing does. */
export const valueAt = (station: Station, pointer: string): unknown =>
  keysOf(pointer).reduce<unknown>(
    (value, key) => (value as Record<string, unknown> | undefined)?.[key],
    station,
  );

function changed(value: unknown, [key, ...rest]: readonly string[], next: unknown): unknown {
  if (key === undefined) return next;
  if (Array.isArray(value)) {
    const entries = [...(value as unknown[])];
    entries[Number(key)] = changed(entries[Number(key)], rest, next);
    return entries;
  }
  const { [key]: was, ...others } = (value ?? {}) as Record<string, unknown>;
  const now = changed(was, rest, next);
  return now === undefined ? others : { ...(value as object), [key]: now };
}

/** A station with another value at a pointer, all else the very same. */
export const withAt = (station: Station, pointer: string, value: unknown): Station =>
  // Any value may stand in a field that is being typed at: the rules say whether it may stay.
  changed(station, keysOf(pointer), value) as Station;

export const withoutAt = (station: Station, pointer: string): Station =>
  withAt(station, pointer, undefined);
