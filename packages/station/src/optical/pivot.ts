import { lensAxis, pivotTravel } from '@gangway/optics';
import type { Station } from '../document/station.js';
import { standardsOf } from '../document/standards.js';
import { rounded } from '../words/rounded.js';

/** What a tilt axis off the lens centre did to the picture, and the movement that undoes it, mm. */
export interface PivotMove {
  readonly riseMm: number;
  readonly shiftMm: number;
  readonly counter: { readonly rise_mm: number; readonly shift_mm: number };
}

const SEEN_MM = 0.005;

/** Null where leaning leaves the picture where it was. */
export function pivotMove(station: Station): PivotMove | null {
  const { lens, pivotMm } = standardsOf(station);
  const { shiftMm: x, riseMm: y } = pivotTravel(lensAxis(lens), pivotMm);
  const pivot = { x, y };
  if (Math.hypot(pivot.x, pivot.y) < SEEN_MM) return null;
  return {
    riseMm: pivot.y,
    shiftMm: pivot.x,
    counter: { rise_mm: -pivot.y + 0, shift_mm: -pivot.x + 0 },
  };
}

/** The counter-movement added to what is set, so that the picture stands as without the lean. */
export function withCounterMove(station: Station): Station {
  const move = pivotMove(station);
  if (!move) return station;
  const add = (now: number, by: number): number => rounded(now + by, 2);
  return {
    ...station,
    movements: {
      ...station.movements,
      rise_mm: add(station.movements.rise_mm, move.counter.rise_mm),
      shift_mm: add(station.movements.shift_mm, move.counter.shift_mm),
    },
  };
}
