import { evaluate, type Mosaic } from '../src/index.js';
import { station, type Given } from './helpers/mosaic.js';

/** Report of a mosaic, each figure worked by hand. */

const mosaic = (of: Mosaic, given: Given = {}) =>
  evaluate(station({ ...given, mosaic: of })).mosaic!;
const codes = (report: { problems: { code: string }[] }): string[] =>
  report.problems.map(({ code }) => code);

describe('a grid', () => {
  const three = mosaic({ pattern: 'grid', columns: 3, overlap: 0.5, moves: 'rear' });

  it('lists frames row by row, left to right, the top one first, equal steps about the movements', () => {
    const grid = mosaic(
      { pattern: 'grid', columns: 2, rows: 2, overlap: 0.5, moves: 'rear' },
      { movements: { rise_mm: 4, shift_mm: -1 } },
    );
    expect(grid.frames.map(({ x_mm, y_mm }) => [x_mm, y_mm])).toEqual([
      [-10, 10],
      [8, 10],
      [-10, -2],
      [8, -2],
    ]);
    expect(grid.frames.map(({ order, rise_mm, shift_mm }) => [order, rise_mm, shift_mm])).toEqual([
      [1, 10, -10],
      [2, 10, 8],
      [3, -2, -10],
      [4, -2, 8],
    ]);
    expect(grid.overlaps.map(({ a, b, share }) => [a, b, share])).toEqual([
      [1, 2, 0.5],
      [1, 3, 0.5],
      [2, 4, 0.5],
      [3, 4, 0.5],
    ]);
    expect(grid.overlap).toEqual({ x: 0.5, y: 0.5 });
  });

  it('counts honestly: 36 + 2 × 18 = 72 mm, 12 000 × 4000 px, 48 MP of 72 claimed', () => {
    expect(three).toMatchObject({
      x_mm: 0,
      y_mm: 0,
      width_px: 12000,
      height_px: 4000,
      megapixels: 48,
      claimed_megapixels: 72,
      possible: true,
      parallax_px: 0,
      body_travel_mm: 0,
      overlap: { x: 0.5, y: null },
    });
    expect(three.width_mm).toBeCloseTo(72, 9);
    // 2 atan(36/50), and the diagonal of 24 × 36 over that of 24 × 72 of 50 mm.
    expect(three.horizontal_deg).toBeCloseTo((2 * Math.atan(36 / 50) * 180) / Math.PI, 9);
    expect(three.equivalent_35mm_mm).toBeCloseTo((50 * Math.hypot(24, 36)) / Math.hypot(24, 72), 9);
  });

  it('loses light as cos⁴ at the far corner (Ray 2002): frame and picture', () => {
    const cos4 = -4 * Math.log2(50 / Math.hypot(50, 36, 12));
    expect(three.falloff_stops).toBeCloseTo(cos4, 9);
    expect(three.frames[0]!.falloff_stops).toBeCloseTo(cos4, 9);
    expect(three.frames[1]!.falloff_stops).toBeCloseTo(
      -4 * Math.log2(50 / Math.hypot(50, 18, 12)),
      9,
    );
  });

  it('marks the corners that leave the circle and cuts the picture to it', () => {
    // The far corners lie √(36² + 12²) = 37.9 mm out; a circle of 72 mm ends at 36.
    const cut = mosaic(
      { pattern: 'grid', columns: 3, overlap: 0.5, moves: 'rear' },
      { lens: { circle: [{ f_number: 4, diameter_mm: 72 }] } },
    );
    expect(cut.frames.map(({ lost }) => lost)).toEqual([
      ['top_left', 'bottom_left'],
      [],
      ['top_right', 'bottom_right'],
    ]);
    expect(cut.frames.map(({ covered }) => covered)).toEqual([false, true, false]);
    // Half as high as the frame, so wide as the circle is there: √(36² − 12²).
    expect(cut.height_mm).toBeCloseTo(24, 6);
    expect(cut.width_mm).toBeCloseTo(2 * Math.hypot(36, 0) * Math.sqrt(1 - (12 / 36) ** 2), 6);
    expect(codes(cut)).toEqual(['not_covered']);
    expect(cut.possible).toBe(true);
  });

  it('gives the shape that is asked for', () => {
    const square = mosaic({
      pattern: 'grid',
      columns: 3,
      overlap: 0.5,
      moves: 'rear',
      output: { across: 1, up: 1 },
    });
    expect([square.width_px, square.height_px]).toEqual([4000, 4000]);
  });

  it('counts brackets in time and data: 3 frames × 3, 20 s each, 24 MP of 16 bits', () => {
    const set = mosaic(
      { pattern: 'grid', columns: 3, moves: 'rear', seconds_each: 20 },
      { exposure: { brackets: { frames: 3, step_stops: 1.67 } } },
    );
    expect(set.time_s).toBe(180);
    expect(set.data_bytes).toBe(9 * 24e6 * 2);
  });

  it('asks of a lens that moves how near and far part: 50 × 18 × (1/1950 − 1/4950) mm', () => {
    const of = {
      pattern: 'grid',
      columns: 2,
      overlap: 0.5,
      moves: 'lens',
      near_m: 2,
      far_m: 5,
    } as const;
    const given = { movement_limits: { moves: 'front' } };
    const parts = mosaic(of, given);
    expect(parts.parallax_px).toBeCloseTo((50 * 18 * (1 / 1950 - 1 / 4950)) / 0.006, 6);
    expect(parts.body_travel_mm).toBeCloseTo(18, 9);
    expect(mosaic({ ...of, body_follows: true }, given)).toMatchObject({ parallax_px: 0 });
    expect(mosaic({ ...of, moves: 'rear' })).toMatchObject({ parallax_px: 0, body_travel_mm: 0 });
  });

  it('takes near and far from marks and façade where none are given', () => {
    const marks = [2, 5].map((z_m) => ({
      label: `${z_m}`,
      x_m: 0,
      y_m: 1.5,
      z_m,
      must: 'sharp' as const,
    }));
    const of = { pattern: 'grid', columns: 2, overlap: 0.5, moves: 'lens' } as const;
    const given = { movement_limits: { moves: 'front' } };
    const near = mosaic(of, { ...given, marks });
    // Two metres from the sensor mark, which is the sensor: 1950 and 4950 mm from the lens.
    expect(near.parallax_px).toBeCloseTo((50 * 18 * (1 / 1950 - 1 / 4950)) / 0.006, 6);
    const wall = { facade: { distance_m: 20, top_m: 9, width_m: 12 } };
    expect(mosaic(of, { ...given, ...wall }).parallax_px).toBeCloseTo(0, 9);
    expect(mosaic(of, given).parallax_px).toBeNull();
  });
});

