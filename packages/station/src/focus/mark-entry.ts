import { type LengthUnit } from '@gangway/optics';
import type { Mark, Station } from '../document/station.js';
import { rounded } from '../words/rounded.js';
import { withMarks } from './set.js';
import { parseLengthMm, type Parsed } from '../words/figures.js';

/** Where a mark is, one of its three places. */
export type MarkPlace = 'x_m' | 'y_m' | 'z_m';

/**
 * A new mark, at the end: where the one before it is, so that only what differs is typed; the first
 * before the camera, as far as it is focused.
 */
export function withNewMark(station: Station): Station {
  const marks = station.marks ?? [];
  const { focus, camera } = station;
  const at = marks.at(-1) ?? {
    x_m: 0,
    y_m: camera.height_m,
    z_m: rounded(focus.distance_m ?? FIRST_MARK_M, 3),
  };
  const { x_m, y_m, z_m } = at;
  const label = `Mark ${marks.length + 1}`;
  return withMarks(station, [...marks, { label, x_m, y_m, z_m, must: 'sharp' }]);
}

/** A first mark where nothing is focused on. */
const FIRST_MARK_M = 1;

const RELATIVE = /^(.*?)\s*([+−-])\s*(\d.*|\.\d.*)$/s;

/**
 * A place of a mark as written: `0.86 m` from the ground or the camera, `+90 mm` from the mark
 * before it, `Label −20 mm` from another by its name.
 * @param bare the unit of a number written without one
 * @returns metres
 */
export function parseMarkPlace(
  text: string,
  { marks = [] }: Station,
  index: number,
  place: MarkPlace,
  bare: LengthUnit,
): Parsed {
  const found = RELATIVE.exec(text.trim());
  const [, name = '', sign = '', length = ''] = found ?? [];
  // A sign alone is of the length itself, but for a plus: from the mark before.
  const from = name !== '' ? named(marks, name) : sign === '+' ? marks[index - 1] : undefined;
  const read = parseLengthMm(from ? length : text, bare);
  if (!read.ok) {
    return name === '' || from
      ? read
      : { ok: false, message: `There is no mark called “${name}”.` };
  }
  const metres = (from && sign !== '+' ? -read.value : read.value) / 1000;
  return { ok: true, value: rounded((from ? from[place] : 0) + metres, 6) };
}

const named = (marks: readonly Mark[], name: string): Mark | undefined =>
  marks.find(({ label }) => label.trim().toLowerCase() === name.trim().toLowerCase());
