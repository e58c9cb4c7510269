import fc from 'fast-check';
import {
  isSpent,
  newBudget,
  planeThrough,
  SEARCH_STEPS,
  settingForPlane,
  solveFocus,
  type SolveQuestion,
  type Vec3,
} from '../src/index.js';
import { runs, seen as often } from '../../../scripts/lib/runs.mjs';

const number = (min: number, max: number) => fc.double({ min, max, noNaN: true });

const ask = (sharp: readonly Vec3[], more: Partial<SolveQuestion> = {}): SolveQuestion => ({
  focalLengthMm: () => 90,
  cocMm: 0.03,
  widestFNumber: 2.8,
  sharp: sharp.map((at) => ({ at, infinite: false })),
  soft: [],
  freedom: { kind: 'front', tilt: [-30, 30], swing: [-30, 30], leanDeg: 90 },
  pupilRatio: 1,
  standards: {
    lens: { tiltDeg: 0, swingDeg: 0 },
    rear: { tiltDeg: 0, swingDeg: 0 },
    front: { shiftMm: 0, riseMm: 0 },
    back: { shiftMm: 0, riseMm: 0 },
    pivotMm: 0,
    rearPivotMm: 0,
  },
  setting: [-0.2, 3],
  cover: null,
  start: { tilt: 0, swing: 0, setting: 0.05 },
  ...more,
});

/**
 * A thin lens by its slope law alone: a ray that meets the lens plane at h from the centre leaves
 * with its slope to the axis less by h/f. Rays from a place through three points of the lens are
 * traced to the sensor plane z = −v; none of the closed forms is used.
 * @returns how far the rays fall apart on the sensor, mm
 */
function spreadOfRays(
  focalLengthMm: number,
  { tiltDeg, swingDeg }: { tiltDeg: number; swingDeg: number },
  v: number,
  point: Vec3,
): number {
  const [t, s] = [(tiltDeg * Math.PI) / 180, (swingDeg * Math.PI) / 180];
  // The lens's own axes: swung about the upright, then tilted about the swung level.
  const right: Vec3 = [Math.cos(s), 0, -Math.sin(s)];
  const ahead: Vec3 = [Math.sin(s) * Math.cos(t), -Math.sin(t), Math.cos(s) * Math.cos(t)];
  const up: Vec3 = [
    ahead[1] * right[2] - ahead[2] * right[1],
    ahead[2] * right[0] - ahead[0] * right[2],
    ahead[0] * right[1] - ahead[1] * right[0],
  ];
  const inner = (a: Vec3, b: Vec3): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
  const landing = (across: number, upward: number): [number, number] => {
    const through: Vec3 = [
      right[0] * across + up[0] * upward,
      right[1] * across + up[1] * upward,
      right[2] * across + up[2] * upward,
    ];
    const way: Vec3 = [through[0] - point[0], through[1] - point[1], through[2] - point[2]];
    // Slopes against the axis, for a ray that runs backwards through the lens.
    const along = -inner(way, ahead);
    const slopeAcross = inner(way, right) / along - across / focalLengthMm;
    const slopeUp = inner(way, up) / along - upward / focalLengthMm;
    const out: Vec3 = [0, 1, 2].map(
      (i) => right[i]! * slopeAcross + up[i]! * slopeUp - ahead[i]!,
    ) as unknown as Vec3;
    const k = (-v - through[2]) / out[2];
    return [through[0] + k * out[0], through[1] + k * out[1]];
  };
  const ends = [landing(0, 0), landing(5, 0), landing(0, 5), landing(-4, 3)];
  return Math.max(...ends.map(([x, y]) => Math.hypot(x - ends[0]![0], y - ends[0]![1])));
}

const near = fc.tuple(number(-400, 400), number(-350, 350), number(600, 2600)) as fc.Arbitrary<
  [number, number, number]
>;

