import {
  ballOutline,
  degrees,
  dot,
  levelConvergenceDeg,
  radians,
  stretchAt,
  type Point,
  type Vec3,
} from '@gangway/optics';
import { fromLensCentre, sensorAxes } from '../optical/places.js';
import type { Station } from '../document/station.js';
import { setupOf } from '../optical/setup.js';

/** A small ball on the subject, as it is pictured: round where nothing stretches it. */
export interface PicturedBall {
  /** Edge, mm on the real back; empty when it lies beside the lens. */
  readonly outline: readonly Point[];
  readonly at: Point;
  /** Radial over tangential. */
  readonly stretch: number;
}

/** Where balls are laid in the picture that is begun from: shares of half the frame's width. */
const PLACES = [-0.9, -0.45, 0, 0.45, 0.9];

const BALL_RADIUS_DEG = 2.6;

/**
 * The same balls before and after: laid across the frame of `from`, pictured by `to`, which
 * stands at the same place.
 */
export function balls(from: Station, to: Station): PicturedBall[] {
  const [a, b] = [setupOf(from), setupOf(to)];
  const [axesA, axesB] = [sensorAxes(from), sensorAxes(to)];
  return PLACES.map((share) => {
    const x = a.frame.shiftMm + (share * a.frame.widthMm) / 2;
    const seen: Vec3 = [x, a.frame.riseMm, a.imageDistanceMm];
    const world = [0, 1, 2].map(
      (i) => seen[0] * axesA.right[i]! + seen[1] * axesA.up[i]! + seen[2] * axesA.normal[i]!,
    ) as unknown as Vec3;
    const direction: Vec3 = [
      dot(world, axesB.right),
      dot(world, axesB.up),
      dot(world, axesB.normal),
    ];
    const v = b.imageDistanceMm;
    const at = {
      x: (v * direction[0]) / direction[2],
      y: (v * direction[1]) / direction[2],
    };
    return {
      outline: ballOutline(direction, radians(BALL_RADIUS_DEG), v * b.factor),
      at: { x: at.x * b.factor, y: at.y * b.factor },
      stretch: stretchAt(at.x, at.y, v),
    };
  });
}

/** How level lines across the view converge in the picture, degrees. */
export function acrossConvergenceDeg(station: Station): number {
  const s = setupOf(station);
  const { right, up, normal } = sensorAxes(station);
  return levelConvergenceDeg(s.frame, s.imageDistanceMm, [right[0], up[0], normal[0]]);
}

/** Things in the frame that may look stretched: where each lies and by how much. */
export interface StretchedThing {
  readonly name: string;
  /** Right of the sensor normal, degrees. */
  readonly asideDeg: number;
  readonly stretch: number;
}

export function stretchedThings(station: Station): StretchedThing[] {
  const s = setupOf(station);
  const place = fromLensCentre(s);
  const named = [
    ...(station.site?.boxes ?? []).map((box) => ({
      name: box.name,
      at: place(box.x_m, (box.base_m ?? 0) + box.height_m / 2, box.z_m),
    })),
    ...(station.marks ?? []).map((mark) => ({
      name: mark.label,
      at: place(mark.x_m, mark.y_m, mark.z_m),
    })),
  ];
  const v = s.imageDistanceMm;
  return named
    .filter(
      ({ at: [x, y, z] }) =>
        z > 0 &&
        Math.abs((v * x) / z - s.frame.shiftMm) < s.frame.widthMm / 2 &&
        Math.abs((v * y) / z - s.frame.riseMm) < s.frame.heightMm / 2,
    )
    .map(({ name, at: [x, y, z] }) => ({
      name,
      asideDeg: degrees(Math.atan2(x, z)),
      stretch: stretchAt((v * x) / z, (v * y) / z, v),
    }))
    .sort((a, b) => b.stretch - a.stretch);
}
