import type { Xy } from './plan.js';
import type { Verdict } from './verdict.js';

/** What a proof found. Places in mm of picture coordinates and pixels, y up. */

export interface ProvedFrame {
  readonly file: string;
  /** In the order of shooting, from 1. */
  readonly order: number;
  readonly xMm: number;
  readonly yMm: number;
  /** Clockwise, as it lies: the plan's and what was found beyond it. */
  readonly rotationDeg: number;
  /** Quarter turns clockwise that the file needed beyond what was planned, degrees. */
  readonly turnedDeg: number;
  /** From the plan. */
  readonly offPx: Xy;
  /** From the first frame; brighter is positive. Null where no overlap tells. */
  readonly exposureStops: number | null;
  readonly widthPx: number;
  readonly heightPx: number;
  /** Whether overlaps that say anything tie it to the rest; else its place is the plan's. */
  readonly tied: boolean;
}

/** One tile of an overlap, on the picture. */
export interface ProvedTile {
  /** Its middle, mm of picture coordinates. */
  readonly atMm: Xy;
  readonly state: 'matched' | 'poor' | 'lost';
  /** What it is off from the overlap as a whole, pixels; null where it did not match. */
  readonly leftPx: Xy | null;
  /** Whether it is of the region that disagrees with the rest. */
  readonly odd: boolean;
}

export interface ProvedOverlap {
  /** Orders of its frames. */
  readonly a: number;
  readonly b: number;
  readonly residualPx: number;
  readonly parallaxPx: number;
  readonly exposureStops: number | null;
  /** Share of tiles that match. */
  readonly matched: number;
  readonly verdict: Verdict;
  /** How far b lies off from where a and the plan put it, pixels. */
  readonly offPx: Xy;
  /** How far that is more than depth explains, pixels. */
  readonly slipPx: number;
  /** How far b is turned against a beyond the plan, degrees clockwise. */
  readonly turnDeg: number;
  readonly tiles: readonly ProvedTile[];
}

export interface SetAside {
  readonly file: string;
  readonly why: string;
}

export interface Proof {
  readonly frames: readonly ProvedFrame[];
  readonly overlaps: readonly ProvedOverlap[];
  /** Of the box round all frames. */
  readonly widthPx: number;
  readonly heightPx: number;
  /** mm of a pixel. */
  readonly pitchMm: number;
  readonly verdict: Verdict;
  readonly setAside: readonly SetAside[];
  /** Planned frames that no file shows. */
  readonly missing: readonly number[];
  /** Whether files were told apart by their order, or by what overlaps what. */
  readonly orderBy: 'name' | 'overlap';
}
