import type { CoverageReport } from '../cover/coverage.js';
import type { FacadeReport, FacadeWay } from '../facade/facade.js';
import type { TurnInReport } from '../facade/turn-in.js';
import type { MarkReport } from '../focus/marks.js';
import type { SolutionReport } from '../focus/report.js';
import type { ExposureReport } from '../exposure/report.js';
import type { MosaicReport } from '../mosaic/report.js';
import type { PerspectiveReport } from '../optical/perspective.js';
import type { RigReport } from '../rig/report.js';

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
  rig: RigReport;
  coverage: CoverageReport;
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
    /** Null, as the next and the last, where no image is formed. */
    effective_f_number: number | null;
    bellows_stops: number | null;
    hinge_mm: number | null;
    hyperfocal_m: number;
    near_m: number | null;
    far_m: number | null;
    plane: { normal: [number, number, number]; distance_mm: number | null };
    airy_um: number | null;
    /** Why those are null. */
    no_image?: string;
  };
  perspective: PerspectiveReport;
  facade?: FacadeReport & { ways_out: FacadeWay[] };
  marks?: MarkReport[];
  /** Present where something must be sharp. */
  solution?: SolutionReport;
  turn_in?: TurnInReport;
  mosaic?: MosaicReport;
  exposure?: ExposureReport;
  /** What to set on a lens or adapter that turns; null where nothing does. */
  turning: {
    angle_deg: number;
    /** Where shift and tilt turn apart. */
    tilt_angle_deg?: number;
    shift_mm: number;
    tilt_deg: number;
    reached: boolean;
    off_mm: number;
    off_deg: number;
  } | null;
  /** Every input that nobody gave and on which a figure of this report rests. */
  assumed: { pointer: string; value: unknown; why: string }[];
  /** What of the lens was measured, and is used; left out where nothing was. */
  measured?: { pointer: string; why: string }[];
}

/** What a station gives without searching: the report but for its searched parts, its mosaic and its exposure. */
export type Readings = Omit<Report, 'facade' | 'solution' | 'mosaic' | 'exposure'> & {
  facade?: FacadeReport;
};
