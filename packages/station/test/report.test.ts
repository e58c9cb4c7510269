import fc from 'fast-check';
import { evaluate, parseStation, viewVerdict, type Station } from '../src/index.js';
import { setupOf } from '../src/optical/setup.js';
import { base, parsed, stations } from './helpers/rigs.js';
import { runs } from '../../../scripts/lib/runs.mjs';

type V = [number, number, number];
const rad = (degrees: number): number => (degrees * Math.PI) / 180;

const shape = (value: unknown): unknown =>
  Array.isArray(value)
    ? value.map(shape)
    : typeof value === 'object' && value !== null
      ? Object.fromEntries(Object.entries(value).map(([key, inner]) => [key, shape(inner)]))
      : null;

const verdict = (station: Station) => viewVerdict(station, evaluate(station));

describe('names of the report', () => {
  it('are the ones the format binds', () => {
    const report = evaluate(base());
    expect(shape({ ...report, assumed: report.assumed.slice(0, 1) })).toEqual(
      shape({
        optics: {
          focal_length_mm: 0,
          f_number: 0,
          circle_diameter_mm: 0,
          sensor_diagonal_mm: 0,
          coc_mm: 0,
          pixel_pitch_um: 0,
          equivalent_35mm_mm: 0,
        },
        rig: {
          mounts: true,
          reaches_infinity: true,
          farthest_focus_m: null,
          closest_focus_m: null,
          largest_magnification: null,
          works: 'may',
          unknown: ['', '', '', ''],
          problems: [],
        },
        coverage: {
          covered: 0,
          worst_corner: 0,
          margin_mm: 0,
          sharp: 0,
          sharp_margin_mm: 0,
          limits: { rise_mm: 0, fall_mm: 0, left_mm: 0, right_mm: 0 },
          limited_by: { rise: 0, fall: 0, left: 0, right: 0 },
          filter_clear: 0,
          corner_falloff_stops: 0,
        },
        field: {
          left_deg: 0,
          right_deg: 0,
          up_deg: 0,
          down_deg: 0,
          horizontal_deg: 0,
          vertical_deg: 0,
        },
        focus: {
          image_distance_mm: 0,
          magnification: 0,
          extension_mm: 0,
          effective_f_number: 0,
          bellows_stops: 0,
          hinge_mm: 0,
          hyperfocal_m: 0,
          near_m: 0,
          far_m: 0,
          plane: { normal: [0, 0, 0], distance_mm: 0 },
          airy_um: 0,
        },
        perspective: { convergence_deg: 0, stretch: { left: 0, right: 0, top: 0, bottom: 0 } },
        turning: null,
        assumed: [{ pointer: '', value: null, why: '' }],
      }),
    );
  });
});

/** Every number of a report, with its place; JSON would hide what is not finite as null. */
function numbersOf(value: unknown, place = ''): [string, number][] {
  if (typeof value === 'number') return [[place, value]];
  if (typeof value !== 'object' || value === null) return [];
  return Object.entries(value).flatMap(([key, inner]) => numbersOf(inner, `${place}.${key}`));
}

const unsound = (report: unknown): string[] =>
  numbersOf(report).flatMap(([place, value]) => (Number.isFinite(value) ? [] : [place]));

/** The axis by turning (0, 0, 1) with matrices: about the horizontal, then about the vertical. */
function axisByMatrices(tiltDeg: number, swingDeg: number): V {
  const [t, s] = [rad(tiltDeg), rad(swingDeg)];
  const tilted: V = [0, -Math.sin(t), Math.cos(t)];
  return [
    Math.cos(s) * tilted[0] + Math.sin(s) * tilted[2],
    tilted[1],
    -Math.sin(s) * tilted[0] + Math.cos(s) * tilted[2],
  ];
}

