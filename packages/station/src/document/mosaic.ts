import * as z from 'zod';
import {
  backMm,
  count,
  distanceM,
  exactlyOne,
  focalLengthMm,
  kindFault,
  lengthMm,
  list,
  movementMm,
  oneOf,
  quantity,
  record,
  share,
  timeS,
  travelMm,
  turnDeg,
  yesOrNo,
} from './fields.js';
import { MOST_PLACES } from './most.js';

/** Several frames that become one picture. */

const pairMm = () =>
  z.tuple([movementMm(), movementMm()], { error: 'must be a pair of numbers of mm: [x, y]' });

const shapeSchema = record({
  across: quantity('', { min: 0.001, max: 1000 }),
  up: quantity('', { min: 0.001, max: 1000 }),
});

const fieldDeg = () => quantity('degrees', { min: 0.01, max: 360 });

/** What is wanted of a layout: one of these. */
export const wishSchema = exactlyOne(
  [
    { fill: oneOf(['covered', 'sharp']) },
    { megapixels: quantity('megapixels', { min: 0.01, max: 1_000_000 }) },
    { print_width_mm: lengthMm(), dpi: quantity('dots an inch', { min: 1, max: 10_000 }) },
    { horizontal_deg: fieldDeg(), vertical_deg: fieldDeg().optional() },
    { focal_length_mm: focalLengthMm(), width_mm: backMm(), height_mm: backMm() },
  ],
  'must hold one wish only: fill, megapixels, print_width_mm and dpi, horizontal_deg, or focal_length_mm with width_mm and height_mm',
);

const common = {
  overlap: share().optional(),
  output: shapeSchema.optional(),
  near_m: distanceM().optional(),
  far_m: distanceM().optional(),
  /** Time for one frame with moving and settling. */
  seconds_each: timeS().optional(),
  /** Of a pixel in the file. */
  bits: quantity('bits', { min: 1, max: 64, whole: true }).optional(),
  wish: wishSchema.optional(),
};

const moved = {
  ...common,
  /** Which standard carries the frames from one to the next. */
  moves: oneOf(['rear', 'lens']),
  /** The body is moved back by as much as the lens goes. */
  body_follows: yesOrNo().optional(),
};

const PATTERNS = {
  grid: record({
    pattern: z.literal('grid'),
    columns: count().optional(),
    rows: count().optional(),
    ...moved,
  }),
  pinwheel: record({
    pattern: z.literal('pinwheel'),
    frames: count().optional(),
    /** Of the sensor's middle at the first stop. */
    offset_mm: pairMm().optional(),
    ...moved,
  }),
  ring: record({
    pattern: z.literal('ring'),
    frames: count().optional(),
    radius_mm: travelMm().optional(),
    /** Clockwise, 0 at the top. */
    start_deg: turnDeg().optional(),
    /** One more frame in the middle, taken first. */
    middle: yesOrNo().optional(),
    ...moved,
  }),
  free: record({
    pattern: z.literal('free'),
    places: list(
      record({
        x_mm: movementMm(),
        y_mm: movementMm(),
        /** Clockwise. */
        rotation_deg: turnDeg().optional(),
      }),
      MOST_PLACES,
    ).optional(),
    ...moved,
  }),
  turn: record({
    pattern: z.literal('turn'),
    columns: count().optional(),
    projection: oneOf(['flat', 'cylinder']).optional(),
    ...common,
    /** The whole camera, about the entrance pupil. */
    moves: z.literal('camera', { error: 'must be "camera" where the camera turns' }),
  }),
};

export const mosaicSchema = z.discriminatedUnion(
  'pattern',
  [PATTERNS.grid, PATTERNS.pinwheel, PATTERNS.ring, PATTERNS.free, PATTERNS.turn],
  { error: kindFault('pattern', Object.keys(PATTERNS)) },
);

/** A sliding or turning back, or an adapter before it, that stops at places of its own. */
export const frameStopsSchema = z.union(
  [
    record({ columns: count(), rows: count(), pitch_mm: pairMm() }),
    record({ places_mm: list(pairMm(), MOST_PLACES) }),
    /** Turned about the middle of the circle, the sensor off it by `offset_mm` at the first stop. */
    record({ turns: quantity('', { min: 2, max: 72, whole: true }), offset_mm: pairMm() }),
  ],
  {
    error: 'must be { columns, rows, pitch_mm }, { places_mm } or { turns, offset_mm }',
  },
);
