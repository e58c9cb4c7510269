import { slice, type Cone, type Frame, type Point } from './coverage.js';
import { degrees, radians } from './vector.js';

/** The whole camera turned about the entrance pupil: frames lie by angles, not by millimetres. */
export interface TurnedFrames {
  /** What one frame sees across. */
  readonly frameDeg: number;
  readonly stepDeg: number;
  /** Where the camera points for each frame, right of its own yaw. */
  readonly yawsDeg: readonly number[];
  readonly horizontalDeg: number;
}

const edgesDeg = (frame: Frame, imageDistanceMm: number): readonly [number, number] => [
  degrees(Math.atan((frame.shiftMm - frame.widthMm / 2) / imageDistanceMm)),
  degrees(Math.atan((frame.shiftMm + frame.widthMm / 2) / imageDistanceMm)),
];

/**
 * Equal turns about the upright.
 * @param overlap share of a frame's angle
 */
export function turnedFrames(
  frame: Frame,
  imageDistanceMm: number,
  columns: number,
  overlap: number,
): TurnedFrames {
  const [left, right] = edgesDeg(frame, imageDistanceMm);
  const frameDeg = right - left;
  const stepDeg = (1 - overlap) * frameDeg;
  return {
    frameDeg,
    stepDeg,
    yawsDeg: Array.from({ length: columns }, (_, i) => (i - (columns - 1) / 2) * stepDeg),
    horizontalDeg: frameDeg + (columns - 1) * stepDeg,
  };
}

export interface Panorama {
  readonly centre: Point;
  readonly widthMm: number;
  readonly heightMm: number;
}

/** Angles across one frame at which a cylinder's height is looked at; both ends are among them. */
const PLACES = 48;

/**
 * The picture on an upright cylinder of the image distance: as wide as the turn, its ends not
 * trimmed, and as high as is left all along.
 * @returns null where nothing is left all along
 */
export function onCylinder(
  frame: Frame,
  cone: Cone | null,
  imageDistanceMm: number,
  { frameDeg, stepDeg, yawsDeg, horizontalDeg }: TurnedFrames,
): Panorama | null {
  const [left] = edgesDeg(frame, imageDistanceMm);
  const first = yawsDeg[0]! + left;
  const angles = new Set<number>();
  yawsDeg.forEach((yaw) => {
    for (let i = 0; i <= PLACES; i++) angles.add(yaw + left + (i / PLACES) * frameDeg);
    // Halfway between two frames, where the lower edge of both is reached.
    angles.add(yaw + left + (frameDeg + stepDeg) / 2);
  });
  let [top, bottom] = [Infinity, -Infinity];
  for (const angle of angles) {
    if (angle > first + horizontalDeg + 1e-9) continue;
    let [high, low] = [-Infinity, Infinity];
    for (const yaw of yawsDeg) {
      const own = angle - yaw;
      if (own < left - 1e-9 || own > left + frameDeg + 1e-9) continue;
      const shrunk = Math.cos(radians(own));
      const x = imageDistanceMm * Math.tan(radians(own));
      const lit = cone
        ? slice(cone, { x, y: 0 }, { x: 0, y: 1 })
        : { low: -Infinity, high: Infinity };
      high = Math.max(high, Math.min(lit.high, frame.riseMm + frame.heightMm / 2) * shrunk);
      low = Math.min(low, Math.max(lit.low, frame.riseMm - frame.heightMm / 2) * shrunk);
    }
    [top, bottom] = [Math.min(top, high), Math.max(bottom, low)];
  }
  if (!(top > bottom)) return null;
  return {
    centre: {
      x: imageDistanceMm * radians(first + horizontalDeg / 2),
      y: (top + bottom) / 2,
    },
    widthMm: imageDistanceMm * radians(horizontalDeg),
    heightMm: top - bottom,
  };
}

/** A place of a frame turned by so much, on the plane square to where the camera stood unturned. */
export function ontoFlat({ x, y }: Point, yawDeg: number, imageDistanceMm: number): Point {
  const [c, s] = [Math.cos(radians(yawDeg)), Math.sin(radians(yawDeg))];
  const ahead = imageDistanceMm * c - x * s;
  return {
    x: (imageDistanceMm * (x * c + imageDistanceMm * s)) / ahead,
    y: (imageDistanceMm * y) / ahead,
  };
}