describe('three marks', () => {
  it('are all sharp to 1e-9 mm by a ray trace from the slope law alone', () => {
    let met = 0;
    fc.assert(
      fc.property(fc.tuple(near, near, near), (marks) => {
        const plane = planeThrough(...marks);
        fc.pre(plane !== null && plane.distanceMm > 250);
        const found = solveFocus(ask(marks));
        fc.pre(found.fNumber < 1e-9);
        met += 1;
        const v = found.imageDistanceMm;
        for (const [x, y, z] of marks) {
          expect(spreadOfRays(90, found.lens, v, [x, y, z - v])).toBeLessThan(1e-9);
        }
      }),
      { numRuns: runs(200) },
    );
    expect(met).toBeGreaterThan(often(100));
  });

  it('give the lean of the closed form once the lens centre stands where it ends up', () => {
    fc.assert(
      fc.property(fc.tuple(near, near, near), (marks) => {
        fc.pre((planeThrough(...marks)?.distanceMm ?? 0) > 250);
        const found = solveFocus(ask(marks));
        fc.pre(found.fNumber < 1e-9);
        const v = found.imageDistanceMm;
        const [a, b, c] = marks.map(([x, y, z]): Vec3 => [x, y, z - v]) as [Vec3, Vec3, Vec3];
        const setting = settingForPlane(90, planeThrough(a, b, c)!)!;
        expect(setting.imageDistanceMm).toBeCloseTo(v, 7);
        setting.axis.forEach((each, i) => expect(each).toBeCloseTo(found.axis[i]!, 8));
      }),
      { numRuns: runs(300) },
    );
  });

  it('whose plane passes nearer than the focal length have no setting', () => {
    const below = planeThrough([-200, -60, 900], [250, -60, 1100], [0, -60, 1600])!;
    expect(below.distanceMm).toBeCloseTo(60, 9);
    expect(settingForPlane(90, below)).toBeNull();
    expect(planeThrough([0, 0, 1], [0, 0, 2], [0, 0, 5])).toBeNull();
    expect(planeThrough([1, 2, 3], [1, 2, 3], [1, 2, 3])).toBeNull();
  });
});

/** The f-number that marks ask for at a lean, the best focus found by golden section. */
function atLean(marks: Float64Array, tiltDeg: number, swingDeg: number): number {
  const [t, s] = [(tiltDeg * Math.PI) / 180, (swingDeg * Math.PI) / 180];
  const [ax, ay, az] = [Math.sin(s) * Math.cos(t), -Math.sin(t), Math.cos(s) * Math.cos(t)];
  const needs = (v: number): number => {
    let worst = 0;
    for (let i = 0; i < marks.length; i += 3) {
      const z = marks[i + 2]! - v;
      const depth = (90 * z) / (marks[i]! * ax + marks[i + 1]! * ay + z * az - 90);
      worst = Math.max(worst, depth > 0 ? (90 * Math.abs(v - depth)) / (0.03 * depth) : 1e9);
    }
    return worst;
  };
  const golden = (Math.sqrt(5) - 1) / 2;
  let [low, high] = [80, 160];
  let [p, q] = [high - golden * (high - low), low + golden * (high - low)];
  let [atP, atQ] = [needs(p), needs(q)];
  for (let i = 0; i < 45; i++) {
    if (atP < atQ) {
      [high, q, atQ] = [q, p, atP];
      p = high - golden * (high - low);
      atP = needs(p);
    } else {
      [low, p, atP] = [p, q, atQ];
      q = low + golden * (high - low);
      atQ = needs(q);
    }
  }
  return Math.min(atP, atQ);
}

/** Every lean on a lattice, then finer lattices about the best of it. */
function bruteForce(places: readonly Vec3[], most: number): number {
  const marks = Float64Array.from(places.flat());
  let [tilt, swing, best, span] = [0, 0, Infinity, most];
  for (let round = 0; round < 12; round++) {
    const [t0, s0] = [tilt, swing];
    const n = round === 0 ? 16 : 4;
    for (let i = -n; i <= n; i++) {
      for (let j = -n; j <= n; j++) {
        const t = Math.max(-most, Math.min(most, t0 + (span * i) / n));
        const s = Math.max(-most, Math.min(most, s0 + (span * j) / n));
        const needed = atLean(marks, t, s);
        if (needed < best) [best, tilt, swing] = [needed, t, s];
      }
    }
    span = round === 0 ? (2 * most) / n : span * 0.5;
  }
  return best;
}

