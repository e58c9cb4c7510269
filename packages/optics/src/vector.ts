/** A direction or point: x right, y up, z forward along the sensor normal. */
export type Vec3 = readonly [number, number, number];

export const dot = (a: Vec3, b: Vec3): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];

export const scale = (a: Vec3, k: number): Vec3 => [a[0] * k, a[1] * k, a[2] * k];

export const subtract = (a: Vec3, b: Vec3): Vec3 => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];

export const length = (a: Vec3): number => Math.hypot(a[0], a[1], a[2]);

export const unit = (a: Vec3): Vec3 => scale(a, 1 / length(a));

export const radians = (degrees: number): number => (degrees * Math.PI) / 180;

export const degrees = (angleRad: number): number => (angleRad * 180) / Math.PI;

/** The sensor normal in the camera frame. */
export const SENSOR_NORMAL: Vec3 = [0, 0, 1];

export const add = (a: Vec3, b: Vec3): Vec3 => [a[0] + b[0], a[1] + b[1], a[2] + b[2]];

export const cross = (a: Vec3, b: Vec3): Vec3 => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
];
