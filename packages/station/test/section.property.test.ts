import fc from 'fast-check';
import {
  bedAnswer,
  blurAt,
  blurRaster,
  CONTROLS,
  focusedThrough,
  hingedAt,
  leanedTo,
  readings,
  sceneStep,
  sectionOf,
  withMarks,
  type Mark,
  type Section,
  type SectionKind,
  type Station,
} from '../src/index.js';
import { parsed, stations } from './helpers/rigs.js';
import { mark } from './helpers/table.js';
import { runs, seen as often } from '../../../scripts/lib/runs.mjs';

const number = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const kinds = fc.constantFrom<SectionKind>('side', 'plan');

const metres = ({ lens }: Station): number => lens.focal_length_mm / 1000;

/**
 * A mark in the cut, so many metres before the camera, and where the cut has it: everything else
 * is reached from there by the section's own steps.
 */
function anchored(station: Station, kind: SectionKind): { from: Mark; section: Section } {
  const other: SectionKind = kind === 'side' ? 'plan' : 'side';
  const first = mark('from', 0, station.camera.height_m, 30 * metres(station));
  const off = sectionOf(withMarks(station, [first]), other).marks[0]!.at.y;
  const { x_m, y_m, z_m } = sceneStep(station, other, 0, -off);
  const from = { ...first, x_m: x_m + first.x_m, y_m: y_m + first.y_m, z_m: z_m + first.z_m };
  return { from, section: sectionOf(withMarks(station, [from]), kind) };
}

/** The scene's place of a place of the cut. */
function placed(station: Station, kind: SectionKind) {
  const { from, section } = anchored(station, kind);
  const { at } = section.marks[0]!;
  return (x: number, y: number): readonly [number, number, number] => {
    const step = sceneStep(station, kind, x - at.x, y - at.y);
    return [from.x_m + step.x_m, from.y_m + step.y_m, from.z_m + step.z_m];
  };
}

/** Places of a line of the cut, in focal lengths before the lens and about its axis. */
function onLine(
  { nx, ny, k }: { nx: number; ny: number; k: number },
  f: number,
): readonly (readonly [number, number])[] {
  const ahead = [8, 20, 60].map((n) => [n * f, (k - nx * n * f) / ny] as const);
  const steep = [-1, 0, 2].map((n) => [(k - ny * n * f) / nx, n * f] as const);
  return [...ahead, ...steep].filter(
    ([x, y]) => Number.isFinite(x) && Number.isFinite(y) && x > 3 * f && Math.abs(y) < x,
  );
}

