import fc from 'fast-check';
import {
  diffractionByStandard,
  diffractionOnPixels,
  engravedFNumber,
  ringStops,
} from '@gangway/optics';
import {
  evaluate,
  fStop,
  instructionsFor,
  judged,
  readings,
  solvedFor,
  solveStation,
  stopTable,
  tiltOrStack,
  type Station,
} from '../src/index.js';
import { base, parsed } from './helpers/rigs.js';
import { everything } from './helpers/worlds.js';
import { mark, table, THREE } from './helpers/table.js';
import { runs } from '../../../scripts/lib/runs.mjs';

const withoutMeasured = (station: Station): Station => {
  const { measured: _, ...lens } = station.lens;
  return { ...station, lens };
};

const aperture = (station: Station, n: number): Station => ({ ...station, aperture: n });

/** 90 mm before 44 × 33 mm of 3.76 µm, straight, marks along its axis, mm from the sensor mark. */
const bench = (set: number, places: readonly number[] = [690, 740, 790]): Station => {
  const station = base();
  return parsed({
    ...station,
    back: {
      width_mm: 44,
      height_mm: 33,
      width_px: 11702,
      height_px: 8776,
      orientation: 'landscape',
    },
    lens: { focal_length_mm: 90, f_min: 4, f_max: 32, circle: [{ f_number: 4, diameter_mm: 90 }] },
    movement_limits: { moves: 'front', tilt_deg: [0, 0], swing_deg: [0, 0] },
    aperture: set,
    focus: { distance_m: 0.74 },
    criterion: { coc_mm: 0.06 },
    camera: { height_m: 0, pitch_deg: 0, yaw_deg: 0 },
    marks: places.map((mm) => mark(`At ${mm}`, 0, 0, mm / 1000)),
  });
};

describe('the stops of a ring', () => {
  it('are powers of the sixth root of two, named as they are engraved (ISO 517)', () => {
    expect(ringStops(3.5, 22).map(engravedFNumber)).toEqual([
      3.5, 4, 4.5, 5, 5.6, 6.3, 7.1, 8, 9, 10, 11, 13, 14, 16, 18, 20, 22,
    ]);
    expect(ringStops(8, 8)).toEqual([8]);
    expect(ringStops(7.5, 7.5)).toEqual([7.5]);
    expect(fStop(2 ** 3.5)).toBe('f/11');
    expect(fStop(11.6)).toBe('f/11.6');
  });
});

describe('diffraction in words', () => {
  // 3.76 µm: 13.8, 19.5, 27.5, worked out by hand from 2, 2.83 and 4 p/λ at 0.546 µm.
  it.each([
    [13.7, 'none'],
    [13.9, 'begins'],
    [19.4, 'begins'],
    [19.6, 'visible'],
    [27.4, 'visible'],
    [27.6, 'plain'],
  ])('f/%s on 3.76 µm: %s', (n, kind) => {
    expect(diffractionOnPixels(n, 3.76)).toBe(kind);
  });

  it.each([
    [10, 'none'],
    [11, 'begins'],
    [14.5, 'visible'],
    [20, 'plain'],
  ])('a disc of %s µm where 20 µm is sharp: %s', (airyUm, kind) => {
    expect(diffractionByStandard(airyUm, 20)).toBe(kind);
  });

  it('is judged by the standard on film, though a scan has pixels', () => {
    const station = { ...bench(16), criterion: { coc_mm: 0.03 } };
    const film = { ...station, back: { ...station.back, medium: 'film' as const } };
    const at = (each: Station) => stopTable(each).set.diffraction;
    expect([at(station), at(film)]).toEqual(['begins', 'visible']);
  });
});