describe('matrices, pinwheels and megapixels that are known', () => {
  it('eight frames, 22.3 × 14.9 mm upright, 5184 × 3456 px, 4 × 2: about 12 300 × 9 600 px (common practice, no source)', () => {
    const back = {
      width_mm: 22.3,
      height_mm: 14.9,
      width_px: 5184,
      height_px: 3456,
      orientation: 'portrait',
    };
    // Upright, four across and two up: 3456 (1 + 3 × 0.85) and 5184 (1 + 0.85).
    const matrix = mosaic(
      { pattern: 'grid', columns: 4, rows: 2, overlap: 0.15, moves: 'rear' },
      { back, lens: { circle: [{ f_number: 4, diameter_mm: 90 }] } },
    );
    expect(matrix.width_px! / 12300).toBeCloseTo(1, 1.7);
    expect(matrix.height_px! / 9600).toBeCloseTo(1, 1.7);
    // A worked one gave 12 265 × 9 639 px.
    expect(Math.abs(matrix.width_px! / 12265 - 1)).toBeLessThan(0.01);
    expect(Math.abs(matrix.height_px! / 9639 - 1)).toBeLessThan(0.01);
    expect(matrix.claimed_megapixels).toBeCloseTo((8 * 5184 * 3456) / 1e6, 9);
  });

  it('a four-stop pinwheel, small sensor behind a 43.3 mm circle: square, about 30 mm a side (common practice, no source)', () => {
    const wheel = mosaic(
      { pattern: 'pinwheel', frames: 4, offset_mm: [3.4, 7.1], moves: 'rear' },
      {
        back: { width_mm: 22.3, height_mm: 14.9, width_px: 5184, height_px: 3456 },
        lens: { circle: [{ f_number: 4, diameter_mm: 43.3 }] },
      },
    );
    expect(wheel.width_mm).toBeCloseTo(wheel.height_mm!, 6);
    expect(Math.abs(wheel.width_mm! / 30 - 1)).toBeLessThan(0.05);
    expect(wheel.frames.map(({ rotation_deg }) => rotation_deg)).toEqual([0, 90, 180, 270]);
    const places = wheel.frames.map(({ x_mm, y_mm }) => [x_mm, y_mm]);
    [
      [3.4, 7.1],
      [7.1, -3.4],
      [-3.4, -7.1],
      [-7.1, 3.4],
    ].forEach(([x, y], i) => {
      expect(places[i]![0]).toBeCloseTo(x!, 9);
      expect(places[i]![1]).toBeCloseTo(y!, 9);
    });
    expect(codes(wheel)).toContain('no_turning_back');
  });
});