describe('any section', () => {
  it('has no blur on its plane, and one circle of confusion on either limit', () => {
    let looked = 0;
    fc.assert(
      fc.property(stations(), kinds, (station, kind) => {
        const section = sectionOf(station, kind);
        const f = metres(station);
        const blur = blurAt(station);
        const at = placed(station, kind);
        const blurs = (line: Section['plane']): number[] =>
          line === null
            ? []
            : onLine(line, f).map(([x, y]) => (blur(...at(x, y)) * 1000) / section.cocUm);
        for (const times of blurs(section.plane)) expect(times).toBeLessThan(1e-5);
        for (const limit of section.limits) {
          for (const times of blurs(limit)) {
            looked += 1;
            expect(times).toBeCloseTo(1, 5);
          }
        }
      }),
      { numRuns: runs(300) },
    );
    expect(looked).toBeGreaterThan(often(300));
  });

  it('has its plane, both limits and lens plane meet at the hinge', () => {
    fc.assert(
      fc.property(stations(), kinds, (station, kind) => {
        const { hinge, hingeMm, plane, limits, axis } = sectionOf(station, kind);
        fc.pre(hinge !== null && hingeMm !== null && Math.abs(hingeMm) <= 1e6);
        const size = Math.hypot(hinge.x, hinge.y);
        expect((size * 1000) / Math.abs(hingeMm)).toBeCloseTo(1, 9);
        for (const line of [plane, ...limits]) {
          if (!line) continue;
          const reach = Math.hypot(line.nx, line.ny) * size + Math.abs(line.k);
          expect(Math.abs(line.nx * hinge.x + line.ny * hinge.y - line.k) / reach).toBeLessThan(
            1e-9,
          );
        }
        expect(Math.hypot(axis.x, axis.y)).toBeCloseTo(1, 12);
      }),
      { numRuns: runs(300) },
    );
  });

  it('focuses through the place it is dragged to, and leans nothing for it', () => {
    let reached = 0;
    fc.assert(
      fc.property(stations(), kinds, number(10, 80), number(-0.3, 0.3), (station, kind, n, y) => {
        const f = metres(station);
        const at = { x: n * f, y: y * n * f };
        const after = focusedThrough(station, kind, at);
        if (!after) return;
        reached += 1;
        expect(after.movements).toEqual(station.movements);
        const scene = placed(station, kind)(at.x, at.y);
        // Judged by the blur there, not by the lines of the section.
        const coc = sectionOf(after, kind).cocUm;
        expect((blurAt(after)(...scene) * 1000) / coc).toBeLessThan(1e-4);
      }),
      { numRuns: runs(300) },
    );
    expect(reached).toBeGreaterThan(often(150));
  });

  it('leans so that the hinge lies where it is dragged to', () => {
    fc.assert(
      fc.property(stations(), kinds, number(4, 60), fc.boolean(), (station, kind, n, below) => {
        const wanted = (below ? -1 : 1) * n * station.lens.focal_length_mm;
        const after = hingedAt(station, kind, wanted);
        const control = CONTROLS[kind === 'side' ? 'tilt' : 'swing'];
        const [least, most] = control.mechanism(station);
        const lean = control.read(after);
        expect(lean).toBeGreaterThanOrEqual(least);
        expect(lean).toBeLessThanOrEqual(most);
        const { hingeMm } = sectionOf(after, kind);
        // At an end of the mechanism it comes as near as that goes; scales hold a thousandth of a degree.
        if (lean > least && lean < most) {
          const f = station.lens.focal_length_mm;
          const degrees = (Math.asin(f / Math.abs(wanted)) * 180) / Math.PI;
          const got = (Math.asin(f / Math.abs(hingeMm!)) * 180) / Math.PI;
          expect(Math.abs(got - degrees)).toBeLessThan(0.0006);
          expect(Math.sign(hingeMm!)).toBe(Math.sign(wanted));
        }
      }),
      { numRuns: runs(300) },
    );
  });

  it('never leans past the mechanism', () => {
    fc.assert(
      fc.property(stations(), kinds, number(-400, 400), (station, kind, deg) => {
        const control = CONTROLS[kind === 'side' ? 'tilt' : 'swing'];
        const [least, most] = control.mechanism(station);
        const lean = control.read(leanedTo(station, kind, deg));
        expect(lean).toBeCloseTo(Math.min(most, Math.max(least, deg)), 3);
      }),
    );
  });

  it('steps in the scene as long as in the drawing, and each way at right angles', () => {
    fc.assert(
      fc.property(stations(), kinds, number(-3, 3), number(-3, 3), (station, kind, dx, dy) => {
        const { x_m, y_m, z_m } = sceneStep(station, kind, dx, dy);
        expect(Math.hypot(x_m, y_m, z_m)).toBeCloseTo(Math.hypot(dx, dy), 9);
        const [a, b] = [sceneStep(station, kind, 1, 0), sceneStep(station, kind, 0, 1)];
        expect(a.x_m * b.x_m + a.y_m * b.y_m + a.z_m * b.z_m).toBeCloseTo(0, 12);
      }),
    );
  });
});

describe('any blur picture', () => {
  it('has a figure everywhere, however coarsely it is worked out', () => {
    fc.assert(
      fc.property(stations(), fc.integer({ min: 1, max: 40 }), (station, across) => {
        const built = parsed({
          ...station,
          site: {
            room: { length_m: 9, width_m: 6, ceiling_m: 4, behind_m: 2, left_m: 3 },
            boxes: [{ name: 'Crate', x_m: 0.2, z_m: 3, width_m: 1, depth_m: 1, height_m: 1 }],
          },
        });
        const { width, height, blurUm } = blurRaster(built, across);
        expect(Math.max(width, height)).toBe(across);
        expect(blurUm).toHaveLength(width * height);
        for (const blur of blurUm) expect(blur).toBeGreaterThanOrEqual(0);
      }),
      { numRuns: runs(80) },
    );
  });

  it('agrees coarse and fine on a wall that fills it', () => {
    fc.assert(
      fc.property(stations({ leanDeg: 0 }), number(4, 40), (station, z) => {
        const walled = parsed({
          ...station,
          movements: { rise_mm: 0, shift_mm: 0, tilt_deg: 0, swing_deg: 0 },
          facade: { distance_m: z, top_m: 900, width_m: 900, base_m: 0 },
        });
        const wall = blurAt(walled)(0, walled.camera.height_m, z) * 1000;
        for (const across of [3, 9]) {
          const { width, blurUm } = blurRaster(walled, across);
          // In the upper row: further down lies the ground before it.
          const middle = blurUm[Math.floor(width / 2)]!;
          // The wall stands square to a straight lens: one blur all over it.
          expect(Math.abs(middle - wall)).toBeLessThan(1e-3 * wall + 1e-3);
        }
      }),
      { numRuns: runs(100) },
    );
  });
});

