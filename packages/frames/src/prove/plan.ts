/** What a mosaic was planned to be, in the terms of pictures. */

export interface PlannedFrame {
  /** In the order of shooting, from 1. */
  readonly order: number;
  /** Of the frame's middle in picture coordinates, y up; of a turn: along the cylinder. */
  readonly xMm: number;
  readonly yMm: number;
  /** Clockwise as the picture is seen upright. */
  readonly rotationDeg: number;
}

export interface PlannedPair {
  /** Places in `frames`. */
  readonly a: number;
  readonly b: number;
  /** How far near and far part along the travel as planned, mm on the back; 0 where the lens stays. */
  readonly partsMm: number;
  /** The least that even the farthest thing goes beyond the plan, mm. */
  readonly farMm: number;
}

export interface Plan {
  readonly frames: readonly PlannedFrame[];
  readonly pairs: readonly PlannedPair[];
  /** Of the back as it is held, mm. */
  readonly widthMm: number;
  readonly heightMm: number;
  /** Pixels across the back as it is held; null where the pictures have to tell. */
  readonly widthPx: number | null;
  /** Whether the lens goes along with the frames, so that near and far part. */
  readonly lensTravels: boolean;
  /** Image distance where the whole camera turns: frames are rolled onto a cylinder. Else null. */
  readonly cylinderMm: number | null;
}

/** A point or a way on the picture, y up. */
export interface Xy {
  readonly x: number;
  readonly y: number;
}
