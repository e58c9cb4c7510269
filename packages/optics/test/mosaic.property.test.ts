import fc from 'fast-check';
import clipping, { type Polygon as Rings } from 'polygon-clipping';
import { PerspectiveCamera, Vector3 } from 'three';
import {
  areaOf,
  areaWithin,
  largestWithin,
  onCylinder,
  ontoFlat,
  radians,
  shareWithin,
  sharedPart,
  turnedFrames,
  turnedRectangle,
  unionEdges,
  type Cone,
  type Point,
} from '../src/index.js';
import { runs } from '../../../scripts/lib/runs.mjs';

/** Unions, overlaps and the picture that comes out, against a general polygon library. */

const number = (min: number, max: number) => fc.double({ min, max, noNaN: true });

const frames = fc
  .record({
    size: fc.record({ widthMm: number(10, 60), heightMm: number(10, 60) }),
    places: fc.array(
      fc.record({
        x: number(-30, 30),
        y: number(-30, 30),
        turn: fc.constantFrom(0, 0, 90, 17, 45),
      }),
      { minLength: 1, maxLength: 7 },
    ),
  })
  .map(({ size, places }) =>
    places.map(({ x, y, turn }) => turnedRectangle({ x, y }, size, radians(turn))),
  );

// The library stumbles over corners that differ in the last digit only.
const rounded = (value: number): number => Math.round(value * 1e7) / 1e7;
const rings = (polygon: readonly Point[]): Rings => [
  polygon.map(({ x, y }) => [rounded(x), rounded(y)]),
];
const areaOfMulti = (multi: ReturnType<typeof clipping.union>): number =>
  multi.reduce(
    (sum, [outer, ...holes]) =>
      sum + ringArea(outer!) - holes.reduce((inner, hole) => inner + ringArea(hole), 0),
    0,
  );
const ringArea = (ring: readonly (readonly [number, number])[]): number =>
  areaOf(ring.slice(0, -1).map(([x, y]) => ({ x, y })));

const joined = (polygons: readonly (readonly Point[])[]) => {
  const [first, ...rest] = polygons.map(rings);
  return clipping.union(first!, ...rest);
};

const CIRCLE_SIDES = 480;
const circle = (radius: number): Rings => [
  Array.from({ length: CIRCLE_SIDES }, (_, i) => {
    const a = (2 * Math.PI * i) / CIRCLE_SIDES;
    return [radius * Math.cos(a), radius * Math.sin(a)];
  }),
];
const cone = (radius: number): Cone => ({
  axis: [0, 0, 1],
  halfAngleRad: Math.atan(radius / 50),
  imageDistanceMm: 50,
});

const rectangle = (middle: Point, w: number, h: number): Rings =>
  rings(turnedRectangle(middle, { widthMm: w, heightMm: h }, 0));
const sticksOut = (region: ReturnType<typeof clipping.union>, r: Rings): number =>
  areaOfMulti(clipping.difference(r, ...region));

const thorough = { numRuns: runs(1000) };

describe('what frames cover together, against polygon-clipping', () => {
  it('has the area of the union, and of each overlap', () => {
    fc.assert(
      fc.property(frames, (polygons) => {
        const union = areaOfMulti(joined(polygons));
        expect(Math.abs(areaWithin(unionEdges(polygons)) / union - 1)).toBeLessThan(1e-6);
        const [a, b = a] = polygons;
        const both = areaOfMulti(clipping.intersection(rings(a!), rings(b!)));
        const part = sharedPart(a!, b!);
        expect(part.length < 3 ? 0 : areaOf(part)).toBeCloseTo(both, 4);
      }),
      thorough,
    );
  });

  it('of many frames, too, which are not held against each other one by one: by counting squares', () => {
    const at = fc.integer({ min: 0, max: 60 });
    const side = fc.integer({ min: 1, max: 14 });
    const many = fc.array(fc.tuple(at, at, side, side), { minLength: 30, maxLength: 60 });
    fc.assert(
      fc.property(many, (drawn) => {
        const covered = new Set<number>();
        for (const [x, y, w, h] of drawn) {
          for (let i = 0; i < w; i++)
            for (let j = 0; j < h; j++) covered.add((x + i) * 100 + y + j);
        }
        const polygons = drawn.map(([x, y, widthMm, heightMm]) =>
          turnedRectangle({ x: x + widthMm / 2, y: y + heightMm / 2 }, { widthMm, heightMm }, 0),
        );
        expect(areaWithin(unionEdges(polygons))).toBeCloseTo(covered.size, 3);
      }),
      { numRuns: runs(300) },
    );
  });

  it('keeps a shared edge once and drops one between frames that abut', () => {
    const size = { widthMm: 10, heightMm: 10 };
    const row = [0, 10, 15].map((x) => turnedRectangle({ x, y: 0 }, size, 0));
    expect(areaWithin(unionEdges(row))).toBeCloseTo(250, 5);
    expect(largestWithin(row, null, { x: 7.5, y: 0 })!.widthMm).toBeCloseTo(25, 5);
    // A hole in the middle is a hole.
    const ring = [
      [0, 10],
      [0, -10],
      [10, 0],
      [-10, 0],
    ].map(([x, y]) => turnedRectangle({ x: x!, y: y! }, size, 0));
    expect(largestWithin(ring, null, { x: 0, y: 0 })).toBeNull();
  });
});

