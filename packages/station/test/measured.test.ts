import {
  evaluate,
  measuredWhy,
  measurementsOf,
  parseStation,
  readings,
  stopTable,
  why,
  type MeasuredLens,
  type Station,
} from '../src/index.js';
import { base, parsed } from './helpers/rigs.js';

/** A lens as its owner found it: 24 mm on 36 × 24 mm. */
const MEASURED: MeasuredLens = {
  on: '14 March',
  back: 'a back of 36 × 24 mm',
  circle: [
    { f_number: 4, diameter_mm: 52 },
    { f_number: 8, diameter_mm: 60 },
  ],
  circle_by: { stops: 4 },
  falloff: [
    {
      f_number: 4,
      points: [0, 10, 20, 30].map((radius_mm) => ({ radius_mm, stops: radius_mm / 10 })),
    },
    {
      f_number: 8,
      points: [0, 10, 20, 30].map((radius_mm) => ({ radius_mm, stops: radius_mm / 20 })),
    },
  ],
  sharpness: [
    { f_number: 4, zones: [zone('centre', 3, 60), zone('edge', 14, 40), zone('corner', 21, 10)] },
    { f_number: 8, zones: [zone('centre', 3, 70), zone('edge', 14, 60), zone('corner', 21, 50)] },
    { f_number: 16, zones: [zone('centre', 3, 45), zone('edge', 14, 44), zone('corner', 21, 42)] },
  ],
};

function zone(name: 'centre' | 'edge' | 'corner', radius_mm: number, mtf50_cy_mm: number) {
  return { zone: name, radius_mm, mtf50_cy_mm };
}

/** The same station with a lens that was measured, or was not. */
const station = (measured: MeasuredLens | undefined, change: Partial<Station> = {}): Station => {
  const plain = base();
  return parsed({
    ...plain,
    back: { width_mm: 36, height_mm: 24, width_px: 6000, height_px: 4000, orientation: 'landscape' },
    lens: {
      focal_length_mm: 24,
      f_min: 3.5,
      f_max: 22,
      circle: [{ f_number: 3.5, diameter_mm: 60 }, { f_number: 11, diameter_mm: 67 }],
      ...(measured ? { measured } : {}),
    },
    movement_limits: { moves: 'front' },
    aperture: 8,
    focus: { distance_m: null },
    ...change,
  }); // prettier-ignore
};

