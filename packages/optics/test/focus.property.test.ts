import fc from 'fast-check';
import {
  depthOfField,
  distanceAt,
  dot,
  hingeDistanceMm,
  imageDepthMm,
  imageDistanceFromDistance,
  imageDistanceFromMagnification,
  lensAxis,
  length,
  magnificationAt,
  nearestDistanceMm,
  pivotTravel,
  planeOfSharpFocus,
  scale,
  SENSOR_NORMAL,
  subtract,
  tiltSwingOf,
  turnedAxis,
  turnedTiltOf,
  unit,
  type Vec3,
} from '../src/index.js';
import { runs } from '../../../scripts/lib/runs.mjs';

const number = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const focal = number(10, 600);
const lean = number(-30, 30);

/** Where rays from a point meet again behind a thin lens: the slope law on two rays, nothing else. */
function traced(point: Vec3, axis: Vec3, f: number): Vec3 {
  // A frame along the axis: heights across it are bent by −h/f, the middle is not bent.
  const side = unit(subtract([1, 0, 0], scale(axis, axis[0])));
  const p = dot(point, axis);
  const h = dot(point, side);
  const height = f / 7;
  // One ray through the middle, one through a place `height` to the side.
  const slopeMiddle = -h / p;
  const slopeOff = (height - h) / p - height / f;
  const behind = height / (slopeMiddle - slopeOff);
  // The ray through the middle goes straight on.
  return scale(point, -behind / p);
}

describe('focus against two traced rays', () => {
  it('a point of the plane of sharp focus comes together on the sensor', () => {
    fc.assert(
      fc.property(
        focal,
        lean,
        lean,
        number(1.02, 2),
        number(-0.4, 0.4),
        number(-0.4, 0.4),
        (f, tiltDeg, swingDeg, extension, x, y) => {
          const axis = lensAxis({ tiltDeg, swingDeg });
          const v = (f * extension) / axis[2];
          const plane = planeOfSharpFocus(f, axis, v);
          const direction: Vec3 = [x, y, 1];
          const along = dot(direction, plane.normal);
          fc.pre(along > 0.01);
          const point = scale(direction, plane.distanceMm / along);
          fc.pre(dot(point, axis) > 1.01 * f);
          const image = traced(point, axis, f);
          expect(dot(image, SENSOR_NORMAL) / -v).toBeCloseTo(1, 9);
          expect(imageDepthMm(f, axis, point) / v).toBeCloseTo(1, 9);
        },
      ),
      { numRuns: runs(2000) },
    );
  });

  it('the hinge line lies in the plane at every focus', () => {
    fc.assert(
      fc.property(focal, lean, lean, number(1.01, 3), (f, tiltDeg, swingDeg, extension) => {
        fc.pre(Math.hypot(tiltDeg, swingDeg) > 0.1);
        const axis = lensAxis({ tiltDeg, swingDeg });
        const down = Math.hypot(axis[0], axis[1]);
        const hinge: Vec3 = [(axis[0] / down) * (f / down), (axis[1] / down) * (f / down), 0];
        expect(length(hinge)).toBeCloseTo(hingeDistanceMm(f, axis), 6);
        const { normal, distanceMm } = planeOfSharpFocus(f, axis, f * extension);
        expect(dot(hinge, normal) / distanceMm).toBeCloseTo(1, 6);
      }),
    );
  });
});

describe('image distance', () => {
  it('gives back the distance it came from, near and very far', () => {
    fc.assert(
      fc.property(focal, lean, number(1.001, 1e7), (f, tiltDeg, times) => {
        const axisZ = lensAxis({ tiltDeg, swingDeg: 0 })[2];
        const distance = nearestDistanceMm(f, axisZ) * times;
        const v = imageDistanceFromDistance(f, axisZ, distance);
        // At 10⁷ focal lengths the extension has lost seven of its sixteen digits.
        expect(distanceAt(f, axisZ, v) / distance).toBeCloseTo(1, times > 1e4 ? 1 : 6);
        expect(magnificationAt(f, axisZ, v)).toBeLessThanOrEqual(1 + 1e-6);
      }),
      { numRuns: runs(1000) },
    );
  });

  it('at infinity is f / a_z; nearer than four focal lengths there is none', () => {
    expect(imageDistanceFromDistance(90, 1, Infinity)).toBe(90);
    expect(imageDistanceFromDistance(90, 1, 359)).toBeNaN();
    expect(imageDistanceFromDistance(90, 1, 360)).toBe(180);
    expect(distanceAt(90, 1, 90)).toBe(Infinity);
  });

  it('magnification and image distance are inverse', () => {
    fc.assert(
      fc.property(focal, number(0, 10), number(0.5, 1), (f, m, axisZ) => {
        const v = imageDistanceFromMagnification(f, axisZ, m);
        expect(magnificationAt(f, axisZ, v)).toBeCloseTo(m, 9);
      }),
    );
  });
});

describe('depth of field', () => {
  it('its limits blur to the circle of confusion', () => {
    fc.assert(
      fc.property(focal, number(2, 32), number(1.2, 400), (f, n, times) => {
        const c = 0.03;
        const v = imageDistanceFromDistance(f, 1, 4 * f * times);
        const { nearMm, farMm } = depthOfField({ focalLengthMm: f, ratio: 1, axisZ: 1 }, v, n, c);
        for (const limit of [nearMm, farMm]) {
          if (!Number.isFinite(limit) || limit > 1e7) continue;
          const q = imageDepthMm(f, [0, 0, 1], [0, 0, limit - v]);
          expect((f / n) * (Math.abs(v - q) / q)).toBeCloseTo(c, 5);
        }
        expect(nearMm).toBeLessThan(farMm);
      }),
    );
  });
});

describe('lens axis', () => {
  it('tilt and swing come back from it', () => {
    fc.assert(
      fc.property(number(-80, 80), number(-80, 80), (tiltDeg, swingDeg) => {
        const back = tiltSwingOf(lensAxis({ tiltDeg, swingDeg }));
        expect(back.tiltDeg).toBeCloseTo(tiltDeg, 9);
        expect(back.swingDeg).toBeCloseTo(swingDeg, 9);
      }),
    );
  });

  it('a turned one-way tilt and its tilt and swing give the same axis', () => {
    fc.assert(
      fc.property(number(0.01, 60), number(0, 359.9), (leanDeg, turnDeg) => {
        const axis = turnedAxis({ leanDeg, turnDeg });
        const back = turnedTiltOf(tiltSwingOf(axis));
        expect(back.leanDeg).toBeCloseTo(leanDeg, 7);
        expect(Math.cos(((back.turnDeg - turnDeg) * Math.PI) / 180)).toBeCloseTo(1, 9);
      }),
    );
    // Turn 0 leans forward; 90° clockwise from behind leans to the left.
    expect(tiltSwingOf(turnedAxis({ leanDeg: 8, turnDeg: 0 })).tiltDeg).toBeCloseTo(8, 9);
    expect(tiltSwingOf(turnedAxis({ leanDeg: 8, turnDeg: 90 })).swingDeg).toBeCloseTo(-8, 9);
  });

  it('a pivot behind the lens centre lowers it by b sin θ and draws it back by b (1 − cos θ)', () => {
    const { riseMm, backMm, shiftMm } = pivotTravel(lensAxis({ tiltDeg: 6, swingDeg: 0 }), 40);
    expect(riseMm).toBeCloseTo(-40 * Math.sin((6 * Math.PI) / 180), 12);
    expect(backMm).toBeCloseTo(-40 * (1 - Math.cos((6 * Math.PI) / 180)), 12);
    expect(shiftMm).toBe(0);
  });
});
