import * as z from 'zod';
import {
  confusionMm,
  confusionUm,
  diameterMm,
  distanceM,
  distanceMm,
  fNumber,
  heightM,
  imageDistanceMm,
  leanDeg,
  list,
  magnification,
  movementMm,
  offsetMm,
  oneOf,
  placeM,
  quantity,
  record,
  exactlyOne,
  share,
  text,
  thicknessMm,
  timeS,
  turnDeg,
  yesOrNo,
  type Known,
} from './fields.js';
import { exposureSchema } from './exposure.js';
import { mosaicSchema } from './mosaic.js';
import { backSchema, chainPartSchema, lensSchema, movementLimitsSchema } from './parts.js';
import { standSchema } from './stand.js';
import { cropSchema, facadeSchema, siteSchema, turnInSchema } from './site.js';

export const FORMAT = 'gangway.station';
export const VERSION = 1;

export const focusSchema = exactlyOne(
  [
    { distance_m: distanceM().nullable() },
    { magnification: magnification() },
    { image_distance_mm: imageDistanceMm() },
  ],
  'must hold only one of distance_m, magnification, image_distance_mm',
);

export const criterionSchema = exactlyOne(
  [
    { coc_mm: confusionMm() },
    { diagonal_divisor: quantity('', { min: 1, max: 1_000_000 }) },
    { pixels: quantity('pixels', { min: 0.01, max: 1000 }) },
    {
      print_width_mm: quantity('mm', { min: 1, max: 1_000_000 }),
      viewing_distance_mm: distanceMm(),
    },
  ],
  'must hold one standard of sharpness only',
);

/** The standard's places on its bed scale, larger when drawn out, and heights on the ground glass. */
const bedSchema = record({
  infinity_mm: offsetMm().optional(),
  near_mm: offsetMm().optional(),
  far_mm: offsetMm().optional(),
  /** Above the middle of the glass as the picture stands upright. */
  near_up_mm: offsetMm().optional(),
  far_up_mm: offsetMm().optional(),
});

const stackSchema = record({
  overlap: share().optional(),
  /** Time for one frame with its wait, s. */
  seconds_each: timeS().optional(),
  f_number: fNumber().optional(),
});

/** A lens held by hand ahead of the body. */
const heldOffSchema = record({
  lens_register_mm: thicknessMm().optional(),
  body_register_mm: thicknessMm().optional(),
  flange_diameter_mm: diameterMm().optional(),
  throat_mm: diameterMm().optional(),
  /** Between the two flanges at their middle. */
  gap_mm: thicknessMm(),
  lean_deg: leanDeg(),
  /** Clockwise as seen from behind; 0 leans forward. */
  turn_deg: turnDeg().optional(),
});

export const movementsSchema = record({
  rise_mm: movementMm(),
  shift_mm: movementMm(),
  tilt_deg: leanDeg(),
  swing_deg: leanDeg(),
  rear_tilt_deg: leanDeg().optional(),
  rear_swing_deg: leanDeg().optional(),
  rear_rise_mm: movementMm().optional(),
  rear_shift_mm: movementMm().optional(),
});

/** Everything a station says but what it is called: what a variant keeps of its own. */
export const settingsShape = {
  back: backSchema,
  lens: lensSchema,
  chain: list(chainPartSchema, 32),
  movement_limits: movementLimitsSchema,
  aperture: fNumber(),
  focus: focusSchema,
  movements: movementsSchema,
  camera: record({
    height_m: heightM(),
    pitch_deg: leanDeg(),
    yaw_deg: turnDeg(),
    /** What the user's own level shows when the camera truly stands level. */
    level_offset_deg: leanDeg().optional(),
    level_offset_roll_deg: leanDeg().optional(),
  }),
  criterion: criterionSchema,
  /** Default: nobody chose it. A file that does not say: chosen. */
  criterion_by: oneOf(['default', 'chosen']).optional(),
  facade: facadeSchema.optional(),
  site: siteSchema.optional(),
  marks: list(
    record({
      label: text(),
      x_m: placeM(),
      y_m: heightM(),
      z_m: placeM(),
      /** Free: looked at, but nothing is asked of it. */
      must: oneOf(['sharp', 'soft', 'free']),
      /** So far off that only its direction from the sensor mark counts. */
      infinite: yesOrNo().optional(),
      /** What a seam of a mosaic must not run through: fine detail, or what will have moved. */
      at_seams: oneOf(['fine', 'moving']).optional(),
      /** Blur wanted at least, on the back, where it is to be soft. */
      blur_um: confusionUm().optional(),
    }),
    500,
  ).optional(),
  crop: cropSchema.optional(),
  solve: record({
    tilt: yesOrNo(),
    swing: yesOrNo(),
    /** Lean the back instead of the lens. */
    rear: yesOrNo().optional(),
    /** The settings follow when a mark is moved. */
    follow: yesOrNo().optional(),
  }).optional(),
  /** Readings on the bed scale, for working without a plan of the marks. */
  bed: bedSchema.optional(),
  stack: stackSchema.optional(),
  held_off: heldOffSchema.optional(),
  turn_in: turnInSchema.optional(),
  mosaic: mosaicSchema.optional(),
  exposure: exposureSchema.optional(),
  stand: standSchema.optional(),
};

/** The names of a station's own settings, for telling them from what is kept unknown. */
export const SETTINGS = Object.keys(settingsShape) as (keyof typeof settingsShape)[];

/** Alternatives for the same picture; the station's own settings are those of the one named here. */
export const variantsField = <T extends z.ZodType>(settings: T) =>
  record({ present: text(), kept: list(record({ name: text(), settings }), 12) });

/** The document's shape before the rules that its fields owe each other. */
export const stationShape = record({
  format: z.literal(FORMAT, { error: `must be "${FORMAT}"` }),
  version: z.literal(VERSION),
  name: text(),
  ...settingsShape,
  /** Saved since a leaned back turns about its own middle; without it that is said on its page. */
  lean_checked: yesOrNo().optional(),
  variants: variantsField(record(settingsShape)).optional(),
});

export type Station = Known<z.infer<typeof stationShape>>;
export type Back = Station['back'];
export type Lens = Station['lens'];
export type ChainPart = Station['chain'][number];
export type Focus = Station['focus'];
export type MovementLimits = Station['movement_limits'];
export type Facade = NonNullable<Station['facade']>;
export type Site = NonNullable<Station['site']>;
export type Room = NonNullable<Site['room']>;
export type Box = NonNullable<Site['boxes']>[number];
export type Mark = NonNullable<Station['marks']>[number];
export type Solve = NonNullable<Station['solve']>;
export type Mosaic = NonNullable<Station['mosaic']>;
export type Exposure = NonNullable<Station['exposure']>;
export type Film = NonNullable<Exposure['film']>;
export type Crop = NonNullable<Station['crop']>;
/** Settings of a kept variant. */
export type Settings = NonNullable<Station['variants']>['kept'][number]['settings'];
