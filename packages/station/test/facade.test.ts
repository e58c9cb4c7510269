import { evaluate, parseStation, readings, type Station } from '../src/index.js';
import { base, parsed } from './helpers/rigs.js';

/** Façade figures against plain trigonometry, worked in the test beside each case. */

type Facade = NonNullable<Station['facade']>;

/** A lens without end to its circle, so that only the mechanism limits. */
const wide = (change: Partial<Station> = {}): Station => ({
  ...base(),
  lens: { ...base().lens, circle: [{ f_number: 3.5, diameter_mm: 400 }] },
  focus: { distance_m: null },
  movement_limits: { rise_mm: [-30, 30], shift_mm: [-30, 30], moves: 'rear' },
  ...change,
});

const facadeOf = (station: Station, facade: Facade) =>
  readings(parsed({ ...station, facade })).facade!;

const HOUSE: Facade = { distance_m: 20, top_m: 15, width_m: 12 };

describe('a façade, square on and level', () => {
  // The lens centre stands 24 mm ahead of the sensor mark in all cases with f = 24 at infinity.
  const ahead = (distanceM: number, f = 24): number => distanceM * 1000 - f;

  it('1: rise for the top: v (H − height) / D − h/2 (worked here)', () => {
    const found = facadeOf(wide(), HOUSE);
    expect(found.rise_needed_mm).toBeCloseTo((24 * (15_000 - 1600)) / ahead(20) - 12, 9);
  });

  it('2: headroom is added to the top (worked here)', () => {
    const found = facadeOf(wide(), { ...HOUSE, headroom_m: 2 });
    expect(found.rise_needed_mm).toBeCloseTo((24 * (17_000 - 1600)) / ahead(20) - 12, 9);
  });

  it('3: the foot is cut above v (foot − height) / D + h/2 (worked here)', () => {
    const found = facadeOf(wide(), { ...HOUSE, base_m: 0 });
    expect(found.rise_before_foot_is_cut_mm).toBeCloseTo((24 * -1600) / ahead(20) + 12, 9);
    expect(facadeOf(wide(), HOUSE).rise_before_foot_is_cut_mm).toBeNull();
  });

  it('4: foot room is taken off below (worked here)', () => {
    const found = facadeOf(wide(), { ...HOUSE, base_m: 0, footroom_m: 1 });
    expect(found.rise_before_foot_is_cut_mm).toBeCloseTo((24 * -2600) / ahead(20) + 12, 9);
  });

  it('5: upright, the frame is 36 mm high (worked here)', () => {
    const upright = wide({ back: { ...base().back, orientation: 'portrait' } });
    const found = facadeOf(upright, HOUSE);
    expect(found.rise_needed_mm).toBeCloseTo((24 * 13_400) / ahead(20) - 18, 9);
  });

  it('6: a front that moves carries the lens: r (1 + v/D) = v (H − height)/D − h/2 (worked here)', () => {
    const front = wide({ movement_limits: { rise_mm: [-30, 30], moves: 'front' } });
    const found = facadeOf(front, HOUSE);
    const d = ahead(20);
    expect(found.rise_needed_mm).toBeCloseTo(((24 * 13_400) / d - 12) / (1 + 24 / d), 9);
  });

  it('7: the distance needed for the height: v (top − foot) / h (worked here)', () => {
    const found = facadeOf(wide(), { ...HOUSE, width_m: 1, base_m: 0 });
    expect(found.distance_needed_m).toBeCloseTo((24 * 15) / 24 + 0.024, 9);
  });

  it('8: the distance needed for the width: v w / frame width (worked here)', () => {
    const found = facadeOf(wide(), { ...HOUSE, top_m: 5, width_m: 45 });
    expect(found.distance_needed_m).toBeCloseTo((24 * 45) / 36 + 0.024, 9);
    expect(found.fits).toBe(false);
  });

  it('9: the distance needed when the mechanism ends at 8 mm: v (H − height) / (h/2 + 8) (worked here)', () => {
    const short = wide({ movement_limits: { rise_mm: [-8, 8], moves: 'rear' } });
    const found = facadeOf(short, { ...HOUSE, distance_m: 12 });
    expect(found.distance_needed_m).toBeCloseTo((24 * 13.4) / 20 + 0.024, 9);
    expect(found.fits).toBe(false);
  });

  it('10: the circle limits as the mechanism does: 67 mm circle, 24 mm lens, 16.25 mm of rise (ray-traced)', () => {
    // The first of the ray-traced stations: rise ends at 16.25331838917343 mm.
    const circle = wide({
      lens: { ...base().lens, circle: [{ f_number: 3.5, diameter_mm: 67 }] },
      movement_limits: { moves: 'rear' },
    });
    const found = facadeOf(circle, { ...HOUSE, width_m: 1 });
    expect(found.distance_needed_m).toBeCloseTo((24 * 13.4) / (12 + 16.25331838917343) + 0.024, 6);
  });

  it('11: a multiplier behind the lens makes the back 1/M the size, the rise the lens’s own (worked here)', () => {
    const reduced = wide({ chain: [{ kind: 'multiplier', factor: 1.5 }] });
    const found = facadeOf(reduced, HOUSE);
    // f stays 24 mm before a back 16 mm high; 1 mm of rise moves the picture 1.5 mm.
    expect(found.rise_needed_mm).toBeCloseTo((24 * 13_400) / ahead(20) - 8, 9);
  });

  it('12: pitched up by p the top is seen at v tan(angle − p) (worked here)', () => {
    const pitched = wide({ camera: { height_m: 1.6, pitch_deg: 5, yaw_deg: 0 } });
    const found = facadeOf(pitched, { ...HOUSE, width_m: 0.001 });
    const p = (5 * Math.PI) / 180;
    const [dy, dz] = [13_400 - 24 * Math.sin(p), 20_000 - 24 * Math.cos(p)];
    const seen = 24 * Math.tan(Math.atan2(dy, dz) - p);
    expect(found.rise_needed_mm).toBeCloseTo(seen - 12, 7);
  });

  it('a façade set off to the side asks for shift, and fits only where the frame reaches it', () => {
    const at = (x_m: number): boolean => facadeOf(wide(), { ...HOUSE, top_m: 9, x_m }).fits;
    // Half the frame sees 18/24 of the distance: 15 m; the façade ends 6 m from its middle.
    expect(at(8.9)).toBe(true);
    expect(at(9.1)).toBe(false);
  });

  it('extreme sites give honest answers: a 200 m tower at 10 m, a 12 mm lens on 8 × 10 in', () => {
    const extreme = wide({
      back: { width_mm: 244, height_mm: 194, orientation: 'landscape' },
      lens: {
        focal_length_mm: 12,
        f_min: 5.6,
        f_max: 22,
        circle: [{ f_number: 5.6, diameter_mm: 30 }],
      },
      aperture: 8,
    });
    const report = evaluate(
      parsed({ ...extreme, facade: { distance_m: 10, top_m: 200, width_m: 30, base_m: 0 } }),
    );
    expect(report.coverage.covered).toBe(false);
    expect(report.facade!.fits).toBe(false);
    expect(report.facade!.distance_needed_m).toBeNull();
    expect(JSON.stringify(report)).not.toMatch(/NaN/);
    const tower = facadeOf(wide(), { distance_m: 10, top_m: 200, width_m: 30, base_m: 0 });
    expect(tower.rise_needed_mm).toBeCloseTo((24 * 198_400) / ahead(10) - 12, 6);
    expect(tower.distance_needed_m).toBeCloseTo(200.024, 6);
  });
});

