import fc from 'fast-check';
import { areaOf, newBudget, sharedPart } from '@gangway/optics';
import {
  atLaidFrame,
  evaluate,
  exposureSteps,
  exposureVerdict,
  framedWell,
  keptStation,
  layoutOf,
  marksByFrame,
  matchFiles,
  offersOf,
  parseStation,
  sparingMove,
  standingOf,
  stateOf,
  stationDigest,
  type Layout,
  type Mosaic,
  type Station,
} from '../src/index.js';
import { laid, station } from './helpers/mosaic.js';
import { everything } from './helpers/worlds.js';
import { runs } from '../../../scripts/lib/runs.mjs';

/** What was stored before there was a limit, or comes in a file. */
const grid = (columns: number, rows: number): Mosaic => ({
  pattern: 'grid',
  columns,
  rows,
  moves: 'rear',
});
const stored = (mosaic: unknown): Station => ({ ...station({}), mosaic: mosaic as Mosaic });

describe('a mosaic has at most 2,500 frames', () => {
  it('and one with more is refused with the range, of stops of a back too', () => {
    const problemsOf = (document: unknown): string[] => {
      const read = parseStation(document);
      return read.ok ? [] : read.problems.map(({ pointer, message }) => `${pointer} ${message}`);
    };
    expect(problemsOf(stored(grid(400, 400)))).toEqual([
      '/mosaic/columns must be from 1 to 6 with 400 rows: at most 2500 frames',
    ]);
    expect(problemsOf(stored(grid(50, 50)))).toEqual([]);
    expect(problemsOf(stored(grid(50, 51)))).toHaveLength(1);
    const { movement_limits: limits } = station({});
    const stops = { columns: 60, rows: 60, pitch_mm: [1, 1] };
    expect(
      problemsOf({ ...station({}), movement_limits: { ...limits, frame_stops: stops } })[0],
    ).toContain('/movement_limits/frame_stops/columns must be from 1 to 41 with 60 rows');
  });

  it('is read where it was stored, named, and not worked out', () => {
    const kept = keptStation(stored(grid(400, 400)));
    expect(kept).toMatchObject({ kind: 'faulty', faults: [{ pointer: '/mosaic/columns' }] });
    const many = stored(grid(400, 400));
    expect(layoutOf(many).frames).toEqual([]);
    const { mosaic } = evaluate(many);
    expect(mosaic!.possible).toBe(false);
    expect(mosaic!.problems[0]).toMatchObject({ code: 'too_many_frames', severity: 'stop' });
    expect(stationDigest(many)).toMatchObject({ figure: expect.any(String) });
  });

  it.each([
    { pattern: 'turn', moves: 'camera', columns: 1e30 },
    { pattern: 'pinwheel', moves: 'rear', frames: 1e9 },
    { pattern: 'ring', moves: 'lens', frames: 1e12, radius_mm: 3 },
    { pattern: 'grid', moves: 'lens', columns: NaN, rows: 3 },
  ])('of which nobody ever stored so many: %j', (mosaic) => {
    expect(keptStation(stored(mosaic)).kind).toBe('broken');
    expect(layoutOf(stored(mosaic)).frames).toEqual([]);
  });

  it('with all of them is laid out by neighbours, not by pairs', () => {
    const layout = layoutOf(laid(grid(50, 50)));
    expect(layout.frames).toHaveLength(2500);
    expect(layout.shares).toHaveLength(2 * 50 * 49);
    expect(layout.neighbours).toHaveLength(2 * 50 * 49);
  });
});