describe('the best wedge', () => {
  it('is within 0.5 % of a search by brute force, for 4 to 20 marks', () => {
    fc.assert(
      fc.property(fc.array(near, { minLength: 4, maxLength: 20 }), (marks) => {
        const freedom = {
          kind: 'front',
          tilt: [-20, 20],
          swing: [-20, 20],
          leanDeg: 90,
        } as const;
        const found = solveFocus(ask(marks, { freedom })).fNumber;
        const searched = bruteForce(marks, 20);
        expect(found).toBeLessThanOrEqual(searched * 1.005 + 1e-6);
        // Nor may it claim what is not there.
        expect(found).toBeGreaterThanOrEqual(searched * 0.995 - 1e-6);
      }),
      { numRuns: 14 },
    );
  });

  it('is never worse for more freedom, nor better for more marks', () => {
    fc.assert(
      fc.property(fc.array(near, { minLength: 3, maxLength: 12 }), near, (marks, another) => {
        const lean = (tilt: number, swing: number) =>
          solveFocus(
            ask(marks, {
              freedom: {
                kind: 'front',
                tilt: [-tilt, tilt],
                swing: [-swing, swing],
                leanDeg: 90,
              },
            }),
          ).fNumber;
        const both = lean(25, 25);
        expect(both).toBeLessThanOrEqual(lean(25, 0) * (1 + 2e-6) + 1e-6);
        expect(both).toBeLessThanOrEqual(lean(0, 25) * (1 + 2e-6) + 1e-6);
        // A search ends where it gains less than a millionth.
        expect(lean(25, 0)).toBeLessThanOrEqual(lean(8, 0) * (1 + 2e-6) + 1e-6);
        const freedom = { kind: 'front', tilt: [-25, 25], swing: [-25, 25], leanDeg: 90 } as const;
        const more = solveFocus(ask([...marks, another], { freedom })).fNumber;
        expect(more).toBeGreaterThanOrEqual(both * (1 - 2e-6) - 1e-6);
      }),
      { numRuns: runs(120) },
    );
  });

  it('stays within the lean of a turning lens, its stop, and the cone', () => {
    fc.assert(
      fc.property(
        fc.array(near, { minLength: 2, maxLength: 8 }),
        number(1, 12),
        number(0, 360),
        number(18, 40),
        (marks, most, turnDeg, half) => {
          const round = solveFocus(
            ask(marks, {
              freedom: { kind: 'front', tilt: [-30, 30], swing: [-30, 30], leanDeg: most },
            }),
          );
          const lean = (Math.acos(Math.min(1, round.axis[2])) * 180) / Math.PI;
          expect(lean).toBeLessThanOrEqual(most + 1e-4);
          const turned = solveFocus(
            ask(marks, { freedom: { kind: 'turned', turnDeg, lean: [0, most] } }),
          );
          const turn = (turnDeg * Math.PI) / 180;
          const aside = turned.axis[0] * Math.cos(turn) - turned.axis[1] * Math.sin(turn);
          expect(Math.abs(aside)).toBeLessThan(1e-9);
          // A frame of 36 × 24 mm, shifted by 5.
          const corners = [18, -18].flatMap((x) => [12, -12].map((y) => ({ x, y })));
          const { standards } = ask(marks);
          const held = solveFocus(
            ask(marks, {
              standards: { ...standards, front: { shiftMm: 5, riseMm: 0 } },
              cover: { corners, halfAngleRad: (half * Math.PI) / 180 },
            }),
          );
          fc.pre(held.shortMm <= 0);
          for (const { x: across, y } of corners) {
            const x = across + 5;
            const v = held.imageDistanceMm;
            const lit =
              (x * held.axis[0] + y * held.axis[1] + v * held.axis[2]) / Math.hypot(x, y, v);
            expect(Math.acos(lit)).toBeLessThanOrEqual((half * Math.PI) / 180 + 1e-6);
          }
        },
      ),
      { numRuns: runs(150) },
    );
  });

  it('holds two marks with tilt alone, and stands straight where nothing asks for a lean', () => {
    const two = solveFocus(ask([[0, -300, 900], [0, -300, 1600]])); // prettier-ignore
    expect(two.fNumber).toBeLessThan(1e-9);
    expect(two.lens.swingDeg).toBeCloseTo(0, 6);
    const one = solveFocus(ask([[120, -80, 1400]]));
    expect(one.fNumber).toBeLessThan(1e-9);
    expect(Math.hypot(one.lens.tiltDeg, one.lens.swingDeg)).toBeLessThan(1e-6);
  });

  it('leans across too where marks in one line with the lens leave the other lean at its end', () => {
    const line: Vec3[] = [700, 900, 1300, 1900].map((z) => [0, -500 + 0.42 * z, z]);
    const at = (swing: readonly [number, number]): number =>
      solveFocus(ask(line, { freedom: { kind: 'rear', tilt: [-3, 3], swing, leanDeg: 90 } }))
        .fNumber;
    const best = Math.min(...[0, 5, 10, 15, 20].map((swing) => at([swing, swing])));
    expect(best).toBeLessThan(at([0, 0]) * 0.99);
    expect(at([-20, 20])).toBeLessThan(best * 1.005);
  });

  it('leaves a soft mark as soft as wanted while the sharp one is held', () => {
    const wanted = 0.3;
    const found = solveFocus(
      ask([[0, 0, 1500]], {
        soft: [
          { at: [-350, 0, 1500], infinite: false, blurMm: wanted },
          { at: [350, 0, 1500], infinite: false, blurMm: wanted },
        ],
      }),
    );
    expect(found.shortMm).toBe(0);
    expect(found.fNumber).toBeLessThan(1e-9);
    const v = found.imageDistanceMm;
    for (const x of [-350, 350]) {
      const P: Vec3 = [x, 0, 1500 - v];
      const q = (90 * P[2]) / (P[0] * found.axis[0] + P[2] * found.axis[2] - 90);
      expect(((90 / 2.8) * Math.abs(v - q)) / q).toBeGreaterThan(wanted - 1e-6);
    }
  });

  it('takes a mark at infinity as the end of marks ever farther off', () => {
    const ground: Vec3 = [0, -1500, 3000];
    const at = solveFocus({
      ...ask([ground]),
      sharp: [
        { at: ground, infinite: false },
        { at: [0, 0, 1], infinite: true },
      ],
    });
    const far = solveFocus(ask([ground, [0, 0, 1e9]]));
    expect(at.lens.tiltDeg).toBeCloseTo(far.lens.tiltDeg, 4);
    expect(at.imageDistanceMm).toBeCloseTo(far.imageDistanceMm, 4);
    // The plane runs through the level far off and the ground 3 m ahead: it is the ground's tilt.
    expect(at.fNumber).toBeLessThan(1e-9);
  });
});

