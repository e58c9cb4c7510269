import fc from 'fast-check';
import {
  coverVerdict,
  evaluate,
  focusVerdict,
  heldOffAnswer,
  heldOrders,
  orderLines,
  heldReach,
  heldScene,
  mountedAgain,
  newStation,
  parseStation,
  pastLine,
  readings,
  type HeldOffInput,
  type HeldPose,
  type Mark,
  type Station,
} from '../src/index.js';
import { runs } from '../../../scripts/lib/runs.mjs';

const told = (given: Station, { gapMm, leanDeg, turnDeg }: HeldPose): string[] =>
  orderLines(heldOrders(given, { gap_mm: gapMm, lean_deg: leanDeg, turn_deg: turnDeg }));

const held: HeldOffInput = {
  gap_mm: 5,
  lean_deg: 0,
  lens_register_mm: 44,
  body_register_mm: 18,
  flange_diameter_mm: 60,
  throat_mm: 50,
};

const lens = (f: number): Station['lens'] => ({
  name: 'Plain',
  focal_length_mm: f,
  f_min: 2.8,
  f_max: 22,
  circle: [{ f_number: 2.8, diameter_mm: 50 }],
});

const at = (x_m: number, y_m: number, z_m: number, must: Mark['must'] = 'sharp'): Mark => ({
  label: 'm',
  x_m,
  y_m,
  z_m,
  must,
});

const station = (marks: Mark[], f = 50): Station => ({
  ...newStation('Held'),
  lens: lens(f),
  camera: { height_m: 1, pitch_deg: 0, yaw_deg: 0 },
  focus: { distance_m: null },
  marks,
});

/** The station as it stands when the answer is taken. */
const taken = (of: Station): Station | null => {
  const pose = heldOffAnswer(of, held)?.pose;
  return pose
    ? {
        ...of,
        held_off: { ...held, gap_mm: pose.gapMm, lean_deg: pose.leanDeg, turn_deg: pose.turnDeg },
      }
    : null;
};

describe('a lens held off the body, from two things', () => {
  it('one thing asks for a gap alone: 1/v + 1/(D − v) = 1/f by hand', () => {
    // D = 1000, f = 50: v = 52.7864; registers 44 and 18 leave 26 mm to spare: 28.79.
    const answer = heldOffAnswer(station([at(0, 1, 1)]), held)!;
    expect(answer.pose).toEqual({ gapMm: 28.79, leanDeg: 0, turnDeg: 0 });
    expect(told(station([at(0, 1, 1)]), answer.pose!)).toEqual([
      'Set the focusing ring to infinity and leave it.',
      expect.stringMatching(/^Draw the lens off the body until .* is crisp, about 28\.8 mm\.$/),
      'Hold it straight.',
    ]);
  });

  it('two things at two distances ask for a lean towards the side the plane runs to', () => {
    // The far one on the left: the plane runs from near right to far left.
    const answer = heldOffAnswer(station([at(0.1, 1, 0.8), at(-0.2, 1, 1.6)]), held)!;
    expect(answer.pose!.gapMm).toBeGreaterThan(26);
    // The lens looks to the right of the body: the body is turned to the left of it.
    const lean = told(station([at(0.1, 1, 0.8), at(-0.2, 1, 1.6)]), answer.pose!)[2];
    expect(lean).toMatch(/^Leave the lens and turn the body to the left.* \d+\.\d° left/);
    const mirrored = heldOffAnswer(station([at(-0.1, 1, 0.8), at(0.2, 1, 1.6)]), held)!;
    expect(told(station([at(-0.1, 1, 0.8), at(0.2, 1, 1.6)]), mirrored.pose!)[2]).toMatch(
      /turn the body to the right/,
    );
    // The far one higher: the lens looks down less than at the label; it leans back.
    const up = heldOffAnswer(station([at(0, 0.9, 0.8), at(0, 1.3, 1.6)]), held)!;
    expect(told(station([at(0, 0.9, 0.8), at(0, 1.3, 1.6)]), up.pose!)[2]).toMatch(
      /turn the body up/,
    );
  });

  it('what no hand can do is said, with what would cure it', () => {
    const short = { ...held, lens_register_mm: 18, body_register_mm: 44 };
    expect(heldOffAnswer(station([at(0, 1, 3)]), short)).toMatchObject({
      pose: null,
      hindrance: expect.stringContaining('the lens would have to go into the body'),
    });
    expect(heldOffAnswer(station([at(0, 1, 0.9), at(0, 1, 1.8)]), held)).toMatchObject({
      pose: null,
      hindrance: expect.stringContaining('behind the other'),
    });
    expect(heldOffAnswer(station([]), held)).toBe(null);
    const close = { ...held, lens_register_mm: 18, flange_diameter_mm: 90, throat_mm: 80 };
    expect(heldOffAnswer(station([at(0.3, 1, 1.2), at(-0.3, 1, 2.4)]), close)!.hindrance).toMatch(
      /the flanges touch below|go into the body/,
    );
  });

  it('taken, it holds both things, wherever they are', () => {
    const place = fc.record({
      x_m: fc.double({ min: -0.5, max: 0.5, noNaN: true }),
      y_m: fc.double({ min: 0.6, max: 1.4, noNaN: true }),
      z_m: fc.double({ min: 0.6, max: 4, noNaN: true }),
    });
    fc.assert(
      fc.property(place, place, fc.double({ min: 35, max: 110, noNaN: true }), (a, b, f) => {
        const of = station([at(a.x_m, a.y_m, a.z_m), at(b.x_m, b.y_m, b.z_m)], f);
        const after = taken(of);
        fc.pre(after !== null);
        expect(parseStation(after).ok).toBe(true);
        const scene = heldScene(after, after.held_off!);
        for (const mark of scene.marks) {
          // Hundredths of a millimetre and of a degree are what is told: a hand holds no more.
          expect(mark.blurUm).toBeLessThan(29 + 4);
          const size = Math.hypot(mark.aheadMm, mark.asideMm);
          // Between the limits, but for the hundredths that are told.
          expect(pastLine(scene.near, mark) / size).toBeGreaterThan(-0.02);
          expect(pastLine(scene.far, mark) / size).toBeLessThan(0.02);
        }
      }),
      { numRuns: runs(2000) },
    );
  });

  it('is told as what is held, not as if it were mounted', () => {
    const after = taken(station([at(0.1, 1, 0.8), at(-0.2, 1, 1.6)]))!;
    const mounted = { ...after, lens: { ...after.lens, mount: 'A', register_mm: 44 } };
    const body = { ...mounted, back: { ...mounted.back, mount: 'B', register_mm: 18 } };
    const { held_off: _, ...free } = body;
    expect(evaluate(free as Station).rig.problems.map(({ code }) => code)).toContain(
      'mount_mismatch',
    );
    expect(evaluate(body).rig).toMatchObject({ problems: [], unknown: [], works: 'yes' });
    const report = readings(body);
    expect(coverVerdict(body, report).figure).toBe('By eye');
    expect(focusVerdict(body, report).words).toBe('ahead, 2 of 2 held');
  });
});

