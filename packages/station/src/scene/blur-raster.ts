import { blurDiameterMm, dot, outOf, type Vec3 } from '@gangway/optics';
import { lensCentreM, sensorAxes } from '../optical/places.js';
import type { Box, Station } from '../document/station.js';
import { setupOf } from '../optical/setup.js';
import { turnedBox } from '../document/turned-box.js';

/** Blur of every part of the picture: rows from the top, upright. */
export interface BlurRaster {
  readonly width: number;
  readonly height: number;
  /** Diameter of the blur disc on the back, µm. */
  readonly blurUm: Float32Array;
}

/** Parts of the picture across its longer side, where no other number is asked for. */
const ACROSS = 128;

/** A ray from the lens centre: the share of its direction at which it meets something, or ∞. */
type Thing = (origin: Vec3, way: Vec3) => number;

/** Nearer than this a ray has not left the lens, m. */
const NEAREST_M = 1e-3;

const plane =
  (axis: 0 | 1 | 2, at: number, inside: (p: Vec3) => boolean = () => true): Thing =>
  (origin, way) => {
    const t = (at - origin[axis]) / way[axis];
    if (!(t > NEAREST_M)) return Infinity;
    const place: Vec3 = [origin[0] + t * way[0], origin[1] + t * way[1], origin[2] + t * way[2]];
    return inside(place) ? t : Infinity;
  };

/** Slabs of a box turned about the vertical. Source: Kay and Kajiya (1986), from memory. */
function boxThing(box: Box): Thing {
  const { into } = turnedBox(box);
  const low = box.base_m ?? 0;
  const half = [box.width_m / 2, box.height_m / 2, box.depth_m / 2];
  return (origin, way) => {
    const [x, z] = into(origin[0] - box.x_m, origin[2] - box.z_m);
    const from: Vec3 = [x, origin[1] - low - half[1]!, z];
    const [wayX, wayZ] = into(way[0], way[2]);
    const along: Vec3 = [wayX, way[1], wayZ];
    let [enter, leave] = [-Infinity, Infinity];
    for (let i = 0; i < 3; i++) {
      const [a, b] = [(-half[i]! - from[i]!) / along[i]!, (half[i]! - from[i]!) / along[i]!];
      enter = Math.max(enter, Math.min(a, b));
      leave = Math.min(leave, Math.max(a, b));
    }
    return enter > NEAREST_M && enter <= leave ? enter : Infinity;
  };
}

function thingsOf({ site, facade }: Station): Thing[] {
  const things = (site?.boxes ?? []).map(boxThing);
  if (facade) {
    const { distance_m, top_m, base_m = 0, width_m, x_m = 0 } = facade;
    things.push(
      plane(
        2,
        distance_m,
        ([x, y]) => Math.abs(x - x_m) <= width_m / 2 && y >= base_m && y <= top_m,
      ),
    );
  }
  things.push(plane(1, 0));
  if (site?.room) {
    const { length_m, width_m, ceiling_m, behind_m, left_m } = site.room;
    things.push(
      plane(1, ceiling_m),
      plane(0, -left_m),
      plane(0, width_m - left_m),
      plane(2, length_m - behind_m),
    );
  }
  return things;
}

/** How blurred each part of the frame falls, from the first thing each ray meets. */
export function blurRaster(station: Station, across = ACROSS): BlurRaster {
  const s = setupOf(station);
  const { frame, imageDistanceMm: v, focalLengthMm: f, axis, pupil, fNumber, factor } = s;
  const axes = sensorAxes(station);
  const origin = lensCentreM(s);
  const scale = across / Math.max(frame.widthMm, frame.heightMm);
  const width = Math.max(1, Math.round(frame.widthMm * scale));
  const height = Math.max(1, Math.round(frame.heightMm * scale));
  const things = thingsOf(station);
  const blurUm = new Float32Array(width * height);
  for (let row = 0; row < height; row++) {
    const y = frame.riseMm + frame.heightMm * (0.5 - (row + 0.5) / height);
    for (let column = 0; column < width; column++) {
      const x = frame.shiftMm + frame.widthMm * ((column + 0.5) / width - 0.5);
      const ray: Vec3 = [x, y, v];
      const way = outOf(axes, ray);
      let t = Infinity;
      for (const thing of things) t = Math.min(t, thing(origin, way));
      // 1/q along the ray, at t in m; a ray that meets nothing runs to infinity.
      const inverse = dot(ray, axis) / v / f - (Number.isFinite(t) ? 1 / (1000 * t * v) : 0);
      blurUm[row * width + column] = blurDiameterMm(pupil, fNumber, v, inverse) * factor * 1000;
    }
  }
  return { width, height, blurUm };
}