/** Whether the four corners are covered, from the angle between two vectors and nothing else. */
function coveredByAngles(station: Station): { covered: boolean; slackDeg: number } {
  const { movements, back, lens, aperture, movement_limits: limits } = station;
  const axis = axisByMatrices(movements.tilt_deg, movements.swing_deg);
  const f = lens.focal_length_mm;
  const [wide, small] = [lens.circle[0]!, lens.circle[1]!];
  const n = Math.min(small.f_number, Math.max(wide.f_number, aperture));
  const share = Math.log(n / wide.f_number) / Math.log(small.f_number / wide.f_number);
  const circle = wide.diameter_mm + share * (small.diameter_mm - wide.diameter_mm);
  const distance =
    station.focus.distance_m !== undefined && station.focus.distance_m !== null
      ? station.focus.distance_m * 1000
      : 1e12;
  const g = f / axis[2];
  let v = g;
  // By repeated substitution instead of the quadratic: v = g (1 + v / (D − v)).
  for (let i = 0; i < 500; i++) v = g * (1 + v / (distance - v));
  const pivot = limits.pivot_mm ?? 0;
  const [w, h] =
    back.orientation === 'portrait'
      ? [back.height_mm, back.width_mm]
      : [back.width_mm, back.height_mm];
  const allowed = Math.atan(circle / (2 * f));
  let worst = Infinity;
  for (const sx of [-1, 1]) {
    for (const sy of [-1, 1]) {
      const corner: V = [
        movements.shift_mm + pivot * axis[0] + (sx * w) / 2,
        movements.rise_mm + pivot * axis[1] + (sy * h) / 2,
        v,
      ];
      const along = corner[0] * axis[0] + corner[1] * axis[1] + corner[2] * axis[2];
      worst = Math.min(worst, allowed - Math.acos(along / Math.hypot(...corner)));
    }
  }
  return { covered: worst >= 0, slackDeg: Math.abs(worst) * (180 / Math.PI) };
}

