import type { Proof, ProvedFrame, ProvedOverlap, Verdict } from '@gangway/frames';
import { nextTime, overlapSaid, proofPlan, waySaid, type Station } from '../src/index.js';
import { base, parsed } from './helpers/rigs.js';

const station = (mosaic: unknown, change: Partial<Station> = {}): Station =>
  parsed({
    ...base(),
    back: {
      width_mm: 36,
      height_mm: 24,
      width_px: 6000,
      height_px: 4000,
      orientation: 'landscape',
    },
    lens: { focal_length_mm: 50, f_min: 4, f_max: 22, circle: [{ f_number: 4, diameter_mm: 120 }] },
    movement_limits: { moves: 'rear' },
    focus: { distance_m: null },
    mosaic,
    ...change,
  });

const grid = { pattern: 'grid', moves: 'rear', columns: 3, rows: 1, overlap: 0.25 };

describe('what a mosaic is proved against', () => {
  it('is the layout: places in mm, neighbours, and a lens that stays', () => {
    const plan = proofPlan(station(grid))!;
    expect(plan.frames.map(({ order, xMm, yMm }) => [order, xMm, yMm])).toEqual([[1, -27, 0], [2, 0, 0], [3, 27, 0]]); // prettier-ignore
    expect(plan.pairs).toEqual([{ a: 0, b: 1, partsMm: 0, farMm: 0 }, { a: 1, b: 2, partsMm: 0, farMm: 0 }]); // prettier-ignore
    expect(plan).toMatchObject({ widthMm: 36, heightMm: 24, widthPx: 6000, lensTravels: false, cylinderMm: null }); // prettier-ignore
  });

  it('turned upright has the back upright', () => {
    const { back } = station(grid);
    const plan = proofPlan(station(grid, { back: { ...back, orientation: 'portrait' } }))!;
    expect(plan).toMatchObject({ widthMm: 24, heightMm: 36, widthPx: 4000 });
  });

  it('of a lens that goes along: near and far part by v × travel × (1/z₁ − 1/z₂)', () => {
    const moving = { ...grid, moves: 'lens', near_m: 2.05, far_m: 10.05 };
    const limits = { moves: 'front' as const };
    const plan = proofPlan(station(moving, { movement_limits: limits }))!;
    expect(plan.lensTravels).toBe(true);
    const [pair] = plan.pairs;
    // 50 mm at infinity, 27 mm of travel; depths count from the lens, 50 mm before the sensor.
    expect(pair!.partsMm).toBeCloseTo(50 * 27 * (1 / 2000 - 1 / 10_000), 6);
    expect(pair!.farMm).toBeCloseTo((50 * 27) / 10_000, 6);
    const unknown = proofPlan(station({ ...grid, moves: 'lens' }, { movement_limits: limits, facade: undefined }))!; // prettier-ignore
    expect([unknown.pairs[0]!.partsMm, unknown.pairs[0]!.farMm]).toEqual([Infinity, 0]);
  });

  it('of a turn: along a cylinder, v times the angle', () => {
    const plan = proofPlan(
      station({ pattern: 'turn', moves: 'camera', columns: 3, overlap: 0.3 }),
    )!;
    const step = 0.7 * 2 * Math.atan(18 / 50);
    expect(plan.cylinderMm).toBeCloseTo(50, 9);
    expect(plan.frames.map(({ xMm }) => xMm)).toEqual([-50 * step, 0, 50 * step].map((x) => expect.closeTo(x, 6))); // prettier-ignore
  });

  it('is nothing without a mosaic', () => {
    const { mosaic: _, ...plain } = station(grid);
    expect(proofPlan(plain)).toBeNull();
  });
});

const frame = (order: number, change: Partial<ProvedFrame> = {}): ProvedFrame => ({
  ...{ file: `${order}.jpg`, order, xMm: 0, yMm: 0, rotationDeg: 0, turnedDeg: 0 },
  ...{ offPx: { x: 0, y: 0 }, exposureStops: 0, widthPx: 6000, heightPx: 4000, tied: true },
  ...change,
});

const overlap = (
  a: number,
  b: number,
  verdict: Verdict,
  change: Partial<ProvedOverlap> = {},
): ProvedOverlap => ({
  // prettier-ignore
  ...{ a, b, verdict, residualPx: 0.2, parallaxPx: 0, exposureStops: 0, matched: 1 },
  ...{ offPx: { x: 0, y: 0 }, slipPx: 0, turnDeg: 0, tiles: [] },
  ...change,
});

const proof = (change: Partial<Proof>): Proof => ({
  ...{ frames: [frame(1), frame(2), frame(3)], overlaps: [], widthPx: 1, heightPx: 1, pitchMm: 0.006 },
  ...{ verdict: 'still', setAside: [], missing: [], orderBy: 'name' },
  ...change,
}); // prettier-ignore

describe('what to do next time', () => {
  it('names the frame that slipped, how far and which movement to lock', () => {
    const off = { x: 3, y: -41 };
    const slipped = overlap(2, 3, 'slipped', { offPx: off, slipPx: 41 });
    const found = proof({ frames: [frame(1), frame(2), frame(3, { offPx: off })], overlaps: [overlap(1, 2, 'still'), slipped] }); // prettier-ignore
    expect(nextTime(found)).toBe('Frame 3 slipped 41.0 px down: lock the rise, and look again before each exposure.'); // prettier-ignore
    expect(overlapSaid(slipped)).toBe('Off the plan by 41.0 px down.');
  });

  it.each<[Verdict, string]>([
    ['parallax', 'frames 1 and 2: the lens moved'],
    ['moving', 'Something moved between frames 1 and 2.'],
    ['light', 'The light changed between frames 1 and 2.'],
    ['unsure', 'There is too little to see where frames 1 and 2 meet.'],
    ['still', 'Lens, body and light stood still: merge it.'],
  ])('%s', (verdict, says) => {
    expect(nextTime(proof({ overlaps: [overlap(1, 2, verdict)] }))).toContain(says);
  });

  it('says what is missing, what lay turned and what was set aside', () => {
    const said = nextTime(proof({ missing: [2], frames: [frame(1), frame(3, { turnedDeg: 90 })], setAside: [{ file: 'x', why: 'y' }] })); // prettier-ignore
    expect(said).toBe('No file shows frame 2: take it again. Frame 3 lay turned in the file. One file was set aside.'); // prettier-ignore
    expect(nextTime(proof({ frames: [] }))).toBe('No frame could be read.');
  });

  it.each([
    [{ x: 0, y: 4.12 }, '4.1 px up'],
    [{ x: -3, y: 2 }, '2.0 px up and 3.0 px left'],
    [{ x: 30, y: 1 }, '30.0 px right'],
    [{ x: 0.01, y: 0 }, '0 px'],
  ])('a way is said as one points: %j', (way, said) => expect(waySaid(way)).toBe(said));
});
