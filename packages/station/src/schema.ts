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
  roomM,
  text,
  turnDeg,
  yesOrNo,
} from './fields.js';
import { backSchema, chainPartSchema, lensSchema, movementLimitsSchema } from './parts.js';
import { stationRules } from './rules.js';

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

/** The open document, version 1. Unknown fields are kept everywhere. */
export const stationSchema = record({
  format: z.literal(FORMAT, { error: `must be "${FORMAT}"` }),
  version: z.literal(VERSION),
  name: text(),
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
  camera: record({ height_m: placeM(), pitch_deg: leanDeg(), yaw_deg: turnDeg() }),
  criterion: criterionSchema,
  facade: record({
    distance_m: distanceM(),
    top_m: placeM(),
    width_m: distanceM(),
    base_m: placeM().optional(),
    headroom_m: roomM().optional(),
    footroom_m: roomM().optional(),
  }).optional(),
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
  solve: record({ tilt: yesOrNo(), swing: yesOrNo() }).optional(),
  turn_in: record({ yaw_deg: leanDeg(), keep: oneOf(['left', 'right', 'center']) }).optional(),
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

/** The JSON Schema (2020-12) of the station file, made from the same definitions. */
export function stationJsonSchema(): Record<string, unknown> {
  return {
    ...z.toJSONSchema(stationSchema, { target: 'draft-2020-12', io: 'input' }),
    title: 'Gangway station, version 1',
  };
}