describe('what frames share', () => {
  /** Every pair held against every other, as the definition has it. */
  const byPairs = ({ frames, frame }: Layout): Map<string, number> => {
    const found = new Map<string, number>();
    frames.forEach((one, a) =>
      frames.forEach((other, b) => {
        const part = b > a ? sharedPart(one.corners, other.corners) : [];
        const share = part.length < 3 ? 0 : areaOf(part) / (frame.widthMm * frame.heightMm);
        if (share > 1e-9) found.set(`${a} ${b}`, share);
      }),
    );
    return found;
  };
  const places = Array.from({ length: 60 }, (_, i) => ({
    x_mm: ((i * 37) % 97) - 40,
    y_mm: ((i * 53) % 61) - 30,
    ...(i % 4 === 0 ? { rotation_deg: (i * 29) % 360 } : {}),
  }));

  it.each<Mosaic>([
    { pattern: 'pinwheel', moves: 'rear', frames: 4, offset_mm: [9, 7] },
    { pattern: 'pinwheel', moves: 'rear', frames: 7, offset_mm: [20, 3] },
    { pattern: 'pinwheel', moves: 'rear', frames: 36, offset_mm: [40, 20] },
    { pattern: 'ring', moves: 'rear', frames: 30, radius_mm: 60, middle: true },
    { pattern: 'free', moves: 'rear', places: places.slice(0, 20) },
    { pattern: 'free', moves: 'rear', places },
  ])('is what every pair held against every other shares: $pattern $frames', (mosaic) => {
    const layout = layoutOf(laid(mosaic));
    const all = byPairs(layout);
    const own = new Map(
      layout.shares
        .filter(({ share }) => share > 1e-9)
        .map(({ a, b, share }) => [`${a} ${b}`, share]),
    );
    expect([...own.keys()].sort()).toEqual([...all.keys()].sort());
    for (const [pair, share] of own) expect(share).toBeCloseTo(all.get(pair)!, 9);
  });
});

describe('lens and bellows at their edges', () => {
  // Exit pupil to sensor is f (p + m): at m = −p nothing is left of it.
  const at = (imageDistanceMm: number): Station =>
    station({
      lens: { pupil_ratio: 0.5 },
      focus: { image_distance_mm: imageDistanceMm },
      exposure: { meter: { time_s: 1 } },
    });

  it('a sensor before the exit pupil gives null, with its reason, and no time', () => {
    const { focus, exposure } = evaluate(at(20));
    expect(focus).toMatchObject({ bellows_stops: null, effective_f_number: null, airy_um: null });
    expect(focus.no_image).toContain('no image is formed');
    expect(exposure).toMatchObject({ bellows_stops: null, time_s: null, given_s: null });
    expect(exposure!.problems[0]).toMatchObject({ code: 'no_image', severity: 'stop' });
  });

  it('nor the power of a flash; what is said is why, not that a film’s table ended', () => {
    const flash = station({
      ...at(20),
      exposure: { flash: true, meter: { f_number: 8 }, reciprocity: { exponent: 1.3, from_s: 1 } },
    });
    for (const each of [at(20), flash]) {
      const report = evaluate(each).exposure!;
      expect(report).toMatchObject({ flash: null, time_s: null });
      const { figure, words, sentence } = exposureVerdict(each, report);
      expect(`${figure} ${words}`).toBe('None no image is formed');
      expect(sentence).toBe(report.problems[0]!.message);
      expect(exposureSteps(each, each.exposure!, report, 'metric')).toEqual([]);
    }
  });

  it('behind it, however near, they are figures again', () => {
    const { focus, exposure } = evaluate(at(25.001));
    expect(focus.bellows_stops).toBeCloseTo(2 * Math.log2(1 + (25.001 / 50 - 1) / 0.5), 9);
    expect(focus).not.toHaveProperty('no_image');
    expect(exposure!.time_s).toBeGreaterThan(0);
  });
});