describe('sites that cannot be', () => {
  const problemAt = (change: object): Record<string, string> => {
    const read = parseStation({ ...base(), ...change });
    if (read.ok) return {};
    return Object.fromEntries(read.problems.map(({ pointer, message }) => [pointer, message]));
  };
  const room = { length_m: 20, width_m: 8, ceiling_m: 6, behind_m: 2, left_m: 4 };
  const box = { name: 'Chest', x_m: 0, z_m: 3, width_m: 1, depth_m: 1, height_m: 1 };

  it.each([
    ['zero distance', { facade: { ...HOUSE, distance_m: 0 } }, '/facade/distance_m', 'from 0.001'],
    [
      'inside the wall',
      { facade: { ...HOUSE, distance_m: 0.02 } },
      '/facade/distance_m',
      'inside the wall',
    ],
    ['foot above top', { facade: { ...HOUSE, base_m: 15 } }, '/facade/base_m', 'below the top'],
    [
      'outside the room',
      { site: { room: { ...room, left_m: 8 } } },
      '/site/room/left_m',
      'less than its width',
    ],
    [
      'behind the room',
      { site: { room: { ...room, behind_m: 25 } } },
      '/site/room/behind_m',
      'less than its length',
    ],
    [
      'above the ceiling',
      { site: { room: { ...room, ceiling_m: 1.5 } } },
      '/site/room/ceiling_m',
      'above the camera',
    ],
    [
      'box behind',
      { site: { boxes: [{ ...box, z_m: -2 }] } },
      '/site/boxes/0/z_m',
      'behind the camera',
    ],
    [
      'inside a box',
      { site: { boxes: [{ ...box, z_m: 0.3, height_m: 2 }] } },
      '/site/boxes/0/z_m',
      'inside this box',
    ],
    ['crop of nothing', { crop: { across: 0, up: 1 } }, '/crop/across', 'from 0.001'],
  ])('%s is refused at its field', (_, change, pointer, words) => {
    expect(problemAt(change)[pointer]).toContain(words);
  });

  it('what can be is taken', () => {
    expect(
      problemAt({ facade: HOUSE, site: { room, boxes: [box], levels: [{ height_m: 3 }] } }),
    ).toEqual({});
  });
});
