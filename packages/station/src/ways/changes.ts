import type { Station } from '../document/station.js';
import { degrees, distance, fixed, fStop, mm, trimmed } from '../words/format.js';
import { movedSaid } from '../words/hands.js';

/** Changed settings by JSON pointer: one level down where both are objects. */
export function changesBetween(before: Station, later: Station): Record<string, unknown> {
  const plain = (value: unknown): value is Record<string, unknown> =>
    typeof value === 'object' && value !== null && !Array.isArray(value);
  const [a, b] = [before, later] as unknown as Record<string, unknown>[];
  const found: Record<string, unknown> = {};
  const put = (pointer: string, one: unknown, other: unknown): void => {
    if (one !== other && JSON.stringify(one) !== JSON.stringify(other))
      found[pointer] = other ?? null;
  };
  for (const key of new Set([...Object.keys(a!), ...Object.keys(b!)])) {
    const [one, other] = [a![key], b![key]];
    if (one === other) continue;
    if (!plain(one) || !plain(other)) put(`/${key}`, one, other);
    else {
      for (const inner of new Set([...Object.keys(one), ...Object.keys(other)])) {
        put(`/${key}/${inner}`, one[inner], other[inner]);
      }
    }
  }
  return found;
}

function focusWords({ focus }: Station): string {
  if (focus.distance_m !== undefined) {
    return focus.distance_m === null
      ? 'focus at infinity'
      : `focus at ${distance(focus.distance_m, 'metric')}`;
  }
  return focus.magnification !== undefined
    ? `focus at ${trimmed(focus.magnification, 3)}×`
    : `draw ${mm(focus.image_distance_mm, 2)}`;
}

/** What a change to a place of the document is called; the first that begins so counts. */
const NAMES: readonly (readonly [string, (after: Station, pointer: string) => string])[] = [
  [
    '/movements/',
    (after, pointer) => {
      const field = pointer.slice('/movements/'.length) as keyof Station['movements'];
      return movedSaid(after, field, after.movements[field] ?? 0);
    },
  ],
  ['/aperture', ({ aperture }) => fStop(aperture)],
  ['/focus', focusWords],
  [
    '/back/orientation',
    ({ back }) => `back ${back.orientation === 'portrait' ? 'upright' : 'level'}`,
  ],
  ['/crop', ({ crop }) => (crop ? `cropped to ${crop.across}:${crop.up}` : 'not cropped')],
  ['/mosaic', ({ mosaic }) => (mosaic ? 'several frames' : 'one frame')],
  ['/camera/height_m', ({ camera }) => `camera ${fixed(camera.height_m, 2)} m high`],
  ['/camera/pitch_deg', ({ camera }) => `camera pitched ${degrees(camera.pitch_deg)}`],
  ['/camera/yaw_deg', ({ camera }) => `camera turned ${degrees(camera.yaw_deg)}`],
  ['/solve', ({ solve }) => `${solve?.rear ? 'the back' : 'the lens'} is leaned`],
  ['/criterion', () => 'another standard of sharpness'],
  ['/marks', () => 'other marks'],
  ['/lens', ({ lens }) => lens.name ?? `${trimmed(lens.focal_length_mm, 1)} mm`],
];

/**
 * What a change brings beside what its title says, so that nothing is changed in silence.
 * @param says pointers the title speaks of, or their beginnings
 */
export function alsoWords(before: Station, after: Station, says: readonly string[]): string {
  const silent = Object.keys(changesBetween(before, after)).filter(
    (pointer) => !says.some((said) => pointer.startsWith(said)),
  );
  const words = silent.flatMap((pointer) => {
    const named = NAMES.find(([start]) => pointer.startsWith(start));
    return [named ? named[1](after, pointer) : 'other settings'];
  });
  return words.length === 0 ? '' : `with ${[...new Set(words)].join(', ')}`;
}