describe('the best stop', () => {
  it('does not follow a stop past it because that is set', () => {
    const answers = [8, 16, 32].map((set) => evaluate(bench(set)).solution!);
    for (const { best_stop } of answers) expect(best_stop).toEqual(answers[0]!.best_stop);
    const { f_number, serves, diffraction } = answers[0]!.best_stop!;
    // By hand: the lens stands 105 mm before the sensor, v = 106.3 and 103.6 mm, Δ = 2.7 mm, m = 0.17;
    // Δ / 2c (1 + m) = f/19.4 holds them; f/25 acts as f/30, where diffraction is plain.
    expect([f_number, ...serves!].map(fStop)).toEqual(['f/22', 'f/20', 'f/22']);
    expect(diffraction).toBe('visible');
    expect(fStop(solvedFor(bench(32)).aperture)).toBe('f/22');
  });

  it('is none where no stop holds marks 240 mm apart on the axis, and none is advised', () => {
    for (const set of [8, 32]) {
      const { best_stop, possible, reason } = evaluate(bench(set, [620, 740, 860])).solution!;
      expect({ best_stop, possible }).toEqual({ best_stop: null, possible: false });
      expect(reason).toMatch(/^The best wedge asks for f\/\d+; this lens stops down to f\/32\.$/);
    }
  });

  it('judges the stop that is set beside it', () => {
    const set = aperture(solvedFor(table([...THREE, mark('Cup', 0.2, 1.3, 1.1)])), 32);
    const { best, set: now } = stopTable(set);
    expect(judged(now, best!)).toMatch(
      /^f\/32, as set, holds too, with a spot of \d+ µm; diffraction/,
    );
    expect(judged(best!, best!)).toBe('');
    const wide = stopTable(aperture(set, 2.8));
    expect(judged(wide.set, wide.best!)).toMatch(/^f\/2\.8, as set, does not hold every mark/);
  });

  it('is told with the span that holds', () => {
    const answer = solveStation(table([...THREE, mark('Cup', 0.2, 1.3, 1.1)]))!;
    expect(instructionsFor(answer, 'metric').set.at(-1)).toMatch(
      /^Stop down to f\/\d+(\.\d)?; f\/\d+(\.\d)? to f\/\d+ hold\.$/,
    );
  });

  it('is one that the iris can be set to', () => {
    const station = table([...THREE, mark('Cup', 0.2, 1.3, 1.1)]);
    const stuck = { ...station, lens: { ...station.lens, iris: 'none' as const } };
    const { solution } = evaluate(stuck);
    expect(solution!.possible).toBe(false);
    expect(solution!.best_stop).toBeNull();
    expect(solution!.reason).toContain('this lens stays at f/2.8');
  });

  it('is never worse than another that holds and covers, two stops down where any serve', () => {
    fc.assert(
      // What was measured on a lens has a say of its own, tested beside it.
      fc.property(everything.map(withoutMeasured), (station) => {
        const answer = solveStation(station);
        fc.pre(answer !== null);
        const found = evaluate(station).solution!.best_stop;
        const at = answer!.station;
        // Looked at through the report, stop by stop.
        const all = ringStops(at.lens.f_min, at.lens.f_max).map((n) => {
          const stopped = aperture(at, n);
          const { coverage, focus, marks } = readings(stopped);
          const sharp = marks!.filter((_, i) => at.marks![i]!.must === 'sharp');
          const blur = Math.max(...sharp.map(({ blur_um }) => blur_um ?? Infinity));
          return {
            n,
            serves: marks!.every(({ holds }) => holds) && coverage.covered && coverage.filter_clear,
            spot: Math.hypot(blur, focus.airy_um!),
          };
        });
        const serving = all.filter(({ serves }) => serves);
        fc.pre(serving.every(({ spot }) => Number.isFinite(spot)));
        if (found === null) {
          expect(serving).toEqual([]);
          return;
        }
        const { serves, f_number, spot_um } = found;
        expect(serving.map(({ n }) => n)).toContain(f_number);
        const down = serving.filter(
          ({ n }) => serves && n <= serves[1] && n >= 2 * 0.97 * at.lens.f_min,
        );
        for (const { spot } of down.length > 0 ? down : serving) {
          expect(spot_um).toBeLessThanOrEqual(spot * (1 + 1e-9));
        }
        if (serves) expect(serves[0]).toBeCloseTo(serving[0]!.n, 12);
      }),
      { numRuns: runs(60) },
    );
  });
});

describe('a stack beside the leaned shot', () => {
  it('is told by the same spot: the worst place between nearest and farthest mark', () => {
    const station = table([...THREE, mark('Cup', 0.2, 1.3, 1.1)], { criterion: { coc_mm: 0.02 } });
    const stack = tiltOrStack(station).find(({ id }) => id === 'stack')!;
    const { set } = stopTable(stack.after);
    const straight = tiltOrStack(station).find(({ id }) => id === 'straight')!;
    const spread = straight.after;
    expect(spread.movements.tilt_deg).toBe(0);
    // One frame over the whole spread would blur the ends by as much more as there are frames.
    const seam = Math.sqrt(stack.spotUm! ** 2 - set.airyUm ** 2);
    expect(seam * stack.frames).toBeCloseTo(set.worstBlurUm!, 0);
  });
});
