import type { Point } from './coverage.js';

/** Where movements as set put the frame's centre in the picture; each way is per mm set. */
export interface Placing {
  /** The centre with both movements at zero. */
  readonly base: Point;
  readonly shift: Point;
  readonly rise: Point;
}

export interface SetMovement {
  readonly shiftMm: number;
  readonly riseMm: number;
}

export const toPicture = ({ base, shift, rise }: Placing, set: SetMovement): Point => ({
  x: base.x + set.shiftMm * shift.x + set.riseMm * rise.x,
  y: base.y + set.shiftMm * shift.y + set.riseMm * rise.y,
});

/** A vector of the picture as movements, without the base. */
export function stepToSet({ shift, rise }: Placing, { x, y }: Point): SetMovement {
  const size = shift.x * rise.y - shift.y * rise.x;
  return {
    shiftMm: (x * rise.y - y * rise.x) / size,
    riseMm: (y * shift.x - x * shift.y) / size,
  };
}

/** The movements that bring the frame's centre to a place of the picture. */
export const toSet = (placing: Placing, { x, y }: Point): SetMovement =>
  stepToSet(placing, { x: x - placing.base.x, y: y - placing.base.y });

/** The placing in which a frame now lies at `centre` with `set` set. */
export const placingAt = (
  ways: Pick<Placing, 'shift' | 'rise'>,
  centre: Point,
  { shiftMm, riseMm }: SetMovement,
): Placing => ({
  shift: ways.shift,
  rise: ways.rise,
  base: {
    x: centre.x - shiftMm * ways.shift.x - riseMm * ways.rise.x,
    y: centre.y - shiftMm * ways.shift.y - riseMm * ways.rise.y,
  },
});
