import fc from 'fast-check';
import { distanceAtMagnificationMm, focusReach } from '@gangway/optics';
import {
  chainWords,
  CONTROLS,
  evaluate,
  movementsOf,
  refusal,
  rigStation,
  scaleOf,
  withinReach,
  type Station,
} from '../src/index.js';
import { plain, rigOf } from './helpers/gear.js';
import { base, parsed, stations } from './helpers/rigs.js';
import { runs } from '../../../scripts/lib/runs.mjs';

const number = (min: number, max: number) => fc.double({ min, max, noNaN: true });

describe('normal lenses by sheet size (common practice, no source)', () => {
  it.each([
    ['4×5 in', 120, 95, 150],
    ['5×7 in', 170, 120, 210],
    ['8×10 in', 244, 194, 300],
  ])('%s: a lens of about the diagonal, %i × %i mm, is %i mm', (_name, w, h, f) => {
    const station = rigStation(
      plain({ focal_length_mm: f, circle: [{ f_number: 2, diameter_mm: 500 }] }, [], {
        width_mm: w,
        height_mm: h,
      }),
    );
    const { sensor_diagonal_mm, equivalent_35mm_mm } = evaluate(station).optics;
    expect(f / sensor_diagonal_mm).toBeGreaterThan(0.95);
    expect(f / sensor_diagonal_mm).toBeLessThan(1.05);
    expect(equivalent_35mm_mm).toBeGreaterThan(40);
    expect(equivalent_35mm_mm).toBeLessThan(46);
  });
});

describe('multipliers', () => {
  it('0.71 × reducer on 10 mm f/4.5 gives 7.1 mm f/3.2 (common practice, no source)', () => {
    const rig = plain({ focal_length_mm: 10, f_min: 4.5, f_max: 22 }, [
      { kind: 'multiplier', factor: 0.71 },
    ]);
    const { optics } = evaluate({ ...rigStation(rig), aperture: 4.5 });
    expect(optics.focal_length_mm).toBeCloseTo(7.1, 9);
    expect(optics.f_number).toBeCloseTo(3.2, 1);
  });

  it('behind moved glass: digit for digit the bare lens before a back 1/M the size', () => {
    fc.assert(
      fc.property(stations(), fc.constantFrom(0.5, 0.71, 1.4, 2), (station, M) => {
        // Halving and doubling are exact in binary; other factors agree to the last few digits.
        const digits = M === 0.5 || M === 2 ? 15 : 11;
        const multiplied: Station = { ...station, chain: [{ kind: 'multiplier', factor: M }] };
        const bare: Station = {
          ...station,
          back: {
            ...station.back,
            width_mm: station.back.width_mm / M,
            height_mm: station.back.height_mm / M,
          },
        };
        const [a, b] = [evaluate(multiplied), evaluate(bare)];
        const same = (x: number | null, y: number | null, times = 1): void => {
          if (x === null || y === null) expect(x).toBe(y);
          else expect(Number(x.toPrecision(digits))).toBe(Number((y * times).toPrecision(digits)));
        };
        for (const key of ['rise_mm', 'fall_mm', 'left_mm', 'right_mm'] as const) {
          same(a.coverage.limits[key], b.coverage.limits[key]);
        }
        same(a.coverage.margin_mm, b.coverage.margin_mm, M);
        same(a.field.horizontal_deg, b.field.horizontal_deg);
        same(a.focus.image_distance_mm, b.focus.image_distance_mm);
        expect(a.coverage.covered).toBe(b.coverage.covered);
      }),
      { numRuns: runs(300) },
    );
  });

  it('before the movements: the two are one lens of M f at M N (worked here)', () => {
    const tilting = {
      kind: 'adapter',
      thickness_mm: 0,
      movement: { tilt_deg: [-8, 8] as [number, number], moves: 'front' as const },
    } as const;
    const rig = plain({}, [{ kind: 'multiplier', factor: 1.4 }, tilting]);
    const other = plain({
      focal_length_mm: 70,
      f_min: 2.8,
      f_max: 22.4,
      circle: [{ f_number: 2.8, diameter_mm: 84 }],
    });
    const [a, b] = [rigStation(rig), { ...rigStation(other), aperture: 11.2 }].map((station) => ({
      ...station,
      movements: { rise_mm: 3, shift_mm: 4, tilt_deg: 5, swing_deg: 0 },
    }));
    const [one, two] = [evaluate(a!), evaluate(b!)];
    expect(one.optics.f_number).toBeCloseTo(two.optics.f_number, 12);
    expect(one.coverage.margin_mm).toBeCloseTo(two.coverage.margin_mm!, 9);
    expect(one.focus.hinge_mm).toBeCloseTo(two.focus.hinge_mm!, 9);
    expect(one.field).toEqual(two.field);
    expect(chainWords(a!)).toHaveLength(2);
  });
});

