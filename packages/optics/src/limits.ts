import { allowedTravel, type Cone, type Frame } from './coverage.js';
import type { Mechanism } from './envelope.js';
import type { Placing, SetMovement } from './placing.js';

/** Nothing: the lens leans so far that its circle is open on that side, and no range is given. */
export type LimitedBy = 'circle' | 'mechanism' | 'nothing';

export interface Limit {
  /** How far this movement alone goes from zero, ≥ 0; null when not covered even there; or Infinity. */
  readonly mm: number | null;
  readonly by: LimitedBy;
}

export interface Limits {
  readonly rise: Limit;
  readonly fall: Limit;
  readonly left: Limit;
  readonly right: Limit;
}

/**
 * How far each movement alone may go with the other as set, by circle and by mechanism,
 * in the movement's own mm.
 * @param frame with the movements as they act
 * @param ways how each movement takes the frame through the picture
 * @param set the movements as set
 */
export function movementLimits(
  cone: Cone,
  frame: Frame,
  mechanism: Mechanism,
  ways: Pick<Placing, 'rise' | 'shift'>,
  set: SetMovement,
): Limits {
  const one = (movement: 'rise' | 'shift'): [Limit, Limit] => {
    const [now, other] =
      movement === 'rise' ? [set.riseMm, set.shiftMm] : [set.shiftMm, set.riseMm];
    const { low, high } = allowedTravel(cone, frame, ways[movement]);
    const radial = Math.sqrt(Math.max(0, mechanism.radialMm ** 2 - other ** 2));
    const [least, most] = mechanism[movement];
    return [
      limit(-(now + low), Math.min(-least, radial)),
      limit(now + high, Math.min(most, radial)),
    ];
  };
  const [fall, rise] = one('rise');
  const [left, right] = one('shift');
  const neither = (a: Limit, b: Limit): boolean => a.mm === null || b.mm === null;
  const none: Limit = { mm: null, by: 'circle' };
  const upright = neither(fall, rise);
  const level = neither(left, right);
  return {
    rise: upright ? none : rise,
    fall: upright ? none : fall,
    left: level ? none : left,
    right: level ? none : right,
  };
}

/**
 * How far a movement goes along one direction of the two, from zero, by circle and by mechanism:
 * what a lens that turns can shift at one of its stops.
 * @param direction share of shift and of rise, a unit vector
 * @param mostMm length of the mechanism along it
 */
export function travelAlong(
  cone: Cone,
  frame: Frame,
  ways: Pick<Placing, 'rise' | 'shift'>,
  direction: { readonly shift: number; readonly rise: number },
  mostMm: number,
): Limit {
  const way = {
    x: direction.shift * ways.shift.x + direction.rise * ways.rise.x,
    y: direction.shift * ways.shift.y + direction.rise * ways.rise.y,
  };
  const { low, high } = allowedTravel(cone, frame, way);
  return low > TOUCHING_MM ? { mm: null, by: 'circle' } : limit(high, mostMm);
}

/** A hair below zero is zero: a frame that just touches the circle is covered. */
const TOUCHING_MM = 1e-9;

function limit(byCircle: number, byMechanism: number): Limit {
  if (!(byCircle >= -TOUCHING_MM)) return { mm: null, by: 'circle' };
  const circle = Math.max(0, byCircle);
  const mechanism = Math.max(0, byMechanism);
  if (circle === Infinity && mechanism === Infinity) return { mm: Infinity, by: 'nothing' };
  return mechanism < circle ? { mm: mechanism, by: 'mechanism' } : { mm: circle, by: 'circle' };
}