describe('coverage', () => {
  it('agrees with angles between vectors, worked without the closed forms', () => {
    fc.assert(
      fc.property(stations({ leanDeg: 20 }), (station) => {
        const { covered, slackDeg } = coveredByAngles(station);
        fc.pre(slackDeg > 1e-4);
        expect(evaluate(station).coverage.covered).toBe(covered);
      }),
      { numRuns: runs(2000) },
    );
  });

  it('the sharp core is its share of the radius (worked here)', () => {
    const far = parsed({
      ...base(),
      focus: { distance_m: null },
      movements: { ...base().movements, rise_mm: 6 },
    });
    const corner = Math.hypot(18, 12 + 6);
    const at = (share?: number): number | null =>
      evaluate(
        parsed({ ...far, lens: { ...far.lens, ...(share ? { sharp_fraction: share } : {}) } }),
      ).coverage.sharp_margin_mm;
    // 67 mm at f/8; four fifths unless the lens says otherwise.
    expect(at()).toBeCloseTo(0.8 * 33.5 - corner, 9);
    expect(at(0.7)).toBeCloseTo(0.7 * 33.5 - corner, 9);
    expect(evaluate(far).coverage.margin_mm).toBeCloseTo(33.5 - corner, 9);
  });

  it('moving the picture to the right turns right limits into left ones', () => {
    fc.assert(
      fc.property(stations(), (station) => {
        const { movements } = station;
        const mirrored = {
          ...station,
          movements: {
            ...movements,
            shift_mm: -movements.shift_mm,
            swing_deg: -movements.swing_deg,
          },
        };
        const [a, b] = [evaluate(station).coverage, evaluate(mirrored).coverage];
        expect(a.covered).toBe(b.covered);
        for (const [mine, theirs] of [
          [a.limits.left_mm, b.limits.right_mm],
          [a.limits.right_mm, b.limits.left_mm],
          [a.limits.rise_mm, b.limits.rise_mm],
        ] as const) {
          if (mine === null || theirs === null) expect(mine ?? 0).toBeCloseTo(theirs ?? 0, 6);
          else expect(mine).toBeCloseTo(theirs, 6);
        }
      }),
      { numRuns: runs(300) },
    );
  });

  it('stopping down never takes cover away when the circle grows', () => {
    fc.assert(
      fc.property(stations(), (station) => {
        const smaller = { ...station, aperture: Math.min(45, station.aperture * 1.5) };
        if (evaluate(station).coverage.covered) {
          expect(evaluate(smaller).coverage.covered).toBe(true);
        }
      }),
      { numRuns: runs(300) },
    );
  });

  it('a pivoted tilt moves the picture; the counter-movement brings it back', () => {
    const straight = parsed({
      ...base(),
      movement_limits: { moves: 'front', pivot_mm: 40 },
      movements: { rise_mm: 3, shift_mm: -2, tilt_deg: 0, swing_deg: 0 },
    });
    const tilted = { ...straight, movements: { ...straight.movements, tilt_deg: 6 } };
    const jump = 40 * Math.sin(rad(6));
    expect(setupOf(tilted).frame.riseMm).toBeCloseTo(3 - jump, 12);
    const countered = {
      ...tilted,
      movements: { ...tilted.movements, rise_mm: 3 + jump },
    };
    expect(setupOf(countered).frame.riseMm).toBeCloseTo(setupOf(straight).frame.riseMm, 12);
  });

  it('extreme rigs give honest answers, not NaN', () => {
    const wide = parsed({
      ...base(),
      back: { width_mm: 244, height_mm: 194, orientation: 'landscape' },
      lens: { ...base().lens, focal_length_mm: 12 },
      movement_limits: { moves: 'front' },
    });
    const report = evaluate(wide);
    expect(report.coverage.covered).toBe(false);
    expect(report.coverage.limits.rise_mm).toBeNull();
    expect(unsound(report)).toEqual([]);
    const leaned = evaluate({
      ...wide,
      movements: { rise_mm: 0, shift_mm: 0, tilt_deg: 60, swing_deg: 0 },
    });
    expect(unsound(leaned)).toEqual([]);
    // The top corners lie behind the leaned lens: no light, and no ring lets it through.
    expect(leaned.coverage.corner_falloff_stops).toBeNull();
    // Leaned past closing, the corners away from the lean are the ones that are out.
    expect(leaned.coverage.covered).toBe(false);
    expect(leaned.coverage.margin_mm).toBeLessThan(0);
  });
});

describe('every number', () => {
  it('is finite or null, however far lens and back lean', () => {
    fc.assert(
      fc.property(
        stations({ leanDeg: 60 }),
        fc.double({ min: -20, max: 20, noNaN: true }),
        (station, rear_tilt_deg) => {
          const leaned = parseStation({
            ...station,
            movements: { ...station.movements, rear_tilt_deg },
          });
          fc.pre(leaned.ok);
          if (leaned.ok) expect(unsound(evaluate(leaned.value))).toEqual([]);
        },
      ),
      { numRuns: runs(1000) },
    );
  });
});

describe('how the camera stands', () => {
  const pitched = (pitch_deg: number, rear_tilt_deg = 0): Station => ({
    ...base(),
    camera: { height_m: 1.6, pitch_deg, yaw_deg: 0 },
    movements: { ...base().movements, rear_tilt_deg },
  });

  it('is level when the sensor stands upright, also by a rear tilt against the pitch', () => {
    expect(verdict(pitched(0)).figure).toBe('Level');
    expect(verdict(pitched(5, -5)).figure).toBe('Level');
    expect(evaluate(pitched(5, -5)).perspective.convergence_deg).toBeCloseTo(0, 9);
  });

  it('says which way verticals meet', () => {
    expect(verdict(pitched(2))).toMatchObject({ figure: '2.0°', standing: 'costs' });
    expect(verdict(pitched(2)).sentence).toContain('meet above');
    expect(verdict(pitched(-2)).sentence).toContain('meet below');
    expect(evaluate(pitched(-2)).perspective.convergence_deg).toBeLessThan(0);
  });
});
