import * as z from 'zod';
import {
  distanceM,
  fNumber,
  leanDeg,
  lengthMm,
  list,
  offsetMm,
  oneOf,
  placeM,
  quantity,
  record,
  text,
  turnDeg,
  yesOrNo,
} from './fields.js';
import { backSchema, chainPartSchema, lensSchema, movementLimitsSchema } from './parts.js';
import { stationRules } from './rules.js';
import { cropSchema, facadeSchema, siteSchema, turnInSchema } from './site/schema.js';

export const FORMAT = 'gangway.station';
export const VERSION = 1;

export const focusSchema = z.union([
  record({ distance_m: distanceM().nullable() }),
  record({ magnification: quantity('', { above: 0, max: 100 }) }),
  record({ image_distance_mm: lengthMm() }),
]);

export const criterionSchema = z.union([
  record({ coc_mm: quantity('mm', { above: 0, max: 100 }) }),
  record({ diagonal_divisor: quantity('', { above: 0, max: 1e6 }) }),
  record({ pixels: quantity('pixels', { above: 0, max: 1000 }) }),
  record({ print_width_mm: lengthMm(), viewing_distance_mm: lengthMm() }),
]);

const share = () => quantity('', { min: 0, max: 0.95 });
const count = () => quantity('', { min: 1, max: 400, whole: true });

/** Everything a station says but what it is called: what a variant keeps of its own. */
const settingsShape = {
  back: backSchema,
  lens: lensSchema,
  chain: list(chainPartSchema, 32),
  movement_limits: movementLimitsSchema,
  aperture: fNumber(),
  focus: focusSchema,
  movements: record({
    rise_mm: offsetMm(),
    shift_mm: offsetMm(),
    tilt_deg: leanDeg(),
    swing_deg: leanDeg(),
    rear_tilt_deg: leanDeg().optional(),
    rear_swing_deg: leanDeg().optional(),
  }),
  camera: record({
    height_m: placeM(),
    pitch_deg: leanDeg(),
    yaw_deg: turnDeg(),
    /** What the user's own level shows when the camera truly stands level. */
    level_offset_deg: leanDeg().optional(),
    level_offset_roll_deg: leanDeg().optional(),
  }),
  criterion: criterionSchema,
  facade: facadeSchema.optional(),
  site: siteSchema.optional(),
  marks: list(
    record({
      label: text(),
      x_m: placeM(),
      y_m: placeM(),
      z_m: placeM(),
      must: oneOf(['sharp', 'soft']),
    }),
    500,
  ).optional(),
  crop: cropSchema.optional(),
  solve: record({ tilt: yesOrNo(), swing: yesOrNo() }).optional(),
  turn_in: turnInSchema.optional(),
  mosaic: record({
    pattern: oneOf(['grid', 'pinwheel']),
    columns: count().optional(),
    rows: count().optional(),
    overlap: share().optional(),
    frames: count().optional(),
    offset_mm: z
      .tuple([offsetMm(), offsetMm()], { error: 'must be a pair of numbers of mm: [x, y]' })
      .optional(),
    moves: oneOf(['rear', 'lens']),
    near_m: distanceM().optional(),
    far_m: distanceM().optional(),
  }).optional(),
};

/** The names of a station's own settings, for telling them from what is kept unknown. */
export const SETTINGS = Object.keys(settingsShape) as (keyof typeof settingsShape)[];

/** The open document, version 1. Unknown fields are kept everywhere. */
export const stationSchema = record({
  format: z.literal(FORMAT, { error: `must be "${FORMAT}"` }),
  version: z.literal(VERSION),
  name: text(),
  ...settingsShape,
  /** Alternatives for the same picture; the settings above are those of the one named here. */
  variants: record({
    present: text(),
    kept: list(
      record({
        name: text(),
        settings: record(settingsShape).superRefine(stationRules),
      }),
      12,
    ),
  }).optional(),
}).superRefine(stationRules);

/** Drops the index signatures that kept unknown fields add, so that a misspelt field is a type error. */
export type Known<T> = T extends readonly [infer A, infer B]
  ? [Known<A>, Known<B>]
  : T extends readonly (infer Item)[]
    ? Known<Item>[]
    : T extends object
      ? { [K in keyof T as string extends K ? never : K]: Known<T[K]> }
      : T;

export type Station = Known<z.infer<typeof stationSchema>>;
export type Back = Station['back'];
export type Lens = Station['lens'];
export type ChainPart = Station['chain'][number];
export type Focus = Station['focus'];
export type MovementLimits = Station['movement_limits'];
export type Facade = NonNullable<Station['facade']>;
export type Site = NonNullable<Station['site']>;
export type Room = NonNullable<Site['room']>;
export type Box = NonNullable<Site['boxes']>[number];
export type Crop = NonNullable<Station['crop']>;
/** Settings of a kept variant. */
export type Settings = NonNullable<Station['variants']>['kept'][number]['settings'];

/** The JSON Schema (2020-12) of the station file, made from the same definitions. */
export function stationJsonSchema(): Record<string, unknown> {
  return {
    ...z.toJSONSchema(stationSchema, { target: 'draft-2020-12', io: 'input' }),
    title: 'Gangway station, version 1',
  };
}
