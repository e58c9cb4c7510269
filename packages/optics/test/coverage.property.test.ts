import fc from 'fast-check';
import clipping from 'polygon-clipping';
import {
  axisPoint,
  circleOnSensor,
  coneOutline,
  coneHalfAngleRad,
  CORNERS,
  cornerFalloffStops,
  cornerMarginMm,
  covers,
  envelope,
  frameCorner,
  frameCovered,
  frameIn,
  frameLight,
  lensAxis,
  movementLimits,
  reach,
  worstCorner,
  type Cone,
  type Frame,
  type Mechanism,
} from '../src/index.js';
import { runs } from '../../../scripts/lib/runs.mjs';

const FREE: Mechanism = {
  rise: [-Infinity, Infinity],
  shift: [-Infinity, Infinity],
  radialMm: Infinity,
};
/** Movements that act as they are set. */
const PLAIN = { base: { x: 0, y: 0 }, shift: { x: 1, y: 0 }, rise: { x: 0, y: 1 } };
const setAt = ({ shiftMm, riseMm }: Frame) => ({ shiftMm, riseMm });
const number = (min: number, max: number) => fc.double({ min, max, noNaN: true });

interface Rig {
  cone: Cone;
  frame: Frame;
}

const rig = (leanDeg: number): fc.Arbitrary<Rig> =>
  fc
    .record({
      f: number(15, 400),
      angle: number(40, 100),
      extension: number(1, 2),
      tilt: number(-leanDeg, leanDeg),
      swing: number(-leanDeg, leanDeg),
      size: number(0.2, 0.9),
      aspect: number(0.5, 1),
      s: number(-0.4, 0.4),
      r: number(-0.4, 0.4),
    })
    .map(({ f, angle, extension, tilt, swing, size, aspect, s, r }) => {
      const circle = 2 * f * Math.tan((angle * Math.PI) / 360);
      const v = f * extension;
      const radius = (v * circle) / (2 * f);
      return {
        cone: {
          axis: lensAxis({ tiltDeg: tilt, swingDeg: swing }),
          imageDistanceMm: v,
          halfAngleRad: coneHalfAngleRad(circle, f),
        },
        frame: {
          widthMm: size * radius,
          heightMm: size * radius * aspect,
          shiftMm: s * radius,
          riseMm: r * radius,
        },
      };
    });

/** Walks a movement from zero in fine steps, halving at the end, and asks only whether it is covered. */
function walk({ cone, frame }: Rig, name: 'riseMm' | 'shiftMm', sign: 1 | -1): number | null {
  const at = (mm: number): boolean => frameCovered(cone, { ...frame, [name]: sign * mm });
  if (!at(0)) return null;
  const stride = cone.imageDistanceMm / 200;
  let inside = 0;
  while (at(inside + stride) && inside < cone.imageDistanceMm * 50) inside += stride;
  let outside = inside + stride;
  for (let i = 0; i < 50; i++) {
    const middle = (inside + outside) / 2;
    if (at(middle)) inside = middle;
    else outside = middle;
  }
  return inside;
}

const SIDES = [
  ['rise', 'riseMm', 1],
  ['fall', 'riseMm', -1],
  ['right', 'shiftMm', 1],
  ['left', 'shiftMm', -1],
] as const;

describe('limits of the movements', () => {
  it('untilted, agree with the closed form of a rectangle in a circle', () => {
    fc.assert(
      fc.property(rig(0), ({ cone, frame }) => {
        const radius = cone.imageDistanceMm * Math.tan(cone.halfAngleRad);
        const left = (other: number, otherSize: number, size: number): number =>
          Math.sqrt(radius ** 2 - (Math.abs(other) + otherSize / 2) ** 2) - size / 2;
        const rise = left(frame.shiftMm, frame.widthMm, frame.heightMm);
        const shift = left(frame.riseMm, frame.heightMm, frame.widthMm);
        const limits = movementLimits(cone, frame, FREE, PLAIN, setAt(frame));
        for (const [got, closed] of [
          [limits.rise.mm, rise],
          [limits.fall.mm, rise],
          [limits.left.mm, shift],
          [limits.right.mm, shift],
        ] as const) {
          if (closed >= 1e-6) expect(got).toBeCloseTo(closed, 6);
          else if (!(closed >= -1e-6)) expect(got).toBeNull();
        }
      }),
      { numRuns: runs(3000) },
    );
  });

  it('tilted, agree with a walk that asks only whether the corners are covered', () => {
    fc.assert(
      fc.property(rig(18), (each) => {
        const limits = movementLimits(each.cone, each.frame, FREE, PLAIN, setAt(each.frame));
        for (const [side, name, sign] of SIDES) {
          const walked = walk(each, name, sign);
          const got = limits[side].mm;
          if (walked === null) expect(got === null || got < 1e-6).toBe(true);
          else if (walked > 1e-6 && walked < each.cone.imageDistanceMm * 40) {
            expect(Math.abs((got ?? NaN) - walked)).toBeLessThan(1e-5 * each.cone.imageDistanceMm);
          }
        }
      }),
      { numRuns: runs(2000) },
    );
  });

  it('stop at the mechanism when it ends first, and say so', () => {
    fc.assert(
      fc.property(rig(10), number(0.1, 30), number(-3, 3), ({ cone, frame }, most, added) => {
        const mechanism: Mechanism = { rise: [-most, most], shift: [-most, most], radialMm: most };
        const set = { shiftMm: frame.shiftMm, riseMm: frame.riseMm - added };
        const free = movementLimits(cone, frame, FREE, PLAIN, set);
        const held = movementLimits(cone, frame, mechanism, PLAIN, set);
        for (const side of ['rise', 'fall', 'left', 'right'] as const) {
          if (free[side].mm === null) expect(held[side].mm).toBeNull();
          else expect(held[side].mm).toBeLessThanOrEqual(Math.min(free[side].mm, most) + 1e-9);
          if (held[side].by === 'circle') expect(held[side].mm).toEqual(free[side].mm);
        }
      }),
    );
  });
});