describe('any two readings of the bed scale', () => {
  const readingsOf = fc.tuple(
    stations({ leanDeg: 0 }),
    number(0, 40),
    number(0, 40),
    number(-30, 30),
  );

  it('set the standard between them, nearer the far one, and the more spread the smaller the stop', () => {
    fc.assert(
      fc.property(readingsOf, ([station, a, b, zero]) => {
        const bed = {
          near_mm: zero + Math.max(a, b),
          far_mm: zero + Math.min(a, b),
          infinity_mm: zero,
        };
        const answer = bedAnswer(parsed({ ...station, bed }))!;
        expect(answer.spreadMm).toBeCloseTo(bed.near_mm - bed.far_mm, 9);
        expect(answer.focusAtMm).toBeGreaterThanOrEqual(bed.far_mm - 1e-9);
        expect(answer.focusAtMm).toBeLessThanOrEqual((bed.near_mm + bed.far_mm) / 2 + 1e-9);
        const wider = bedAnswer(parsed({ ...station, bed: { ...bed, near_mm: bed.near_mm + 1 } }))!;
        expect(wider.byDiffraction).toBeGreaterThan(answer.byDiffraction);
        expect(wider.byCoc).toBeGreaterThan(answer.byCoc);
        // Where both schools meet they ask for the same stop: √(375 Δ) = Δ / (2 c).
        const meet = bedAnswer(parsed({ ...station, bed: { near_mm: answer.meetMm, far_mm: 0 } }))!;
        expect(meet.byDiffraction / meet.byCoc).toBeCloseTo(1, 9);
      }),
      { numRuns: runs(150) },
    );
  });

  it('do not care which thing was read first', () => {
    fc.assert(
      fc.property(readingsOf, ([station, a, b, zero]) => {
        const of = (near_mm: number, far_mm: number) =>
          bedAnswer(parsed({ ...station, bed: { near_mm, far_mm, infinity_mm: zero - 1 } }))!;
        const [one, other] = [of(a + zero, b + zero), of(b + zero, a + zero)];
        expect(one.spreadMm).toBeCloseTo(other.spreadMm, 9);
        expect(one.focusAtMm).toBeCloseTo(other.focusAtMm, 9);
        expect(one.byCoc).toBeCloseTo(other.byCoc, 9);
      }),
      { numRuns: runs(100) },
    );
  });

  it('lean as the plane through both things asks: sin α = f / J, worked here', () => {
    let leaned = 0;
    fc.assert(
      fc.property(
        stations({ leanDeg: 0 }),
        number(12, 40),
        number(60, 400),
        number(-0.25, 0.25),
        number(-0.25, 0.25),
        (station, near, far, up, down) => {
          const f = station.lens.focal_length_mm;
          const straight = parsed({
            ...station,
            camera: { height_m: 1.5, pitch_deg: 0, yaw_deg: 0 },
            movements: { rise_mm: 0, shift_mm: 0, tilt_deg: 0, swing_deg: 0 },
            movement_limits: { moves: 'front', tilt_deg: [-60, 60], swing_deg: [-60, 60] },
          });
          // The readings of a thin lens at two things, n focal lengths ahead of it.
          const at = (n: number): number => f / (n - 1);
          const height = (n: number, slope: number): number => slope * (f + at(n));
          const bed = {
            near_mm: at(near),
            far_mm: at(far),
            infinity_mm: 0,
            near_up_mm: height(near, up),
            far_up_mm: height(far, down),
          };
          const lean = bedAnswer({ ...straight, bed })?.lean?.frontDeg;
          if (lean === null || lean === undefined || Math.abs(lean) > 25) return;
          leaned += 1;
          // J: where the line through both crosses the lens plane.
          const [y1, z1, y2, z2] = [up * near * f, near * f, down * far * f, far * f];
          const slope = (y2 - y1) / (z2 - z1);
          const below = y1 - slope * z1;
          const sine = f / Math.abs(below);
          expect(Math.abs(Math.sin((lean * Math.PI) / 180))).toBeCloseTo(sine, 6);
          expect(Math.sign(lean)).toBe(Math.sign(-below));
        },
      ),
      { numRuns: runs(500) },
    );
    expect(leaned).toBeGreaterThan(often(60));
  });
});

describe('report and section', () => {
  it('tell the same hinge line', () => {
    fc.assert(
      fc.property(stations(), (station) => {
        const { focus } = readings(station);
        const side = sectionOf(station, 'side');
        // Leans too small to set are told as none.
        const { tilt_deg: tilt, swing_deg: swing } = station.movements;
        fc.pre(swing === 0 && (tilt === 0 || Math.abs(tilt) >= 1e-3));
        if (tilt === 0) expect([side.hingeMm, focus.hinge_mm]).toEqual([null, null]);
        else expect(Math.abs(side.hingeMm!) / focus.hinge_mm!).toBeCloseTo(1, 9);
      }),
      { numRuns: runs(200) },
    );
  });
});
