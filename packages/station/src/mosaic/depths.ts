import { outOf, type Point, type Vec3, leastOf, mostOf } from '@gangway/optics';
import type { Station } from '../document/station.js';
import { lensCentreM, markPlace, sensorAxes, fromLensCentre } from '../optical/places.js';
import type { Layout } from './layout.js';

/** Nearest and farthest thing that matters, from the sensor plane straight ahead, mm. */
export interface Depths {
  readonly nearMm: number;
  /** Infinity where it is at infinity, or where only the nearest is known. */
  readonly farMm: number;
  readonly given: { readonly near: boolean; readonly far: boolean };
}

function facadePoints({ facade, camera }: Station): Vec3[] {
  if (!facade) return [];
  const { distance_m: z, width_m, top_m, base_m = camera.height_m, x_m = 0 } = facade;
  return [x_m - width_m / 2, x_m + width_m / 2].flatMap((x): Vec3[] => [
    [x, top_m, z],
    [x, base_m, z],
  ]);
}

function boxPoints({ site }: Station): Vec3[] {
  return (site?.boxes ?? []).flatMap((box) => {
    const { x_m, z_m, width_m, depth_m, height_m, base_m = 0, turn_deg = 0 } = box;
    const a = (turn_deg * Math.PI) / 180;
    const [cos, sin] = [Math.cos(a), Math.sin(a)];
    return [-0.5, 0.5].flatMap((u) =>
      [-0.5, 0.5].flatMap((w): Vec3[] => {
        const [dx, dz] = [u * width_m, w * depth_m];
        const [x, z] = [x_m + dx * cos + dz * sin, z_m - dx * sin + dz * cos];
        return [
          [x, base_m, z],
          [x, base_m + height_m, z],
        ];
      }),
    );
  });
}

/** Where the rays to the frames' corners and to the middle meet the walls of a room, mm ahead of the lens. */
function roomDepths(station: Station, { frames, middle, s, imageDistanceMm: v }: Layout): number[] {
  const room = station.site?.room;
  if (!room) return [];
  const axes = sensorAxes(station);
  const [ox, oy, oz] = lensCentreM(s);
  const [right, ahead] = [room.width_m - room.left_m, room.length_m - room.behind_m];
  const until = (from: number, low: number, high: number, step: number): number =>
    step > 0 ? (high - from) / step : step < 0 ? (low - from) / step : Infinity;
  return [middle, ...frames.flatMap(({ corners }) => corners)].flatMap(({ x, y }: Point) => {
    const [dx, dy, dz] = outOf(axes, [x, y, v]);
    const t = Math.min(
      until(ox, -room.left_m, right, dx),
      until(oy, 0, room.ceiling_m, dy),
      until(oz, -room.behind_m, ahead, dz),
    );
    return t > 0 && Number.isFinite(t) ? [t * v * 1000] : [];
  });
}

/** What the station names, else what stands in front of it; null where nothing says. */
export function depthsOf(station: Station, layout: Layout): Depths | null {
  const { mosaic, s } = layout;
  const given = { near: mosaic.near_m !== undefined, far: mosaic.far_m !== undefined };
  const toSensor = s.imageDistanceMm;
  const place = fromLensCentre(s);
  const mark = markPlace(s);
  const seen = [
    ...(station.marks ?? []).map((each) => mark(each)[2]),
    ...[...facadePoints(station), ...boxPoints(station)].map(([x, y, z]) => place(x, y, z)[2]),
    ...roomDepths(station, layout),
  ]
    .filter((depth) => depth > 0)
    .map((depth) => depth + toSensor);
  if (seen.length === 0 && !given.near) return null;
  const nearMm = given.near ? mosaic.near_m! * 1000 : leastOf(seen);
  // A nearest thing alone is told against infinity: the worst there can be.
  const farMm = given.far ? mosaic.far_m! * 1000 : seen.length > 0 ? mostOf(seen) : Infinity;
  return { nearMm, farMm: Math.max(nearMm, farMm), given };
}