describe('what is reckoned with for a lens in the hand', () => {
  const two = [at(0.1, 1, 0.8), at(-0.2, 1, 1.6)];

  it('registers and throat that nobody gave are told; with them nothing is', () => {
    const pointers = (held_off: HeldOffInput): string[] =>
      evaluate({ ...station(two), held_off }).assumed.map(({ pointer }) => pointer);
    const bare = pointers({ gap_mm: 5, lean_deg: 2, body_register_mm: 18 });
    expect(bare).toContain('/held_off/lens_register_mm');
    expect(bare).toContain('/held_off/throat_mm');
    expect(pointers(held).filter((each) => each.startsWith('/held_off'))).toEqual([]);
    // Of how it would be mounted nothing is assumed, for nothing rests on it.
    expect(bare.filter((each) => /register_mm$/.test(each))).toEqual([
      '/held_off/lens_register_mm',
    ]);
  });

  it('a mark that is to be soft by so much is held to that', () => {
    const after = taken(station(two))!;
    const soft = (blur_um: number) =>
      readings({
        ...after,
        marks: [...two, { ...at(0.3, 1, 0.9, 'soft'), blur_um }],
      }).marks![2]!;
    const { blur_um: blur } = soft(1);
    expect(blur).toBeGreaterThan(29);
    expect(soft(blur! - 1).holds).toBe(true);
    expect(soft(blur! + 1).holds).toBe(false);
  });

  it('the report judges the marks by it and searches for no setting; mounted again, it does', () => {
    const after = taken(station(two))!;
    const report = evaluate(after);
    expect(report.solution).toBeUndefined();
    expect(report.marks!.every(({ holds }) => holds)).toBe(true);
    const again = evaluate(mountedAgain(after));
    expect(again.solution).toBeDefined();
    expect(again.marks!.every(({ holds }) => holds)).toBe(false);
  });
});

describe('lenses by how near to infinity they come', () => {
  const kit = [
    { id: 'a', document: { name: 'Thin 50', focal_length_mm: 50, register_mm: 10 } },
    { id: 'b', document: { name: 'Medium 80', focal_length_mm: 80, register_mm: 64 } },
    { id: 'c', document: { name: 'No word', focal_length_mm: 35 } },
    { id: 'd', document: { name: 'Old 50', focal_length_mm: 50, register_mm: 45 } },
    { id: 'e', document: { name: 'Thin 90', focal_length_mm: 90, register_mm: 10 } },
  ];
  it('those that reach it first, then the farthest, then those nothing is known of', () => {
    const ranked = heldReach(kit, 18);
    expect(ranked.map(({ name }) => name)).toEqual([
      'Old 50',
      'Medium 80',
      'Thin 90',
      'Thin 50',
      'No word',
    ]);
    // v = 58 at f = 50: u = 58 × 50 / 8 = 362.5, so 420.5 from the sensor, by hand.
    expect(ranked[3]!.farthestM).toBeCloseTo(0.4205, 9);
    expect(ranked[0]).toMatchObject({ farthestM: null, gapMm: 27 });
    expect(heldReach(kit, undefined).every(({ farthestM }) => farthestM === undefined)).toBe(true);
  });
});