describe('a ring', () => {
  it('stands clockwise from the top, its middle first, frames upright', () => {
    const ring = mosaic(
      { pattern: 'ring', frames: 4, radius_mm: 10, middle: true, moves: 'lens' },
      { movement_limits: { moves: 'front', radial_shift_mm: 12 } },
    );
    const places = ring.frames.map(({ rise_mm, shift_mm }) =>
      [rise_mm, shift_mm].map((v) => Math.round(v)),
    );
    expect(places.map((pair) => pair.map((v) => v + 0))).toEqual([
      [0, 0],
      [10, 0],
      [0, 10],
      [-10, 0],
      [0, -10],
    ]);
    expect(ring.overlaps.map(({ a, b }) => [a, b])).toEqual([
      [1, 2],
      [1, 3],
      [1, 4],
      [1, 5],
      [2, 5],
      [2, 3],
      [3, 4],
      [4, 5],
    ]);
    // Middle and top: 14 of 24 mm; top and right: 26 × 14 of 36 × 24.
    expect(ring.overlaps[0]!.share).toBeCloseTo(14 / 24, 9);
    expect(ring.overlaps[5]!.share).toBeCloseTo((26 * 14) / (36 * 24), 9);
    // A cross: 36 × 44 or 56 × 24 at its widest, upright about straight ahead.
    expect(ring.width_mm! * ring.height_mm!).toBeCloseTo(36 * 44, 6);
    expect(ring.x_mm).toBe(0);
  });
});

describe('free places', () => {
  it('are taken as given; neighbours share more than a twentieth; the middle is that of their box', () => {
    const free = mosaic({
      pattern: 'free',
      moves: 'rear',
      places: [
        { x_mm: -9, y_mm: 0 },
        { x_mm: 9, y_mm: 2 },
        { x_mm: 0, y_mm: 0, rotation_deg: 90 },
      ],
    });
    expect(free.overlaps.map(({ a, b }) => [a, b])).toEqual([
      [1, 2],
      [1, 3],
      [2, 3],
    ]);
    expect(free.overlaps[0]!.share).toBeCloseTo((18 * 22) / (36 * 24), 9);
    // From −18 of the upright frame's foot to 18 of its head.
    expect([free.x_mm, free.y_mm]).toEqual([0, 0]);
  });

  it('that do not meet say how many pixels apart they are', () => {
    const gap = mosaic({
      pattern: 'free',
      moves: 'rear',
      places: [
        { x_mm: -18, y_mm: 0 },
        { x_mm: 18.072, y_mm: 0 },
      ],
    });
    expect(gap.possible).toBe(false);
    expect(gap.problems[0]).toMatchObject({
      code: 'apart',
      message: 'Frames 1 and 2 are 12 px apart: nothing joins them.',
    });
    expect(codes(mosaic({ pattern: 'free', moves: 'rear' }))).toEqual(['no_frames']);
  });
});

