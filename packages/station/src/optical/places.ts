import { degrees, dot, sensorBasis, subtract, type Vec3 } from '@gangway/optics';
import type { Mark, Station } from '../document/station.js';
import type { Setup } from './setup.js';

/** Sensor axes in the station frame (X right, Y up, Z level ahead at yaw 0). */
export function sensorAxes(station: Station): { right: Vec3; up: Vec3; normal: Vec3 } {
  const { camera, movements } = station;
  const body = sensorBasis(camera.pitch_deg, camera.yaw_deg);
  const rear = sensorBasis(movements.rear_tilt_deg ?? 0, movements.rear_swing_deg ?? 0);
  const outward = (v: Vec3): Vec3 => [
    v[0] * body.right[0] + v[1] * body.up[0] + v[2] * body.normal[0],
    v[0] * body.right[1] + v[1] * body.up[1] + v[2] * body.normal[1],
    v[0] * body.right[2] + v[1] * body.up[2] + v[2] * body.normal[2],
  ];
  return { right: outward(rear.right), up: outward(rear.up), normal: outward(rear.normal) };
}

/** How far the sensor points above level, pitch and leans of the back together. */
export const sensorPitchDeg = (station: Station): number =>
  degrees(Math.asin(Math.max(-1, Math.min(1, sensorAxes(station).normal[1]))));

/** A place in the station frame, m, as the camera frame has it: mm from the lens centre. */
export function fromLensCentre(
  station: Station,
  { lensCentre }: Setup,
): (x_m: number, y_m: number, z_m: number) => Vec3 {
  const { right, up, normal } = sensorAxes(station);
  return (x_m, y_m, z_m) => {
    const p: Vec3 = [x_m * 1000, (y_m - station.camera.height_m) * 1000, z_m * 1000];
    return subtract([dot(p, right), dot(p, up), dot(p, normal)], lensCentre);
  };
}

/** So far off that no figure tells it from infinity. */
const INFINITE_M = 1e12;

/** Where a mark lies in the camera frame; far out along its direction when at infinity. */
export function markPlace(
  station: Station,
  setup: Setup,
): (mark: Pick<Mark, 'x_m' | 'y_m' | 'z_m' | 'infinite'>) => Vec3 {
  const place = fromLensCentre(station, setup);
  const { height_m } = station.camera;
  return ({ x_m, y_m, z_m, infinite }) => {
    if (!infinite) return place(x_m, y_m, z_m);
    const out = INFINITE_M / (Math.hypot(x_m, y_m - height_m, z_m) || 1);
    return place(x_m * out, (y_m - height_m) * out + height_m, z_m * out);
  };
}