describe('searches for layouts end with their budget', () => {
  const places = Array.from({ length: 400 }, (_, i) => [
    ((i * 7919) % 997) / 25,
    ((i * 104_729) % 991) / 25,
  ]);
  const wish = { horizontal_deg: 80, vertical_deg: 60 };
  it.each([
    ['detents of a twentieth of a millimetre', { detent_mm: 0.05 }],
    ['400 places all over', { frame_stops: { places_mm: places } }],
    ['2,500 stops', { frame_stops: { columns: 50, rows: 50, pitch_mm: [0.7, 0.7] } }],
  ])('%s', (_, movement_limits) => {
    const asked = laid({ ...grid(3, 1), wish }, { movement_limits });
    for (const steps of [100, 100_000, 3_000_000]) {
      const budget = newBudget(steps);
      const { stopped, offers, why } = offersOf(asked, budget);
      // One layout of many frames may have been begun with the last step.
      expect(budget.left).toBeGreaterThan(-12_000_000);
      if (budget.left <= 0) expect(stopped).toBe(true);
      // Where not all was looked at, nothing is certain.
      if (stopped) {
        expect(offers.every(({ least, layout }) => !least || layout.frames.length === 1)).toBe(
          true,
        );
        if (why && 'proven' in (why.values ?? {}))
          expect(why.values).toMatchObject({ proven: false });
      }
    }
  });

  it('and on very many stops find the fewest frames before all blocks are listed', () => {
    const [columns, pitch] = [50, 0.5];
    const stops = { columns, rows: 50, pitch_mm: [pitch, pitch] };
    const asked = laid(
      { ...grid(1, 1), overlap: 0.3, wish: { horizontal_deg: 50 } },
      { movement_limits: { frame_stops: stops } },
    );
    const { offers, why } = offersOf(asked, newBudget(3_000_000));
    expect(why).toBeNull();
    // 2 · 50 mm · tan 25° is 46.6 mm across: one frame of 36 mm is not enough, two are.
    expect(offers[0]!.layout.frames.length).toBe(2);
    expect(offers[0]!.picture.horizontalDeg).toBeGreaterThanOrEqual(50 - 1e-6);
  });

  it('says so in the report', () => {
    const asked = laid({ ...grid(3, 1), wish });
    expect(evaluate(asked, newBudget(50)).mosaic).toMatchObject({ stopped: true });
    expect(evaluate(asked).mosaic).not.toHaveProperty('stopped');
  });

  it('a move that spares the seams and marks frame by frame, too', () => {
    const marks = Array.from({ length: 40 }, (_, i) => ({
      label: `Mark ${i}`,
      x_m: i - 20,
      y_m: 1.5,
      z_m: 20,
      must: 'free' as const,
      at_seams: 'fine' as const,
    }));
    const many = laid(grid(40, 40), { marks });
    const none = sparingMove(many, newBudget(1000));
    expect(none).toMatchObject({ move: null, all: false });
    expect(
      marksByFrame(many, newBudget(1000)).filter((each) => each?.includes('not looked')),
    ).not.toEqual([]);
  });

  it('a matching leaves nothing sure that it has not looked through', () => {
    const lines = Array.from({ length: 40 }, (_, i) => ({
      id: `l${i}`,
      clockS: 60 * i,
      bracket: null,
      timeS: null,
      iso: null,
    }));
    const files = lines.map(({ clockS }, i) => ({
      key: `f${i}`,
      name: `P${i}`,
      clockS: clockS + 500,
      camera: '',
      timeS: null,
      iso: null,
    }));
    const all = matchFiles(files, lines);
    expect(all.stopped).toBe(false);
    expect(all.pairs.some(({ sure }) => sure)).toBe(true);
    const budget = newBudget(1000);
    const cut = matchFiles(files, lines, {}, budget);
    expect(cut.stopped).toBe(true);
    expect(cut.pairs.some(({ sure }) => sure)).toBe(false);
    expect(budget.left).toBeLessThanOrEqual(0);
  });
});

describe('a grid is within light and mechanism where its corner frames are', () => {
  it('in any world', () => {
    let [whole, cut] = [0, 0];
    const shapes = fc.record({
      columns: fc.integer({ min: 1, max: 6 }),
      rows: fc.integer({ min: 1, max: 6 }),
      overlap: fc.double({ min: 0.1, max: 0.9, noNaN: true }),
      moves: fc.constantFrom('rear' as const, 'lens' as const),
    });
    fc.assert(
      fc.property(everything, shapes, (world, shape) => {
        const { facade: _, ...plain } = world;
        const asked: Station = { ...plain, mosaic: { pattern: 'grid', ...shape } };
        const layout = layoutOf(asked);
        const each = layout.frames.every(
          (__, i) => standingOf(stateOf(atLaidFrame(asked, layout, i))) !== 'outside',
        );
        expect(framedWell(asked)).toBe(each);
        if (each) whole++;
        else cut++;
      }),
      { numRuns: runs(1000) },
    );
    expect(Math.min(whole, cut)).toBeGreaterThan(5);
  });
});
