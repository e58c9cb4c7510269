import type { Logged } from '../document/logged.js';

/** Clocks of the devices that log: one that is far off is told by the server, which has its own. */

/** Nobody’s clock is set worse than this by mistake of a minute or two, s. */
export const FAR_OFF_S = 120;

type Timed = Pick<Logged, 'at' | 'clock_off_s'>;

/** When it was, by the best that is known, ms since 1970. */
export const instantMs = ({ at, clock_off_s: off = 0 }: Timed): number =>
  Date.parse(at) + off * 1000;

/** A moment later by so many seconds, with the same offset from UTC. @returns null past year 9999 */
export function movedMoment(at: string, byS: number): string | null {
  const zone = /(?:Z|[+-]\d\d:\d\d)$/.exec(at)?.[0] ?? 'Z';
  const minutes =
    zone === 'Z'
      ? 0
      : Number(`${zone[0]}1`) * (Number(zone.slice(1, 3)) * 60 + Number(zone.slice(4)));
  const local = new Date(Date.parse(at) + byS * 1000 + minutes * 60_000);
  if (!Number.isFinite(local.getTime()) || local.getUTCFullYear() > 9999) return null;
  return `${local.toISOString().slice(0, 19)}${zone}`;
}

/** How far a clock is off another’s, in words: “9 years behind”. */
export function offSaid(offS: number): string {
  const size = Math.abs(offS);
  const units = [
    [365.25 * 86_400, 'year'],
    [86_400, 'day'],
    [3600, 'hour'],
    [60, 'minute'],
    [1, 'second'],
  ] as const;
  const [length, name] = units.find(([each]) => size >= each * 1.5) ?? units.at(-1)!;
  const count = Math.round(size / length);
  return `${count} ${name}${count === 1 ? '' : 's'} ${offS > 0 ? 'behind' : 'ahead of'}`;
}
