import * as z from 'zod';
import {
  backMm,
  diameterMm,
  distanceMm,
  fNumber,
  focalLengthMm,
  kindFault,
  leanDeg,
  lengthMm,
  list,
  magnification,
  movementMm,
  multiplierFactor,
  offsetMm,
  oneOf,
  pixels,
  pupilRatio,
  quantity,
  range,
  record,
  text,
  thicknessMm,
  travelMm,
  turnDeg,
  yesOrNo,
} from './fields.js';
import { measuredSchema } from './measured.js';
import { frameStopsSchema } from './mosaic.js';

/** The things a rig is made of, as the station file and the kit both write them. */

const massG = () => quantity('g', { min: 0.001, max: 1_000_000 });
const offCentreMm = () => quantity('mm', { min: -2000, max: 2000 });

/** Which kit item a copy was taken from, and how it stood then. */
export const origin = {
  origin: record({
    kit_id: text(64),
    kit_revision: quantity('', { min: 1, max: 2_147_483_647, whole: true }),
  }).optional(),
};

/** What any piece of gear may carry. */
export const common = {
  mass_g: massG().optional(),
  /** Altered by its owner: filed, sawn, glued. */
  modified: yesOrNo().optional(),
  notes: text(2000).optional(),
};

/** Faces of a part that stands in the chain: `front` towards the lens. */
export const faces = {
  front_mount: text().optional(),
  rear_mount: text().optional(),
  /** Clear opening a rear barrel has to pass. */
  throat_mm: diameterMm().optional(),
  /** Whether it carries the electrical contacts through. */
  contacts: yesOrNo().optional(),
};

export const backShape = {
  name: text().optional(),
  width_mm: backMm(),
  height_mm: backMm(),
  width_px: pixels().optional(),
  height_px: pixels().optional(),
  register_mm: thicknessMm().optional(),
  mount: text().optional(),
  medium: oneOf(['digital', 'film']).optional(),
  throat_mm: diameterMm().optional(),
  /** Free depth behind the flange, to mirror, shutter or glass. */
  clear_depth_mm: thicknessMm().optional(),
  contacts: yesOrNo().optional(),
  /** Whether a mirror has to go up before the shutter opens. */
  mirror: yesOrNo().optional(),
  ...common,
};

export const backSchema = record({
  ...backShape,
  orientation: oneOf(['landscape', 'portrait']),
  ...origin,
});

const circleEntrySchema = record({ f_number: fNumber(), diameter_mm: diameterMm() });

const filterShape = {
  name: text().optional(),
  clear_diameter_mm: diameterMm(),
  ahead_of_pupil_mm: thicknessMm(),
};

const lensShape = {
  name: text().optional(),
  focal_length_mm: focalLengthMm(),
  f_min: fNumber(),
  f_max: fNumber(),
  circle: list(circleEntrySchema, 64).min(1, {
    error: 'must hold at least one entry: { f_number, diameter_mm }',
  }),
  sharp_fraction: quantity('', { min: 0.01, max: 1 }).optional(),
  pupil_ratio: pupilRatio().optional(),
  register_mm: thicknessMm().optional(),
  flange_focal_mm: offsetMm().optional(),
  mount: text().optional(),
  filter: record({ ...filterShape, ...origin }).optional(),
  close_focus: record({
    distance_mm: distanceMm(),
    magnification: magnification(),
  }).optional(),
  iris: oneOf(['mechanical', 'electronic', 'none']).optional(),
  focus_by: oneOf(['helicoid', 'bellows', 'wire', 'rail']).optional(),
  /** What the bed’s own scale reads with this lens at infinity, everything straight. */
  bed_infinity_mm: offsetMm().optional(),
  rear_diameter_mm: diameterMm().optional(),
  /** How far glass or barrel reach behind the flange. */
  rear_protrusion_mm: thicknessMm().optional(),
  filter_thread_mm: diameterMm().optional(),
  thread_ahead_of_pupil_mm: thicknessMm().optional(),
  /** Centre of mass ahead of the flange. */
  balance_ahead_mm: offCentreMm().optional(),
  has_foot: yesOrNo().optional(),
  /** Its shutter must be open or cocked for mounting or for a live picture. */
  needs_open_shutter: yesOrNo().optional(),
  measured: measuredSchema.optional(),
  ...common,
};

