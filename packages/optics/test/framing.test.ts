import fc from 'fast-check';
import {
  leastDistanceThatFits,
  movementForEdge,
  radians,
  rectangleFits,
  stretchAt,
  turnIn,
  type Corner3,
  type FramingFrame,
  type FramingView,
  type Vec3,
} from '../src/index.js';
import { runs } from '../../../scripts/lib/runs.mjs';

const number = (min: number, max: number) => fc.double({ min, max, noNaN: true });

/** A wall square to a level camera: corners at (±w/2, y), as far away as the distance says. */
const wall = (widthMm: number, topMm: number, footMm: number | null) => {
  const corner = (x: number, y: number): Corner3 => ({ base: [x, y, 0], perMm: [0, 0, 1] });
  const pair = (y: number) => [corner(-widthMm / 2, y), corner(widthMm / 2, y)] as const;
  return { top: pair(topMm), foot: footMm === null ? null : pair(footMm) };
};

const frameOf = (w: number, h: number, shiftMm = 0): FramingFrame => ({
  edges: { left: -w / 2, right: w / 2, bottom: -h / 2, top: h / 2 },
  set: { shiftMm, riseMm: 0 },
});

const NOTHING: Vec3 = [0, 0, 0];

/** A straight camera: the lens goes with the front, or stays. */
const straight = (v: number, moves: 'front' | 'rear'): FramingView => ({
  imageDistanceMm: v,
  lens: {
    base: [0, 0, v],
    shift: moves === 'front' ? [1, 0, 0] : NOTHING,
    rise: moves === 'front' ? [0, 1, 0] : NOTHING,
  },
  back: { base: { x: 0, y: 0 }, shift: { x: 1, y: 0 }, rise: { x: 0, y: 1 } },
});

const UNSET = { shiftMm: 0, riseMm: 0 };

describe('the movement for an edge', () => {
  it('agrees with a ray drawn from the moved lens (worked here)', () => {
    fc.assert(
      fc.property(
        number(15, 300),
        number(-0.3, 0.3),
        number(1, 500),
        number(-1, 1),
        fc.constantFrom('front' as const, 'rear' as const),
        (v, edge, far, slope, moves) => {
          const z = far * v;
          const y = slope * z;
          const r = movementForEdge(straight(v, moves), 'rise', UNSET, [0, y, z + v], edge * v)!;
          // The lens centre stands r high when the front has moved, at 0 when the rear has.
          const lens = moves === 'front' ? r : 0;
          const pictured = (v * (y - lens)) / z;
          expect(Math.abs(pictured - (r + edge * v)) / v).toBeLessThan(1e-9);
        },
      ),
    );
  });

  it('nothing frames what is not ahead of the lens', () => {
    expect(movementForEdge(straight(50, 'rear'), 'rise', UNSET, [0, 0, 50], 0)).toBeNull();
  });
});