describe('the whole camera turned', () => {
  const turn = (columns: number, more: object = {}) =>
    mosaic({ pattern: 'turn', moves: 'camera', columns, overlap: 0.3, ...more } as Mosaic);
  const h = 2 * Math.atan(18 / 50);
  const deg = (rad: number): number => (rad * 180) / Math.PI;

  it('lies by angles on a cylinder: v × angle wide, h cos(H/2) high, its ends not trimmed', () => {
    const four = turn(4);
    expect(four.horizontal_deg).toBeCloseTo(deg(h + 3 * 0.7 * h), 9);
    expect(four.width_mm).toBeCloseTo(50 * (h + 2.1 * h), 9);
    expect(four.height_mm).toBeCloseTo(24 * Math.cos(h / 2), 9);
    expect(four.width_px).toBe(Math.round((50 * 3.1 * h) / 0.006));
    expect(four.frames.map(({ yaw_deg }) => yaw_deg)).toEqual(
      [-1.5, -0.5, 0.5, 1.5].map((i) => expect.closeTo(deg(i * 0.7 * h), 9)),
    );
    expect(four.overlaps.map(({ share }) => share)).toEqual([0.3, 0.3, 0.3]);
    expect(four).toMatchObject({ parallax_px: 0, possible: true });
  });

  it('flat: as wide as the outer frames reach, as high as their inner edges allow; not from 180°', () => {
    const two = turn(2, { projection: 'flat' });
    const outer = 50 * Math.tan(h / 2 + 0.35 * h);
    // Turned frames grow towards their far ends; the picture is as high as at the seam or lower.
    expect(two.width_mm! / 2).toBeLessThanOrEqual(outer + 1e-9);
    const size = two.width_mm! * two.height_mm!;
    expect(size).toBeGreaterThan(36 * 24);
    const many = turn(7, { projection: 'flat' });
    expect(many).toMatchObject({ possible: false, width_mm: null });
    expect(two.horizontal_deg).toBeCloseTo(deg(1.7 * h), 9);
    expect(codes(many)).toEqual(['past_half_turn']);
    expect(codes(turn(20))).toContain('past_whole_turn');
  });

  it('is warned of a camera that is not level', () => {
    const up = mosaic(
      { pattern: 'turn', moves: 'camera', columns: 3 },
      { camera: { height_m: 1.5, pitch_deg: 5, yaw_deg: 0 } },
    );
    expect(codes(up)).toEqual(['pitched']);
  });
});

describe('what the rig cannot', () => {
  it('names frames past the mechanism, between detents and at no stop', () => {
    const wide = mosaic({ pattern: 'grid', columns: 3, overlap: 0.3, moves: 'rear' });
    expect(wide.possible).toBe(false);
    expect(wide.problems[0]).toMatchObject({
      code: 'out_of_reach',
      message: 'The back does not go as far as frames 1 and 3, up to 25.2 mm from zero.',
    });
    const clicks = mosaic(
      { pattern: 'grid', columns: 3, overlap: 0.51, moves: 'rear' },
      { movement_limits: { detent_mm: 1 } },
    );
    expect(codes(clicks)).toEqual(['between_stops']);
    const sliding = {
      movement_limits: { frame_stops: { columns: 3, rows: 1, pitch_mm: [18, 12] } },
    };
    expect(
      codes(mosaic({ pattern: 'grid', columns: 3, overlap: 0.5, moves: 'rear' }, sliding)),
    ).toEqual([]);
    const off = mosaic({ pattern: 'grid', columns: 3, overlap: 0.6, moves: 'rear' }, sliding);
    expect(off.possible).toBe(false);
    expect(codes(off)).toEqual(['between_stops']);
  });

  it('has a multiplier behind the movements carry the picture further than what is set', () => {
    const doubled = mosaic(
      { pattern: 'grid', columns: 2, overlap: 0.5, moves: 'lens' },
      {
        chain: [
          { kind: 'adapter', thickness_mm: 20, movement: { moves: 'front', shift_mm: [-20, 20] } },
          { kind: 'multiplier', factor: 1.5 },
        ],
        movement_limits: { moves: 'front' },
      },
    );
    expect(doubled.frames.map(({ x_mm }) => x_mm)).toEqual(
      [-9, 9].map((x) => expect.closeTo(x, 9)),
    );
    expect(doubled.frames.map(({ shift_mm }) => shift_mm)).toEqual(
      [-6, 6].map((x) => expect.closeTo(x, 9)),
    );
  });

  it('moves the back by itself where the lens moves too, from where the front has put the picture', () => {
    const both = mosaic(
      { pattern: 'grid', columns: 2, overlap: 0.5, moves: 'rear' },
      {
        movement_limits: { moves: 'front', rear_shift_mm: [-30, 30], rear_rise_mm: [-10, 10] },
        movements: { rise_mm: 5, shift_mm: 0, rear_shift_mm: 2, rear_rise_mm: 0 },
      },
    );
    expect(both.frames.map(({ x_mm, y_mm }) => [x_mm, y_mm])).toEqual([
      [-7, 5],
      [11, 5],
    ]);
    expect(both.frames.map(({ rise_mm, shift_mm }) => [rise_mm, shift_mm])).toEqual([
      [0, -7],
      [0, 11],
    ]);
    expect(both.possible).toBe(true);
  });
});
