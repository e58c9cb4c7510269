import {
  bisect,
  circleOnSensor,
  envelope,
  axisPoint,
  frameCovered,
  spend,
  toPicture,
  toSet,
  type Cone,
  type Point,
  type Size,
  type Effort,
} from '@gangway/optics';
import { withinCarrier, type Carrier } from '../carrier.js';
import type { Layout } from '../layout.js';

/** Where a picture of a size may lie: inside the light, its frames within what the carrier does. */
export interface Room {
  readonly layout: Layout;
  readonly carrier: Carrier;
  /** The circle, or the core. */
  readonly cone: Cone;
  /** Where the layout's middle would stay. */
  readonly here: Point;
  /** What the whole search may still cost; a look that comes too late finds nothing. */
  readonly effort: Effort;
}

/** What one look costs, in steps of the budget. */
const LOOK_STEPS = 50;
/** And one envelope of seventy-two sides. */
const ENVELOPE_STEPS = 10_000;

/** Whether a picture about a middle is lit whole, and its outer frames are within reach. */
export function lies({ layout, carrier, cone, effort }: Room, size: Size, centre: Point): boolean {
  if (!spend(effort, LOOK_STEPS)) return false;
  const { widthMm, heightMm } = size;
  if (!frameCovered(cone, { widthMm, heightMm, shiftMm: centre.x, riseMm: centre.y })) return false;
  const [dx, dy] = [
    Math.max(0, (widthMm - layout.frame.widthMm) / 2),
    Math.max(0, (heightMm - layout.frame.heightMm) / 2),
  ];
  return [-dx, dx].every((x) =>
    [-dy, dy].every((y) =>
      withinCarrier(carrier, toSet(carrier.placing, { x: centre.x + x, y: centre.y + y })),
    ),
  );
}

const clamp = (value: number, low: number, high: number): number =>
  low > high ? (low + high) / 2 : Math.min(high, Math.max(low, value));

/** Whether rise goes straight up the picture and shift straight across it. */
const square = ({ placing: { shift, rise } }: Carrier): boolean =>
  Math.abs(shift.y) < 1e-12 && Math.abs(rise.x) < 1e-12;

/** The middle that leaves the most to spare. */
function bestCentre(room: Room, size: Size): Point | null {
  const { layout, carrier, cone } = room;
  const [dx, dy] = [
    Math.max(0, (size.widthMm - layout.frame.widthMm) / 2),
    Math.max(0, (size.heightMm - layout.frame.heightMm) / 2),
  ];
  const { base, shift, rise } = carrier.placing;
  if (square(carrier)) {
    const middle = circleOnSensor(cone)?.centre ?? axisPoint(cone);
    const span = (range: readonly [number, number], per: number, from: number, half: number) =>
      [from + range[0] * per + half, from + range[1] * per - half] as const;
    const [left, right] = span(carrier.shift, shift.x, base.x, dx);
    const [foot, top] = span(carrier.rise, rise.y, base.y, dy);
    return { x: clamp(middle.x, left, right), y: clamp(middle.y, foot, top) };
  }
  const perMm = (way: Point): number => Math.hypot(way.x, way.y);
  const shrunk = (range: readonly [number, number], by: number): readonly [number, number] => [
    range[0] + by,
    range[1] - by,
  ];
  if (!spend(room.effort, ENVELOPE_STEPS)) return null;
  const polygon = envelope(
    cone,
    size,
    {
      rise: shrunk(carrier.rise, dy / perMm(rise)),
      shift: shrunk(carrier.shift, dx / perMm(shift)),
      radialMm: carrier.radialMm,
    },
    carrier.placing,
    72,
  );
  if (polygon.length === 0) return null;
  const sum = polygon.reduce((all, p) => ({ x: all.x + p.x, y: all.y + p.y }), { x: 0, y: 0 });
  return { x: sum.x / polygon.length, y: sum.y / polygon.length };
}

/** The middle nearest to the present one about which a picture of a size may lie; null: none. */
export function centreFor(room: Room, size: Size): Point | null {
  if (lies(room, size, room.here)) return room.here;
  const best = bestCentre(room, size);
  if (!best || !lies(room, size, best)) return null;
  const along = (t: number): Point => ({
    x: best.x + t * (room.here.x - best.x),
    y: best.y + t * (room.here.y - best.y),
  });
  const t = bisect(0, 1, (at) => lies(room, size, along(at)), 1e-6);
  // What is set is rounded: kept a hair on the safe side.
  return along(Math.max(0, t - 1e-4));
}

/** Middles about which a picture of a size may lie: the one nearest to the present, and the best lit. */
export function middlesFor(room: Room, size: Size): Point[] {
  const near = centreFor(room, size);
  if (!near) return [];
  const best = bestCentre(room, size);
  return best && lies(room, size, best) ? [near, best] : [near];
}

/** Lattice points looked at around the nearest one, and around the one with most to spare. */
const AROUND = 6;

/**
 * The same with the middle on whole or half detents; `half` where the outer frames lie so.
 * @param settable whether a hand finds the frames about a middle: what turns does not stop everywhere
 */
export function middlesOnDetents(
  room: Room,
  size: Size,
  detentMm: number,
  half: { readonly x: boolean; readonly y: boolean },
  settable: (middle: Point) => boolean,
): Point[] {
  const { placing } = room.carrier;
  const snapped = (value: number, halved: boolean): number =>
    (Math.round(value / detentMm - (halved ? 0.5 : 0)) + (halved ? 0.5 : 0)) * detentMm;
  return middlesFor(room, size).flatMap((near) => {
    const set = toSet(placing, near);
    const tries: { at: Point; off: number }[] = [];
    for (let i = -AROUND; i <= AROUND; i++) {
      for (let j = -AROUND; j <= AROUND; j++) {
        const shiftMm = snapped(set.shiftMm, half.x) + i * detentMm;
        const riseMm = snapped(set.riseMm, half.y) + j * detentMm;
        const at = toPicture(placing, { shiftMm, riseMm });
        tries.push({ at, off: Math.hypot(at.x - near.x, at.y - near.y) });
      }
    }
    tries.sort((a, b) => a.off - b.off);
    const found = tries.find(({ at }) => settable(at) && lies(room, size, at));
    return found ? [found.at] : [];
  });
}