describe('margin', () => {
  it('is negative exactly when the corner is outside, and ends on the edge of the circle', () => {
    fc.assert(
      fc.property(rig(15), ({ cone, frame }) => {
        for (const corner of CORNERS) {
          const margin = cornerMarginMm(cone, frame, corner);
          if (Math.abs(margin) < 1e-6) continue;
          expect(covers(cone, frameCorner(frame, corner))).toBe(margin > 0);
        }
      }),
      { numRuns: runs(2000) },
    );
  });
});

describe('a lens that leans so far that its cone is open on one side', () => {
  const open = fc
    .tuple(rig(0), number(45, 75), fc.boolean(), number(-20, 20), fc.boolean())
    .map(([{ cone: straight, frame }, lean, forward, swingDeg, aboutAxis]): Rig => {
      const cone: Cone = {
        ...straight,
        axis: lensAxis({ tiltDeg: forward ? lean : -lean, swingDeg }),
        halfAngleRad: Math.max(straight.halfAngleRad, Math.PI / 4),
      };
      // Half of the frames lie about the axis, with corners out on the open side.
      const middle = aboutAxis ? axisPoint(cone) : { x: 0, y: 0 };
      return {
        cone,
        frame: {
          widthMm: frame.widthMm * 4,
          heightMm: frame.heightMm * 4,
          shiftMm: frame.shiftMm + middle.x,
          riseMm: frame.riseMm + middle.y,
        },
      };
    });

  it('still has margins whose sign says whether the corner is covered', () => {
    fc.assert(
      fc.property(open, ({ cone, frame }) => {
        expect(circleOnSensor(cone)).toBeNull();
        for (const corner of CORNERS) {
          const margin = cornerMarginMm(cone, frame, corner);
          if (Math.abs(margin) < 1e-6) continue;
          expect(covers(cone, frameCorner(frame, corner))).toBe(margin > 0);
        }
      }),
      { numRuns: runs(2000) },
    );
  });

  it('has no edge along the axis of a parabola, nor beside it by less than can be told', () => {
    const cone: Cone = {
      axis: [0, Math.SQRT1_2, Math.SQRT1_2],
      imageDistanceMm: 15,
      halfAngleRad: Math.PI / 4,
    };
    for (const aside of [0, 5e-8, -5e-8]) {
      const span = Math.hypot(aside, 1);
      const along = { x: aside / span, y: 1 / span };
      expect(reach(cone, axisPoint(cone), along)).toBeGreaterThan(1e6);
      // The other way the parabola's vertex lies a whole image distance off.
      expect(reach(cone, axisPoint(cone), { x: -along.x, y: -along.y })).toBeCloseTo(15, 4);
    }
  });

  it('still has limits that agree with the walk', () => {
    fc.assert(
      fc.property(open, (each) => {
        const limits = movementLimits(each.cone, each.frame, FREE, PLAIN, setAt(each.frame));
        for (const [side, name, sign] of SIDES) {
          const walked = walk(each, name, sign);
          const got = limits[side].mm;
          if (walked === null) expect(got === null || got < 1e-6).toBe(true);
          else if (walked > 1e-6 && walked < each.cone.imageDistanceMm * 40) {
            expect(Math.abs((got ?? NaN) - walked)).toBeLessThan(1e-5 * each.cone.imageDistanceMm);
          }
        }
      }),
      { numRuns: runs(1000) },
    );
  });

  it('has an outline that lies on the cone, or at the cap', () => {
    fc.assert(
      fc.property(open, ({ cone }) => {
        const cap = cone.imageDistanceMm * 10;
        const from = axisPoint(cone);
        for (const place of coneOutline(cone, cap, 24)) {
          const [dx, dy] = [place.x - from.x, place.y - from.y];
          if (Math.hypot(dx, dy) > cap * (1 - 1e-9)) continue;
          expect(covers(cone, { x: from.x + dx * 0.999999, y: from.y + dy * 0.999999 })).toBe(true);
          expect(covers(cone, { x: from.x + dx * 1.00001, y: from.y + dy * 1.00001 })).toBe(false);
        }
      }),
      { numRuns: runs(300) },
    );
  });
});

