import {
  blurDiameterMm,
  degrees,
  dot,
  fNumberNeeded,
  inverseDepth,
  patchStretch,
  project,
  sensorBasis,
  subtract,
  type Vec3,
} from '@gangway/optics';
import type { MarkReport } from './report.js';
import type { Mark, Station } from './schema.js';
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

const finite = (value: number): number | null => (Number.isFinite(value) ? value : null);

/** A hair past the stop still holds: what is set is rounded. */
const HAIR = 1 + 1e-6;

function holdsAt(must: Mark['must'], needed: number, setup: Setup, wantedMm: number): boolean {
  if (must === 'sharp') return needed <= setup.fNumber * HAIR;
  // Blur is N needed × c / N.
  return must === 'free' || needed * setup.cocMm * HAIR > wantedMm * setup.fNumber;
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

/**
 * What the search aims at for a mark to be soft that says nothing, in circles of confusion. One is
 * no longer sharp; it takes some more to be seen as left soft (common practice, no source).
 */
export const SOFT_COCS = 4;

/** How sharp each mark falls, and whether the frame holds it. */
export function reportMarks(station: Station, setup: Setup): MarkReport[] {
  const place = markPlace(station, setup);
  const { focalLengthMm: f, imageDistanceMm: v, pupil, frame, factor } = setup;
  return (station.marks ?? []).map((mark) => {
    const point = place(mark);
    // Nearer than f there is no image, but a patch all the same.
    const ahead = point[2] > 0;
    const u = inverseDepth(f, setup.axis, point);
    const needed = ahead ? fNumberNeeded(pupil, v, u, setup.cocMm) : Infinity;
    const wanted = mark.blur_um === undefined ? setup.cocMm : mark.blur_um / 1000 / factor;
    const { x, y } = project(point, v);
    const blurMm = ahead ? blurDiameterMm(pupil, setup.fNumber, v, u) * factor : Infinity;
    return {
      label: mark.label,
      image_depth_mm: ahead && u > 0 ? finite(1 / u) : null,
      blur_um: finite(blurMm * 1000),
      f_number_needed: finite(needed * factor),
      holds: holdsAt(mark.must, needed, setup, wanted),
      in_frame:
        ahead &&
        Math.abs(x - frame.shiftMm) <= frame.widthMm / 2 &&
        Math.abs(y - frame.riseMm) <= frame.heightMm / 2,
    };
  });
}

/** How much longer than its width the patch of each mark is, drawn out by a leaned stop; shares. */
export function patchesLonger(station: Station, setup: Setup): number[] {
  const { axis, imageDistanceMm: v } = setup;
  const place = markPlace(station, setup);
  return (station.marks ?? []).map((mark) => {
    const at = place(mark);
    return at[2] > 0 ? patchStretch(axis, v, project(at, v)) : 0;
  });
}