const movementLimitsShape = {
  rise_mm: range(movementMm()).optional(),
  shift_mm: range(movementMm()).optional(),
  tilt_deg: range(leanDeg()).optional(),
  swing_deg: range(leanDeg()).optional(),
  radial_shift_mm: travelMm().optional(),
  radial_tilt_deg: quantity('degrees', { min: 0, max: 80 }).optional(),
  pivot_mm: offsetMm().optional(),
  /** Leaning of the back itself; not given where it cannot. */
  rear_tilt_deg: range(leanDeg()).optional(),
  rear_swing_deg: range(leanDeg()).optional(),
  /** The axis the back tilts about, below its middle (base tilt). */
  rear_pivot_mm: offsetMm().optional(),
  /** A second standard: of the back where the front moves. */
  rear_rise_mm: range(movementMm()).optional(),
  rear_shift_mm: range(movementMm()).optional(),
  /** Stops of a lens or adapter that turns; none listed: it turns freely. */
  turn_stops_deg: list(turnDeg(), 72).optional(),
  one_way_tilt: yesOrNo().optional(),
  /** How shift and tilt lie to each other as built. */
  shift_tilt: oneOf(['in_line', 'crossed', 'free']).optional(),
  /** Stops at which the length of the shift is less. */
  reduced: list(
    record({ f_from: fNumber(), f_to: fNumber(), shift_mm: travelMm() }),
    16,
  ).optional(),
  detent_mm: travelMm().optional(),
  /** Places of its own at which the back stops for the frames of one picture. */
  frame_stops: frameStopsSchema.optional(),
  detent_deg: quantity('degrees', { min: 0, max: 80 }).optional(),
  /** What the scales read when the standard is truly straight, as it was measured. */
  zero: record({ tilt_deg: leanDeg().optional(), swing_deg: leanDeg().optional() }).optional(),
};

export const movementLimitsSchema = record({
  ...movementLimitsShape,
  moves: oneOf(['front', 'rear']),
});

/** Movements of one part of the chain, or of a lens in the kit. */
export const movementShape = { movement: movementLimitsSchema.optional() };

/** A lens with its own movements as built. */
export const lensWithMovementShape = { ...lensShape, ...movementShape };

export const lensSchema = record({ ...lensWithMovementShape, ...origin });

export const adapterShape = {
  name: text().optional(),
  thickness_mm: thicknessMm(),
  /** A focusing adapter: how much further it draws out. */
  extends_mm: thicknessMm().optional(),
  /** What its mechanism needs; no thinner one can be made. */
  least_thickness_mm: thicknessMm().optional(),
  ...faces,
  ...movementShape,
  ...common,
};

export const multiplierShape = {
  name: text().optional(),
  factor: multiplierFactor(),
  circle_limit_mm: diameterMm().optional(),
  /** Its own length, for the drawing and the balance; the register is not changed by it. */
  length_mm: thicknessMm().optional(),
  /** Thickness of the plain adapter it stands in for, where its two mounts differ. */
  replaces_mm: thicknessMm().optional(),
  /** Free depth in front of its own glass. */
  clear_depth_mm: thicknessMm().optional(),
  ...faces,
  ...common,
};

export const boardShape = {
  name: text().optional(),
  offset_mm: offsetMm(),
  ...faces,
  ...common,
};

const viewCameraShape = {
  name: text().optional(),
  bellows_min_mm: thicknessMm(),
  bellows_max_mm: lengthMm(),
  front_mount: text().optional(),
  rear_mount: text().optional(),
  contacts: yesOrNo().optional(),
  ...movementShape,
  ...common,
};

const CHAIN_SHAPES = {
  adapter: adapterShape,
  multiplier: multiplierShape,
  board: boardShape,
  view_camera: viewCameraShape,
};

export const chainPartSchema = z.discriminatedUnion(
  'kind',
  [
    record({ kind: z.literal('adapter'), ...adapterShape, ...origin }),
    record({ kind: z.literal('multiplier'), ...multiplierShape, ...origin }),
    record({ kind: z.literal('board'), ...boardShape, ...origin }),
    record({ kind: z.literal('view_camera'), ...viewCameraShape, ...origin }),
  ],
  { error: kindFault('kind', Object.keys(CHAIN_SHAPES)) },
);
