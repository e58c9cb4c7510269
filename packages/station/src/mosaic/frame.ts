import type { Point, SetMovement } from '@gangway/optics';
import type { Mosaic } from '../document/station.js';
import { DEFAULT_OVERLAP } from './customs.js';

/** The frames of a layout, and what two of them have in common. */

/** One frame where it lies; picture coordinates, mm on the real back. */
export interface LaidFrame {
  readonly centre: Point;
  readonly rotationDeg: number;
  /** Anticlockwise from the frame's own bottom left. */
  readonly corners: readonly Point[];
  readonly set: SetMovement;
  /** Where the camera is turned to for it, right of its own yaw. */
  readonly yawDeg?: number;
}

export interface Neighbours {
  /** Counted from 0. */
  readonly a: number;
  readonly b: number;
  /** The area shared over a frame's area; of a turn: of its angle. */
  readonly share: number;
}

export const overlapOf = ({ overlap }: Pick<Mosaic, 'overlap'>): number =>
  overlap ?? DEFAULT_OVERLAP;
