import type { Mark, Station } from '../document/station.js';
import { boxPlan } from '../scene/scene.js';
import { rounded } from '../words/rounded.js';

/** A place of the site that a mark may be put on. */
export interface Pickable {
  readonly of: string;
  readonly name: string;
  readonly at: Pick<Mark, 'x_m' | 'y_m' | 'z_m'>;
}

const round = (m: number): number => rounded(m, 4);

const CORNER_NAMES = ['near left', 'near right', 'far right', 'far left'] as const;

/** Corners and middles of boxes, and of the façade. */
export function pickablePlaces({ site, facade }: Station): Pickable[] {
  const places: Pickable[] = [];
  (site?.boxes ?? []).forEach((box, i) => {
    const of = box.name || `Box ${i + 1}`;
    const low = box.base_m ?? 0;
    const high = low + box.height_m;
    const corners = boxPlan(box);
    corners.forEach(({ x, z }, k) => {
      places.push({
        of,
        name: `top, ${CORNER_NAMES[k]!}`,
        at: { x_m: round(x), y_m: round(high), z_m: round(z) },
      });
    });
    const [a, b] = [corners[0]!, corners[1]!];
    places.push(
      {
        of,
        name: 'front, middle',
        at: {
          x_m: round((a.x + b.x) / 2),
          y_m: round((low + high) / 2),
          z_m: round((a.z + b.z) / 2),
        },
      },
      { of, name: 'top, middle', at: { x_m: box.x_m, y_m: round(high), z_m: box.z_m } },
    );
    corners.forEach(({ x, z }, k) => {
      places.push({
        of,
        name: `foot, ${CORNER_NAMES[k]!}`,
        at: { x_m: round(x), y_m: round(low), z_m: round(z) },
      });
    });
  });
  if (facade) {
    const { distance_m: z_m, top_m, base_m, width_m, x_m = 0 } = facade;
    for (const [name, x, y] of [
      ['top left', -0.5, top_m],
      ['top right', 0.5, top_m],
      ['foot left', -0.5, base_m ?? 0],
      ['foot right', 0.5, base_m ?? 0],
    ] as const) {
      places.push({ of: 'Façade', name, at: { x_m: round(x_m + x * width_m), y_m: y, z_m } });
    }
  }
  return places;
}

/** The four corners of a box's top, or of the side that is turned to the camera most. */
export function boxFaceMarks(station: Station, index: number, face: 'top' | 'front'): Mark[] {
  const box = station.site?.boxes?.[index];
  if (!box) return [];
  const name = box.name || `Box ${index + 1}`;
  const low = box.base_m ?? 0;
  const high = low + box.height_m;
  const mark = (label: string, x: number, y: number, z: number): Mark => ({
    label: `${name} ${label}`,
    x_m: round(x),
    y_m: round(y),
    z_m: round(z),
    must: 'sharp',
  });
  const plan = boxPlan(box);
  if (face === 'top') return plan.map(({ x, z }, i) => mark(CORNER_NAMES[i]!, x, high, z));
  const sides = plan.map((from, i) => [from, plan[(i + 1) % 4]!] as const);
  const away = ([a, b]: (typeof sides)[number]): number =>
    Math.hypot((a.x + b.x) / 2, (a.z + b.z) / 2);
  const [a, b] = sides.reduce((near, side) => (away(side) < away(near) ? side : near));
  const [left, right] = a.x <= b.x ? [a, b] : [b, a];
  return [
    mark('top left', left.x, high, left.z),
    mark('top right', right.x, high, right.z),
    mark('foot right', right.x, low, right.z),
    mark('foot left', left.x, low, left.z),
  ];
}
