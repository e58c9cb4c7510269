import { sensorAxes } from '../optical/places.js';
import type { Station } from '../document/station.js';
import { setupOf } from '../optical/setup.js';
import { boxPlan } from './scene.js';
import { type Vec3, outOf, leastOf, mostOf } from '@gangway/optics';

/** A place on a drawing of the site, m: across the sheet and up it. */
export interface At {
  readonly x: number;
  readonly y: number;
}

export interface PlanDrawing {
  /** From the camera to where its view ends, left and right, seen from above. */
  readonly rays: readonly [At, At];
  /** What the frame takes in on the façade's line, from left to right; null when it sees none. */
  readonly seen: readonly [At, At] | null;
  readonly boxes: readonly { readonly name: string; readonly corners: readonly At[] }[];
  readonly bounds: Bounds;
}

export interface ElevationDrawing {
  /** From the lens to where its view ends, down and up, seen from the right. */
  readonly rays: readonly [At, At];
  /** Heights the frame takes in at the façade, from below to above. */
  readonly seen: readonly [number, number] | null;
  readonly boxes: readonly {
    readonly name: string;
    readonly from: number;
    readonly to: number;
    readonly base: number;
    readonly top: number;
  }[];
  readonly bounds: Bounds;
}

export interface Bounds {
  readonly left: number;
  readonly right: number;
  readonly bottom: number;
  readonly top: number;
}

/** Direction of a picture edge in the station frame: x right, y up, z ahead. */
function edgeDirection(station: Station, dx: number, dy: number): Vec3 {
  const { frame, imageDistanceMm: v } = setupOf(station);
  return outOf(sensorAxes(station), [
    frame.shiftMm + (dx * frame.widthMm) / 2,
    frame.riseMm + (dy * frame.heightMm) / 2,
    v,
  ]);
}

/** How far ahead anything of the site lies, m. */
export function depthOf({ facade, site, marks }: Station): number {
  const room = site?.room;
  return Math.max(
    4,
    (facade?.distance_m ?? 0) * 1.08,
    ...(site?.boxes ?? []).map((box) => box.z_m + Math.max(box.depth_m, box.width_m)),
    ...(marks ?? []).filter(({ z_m }) => z_m < 500).map(({ z_m }) => z_m),
    room ? room.length_m - room.behind_m : 0,
  );
}

/** The site from above: x to the right, z up the sheet. */
export function planDrawing(station: Station): PlanDrawing {
  const { facade, site } = station;
  const far = depthOf(station);
  const [left, right] = [edgeDirection(station, -1, 0), edgeDirection(station, 1, 0)];
  const end = (d: readonly number[]): At => {
    const size = Math.hypot(d[0]!, d[2]!);
    // A view past sideways ends as far off as the site is deep.
    const t = d[2]! > 0.15 * size ? far / d[2]! : (1.5 * far) / size;
    return { x: t * d[0]!, y: t * d[2]! };
  };
  const across = (d: readonly number[]): At | null =>
    facade && d[2]! > 0 ? { x: (facade.distance_m * d[0]!) / d[2]!, y: facade.distance_m } : null;
  const [a, b] = [across(left), across(right)];
  const boxes = (site?.boxes ?? []).map((box) => ({
    name: box.name,
    corners: boxPlan(box).map(({ x, z }) => ({ x, y: z })),
  }));
  const room = site?.room;
  const half = Math.max(
    0.3 * far,
    facade ? Math.abs(facade.x_m ?? 0) + facade.width_m / 2 : 0,
    ...boxes.flatMap(({ corners }) => corners.map(({ x }) => Math.abs(x))),
    room ? Math.max(room.left_m, room.width_m - room.left_m) : 0,
  );
  return {
    rays: [end(left), end(right)],
    seen: a && b ? [a, b] : null,
    boxes,
    bounds: {
      left: -half * 1.08,
      right: half * 1.08,
      bottom: room ? -room.behind_m * 1.05 : -0.06 * far,
      top: far * 1.04,
    },
  };
}

/** The site from the side, camera on the left looking right: z across, height up the sheet. */
export function elevationDrawing(station: Station): ElevationDrawing {
  const { facade, site, camera } = station;
  const far = depthOf(station);
  const [down, up] = [edgeDirection(station, 0, -1), edgeDirection(station, 0, 1)];
  const level = (d: readonly number[]): number => Math.hypot(d[0]!, d[2]!) * Math.sign(d[2]! || 1);
  const end = (d: readonly number[]): At => {
    const z = level(d);
    const t = z > 0.1 * Math.abs(d[1]!) ? far / z : (1.5 * far) / Math.hypot(z, d[1]!);
    return { x: t * z, y: camera.height_m + t * d[1]! };
  };
  const height = (d: readonly number[]): number | null =>
    facade && d[2]! > 0 ? camera.height_m + (facade.distance_m * d[1]!) / d[2]! : null;
  const [low, high] = [height(down), height(up)];
  const boxes = (site?.boxes ?? []).map((box) => {
    const zs = boxPlan(box).map(({ z }) => z);
    const base = box.base_m ?? 0;
    return {
      name: box.name,
      from: leastOf(zs),
      to: mostOf(zs),
      base,
      top: base + box.height_m,
    };
  });
  const room = site?.room;
  const top = Math.max(
    camera.height_m * 1.4,
    facade ? facade.top_m + (facade.headroom_m ?? 0) : 0,
    room?.ceiling_m ?? 0,
    ...boxes.map((box) => box.top),
    0.16 * far,
  );
  const bottom = Math.min(0, facade?.base_m ?? 0, camera.height_m - 0.2);
  return {
    rays: [end(down), end(up)],
    seen: low !== null && high !== null ? [low, high] : null,
    boxes,
    bounds: {
      left: room ? -room.behind_m * 1.05 : -0.06 * far,
      right: far * 1.04,
      bottom: bottom - 0.06 * (top - bottom),
      top: top * 1.06,
    },
  };
}
