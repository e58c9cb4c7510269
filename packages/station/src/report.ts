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
    filter_clear: boolean;
    /** Null where the corner lies 90° or more from the axis: no light comes there. */
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
  marks?: MarkReport[];
}

export type Direction = 'rise_mm' | 'fall_mm' | 'left_mm' | 'right_mm';

export interface MarkReport {
  label: string;
  image_depth_mm: number | null;
  blur_um: number | null;
  f_number_needed: number | null;
  holds: boolean;
  in_frame: boolean;
}
