import * as z from 'zod';
import { iso } from './exposure.js';
import {
  count,
  diameterMm,
  distanceM,
  fNumber,
  focalLengthMm,
  imageDistanceMm,
  leanDeg,
  list,
  magnification,
  offsetMm,
  oneOf,
  quantity,
  record,
  shown,
  text,
  thicknessMm,
  timeS,
  turnDeg,
  yesOrNo,
  type Known,
} from './fields.js';
import { movementsSchema } from './station.js';

/** One line of the log: an exposure as it was made. */

const ID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/;

export const uuid = () =>
  z
    .string({
      error: ({ input }) =>
        input === undefined ? 'is missing; give a UUID' : `must be a UUID, not ${shown(input)}`,
    })
    .regex(ID, { error: ({ input }) => `must be a UUID in small letters, not ${shown(input)}` });

const MOMENT =
  /^(\d{4})-(\d\d)-(\d\d)T([01]\d|2[0-3]):([0-5]\d):([0-5]\d)(\.\d{1,3})?(Z|[+-](?:0\d|1[0-4]):[0-5]\d)$/;

/** Whether a text is a moment with its offset (RFC 3339), on a day that there is. */
export function isMoment(value: string): boolean {
  const parts = MOMENT.exec(value);
  if (!parts) return false;
  const [year, month, day] = parts.slice(1, 4).map(Number) as [number, number, number];
  // A clock that was lost says 1970: a tap by it is taken, and asked about later.
  if (year < 1970 || year > 2199) return false;
  const date = new Date(Date.UTC(year, month - 1, day));
  return date.getUTCMonth() === month - 1 && date.getUTCDate() === day;
}

export const moment = () =>
  z
    .string({
      error: ({ input }) =>
        input === undefined
          ? 'is missing; give a time with its offset: 2026-05-14T09:30:00+02:00'
          : `must be a time, not ${shown(input)}`,
    })
    .refine(isMoment, {
      error: ({ input }) =>
        `must be a time from 1970 to 2199 with its offset, like 2026-05-14T09:30:00+02:00, not ${shown(input)}`,
    });

/** A picture’s own name, never a way to another folder. */
const NOT_A_NAME = /[/\\:]|^\.{1,2}$/;
export const isFileName = (name: string): boolean => name.trim() !== '' && !NOT_A_NAME.test(name);

export const fileName = () =>
  text(255).refine(isFileName, {
    error: 'must be the name of a file, without folders: no /, \\ or :',
  });

export const SHUTTERS = ['leaf', 'focal_plane', 'electronic'] as const;
export const SIDES = ['A', 'B'] as const;

const filmExposedSchema = record({
  stock: text().optional(),
  holder: text(40).optional(),
  side: oneOf(SIDES).optional(),
  roll: text(40).optional(),
  frame: count().optional(),
});

/** How an exposure was set, or was to be set. */
const settingsShape = {
  /** As set on the lens. */
  f_number: fNumber().optional(),
  time_s: timeS().optional(),
  iso: iso().optional(),
  shutter: oneOf(SHUTTERS).optional(),
  flash: yesOrNo().optional(),
  filters: list(text(), 12).optional(),
  movements: movementsSchema.optional(),
  /** What the focusing ring read; null: infinity. */
  ring_m: distanceM().nullable().optional(),
  ring_magnification: magnification().optional(),
  /** What the bed read on its own scale. */
  bed_mm: offsetMm().optional(),
  /** Drawn out from where infinity is crisp. */
  drawn_mm: offsetMm().optional(),
  /** Where the plane of sharp focus lay, straight ahead; null: at infinity. */
  focus_m: distanceM().nullable().optional(),
  image_distance_mm: imageDistanceMm().optional(),
  /** A lens in the hand. */
  held_off: record({
    gap_mm: thicknessMm(),
    lean_deg: leanDeg(),
    turn_deg: turnDeg().optional(),
  }).optional(),
  /** As it acted on the back, converters with it. */
  focal_length_mm: focalLengthMm().optional(),
  lens: text().optional(),
  circle_mm: diameterMm().optional(),
};

export const loggedSchema = record({
  /** Made by the device: sent twice is one. */
  id: uuid(),
  station: uuid().optional(),
  at: moment(),
  /** The clock it was logged by was off when it was sent: so many seconds are to be added. */
  clock_off_s: quantity('s', { min: -8e9, max: 8e9, whole: true }).optional(),
  /** Order in the mosaic. */
  frame: count().optional(),
  /** Which of the bracket, 1 the shortest. */
  bracket: count().optional(),
  /** The settings are the station’s own, nothing was changed on the spot. */
  planned: yesOrNo(),
  ...settingsShape,
  /** What was planned when it was shot: later changes of the station change nothing of it. */
  plan: record({
    station_revision: quantity('', { min: 1, max: 2_147_483_647, whole: true }).optional(),
    ...settingsShape,
  }).optional(),
  film: filmExposedSchema.optional(),
  file: fileName().optional(),
  file_sure: yesOrNo().optional(),
  /** Set by hand: matching leaves it. */
  file_fixed: yesOrNo().optional(),
  rating: quantity('', { min: 0, max: 5, whole: true }).optional(),
  kept: yesOrNo().optional(),
  note: text(1000).optional(),
});

export type Logged = Known<z.infer<typeof loggedSchema>>;
/** Whether a line has a file of which nobody and nothing says for sure that it is its own. */
export const isDoubtful = ({ file, file_sure, file_fixed }: Logged): boolean =>
  file !== undefined && file_sure === false && file_fixed !== true;

export type FilmExposed = NonNullable<Logged['film']>;

/** Film as it was loaded for a job: a side of a holder, or a roll. */
export const loadedSchema = record({
  stock: text(),
  holder: text(40).optional(),
  side: oneOf(SIDES).optional(),
  roll: text(40).optional(),
  /** Frames a roll has. */
  frames: count().optional(),
});

export const loadedListSchema = list(loadedSchema, 400);

export type Loaded = Known<z.infer<typeof loadedSchema>>;