describe('registers and bellows', () => {
  it('closest and farthest focus are where the image distance lies that the rig leaves', () => {
    fc.assert(
      fc.property(
        number(40, 400),
        number(0.5, 1.4),
        number(-30, 50),
        number(0, 30),
        number(0, 1),
        (f, flange, board, register, at) => {
          const least = f * flange * (0.6 + 0.5 * at);
          const most = least + f * 0.9;
          const rig = plain(
            {
              focal_length_mm: f,
              flange_focal_mm: f * flange,
              circle: [{ f_number: 2, diameter_mm: 900 }],
            },
            [
              { kind: 'board', offset_mm: board },
              { kind: 'view_camera', bellows_min_mm: least, bellows_max_mm: most },
            ],
            { register_mm: register },
          );
          const report = evaluate(rigStation(rig)).rig;
          // v of the thin lens at both ends of the draw, reckoned from the lengths alone.
          const vAt = (draw: number): number => draw + board + register - f * flange + f;
          const distance = (v: number): number => v + (f * v) / (v - f);
          const [near, far] = [vAt(most), vAt(least)];
          if (near <= f) {
            expect(report.closest_focus_m).toBeNull();
            expect(report.reaches_infinity).toBe(false);
            return;
          }
          // At life size, 4 f, where that lies between the ends: drawn out further things come no nearer.
          const nearest = far <= 2 * f && near >= 2 * f ? 4 * f : distance(near);
          expect(report.closest_focus_m).toBeCloseTo(
            Math.min(nearest, near > 2 * f ? distance(Math.max(far, 2 * f)) : nearest) / 1000,
            8,
          );
          expect(report.largest_magnification).toBeCloseTo(near / f - 1, 9);
          expect(report.reaches_infinity).toBe(far <= f);
          if (far > f) expect(report.farthest_focus_m! / (distance(far) / 1000)).toBeCloseTo(1, 6);
          else expect(report.farthest_focus_m).toBeNull();
        },
      ),
      { numRuns: runs(300) },
    );
  });

  it('a rig with two bellows is refused', () => {
    const camera = { kind: 'view_camera', bellows_min_mm: 60, bellows_max_mm: 300 } as const;
    expect(() => parsed({ ...base(), chain: [camera, camera] })).toThrow('at most one');
  });

  it('a retrofocus lens keeps its closest distance, and comes nearer on a tube', () => {
    const close = { close_focus: { distance_mm: 210, magnification: 0.34 }, focal_length_mm: 24 };
    const closest = (chain: Parameters<typeof plain>[1]) =>
      evaluate(rigStation(plain(close, chain))).rig;
    expect(closest([]).closest_focus_m).toBe(0.21);
    expect(closest([{ kind: 'board', offset_mm: 5 }]).closest_focus_m!).toBeLessThan(0.21);
    expect(closest([{ kind: 'board', offset_mm: 5 }]).largest_magnification).toBeCloseTo(
      0.34 + 5 / 24,
      9,
    );
  });

  it('a converter multiplies the largest magnification', () => {
    const rig = rigOf('Macro 100 f/2.8', ['Converter 2'], 'Mirror body');
    expect(evaluate(rigStation(rig)).rig.largest_magnification).toBeCloseTo(4, 9);
  });
});

describe('what the rig reaches rules the focus', () => {
  it('a macro lens can be set to its closest, and the closest acts', () => {
    const rig = rigOf('Macro 100 f/2.8', [], 'Mirror body');
    const station = parsed({ ...rigStation(rig), focus: { distance_m: 0.25 } });
    expect(evaluate(station).focus.magnification).toBeCloseTo(2, 6);
    expect(evaluate(station).focus.image_distance_mm).toBeCloseTo((250 / 4.5) * 3, 4);
    expect(() => parsed({ ...rigStation(rig), focus: { distance_m: 0.2 } })).toThrow('nearer');
  });

  it('the distance scale ends where the rig does', () => {
    const rig = plain({}, [{ kind: 'adapter', thickness_mm: 29 }], { register_mm: 18 });
    const station = rigStation(rig);
    const [, far] = CONTROLS.distance.mechanism(station);
    expect(far).toBeCloseTo(distanceAtMagnificationMm(50, 0.06) / 1000, 9);
    expect(refusal(CONTROLS.distance, station, 3)).toContain('0.9363 m on this rig');
    expect(scaleOf(station, 'distance').segments.at(-1)).toMatchObject({
      beyond: true,
      to: Infinity,
    });
    const held = withinReach(station, null);
    expect(parsed(held)).toEqual(held);
    expect(evaluate(held).rig.problems.map(({ code }) => code)).not.toContain('focus_out_of_reach');
  });

  it('less shift at some stops', () => {
    const station: Station = {
      ...base(),
      aperture: 3.5,
      movement_limits: {
        ...base().movement_limits,
        reduced: [{ f_from: 3.5, f_to: 5.6, shift_mm: 4 }],
      },
    };
    expect(evaluate(station).coverage.limits.rise_mm).toBe(4);
    expect(evaluate({ ...station, aperture: 8 }).coverage.limits.rise_mm).toBeGreaterThan(10);
    expect(refusal(CONTROLS.rise, station, 5)).toContain('4.0');
  });
});

describe('movements of the parts', () => {
  it('one carrier gives its own; two add up; none gives none', () => {
    const shift = {
      kind: 'adapter',
      thickness_mm: 0,
      movement: { shift_mm: [-15, 15] as [number, number], moves: 'rear' as const },
    } as const;
    expect(movementsOf(plain()).rise_mm).toEqual([0, 0]);
    expect(movementsOf(plain({}, [shift]))).toMatchObject({
      shift_mm: [-15, 15],
      rise_mm: [0, 0],
      moves: 'rear',
    });
    const lens = { movement: { shift_mm: [-5, 11] as [number, number], moves: 'front' as const } };
    expect(movementsOf(plain(lens, [shift]))).toMatchObject({
      shift_mm: [-20, 26],
      moves: 'front',
    });
    expect(movementsOf(rigOf('Shift 19 f/4', [], 'Small format back'))).toMatchObject({
      radial_shift_mm: 12,
      tilt_deg: [0, 0],
    });
  });

  it('reach without any focusing stays where it stands', () => {
    expect(focusReach(50, [0, 0], 'none')).toMatchObject({
      reachesInfinity: true,
      closestMm: null,
    });
  });
});
