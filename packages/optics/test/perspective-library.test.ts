import cv from '@techstark/opencv-js';
import fc from 'fast-check';
import {
  ballOutline,
  convergenceDeg,
  correctionStretch,
  degrees,
  lensAxis,
  project,
  radians,
  sensorBasis,
  stretchAt,
  toLevel,
  toPitched,
  verticalInSensor,
  type Point,
} from '../src/index.js';
import { runs } from '../../../scripts/lib/runs.mjs';

/** Perspective in closed form against the homographies and projections of a general vision library. */

type Library = typeof cv & { onRuntimeInitialized?: () => void };

beforeAll(async () => {
  const library = cv as Library;
  if (!library.Mat) {
    await new Promise<void>((resolve) => {
      library.onRuntimeInitialized = () => resolve();
    });
  }
});

const matrix = (rows: number, columns: number, values: number[]) =>
  cv.matFromArray(rows, columns, cv.CV_64F, values);

/** Projects points through a camera whose rotation rows are the sensor's axes; picture upright. */
function projected(points: number[][], v: number, pitchDeg: number, yawDeg = 0): Point[] {
  const { right, up, normal } = sensorBasis(pitchDeg, yawDeg);
  // The library's y runs down, in the scene as in the picture.
  const down = ([x, y, z]: readonly number[]): number[] => [x!, -y!, z!];
  const rows = [...down(right), ...down(up).map((c) => -c), ...down(normal)];
  const [r, rotation] = [new cv.Mat(), matrix(3, 3, rows)];
  cv.Rodrigues(rotation, r);
  const [translation, camera] = [
    matrix(3, 1, [0, 0, 0]),
    matrix(3, 3, [v, 0, 0, 0, v, 0, 0, 0, 1]),
  ];
  const [distortion, out] = [matrix(4, 1, [0, 0, 0, 0]), new cv.Mat()];
  const object = cv.matFromArray(points.length, 1, cv.CV_64FC3, points.flatMap(down));
  cv.projectPoints(object, r, translation, camera, distortion, out, new cv.Mat(), 0);
  const found = points.map((_, i) => ({ x: out.data64F[2 * i]!, y: -out.data64F[2 * i + 1]! }));
  for (const each of [r, rotation, translation, camera, distortion, out, object]) each.delete();
  return found;
}

/** The homography that takes four places to four others. */
function homography(from: readonly Point[], to: readonly Point[]): number[] {
  const flat = (points: readonly Point[]) =>
    cv.matFromArray(
      4,
      1,
      cv.CV_64FC2,
      points.flatMap(({ x, y }) => [x, y]),
    );
  const [a, b] = [flat(from), flat(to)];
  const found = cv.findHomography(a, b);
  const values = [...found.data64F];
  for (const each of [a, b, found]) each.delete();
  return values;
}

const through = (h: number[], { x, y }: Point): Point => {
  const w = h[6]! * x + h[7]! * y + h[8]!;
  return {
    x: (h[0]! * x + h[1]! * y + h[2]!) / w,
    y: (h[3]! * x + h[4]! * y + h[5]!) / w,
  };
};

const corners = (v: number): Point[] => [
  { x: -0.6 * v, y: -0.4 * v },
  { x: 0.6 * v, y: -0.4 * v },
  { x: 0.6 * v, y: 0.4 * v },
  { x: -0.6 * v, y: 0.4 * v },
];

const number = (min: number, max: number) => fc.double({ min, max, noNaN: true });
/** In hundredths: the library takes turns below a ten-thousandth of a degree for none. */
const pitches = (most: number) =>
  fc.integer({ min: -100 * most, max: 100 * most }).map((n) => n / 100);
const cases = fc.record({ v: number(15, 300), pitch: pitches(25) });
const CLOSE = 1e-6;