describe('a lens that was measured', () => {
  it('has its own circle at the stops that were measured, between them, and the given one beyond', () => {
    const circle = (aperture: number): number => readings(station(MEASURED, { aperture })).optics.circle_diameter_mm; // prettier-ignore
    expect(circle(4)).toBe(52);
    expect(circle(8)).toBe(60);
    expect(circle(4 * Math.SQRT2)).toBeCloseTo(56, 9);
    expect(circle(11)).toBe(67);
    expect(circle(3.5)).toBe(60);
  });

  it('moves limits and margins with its circle, and the ideal is one switch away', () => {
    const rise = (measured: MeasuredLens | undefined): number => evaluate(station(measured)).coverage.limits.rise_mm!; // prettier-ignore
    // |y| ≤ √(R² − (w/2)²) − h/2, the closed form of the untilted limit.
    expect(rise(MEASURED)).toBeCloseTo(Math.sqrt(30 ** 2 - 18 ** 2) - 12, 6);
    expect(rise({ ...MEASURED, use: false })).toBe(rise(undefined));
    expect(rise({ ...MEASURED, use: false })).toBeGreaterThan(rise(MEASURED));
  });

  it('loses light as it was measured, between stops by stops, and leaned as the sensor stands', () => {
    const corner = (change: Partial<Station>): number => readings(station(MEASURED, change)).coverage.corner_falloff_stops!; // prettier-ignore
    const r = Math.hypot(18, 12);
    expect(corner({ aperture: 4 })).toBeCloseTo(r / 10, 6);
    expect(corner({ aperture: 8 })).toBeCloseTo(r / 20, 6);
    expect(corner({ aperture: 4 * Math.SQRT2 })).toBeCloseTo((r / 10 + r / 20) / 2, 6);
    const lean = { rise_mm: 0, shift_mm: 0, tilt_deg: 0, swing_deg: 5 };
    expect(corner({ aperture: 8, movements: lean })).not.toBeCloseTo(corner({ aperture: 8 }), 2);
  });

  it('that was measured to be the ideal gives what the ideal gives', () => {
    const natural = Array.from({ length: 301 }, (_, i) => {
      const radius_mm = i / 8;
      return { radius_mm, stops: 4 * Math.log2(1 / Math.cos(Math.atan(radius_mm / 24))) };
    });
    const same: MeasuredLens = {
      circle: [{ f_number: 3.5, diameter_mm: 60 }, { f_number: 11, diameter_mm: 67 }],
      falloff: [{ f_number: 8, points: natural }],
    }; // prettier-ignore
    for (const swing_deg of [0, 3, -7]) {
      const change = { movements: { rise_mm: 4, shift_mm: -2, tilt_deg: 2, swing_deg } };
      const [one, other] = [same, undefined].map((each) => readings(station(each, change)).coverage); // prettier-ignore
      expect(one!.margin_mm).toBe(other!.margin_mm);
      expect(one!.limits).toEqual(other!.limits);
      expect(one!.corner_falloff_stops).toBeCloseTo(other!.corner_falloff_stops!, 3);
    }
  });

  it('is sharp as far as its own patch is within the circle of confusion', () => {
    // Half contrast of a disc c across lies at 0.705/c: 0.0139 mm ask for 50.7 cycles a mm.
    const at = (aperture: number, coc_mm: number) => readings(station(MEASURED, { aperture, criterion: { coc_mm } })).coverage; // prettier-ignore
    expect(at(8, 0.0139).sharp).toBe(false);
    // All that was measured is sharp: the usual part of the circle holds, and more is not claimed.
    expect(at(8, 0.03).sharp_margin_mm).toBeCloseTo(0.8 * 30 - Math.hypot(18, 12), 6);
    // At f/4 contrast falls through 35.25 cycles between 14 and 21 mm.
    const radius = 14 + (7 * (40 - 0.705 / 0.02)) / 30;
    expect(at(4, 0.02).sharp_margin_mm).toBeCloseTo(radius - Math.hypot(18, 12), 6);
  });

  it('chooses its best stop by what was measured, wide open too', () => {
    const marks = [{ label: 'inlay', x_m: 0, y_m: 1.5, z_m: 2, must: 'sharp' as const }];
    const at = { marks, focus: { distance_m: 2 }, criterion: { coc_mm: 0.03 } };
    const fast: MeasuredLens = {
      sharpness: [3.5, 5.6, 8, 16].map((f_number, i) => ({ f_number, zones: [zone('centre', 0, [90, 70, 60, 40][i]!)] })), // prettier-ignore
    };
    const best = (measured: MeasuredLens | undefined): number => stopTable(station(measured, at)).best!.fNumber; // prettier-ignore
    expect(best(fast)).toBeCloseTo(2 ** (11 / 6), 6);
    expect(best(undefined)).toBeGreaterThan(6.8);
    const detail: MeasuredLens = {
      detail: [3.5, 5.6, 11, 16].map((f_number, i) => ({ f_number, zones: [{ zone: 'centre' as const, radius_mm: 0, kept: [0.5, 0.7, 1, 0.9][i]! }] })), // prettier-ignore
    };
    expect(best(detail)).toBeGreaterThan(8);
  });

  it('says on what figures rest, and does not while the ideal is used', () => {
    const found = readings(station(MEASURED));
    expect(found.measured?.map(({ pointer }) => pointer)).toEqual([
      '/lens/measured/circle',
      '/lens/measured/falloff',
      '/lens/measured/sharpness',
    ]);
    expect(why('margin', station(MEASURED)).words).toContain('measured 14 March on a back of 36 × 24 mm'); // prettier-ignore
    expect(readings(station({ ...MEASURED, use: false })).measured).toBeUndefined();
    expect(why('margin', station({ ...MEASURED, use: false })).words).not.toContain('measured');
  });

  it('tells what was measured as data, and when and on what only where it was kept', () => {
    const found = measurementsOf(station(MEASURED));
    expect(found.map(({ pointer }) => pointer)).toEqual(
      ['circle', 'falloff', 'sharpness'].map((part) => `/lens/measured/${part}`),
    );
    expect(JSON.parse(JSON.stringify(found))).toEqual(found);
    expect(measuredWhy(found[0]!)).toBe(
      'The circle is this lens’s own, measured 14 March on a back of 36 × 24 mm.',
    );
    const { on: _, back: __, ...bare } = MEASURED;
    expect(measurementsOf(station(bare)).map(measuredWhy)).toContain(
      'Falloff is this lens’s own, measured.',
    );
  });

  it('is refused with what is allowed when stops or radii are out of order', () => {
    const read = (measured: unknown) => parseStation({ ...station(undefined), lens: { ...station(undefined).lens, measured } }); // prettier-ignore
    const wrong = (measured: unknown): string => {
      const found = read(measured);
      return found.ok ? '' : `${found.problems[0]!.pointer}: ${found.problems[0]!.message}`;
    };
    expect(wrong({ circle: [{ f_number: 8, diameter_mm: 60 }, { f_number: 4, diameter_mm: 50 }] })).toBe('/lens/measured/circle/1/f_number: must be above f/8: list each stop once, from the widest to the smallest'); // prettier-ignore
    expect(wrong({ falloff: [{ f_number: 8, points: [{ radius_mm: 5, stops: 0 }, { radius_mm: 5, stops: 1 }] }] })).toContain('from the middle outwards'); // prettier-ignore
    expect(wrong({ circle_by: { stops: 4, mtf50_cy_mm: 30 } })).toContain('one standard only');
    expect(wrong({ falloff: [{ f_number: 8, points: [{ radius_mm: 0, stops: 0 }] }] })).toContain('at least two points'); // prettier-ignore
    expect(read({ ...MEASURED, later: 'kept' }).ok).toBe(true);
  });
});