describe('least distance', () => {
  const view = straight(24, 'rear');

  it('is set by the height when the frame is too low: v (top − foot) / h beyond the lens', () => {
    const found = leastDistanceThatFits(view, frameOf(36, 24), wall(1000, 15_000, -1600), {
      low: -100,
      high: 100,
    })!;
    expect(found).toBeCloseTo((24 * 16_600) / 24 + 24, 6);
  });

  it('is set by the width when that is more: v w / frame width beyond the lens', () => {
    const found = leastDistanceThatFits(view, frameOf(36, 24), wall(60_000, 5000, -1600), {
      low: -100,
      high: 100,
    })!;
    expect(found).toBeCloseTo((24 * 60_000) / 36 + 24, 6);
  });

  it('is set by the rise when that ends first', () => {
    const found = leastDistanceThatFits(view, frameOf(36, 24), wall(1000, 15_000, null), {
      low: 0,
      high: 8,
    })!;
    expect(found).toBeCloseTo((24 * 15_000) / 20 + 24, 6);
  });

  it('is none where no rise is allowed', () => {
    const none = { low: 1, high: 0 };
    expect(leastDistanceThatFits(view, frameOf(36, 24), wall(1, 1, 0), none)).toBeNull();
    expect(rectangleFits(view, frameOf(36, 24), wall(1, 1, 0), none, 1e9)).toBe(false);
  });

  it('fits there and not a little nearer, however the camera is pitched and turned', () => {
    fc.assert(
      fc.property(
        fc.record({
          v: number(15, 200),
          pitch: number(-15, 15),
          yaw: number(-25, 25),
          width: number(500, 30_000),
          top: number(500, 60_000),
          foot: fc.option(number(-5000, 400)),
          limit: number(0, 0.4),
          moves: fc.constantFrom('front' as const, 'rear' as const),
        }),
        ({ v, pitch, yaw, width, top, foot, limit, moves }) => {
          const [p, t] = [radians(pitch), radians(yaw)];
          const turned = (x: number, y: number): Corner3 => {
            const axes = [
              [Math.cos(t), 0, -Math.sin(t)],
              [-Math.sin(t) * Math.sin(p), Math.cos(p), -Math.cos(t) * Math.sin(p)],
              [Math.sin(t) * Math.cos(p), Math.sin(p), Math.cos(t) * Math.cos(p)],
            ];
            const along = (i: number): number => axes[i]![0]! * x + axes[i]![1]! * y;
            return {
              base: [along(0), along(1), along(2)],
              perMm: [axes[0]![2]!, axes[1]![2]!, axes[2]![2]!],
            };
          };
          const pair = (y: number) => [turned(-width / 2, y), turned(width / 2, y)] as const;
          const rectangle = { top: pair(top), foot: foot === null ? null : pair(foot) };
          const frame = frameOf(1.5 * v, v);
          const rise = { low: -limit * v, high: limit * v };
          const eye = straight(v, moves);
          const least = leastDistanceThatFits(eye, frame, rectangle, rise);
          const fits = (d: number): boolean => rectangleFits(eye, frame, rectangle, rise, d);
          if (least === null) {
            for (let d = 100; d < 1e7; d *= 1.3) expect(fits(d)).toBe(false);
            return;
          }
          expect(fits(least)).toBe(true);
          for (let d = least * 0.999; d > 10; d *= 0.8) expect(fits(d)).toBe(false);
        },
      ),
      { numRuns: runs(400) },
    );
  });
});

describe('turn in, shift back', () => {
  const centred = { widthMm: 36, shiftMm: 0, riseMm: 0 };

  it('keeping the edge: s = w/2 − v tan(β − ψ), the far edge loses β + ψ − atan((w/2 + s)/v)', () => {
    // 24 mm lens, 36 mm frame, 10° towards the left: worked here by plain trigonometry.
    const beta = Math.atan(18 / 24);
    const s = 18 - 24 * Math.tan(beta - radians(10));
    const lost = beta + radians(10) - Math.atan((18 + s) / 24);
    const found = turnIn(centred, 24, -10, 'left')!;
    expect(found.shiftMm).toBeCloseTo(s, 9);
    expect(radians(found.farEdgeLostDeg)).toBeCloseTo(lost, 9);
    // Mirrored on the other side.
    const mirrored = turnIn(centred, 24, 10, 'right')!;
    expect(mirrored.shiftMm).toBeCloseTo(-s, 9);
    expect(mirrored.farEdgeLostDeg).toBeCloseTo(found.farEdgeLostDeg, 9);
  });

  it('keeping the centre: s = v tan ψ the other way', () => {
    expect(turnIn(centred, 24, 12, 'center')!.shiftMm).toBeCloseTo(-24 * Math.tan(radians(12)), 9);
  });

  it('eases the near side’s stretch and adds to the far side’s', () => {
    const found = turnIn(centred, 24, -10, 'left')!;
    expect(found.before.near).toBeCloseTo(1.25, 9); // Kingslake (1992): 24 mm lens, 18 mm out.
    expect(found.after.near).toBeLessThan(found.before.near);
    expect(found.after.far).toBeGreaterThan(found.before.far);
    expect(found.after.near).toBeCloseTo(stretchAt(18 - found.shiftMm, 0, 24), 9);
  });

  it('keeps the direction it says it keeps, for any frame', () => {
    fc.assert(
      fc.property(
        number(15, 200),
        number(-0.3, 0.3),
        number(-30, 30),
        fc.constantFrom('left' as const, 'right' as const, 'center' as const),
        (v, shift, yaw, keep) => {
          const frame = { widthMm: 1.2 * v, shiftMm: shift * v, riseMm: 0.1 * v };
          const found = turnIn(frame, v, yaw, keep)!;
          const side = keep === 'left' ? -0.6 : keep === 'right' ? 0.6 : 0;
          const before = Math.atan(shift + side);
          const after = Math.atan(found.shiftMm / v + side) + radians(yaw);
          expect(after).toBeCloseTo(before, 9);
        },
      ),
    );
  });

  it('is none where the kept edge would lie beside the camera', () => {
    expect(turnIn(centred, 24, 80, 'left')).toBeNull();
  });
});
