import type { Corner, LimitedBy } from '@gangway/optics';
import type { ProblemCode, Severity } from './rig/problems/index.js';

/** The report, field for field as `gangway evaluate` prints it. `null`: no finite value. */
export interface Report {
  optics: {
    focal_length_mm: number;
    f_number: number;
    circle_diameter_mm: number;
    sensor_diagonal_mm: number;
    coc_mm: number;
    pixel_pitch_um: number | null;
    equivalent_35mm_mm: number;
  };
  rig: {
    /** Nothing stops the parts from going together. */
    mounts: boolean;
    reaches_infinity: boolean;
    /** From the sensor; null where infinity is reached, and where nothing can be focused. */
    farthest_focus_m: number | null;
    /** At the greatest extension; null where it is not known, and where nothing can be focused. */
    closest_focus_m: number | null;
    /** On the back; null where it is not known. */
    largest_magnification: number | null;
    problems: { code: ProblemCode; severity: Severity; message: string; cure: string }[];
  };
  coverage: {
    covered: boolean;
    worst_corner: Corner;
    margin_mm: number | null;
    sharp: boolean;
    sharp_margin_mm: number | null;
    limits: Record<Direction, number | null>;
    limited_by: Record<Direction extends `${infer Name}_mm` ? Name : never, LimitedBy>;
    /** Of the back, where the front moves and it does too. */
    rear_limits?: Record<Direction, number | null>;
    filter_clear: boolean;
    /** Of the darkest corner; null where no light comes there. */
    corner_falloff_stops: number | null;
  };
  field: {
    left_deg: number;
    right_deg: number;
    up_deg: number;
    down_deg: number;
    horizontal_deg: number;
    vertical_deg: number;
  };
  focus: {
    image_distance_mm: number;
    magnification: number;
    extension_mm: number;
    effective_f_number: number;
    bellows_stops: number;
    hinge_mm: number | null;
    hyperfocal_m: number;
    near_m: number | null;
    far_m: number | null;
    plane: { normal: [number, number, number]; distance_mm: number | null };
    airy_um: number;
  };
  perspective: {
    convergence_deg: number;
    stretch: { left: number; right: number; top: number; bottom: number };
  };
  facade?: FacadeReport & { ways_out: FacadeWay[] };
  marks?: MarkReport[];
  /** Present where something must be sharp. */
  solution?: SolutionReport;
  turn_in?: TurnInReport;
}

/** The setting that holds all marks that must be sharp at the widest stop. */
export interface SolutionReport {
  /** False where no setting serves; the figures are then the best that can be done. */
  possible: boolean;
  /** Which limit stands in the way, and by how much. */
  reason?: string;
  tilt_deg: number | null;
  swing_deg: number | null;
  rear_tilt_deg?: number;
  rear_swing_deg?: number;
  image_distance_mm: number | null;
  /** What to set on the bed. */
  bed_mm: number | null;
  /** From the sensor, straight ahead; null at infinity, past it, and past life size. */
  distance_m: number | null;
  /** The least that holds them; 0 when all lie on the plane. */
  f_number: number | null;
  focus_spread_mm: number | null;
  /** As it acts on the sensor; the ring is set to that over 1 + m/p. */
  f_number_hansma: number | null;
  /** With a straight lens, at the stop that is set. */
  stack_frames: number | null;
  /** Within the mechanism, the image circle and the filter ring. */
  within_limits: boolean;
  /** The search ended early, its steps used up: a better setting may be there. */
  stopped?: true;
}

export interface FacadeReport {
  /** In one frame at an allowed rise: top and foot with their rooms, and the width. */
  fits: boolean;
  /** In the frame as everything is set. */
  framed: boolean;
  /** Null when part of the façade is not ahead of the lens. */
  rise_needed_mm: number | null;
  /** Null also when the foot is not wanted. */
  rise_before_foot_is_cut_mm: number | null;
  /** Null when it fits from nowhere. */
  distance_needed_m: number | null;
}

/** A way to frame the façade: what to do, what it brings and costs, and what it sets. */
export interface FacadeWay {
  id: string;
  title: string;
  detail: string;
  /** New values by JSON pointer into the station. */
  set: Record<string, unknown>;
}

export interface TurnInReport {
  yaw_deg: number;
  /** Null when what is to be kept would lie 90° or more off. */
  shift_mm: number | null;
  far_edge_lost_deg: number | null;
  stretch_before: { near: number; far: number };
  stretch_after: { near: number; far: number } | null;
  possible: boolean;
}

/** What a station gives without searching: the report but for its searched parts. */
export type Readings = Omit<Report, 'facade' | 'solution'> & { facade?: FacadeReport };

export type Direction = 'rise_mm' | 'fall_mm' | 'left_mm' | 'right_mm';

export interface MarkReport {
  label: string;
  image_depth_mm: number | null;
  blur_um: number | null;
  f_number_needed: number | null;
  holds: boolean;
  in_frame: boolean;
}
