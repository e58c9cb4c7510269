import { dot, outOf, project, type Point, type Vec3 } from '@gangway/optics';
import { fromLensCentre, lensCentreM, markPlace, sensorAxes } from '../optical/places.js';
import type { Mark, Station } from '../document/station.js';
import { setupOf, type Setup } from '../optical/setup.js';
import { isBare, sceneOf, type Look, type Shape } from './scene.js';

/** A shape as the sensor pictures it: mm on the real back, upright, origin straight ahead. */
export interface Pictured {
  /** x, y, x, y … */
  readonly points: readonly number[];
  readonly look: Look;
  readonly filled: boolean;
}

export interface Vanishing {
  readonly of: 'verticals' | 'ahead' | 'across';
  /** Null when those lines stay parallel in the picture. */
  readonly at: Point | null;
}

export interface Finder {
  readonly shapes: readonly Pictured[];
  readonly marks: readonly {
    /** In the station's list of marks. */
    readonly index: number;
    readonly label: string;
    readonly at: Point;
    readonly must: Mark['must'];
  }[];
  readonly vanishing: readonly Vanishing[];
  /** Nothing stands in front but what is marked; ground and backdrop are drawn all the same. */
  readonly empty: boolean;
}

/** Nearer than this ahead of the lens nothing is drawn, mm. */
const NEAREST_MM = 20;

/** The part of a polygon or line that lies ahead of the lens. */
function ahead(points: readonly Vec3[], filled: boolean): Vec3[][] {
  if (points.every(([, , z]) => z >= NEAREST_MM)) return [[...points]];
  const cut = (a: Vec3, b: Vec3): Vec3 => {
    const t = (NEAREST_MM - a[2]) / (b[2] - a[2]);
    return [a[0] + t * (b[0] - a[0]), a[1] + t * (b[1] - a[1]), NEAREST_MM];
  };
  const runs: Vec3[][] = [[]];
  const count = filled ? points.length : points.length - 1;
  for (let i = 0; i < count; i++) {
    const [a, b] = [points[i]!, points[(i + 1) % points.length]!];
    const [inA, inB] = [a[2] >= NEAREST_MM, b[2] >= NEAREST_MM];
    const run = runs.at(-1)!;
    if (inA && (run.length === 0 || filled)) run.push(a);
    if (inA !== inB) run.push(cut(a, b));
    if (inB && !filled) run.push(b);
    if (!inB && !filled && run.length > 0) runs.push([]);
  }
  return runs.filter((run) => run.length > 1);
}

/** What the rig sees of the site with its movements as set. */
export function finderOf(station: Station, scene: readonly Shape[] = sceneOf(station)): Finder {
  const s = setupOf(station);
  const place = fromLensCentre(s);
  const k = s.imageDistanceMm * s.factor;
  const shapes: Pictured[] = [];
  for (const { places, look, filled } of scene) {
    for (const run of ahead(
      places.map(([x, y, z]) => place(x, y, z)),
      filled,
    )) {
      const points: number[] = [];
      for (const [x, y, z] of run) points.push((k * x) / z, (k * y) / z);
      shapes.push({ points, look, filled });
    }
  }
  const placeOf = markPlace(s);
  const marks = (station.marks ?? []).flatMap((mark, index) => {
    const at = placeOf(mark);
    const { label, must } = mark;
    return at[2] > 0 ? [{ index, label, must, at: project(at, k) }] : [];
  });
  return { shapes, marks, vanishing: vanishingPoints(s), empty: isBare(station) };
}

/** Where upright lines, and level ones ahead and across, run to in the picture. */
function vanishingPoints(s: Setup): Vanishing[] {
  const { station } = s;
  const { right, up, normal } = sensorAxes(station);
  const k = s.imageDistanceMm * s.factor;
  const of = (name: Vanishing['of'], direction: Vec3): Vanishing => {
    const z = dot(direction, normal);
    const at =
      Math.abs(z) < 1e-9
        ? null
        : { x: (k * dot(direction, right)) / z, y: (k * dot(direction, up)) / z };
    return { of: name, at };
  };
  return [of('verticals', [0, 1, 0]), of('ahead', [0, 0, 1]), of('across', [1, 0, 0])];
}

/** A place of the picture back onto the upright plane a distance ahead of the sensor mark, m. */
export function onPlaneAhead(
  station: Station,
  at: Point,
  distanceM: number,
): { x: number; y: number } | null {
  const s = setupOf(station);
  const k = s.imageDistanceMm * s.factor;
  const direction = outOf(sensorAxes(station), [at.x, at.y, k]);
  const lens = lensCentreM(s);
  if (direction[2] <= 1e-9) return null;
  const t = (distanceM - lens[2]) / direction[2];
  return {
    x: lens[0] + t * direction[0],
    y: lens[1] + t * direction[1],
  };
}