describe('a budget of steps', () => {
  const many = (count: number): Vec3[] =>
    Array.from({ length: count }, (_, i) => [
      300 * Math.sin(i * 1.7),
      200 * Math.cos(i * 2.3),
      800 + 40 * (i % 17),
    ]);

  it('ends a search, which gives the best it has, and better with more', () => {
    const whole = newBudget();
    solveFocus(ask(many(200), { budget: whole }));
    const taken = SEARCH_STEPS - whole.left;
    const found = [0, taken / 4, taken / 2, SEARCH_STEPS].map((steps) => {
      const budget = newBudget(steps);
      const { fNumber } = solveFocus(ask(many(200), { budget }));
      return { fNumber, budget };
    });
    for (const [i, { fNumber, budget }] of found.entries()) {
      expect(Number.isFinite(fNumber)).toBe(true);
      if (i > 0) expect(fNumber).toBeLessThanOrEqual(found[i - 1]!.fNumber);
      expect(isSpent(budget)).toBe(i < 3);
      // One look at all marks is begun at most when nothing is left.
      expect(budget.left).toBeGreaterThan(-100_000);
    }
    expect(found[3]!.fNumber).toBeLessThan(found[0]!.fNumber);
  });

  it('is far more than a table full of marks takes', () => {
    const budget = newBudget();
    solveFocus(ask(many(200), { budget }));
    expect(SEARCH_STEPS - budget.left).toBeLessThan(SEARCH_STEPS / 10);
  });
});
