import { degrees, into, outOf, sensorBasis, subtract, type Axes, type Vec3 } from '@gangway/optics';
import type { Mark, Station } from '../document/station.js';
import type { Setup } from './setup.js';

/** Sensor axes in the station frame (X right, Y up, Z level ahead at yaw 0). */
export function sensorAxes({ camera, movements, held_off: held }: Station): Axes {
  const body = sensorBasis(camera.pitch_deg, camera.yaw_deg);
  // A body in the hand has no rear standard to lean.
  const { rear_tilt_deg: tilt = 0, rear_swing_deg: swing = 0 } = held ? {} : movements;
  const rear = sensorBasis(tilt, swing);
  return {
    right: outOf(body, rear.right),
    up: outOf(body, rear.up),
    normal: outOf(body, rear.normal),
  };
}

/** How far the sensor points above level, pitch and leans of the back together. */
export const sensorPitchDeg = (station: Station): number =>
  degrees(Math.asin(Math.max(-1, Math.min(1, sensorAxes(station).normal[1]))));

/** A place in the station frame, m, as the camera frame has it: mm from the lens centre. */
export function fromLensCentre({
  station,
  lensCentre,
}: Setup): (x_m: number, y_m: number, z_m: number) => Vec3 {
  const axes = sensorAxes(station);
  return (x_m, y_m, z_m) => {
    const p: Vec3 = [x_m * 1000, (y_m - station.camera.height_m) * 1000, z_m * 1000];
    return subtract(into(axes, p), lensCentre);
  };
}

/** So far off that no figure tells it from infinity. */
const INFINITE_M = 1e12;

/** Where a mark lies in the camera frame; far out along its direction when at infinity. */
export function markPlace(
  setup: Setup,
): (mark: Pick<Mark, 'x_m' | 'y_m' | 'z_m' | 'infinite'>) => Vec3 {
  const { station } = setup;
  const place = fromLensCentre(setup);
  const { height_m } = station.camera;
  return ({ x_m, y_m, z_m, infinite }) => {
    if (!infinite) return place(x_m, y_m, z_m);
    const out = INFINITE_M / (Math.hypot(x_m, y_m - height_m, z_m) || 1);
    return place(x_m * out, (y_m - height_m) * out + height_m, z_m * out);
  };
}

/** The lens centre in the station frame, m: the other way from {@link fromLensCentre}. */
export function lensCentreM({ station, lensCentre }: Setup): Vec3 {
  const [x, y, z] = outOf(sensorAxes(station), lensCentre);
  return [x / 1000, y / 1000 + station.camera.height_m, z / 1000];
}