describe('envelope', () => {
  it('holds exactly the places where the frame is covered', () => {
    fc.assert(
      fc.property(rig(12), number(-1, 1), number(-1, 1), ({ cone, frame }, dx, dy) => {
        const polygon = envelope(cone, frame, FREE, PLAIN);
        if (polygon.length === 0) {
          const centre = circleOnSensor(cone)!.centre;
          expect(frameCovered(cone, { ...frame, shiftMm: centre.x, riseMm: centre.y })).toBe(false);
          return;
        }
        const radius = cone.imageDistanceMm * Math.tan(cone.halfAngleRad);
        const centre = circleOnSensor(cone)!.centre;
        const place = { x: centre.x + dx * radius, y: centre.y + dy * radius };
        // A spot of a hundredth of the radius: wholly in, or wholly out, of the polygon.
        const d = radius / 100;
        const spot: [number, number][] = [
          [place.x - d, place.y - d],
          [place.x + d, place.y - d],
          [place.x + d, place.y + d],
          [place.x - d, place.y + d],
        ];
        const ring = polygon.map(({ x, y }): [number, number] => [x, y]);
        const covered = frameCovered(cone, { ...frame, shiftMm: place.x, riseMm: place.y });
        const common = clipping.intersection([[...ring]], [[...spot]]);
        if (common.length === 0) expect(covered).toBe(false);
        else if (clipping.difference([[...spot]], [[...ring]]).length === 0) {
          expect(covered).toBe(true);
        }
      }),
      { numRuns: runs(600) },
    );
  });

  it('keeps the mechanism, the length of a turning movement included', () => {
    const { cone, frame } = fc.sample(rig(0), { seed: 7, numRuns: 1 })[0]!;
    const mechanism: Mechanism = { rise: [-2, 3], shift: [-9, 9], radialMm: 4 };
    const polygon = envelope(cone, { ...frame, widthMm: 1, heightMm: 1 }, mechanism, PLAIN);
    for (const { x, y } of polygon) {
      expect(y).toBeGreaterThanOrEqual(-2 - 1e-9);
      expect(y).toBeLessThanOrEqual(3 + 1e-9);
      expect(Math.hypot(x, y)).toBeLessThanOrEqual(4 + 1e-9);
    }
    expect(Math.max(...polygon.map(({ y }) => y))).toBeCloseTo(3, 6);
  });

  it('the circle on a leaned sensor is an ellipse whose every point lies on the cone', () => {
    fc.assert(
      fc.property(rig(15), number(0, 2 * Math.PI), ({ cone }, angle) => {
        const ellipse = circleOnSensor(cone)!;
        const turn = (ellipse.turnDeg * Math.PI) / 180;
        const [a, b] = [
          ellipse.semiMajorMm * Math.cos(angle),
          ellipse.semiMinorMm * Math.sin(angle),
        ];
        const at = (share: number) => ({
          x: ellipse.centre.x + share * (a * Math.cos(turn) - b * Math.sin(turn)),
          y: ellipse.centre.y + share * (a * Math.sin(turn) + b * Math.cos(turn)),
        });
        expect(covers(cone, at(1 - 1e-7))).toBe(true);
        expect(covers(cone, at(1 + 1e-7))).toBe(false);
      }),
      { numRuns: runs(1000) },
    );
  });
});

describe('the four corners in one pass', () => {
  it('give what each look at them gives by itself', () => {
    fc.assert(
      fc.property(rig(30), number(0.3, 1), ({ cone, frame }, share) => {
        const core = { ...cone, halfAngleRad: cone.halfAngleRad * share };
        const light = frameLight(cone, core, frame);
        expect(light).toEqual({
          covered: frameCovered(cone, frame),
          sharp: frameCovered(core, frame),
          worst: worstCorner(cone, frame),
          softest: worstCorner(core, frame),
          falloffStops: cornerFalloffStops(cone, frame),
        });
        const each = CORNERS.map((corner) => covers(cone, frameCorner(frame, corner)));
        expect(light.covered).toBe(each.every(Boolean));
        const lies = frameIn(cone, core.halfAngleRad, frame);
        expect(lies).toBe(light.covered ? (light.sharp ? 'sharp' : 'covered') : 'outside');
        const margins = CORNERS.map((corner) => cornerMarginMm(cone, frame, corner));
        expect(light.worst.marginMm).toBeLessThan(Math.min(...margins) + 1e-8);
      }),
      { numRuns: runs(2000) },
    );
  });
});