describe('against a vision library', () => {
  it('keystone: the pitched picture is the library’s projection of the level one', () => {
    fc.assert(
      fc.property(cases, ({ v, pitch }) => {
        const found = projected(
          corners(v).map(({ x, y }) => [x, y, v]),
          v,
          pitch,
        );
        corners(v).forEach((corner, i) => {
          const ours = toPitched(corner, v, pitch)!;
          expect(Math.hypot(ours.x - found[i]!.x, ours.y - found[i]!.y) / v).toBeLessThan(CLOSE);
          const back = toLevel(ours, v, pitch)!;
          expect(Math.hypot(back.x - corner.x, back.y - corner.y) / v).toBeLessThan(CLOSE);
        });
      }),
      { numRuns: runs(100) },
    );
  });

  it('keystone stretch across and up are the derivatives of the library’s homography', () => {
    fc.assert(
      fc.property(cases, number(-0.4, 0.4), ({ v, pitch }, share) => {
        const level = corners(v);
        const pitched = level.map((corner) => toPitched(corner, v, pitch)!);
        const h = homography(pitched, level);
        const y = share * v;
        const step = 1e-4 * v;
        const [left, right] = [through(h, { x: -step, y }), through(h, { x: step, y })];
        const [low, high] = [through(h, { x: 0, y: y - step }), through(h, { x: 0, y: y + step })];
        const ours = correctionStretch(v, pitch, y);
        expect((right.x - left.x) / (2 * step) / ours.across).toBeCloseTo(1, 6);
        expect((high.y - low.y) / (2 * step) / ours.up).toBeCloseTo(1, 6);
      }),
      { numRuns: runs(100) },
    );
  });

  it('convergence is the angle between the library’s pictures of two plumb lines', () => {
    fc.assert(
      fc.property(
        fc.record({ v: number(15, 300), pitch: pitches(20), rise: number(-0.2, 0.2) }),
        ({ v, pitch, rise }) => {
          const frame = { widthMm: v, heightMm: 0.7 * v, shiftMm: 0.1 * v, riseMm: rise * v };
          const angle = (side: -1 | 1): number => {
            // Any plumb line through the middle of that edge of the frame.
            const { right, up, normal } = sensorBasis(pitch, 0);
            const x = frame.shiftMm + (side * frame.widthMm) / 2;
            const foot = [0, 1, 2].map(
              (i) => x * right[i]! + frame.riseMm * up[i]! + v * normal[i]!,
            );
            const above = [foot[0]!, foot[1]! + 0.2 * v, foot[2]!];
            const [a, b] = projected([foot, above], v, pitch);
            return Math.atan2(b!.x - a!.x, b!.y - a!.y);
          };
          const ours = convergenceDeg(frame, v, verticalInSensor(pitch, 0, 0));
          expect(Math.abs(ours - degrees(angle(-1) - angle(1)))).toBeLessThan(CLOSE);
        },
      ),
      { numRuns: runs(100) },
    );
  });

  it('a small ball off the axis is drawn out by 1/cos β', () => {
    fc.assert(
      fc.property(number(15, 300), number(0, 60), (v, beta) => {
        const size = 1e-5;
        const direction = [Math.sin(radians(beta)), 0, Math.cos(radians(beta))] as const;
        const edge = (dx: number, dy: number): number[] => [
          direction[0] + dx * direction[2],
          dy,
          direction[2] - dx * direction[0],
        ];
        const [west, east, south, north] = projected(
          [edge(-size, 0), edge(size, 0), edge(0, -size), edge(0, size)],
          v,
          0,
        );
        const ratio = (east!.x - west!.x) / (north!.y - south!.y);
        const ours = stretchAt(v * Math.tan(radians(beta)), 0, v);
        expect(ratio / ours).toBeCloseTo(1, 6);
        const outline = ballOutline([direction[0], 0, direction[2]], size, v, 360);
        const span = (pick: (p: Point) => number): number =>
          Math.max(...outline.map(pick)) - Math.min(...outline.map(pick));
        expect(span((p) => p.x) / span((p) => p.y) / ours).toBeCloseTo(1, 3);
      }),
      { numRuns: runs(60) },
    );
  });
});

describe('a leaned lens before its sensor', () => {
  it('projects as the library’s tilted sensor does', () => {
    const angle = fc.double({ min: -25, max: 25, noNaN: true });
    const place = fc.tuple(
      fc.double({ min: -0.5, max: 0.5, noNaN: true }),
      fc.double({ min: -0.5, max: 0.5, noNaN: true }),
    );
    fc.assert(
      fc.property(angle, angle, place, (tiltDeg, swingDeg, [px, py]) => {
        const v = 90;
        const axis = lensAxis({ tiltDeg, swingDeg });
        const P: [number, number, number] = [px * 1000, py * 1000, 1000];
        const ours = project(P, v);
        // The library measures from where the lens's axis meets the sensor, along the axis.
        const along = v / axis[2];
        const middle = { x: along * axis[0], y: along * axis[1] };
        const { right, up, normal } = sensorBasis(-tiltDeg, swingDeg);
        const inner = (a: readonly number[]): number => a[0]! * P[0] + a[1]! * P[1] + a[2]! * P[2];
        fc.pre(inner(normal) > 100);
        const object = cv.matFromArray(1, 1, cv.CV_64FC3, [
          inner(right),
          -inner(up),
          inner(normal),
        ]);
        const zero = [matrix(3, 1, [0, 0, 0]), matrix(3, 1, [0, 0, 0])] as const;
        const camera = matrix(3, 3, [along, 0, 0, 0, along, 0, 0, 0, 1]);
        // Coefficients 13 and 14 are the sensor's tilt about x and y, radians; its y runs down.
        const lean = matrix(14, 1, [
          ...Array.from({ length: 12 }, () => 0),
          radians(tiltDeg),
          radians(-swingDeg),
        ]);
        const out = new cv.Mat();
        cv.projectPoints(object, zero[0], zero[1], camera, lean, out, new cv.Mat(), 0);
        expect(out.data64F[0]!).toBeCloseTo(ours.x - middle.x, 6);
        expect(-out.data64F[1]!).toBeCloseTo(ours.y - middle.y, 6);
        for (const each of [object, ...zero, camera, lean, out]) each.delete();
      }),
      { numRuns: runs(200) },
    );
  });
});
