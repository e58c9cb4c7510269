import { cross, degrees, dot, radians, unit, type Vec3 } from './vector.js';

/** How the lens leans against the sensor, in degrees: tilt forward, swing right positive. */
export interface TiltSwing {
  readonly tiltDeg: number;
  readonly swingDeg: number;
}

/** A one-way tilt turned about the lens: length of the lean, and the stop clockwise from behind. */
export interface TurnedTilt {
  readonly leanDeg: number;
  readonly turnDeg: number;
}

/**
 * The lens axis as a unit vector in the camera frame: swung about the vertical, then
 * tilted about the swung horizontal. At zero it is the sensor normal.
 */
export function lensAxis({ tiltDeg, swingDeg }: TiltSwing): Vec3 {
  const tilt = radians(tiltDeg);
  const swing = radians(swingDeg);
  return [Math.sin(swing) * Math.cos(tilt), -Math.sin(tilt), Math.cos(swing) * Math.cos(tilt)];
}

/** The tilt and swing that give an axis; the inverse of {@link lensAxis} below 90°. */
export function tiltSwingOf(axis: Vec3): TiltSwing {
  const [x, y, z] = unit(axis);
  return {
    tiltDeg: degrees(Math.asin(Math.max(-1, Math.min(1, -y)))),
    swingDeg: degrees(Math.atan2(x, z)),
  };
}

/** The axis of a lens that leans one way only and is turned, from lean and turn. */
export function turnedAxis({ leanDeg, turnDeg }: TurnedTilt): Vec3 {
  const lean = radians(leanDeg);
  const turn = radians(turnDeg);
  return [-Math.sin(lean) * Math.sin(turn), -Math.sin(lean) * Math.cos(turn), Math.cos(lean)];
}

/** Tilt and swing as lean and turn, for a lens that leans one way and turns. Turn is 0 to 360. */
export function turnedTiltOf(movement: TiltSwing): TurnedTilt {
  const [x, y, z] = lensAxis(movement);
  const across = Math.hypot(x, y);
  if (across === 0) return { leanDeg: 0, turnDeg: 0 };
  const turn = degrees(Math.atan2(-x, -y));
  return { leanDeg: degrees(Math.atan2(across, z)), turnDeg: turn < 0 ? turn + 360 : turn };
}

/**
 * The lens axis seen from a sensor that is itself tilted (normal up positive) and swung
 * (normal right positive) on the bed. The two are combined as vectors.
 */
export function axisFromSensor(lens: TiltSwing, rear: TiltSwing): Vec3 {
  const axis = lensAxis(lens);
  if (rear.tiltDeg === 0 && rear.swingDeg === 0) return axis;
  return into(sensorBasis(rear.tiltDeg, rear.swingDeg), axis);
}

/** The axes of a frame, in the frame it stands in. */
export interface Axes {
  readonly right: Vec3;
  readonly up: Vec3;
  readonly normal: Vec3;
}

/** A vector told in a frame's own axes, in the frame it stands in. */
export const outOf = ({ right, up, normal }: Axes, [a, b, c]: Vec3): Vec3 => [
  a * right[0] + b * up[0] + c * normal[0],
  a * right[1] + b * up[1] + c * normal[1],
  a * right[2] + b * up[2] + c * normal[2],
];

/** A vector of the frame it stands in, told in a frame's own axes. */
export const into = ({ right, up, normal }: Axes, v: Vec3): Vec3 => [
  dot(v, right),
  dot(v, up),
  dot(v, normal),
];

/** The three axes of a frame whose normal is pitched up and turned right, in the outer frame. */
export function sensorBasis(pitchDeg: number, yawDeg: number): Axes {
  const [p, y] = [radians(pitchDeg), radians(yawDeg)];
  return {
    right: [Math.cos(y), 0, -Math.sin(y)],
    up: [-Math.sin(y) * Math.sin(p), Math.cos(p), -Math.cos(y) * Math.sin(p)],
    normal: [Math.sin(y) * Math.cos(p), Math.sin(p), Math.cos(y) * Math.cos(p)],
  };
}

/**
 * What a tilt axis `pivotMm` behind the lens centre does to the lens centre when the lens
 * leans: it travels across in the direction of lean, and back towards the sensor.
 * @returns mm to add to shift, to rise and to the image distance
 */
export function pivotTravel(
  axis: Vec3,
  pivotMm: number,
): { shiftMm: number; riseMm: number; backMm: number } {
  return {
    shiftMm: pivotMm * axis[0],
    riseMm: pivotMm * axis[1],
    backMm: pivotMm * (axis[2] - 1),
  };
}

/** Two unit vectors square to an axis and to each other. */
export function acrossTo(axis: Vec3): [Vec3, Vec3] {
  const flat = Math.hypot(axis[0], axis[2]) || 1;
  const right: Vec3 = [axis[2] / flat, 0, -axis[0] / flat];
  return [right, cross(axis, right)];
}