describe('the picture that comes out, against polygon-clipping', () => {
  const worlds = fc.record({ polygons: frames, radius: number(20, 80), ratio: number(0.3, 3) });

  it('of a shape: it lies inside to 0.1 %, and a tenth of a per cent more does not', () => {
    fc.assert(
      fc.property(worlds, ({ polygons, radius, ratio }) => {
        const middle = { x: 0, y: 0 };
        const found = largestWithin(polygons, cone(radius), middle, { across: ratio, up: 1 });
        const region = clipping.intersection(joined(polygons), circle(radius));
        if (!found) {
          expect(sticksOut(region, rectangle(middle, 2e-3 * ratio, 2e-3))).toBeGreaterThan(0);
          return;
        }
        expect(found.widthMm / found.heightMm).toBeCloseTo(ratio, 9);
        const area = found.widthMm * found.heightMm;
        if (area < 1) return;
        const inner = rectangle(middle, found.widthMm * 0.999, found.heightMm * 0.999);
        expect(sticksOut(region, inner)).toBeLessThan(1e-9 * area);
        const outer = rectangle(middle, found.widthMm * 1.001, found.heightMm * 1.001);
        expect(sticksOut(region, outer)).toBeGreaterThan(0);
      }),
      thorough,
    );
  });

  it('of any shape: inside to 0.1 %, and no shape gives a larger one', () => {
    fc.assert(
      fc.property(worlds, ({ polygons, radius }) => {
        const middle = { x: 0, y: 0 };
        const found = largestWithin(polygons, cone(radius), middle);
        const shapes = Array.from({ length: 41 }, (_, i) => 2 ** ((i - 20) / 5));
        const others = shapes.map((across) => {
          const of = largestWithin(polygons, cone(radius), middle, { across, up: 1 });
          return of ? of.widthMm * of.heightMm : 0;
        });
        const area = found ? found.widthMm * found.heightMm : 0;
        expect(area).toBeGreaterThanOrEqual(Math.max(...others) * (1 - 1e-9));
        if (area < 1) return;
        const region = clipping.intersection(joined(polygons), circle(radius));
        const inner = rectangle(middle, found!.widthMm * 0.999, found!.heightMm * 0.999);
        expect(sticksOut(region, inner)).toBeLessThan(1e-9 * area);
        const own = largestWithin(polygons, cone(radius), middle, {
          across: found!.widthMm,
          up: found!.heightMm,
        })!;
        expect(own.widthMm / found!.widthMm).toBeCloseTo(1, 6);
      }),
      { numRuns: runs(400) },
    );
  });

  it('is a square of R√2 in a circle, and the largest of a tilted square by hand', () => {
    const wide = [turnedRectangle({ x: 0, y: 0 }, { widthMm: 200, heightMm: 200 }, 0)];
    const square = largestWithin(wide, cone(43.3 / 2), { x: 0, y: 0 })!;
    expect(square.widthMm).toBeCloseTo(43.3 / Math.SQRT2, 6);
    expect(square.heightMm).toBeCloseTo(43.3 / Math.SQRT2, 6);
    const diamond = [turnedRectangle({ x: 0, y: 0 }, { widthMm: 20, heightMm: 20 }, Math.PI / 4)];
    expect(largestWithin(diamond, null, { x: 0, y: 0 })!.widthMm).toBeCloseTo(20 / Math.SQRT2, 5);
  });
});

describe('a camera turned about its pupil, against the camera of a 3-D library', () => {
  it('puts a place of a turned frame on the flat picture where three.js sees it', () => {
    fc.assert(
      fc.property(number(-17, 17), number(-11, 11), number(-50, 50), (x, y, yaw) => {
        const v = 24;
        const camera = new PerspectiveCamera(90, 1, 0.1, 1e6);
        // The direction of that place in the turned camera, then seen by one that is not turned.
        const turned = camera.clone();
        turned.rotation.y = -radians(yaw);
        turned.updateMatrixWorld();
        camera.updateMatrixWorld();
        const direction = new Vector3(x / v, y / v, -1).applyMatrix4(turned.matrixWorld);
        if (direction.z > -0.05) return;
        const seen = direction.project(camera);
        const flat = ontoFlat({ x, y }, yaw, v);
        expect(flat.x / v).toBeCloseTo(seen.x, 6);
        expect(flat.y / v).toBeCloseTo(seen.y, 6);
      }),
    );
  });

  it('lays frames by their angle: H = 2 atan(w/2v), the picture v × its angle wide, h cos(H/2) high', () => {
    const frame = { widthMm: 36, heightMm: 24, shiftMm: 0, riseMm: 0 };
    const turn = turnedFrames(frame, 50, 4, 0.3);
    const h = 2 * Math.atan(18 / 50);
    expect(radians(turn.frameDeg)).toBeCloseTo(h, 12);
    expect(radians(turn.horizontalDeg)).toBeCloseTo(h + 3 * 0.7 * h, 12);
    expect(turn.yawsDeg[0]! + turn.yawsDeg[3]!).toBeCloseTo(0, 12);
    const picture = onCylinder(frame, null, 50, turn)!;
    expect(picture.widthMm).toBeCloseTo(50 * (h + 2.1 * h), 9);
    expect(picture.heightMm).toBeCloseTo(24 * Math.cos(h / 2), 9);
    expect(picture.centre.x).toBeCloseTo(0, 9);
    // Raised past the horizon, the foot is cut where the frame looks straight ahead.
    const raised = onCylinder({ ...frame, riseMm: 14 }, null, 50, turn)!;
    expect(raised.heightMm).toBeCloseTo(26 * Math.cos(h / 2) - 2, 9);
  });
});

describe('two circles over each other', () => {
  it('share what polygon-clipping says', () => {
    fc.assert(
      fc.property(number(2, 20), number(2, 20), number(0, 40), (r, s, apart) => {
        const other: Rings = [circle(s)[0]!.map(([x, y]) => [x + apart, y])];
        const area = areaOfMulti(clipping.intersection(circle(r), other)) / (Math.PI * r * r);
        expect(shareWithin(r, s, apart)).toBeCloseTo(area, 3);
      }),
      { numRuns: runs(200) },
    );
  });
});
