import * as z from 'zod';
import {
  distanceM,
  heightM,
  leanDeg,
  list,
  oneOf,
  placeM,
  quantity,
  record,
  roomM,
  text,
  turnDeg,
  yesOrNo,
} from './fields.js';

/** What stands in front of the camera, in the station frame: x right, y up, z level ahead. */

/** How a distance was read, kept so that it can be read again. */
const measuredSchema = record({
  reading_m: distanceM(),
  /** Along the line of sight to a place `aimed_m` high, from an instrument held at `held_m`. */
  slope: yesOrNo(),
  aimed_m: heightM().optional(),
  held_m: heightM().optional(),
  from: oneOf(['sensor', 'tripod']),
  /** How far the sensor stands ahead of the tripod's centre. */
  sensor_ahead_m: quantity('m', { min: -10, max: 10 }).optional(),
});

export const facadeSchema = record({
  distance_m: distanceM(),
  top_m: heightM(),
  width_m: distanceM(),
  base_m: heightM().optional(),
  headroom_m: roomM().optional(),
  footroom_m: roomM().optional(),
  /** Its middle, right of the sensor mark. */
  x_m: placeM().optional(),
  measured: measuredSchema.optional(),
});

const roomSchema = record({
  length_m: distanceM(),
  width_m: distanceM(),
  ceiling_m: quantity('m', { min: 0.001, max: 100_000 }),
  /** From the sensor mark to the wall behind, and to the wall on the left. */
  behind_m: distanceM(),
  left_m: distanceM(),
  /** Panels of the ceiling, across and along. */
  coffers: z
    .tuple(
      [
        quantity('', { min: 1, max: 60, whole: true }),
        quantity('', { min: 1, max: 60, whole: true }),
      ],
      { error: 'must be a pair of whole numbers: [across, along]' },
    )
    .optional(),
});

const boxSchema = record({
  name: text(),
  /** Middle of its ground plan. */
  x_m: placeM(),
  z_m: placeM(),
  width_m: distanceM(),
  depth_m: distanceM(),
  height_m: quantity('m', { min: 0.001, max: 100_000 }),
  base_m: heightM().optional(),
  /** Turned about the vertical, clockwise from above. */
  turn_deg: turnDeg().optional(),
});

export const siteSchema = record({
  room: roomSchema.optional(),
  boxes: list(boxSchema, 400).optional(),
  levels: list(record({ name: text().optional(), height_m: heightM() }), 60).optional(),
});

/** The part of the picture that is kept: the largest of this shape, slid within what it leaves. */
export const cropSchema = record({
  across: quantity('', { min: 0.001, max: 1000 }),
  up: quantity('', { min: 0.001, max: 1000 }),
  /** −1 to the left or the foot, 0 in the middle, 1 to the right or the top. */
  slide: quantity('', { min: -1, max: 1 }).optional(),
});

export const turnInSchema = record({
  yaw_deg: leanDeg(),
  keep: oneOf(['left', 'right', 'center']),
});
