import {
  chainWords,
  CONTROLS,
  differences,
  distance,
  fixed,
  focusDistanceM,
  focusWay,
  fStop,
  lastAllowed,
  refusal,
  scaleOf,
  signed,
  stops,
  trimmed,
  why,
  withClosestFocus,
  withCriterionWay,
  withFocusWay,
  withRangeEnd,
  withStops,
  parseAngleDeg,
  parseDistanceM,
  parseFNumber,
  parseLengthMm,
  parseRatio,
  parseStops,
  parseTimeS,
} from '../src/index.js';
import { base, parsed } from './helpers/rigs.js';

describe('figures', () => {
  it.each([
    [fixed(-0.04, 1), '0.0'],
    [fixed(-2.06, 1), '−2.1'],
    [signed(4.94, 1), '+4.9'],
    [trimmed(8, 1), '8'],
    [trimmed(5.6, 2), '5.6'],
    [fStop(11), 'f/11'],
    [stops(1 / 3), '⅓ stop'],
    [stops(1), '1 stop'],
    [stops(5 / 3), '1⅔ stops'],
    [stops(2), '2 stops'],
    [stops(0.5), '0.5 stop'],
    [stops(0), '0 stop'],
    [distance(2.4, 'metric'), '2.40 m'],
    [distance(0.3074, 'metric'), '0.307 m'],
    [distance(22, 'metric'), '22.0 m'],
    [distance(null, 'metric'), '∞'],
    [distance(2.3876, 'feet'), '7′ 10″'],
    [distance(150, 'feet'), '492 ft'],
  ])('%s', (got, expected) => expect(got).toBe(expected));

  it('feet never show twelve inches', () => {
    for (let m = 0.2; m < 20; m += 0.003) expect(distance(m, 'feet')).not.toContain('12″');
  });
});

describe('controls', () => {
  it('step by their detents, ten and a tenth of them', () => {
    const station = base();
    const { rise, aperture, distance: focus } = CONTROLS;
    expect([1, 10, 0.1].map((size) => rise.step(station, 1, size))).toEqual([0.5, 5, 0.05]);
    expect(aperture.step(station, 1, 1)).toBe(9);
    expect(aperture.step(station, -1, 10)).toBe(5.6);
    expect(aperture.step({ ...station, aperture: 22 }, 1, 1)).toBe(22);
    const far = { ...station, focus: { distance_m: null } };
    expect(focus.step(far, 1, 1)).toBe(Infinity);
    expect(focus.step(far, -1, 1)).toBe(50);
    expect(focus.step({ ...station, focus: { distance_m: 49.9 } }, 1, 1)).toBe(Infinity);
  });

  it('say what the mechanism allows', () => {
    expect(refusal(CONTROLS.rise, base(), 14)).toBe('Rise goes from −12.0 to 12.0 mm on this rig.');
    expect(refusal(CONTROLS.aperture, base(), 2)).toBe('This lens opens from f/3.5 to f/22.');
    const macro = withClosestFocus(base(), 300);
    expect(refusal(CONTROLS.distance, macro, 0.2)).toContain('from 0.3 m to infinity');
    expect(refusal(CONTROLS.distance, macro, 0.3)).toBeNull();
  });

  it('M goes to the last allowed value, rounded inwards', () => {
    const station = parsed({
      ...base(),
      movements: { ...base().movements, rise_mm: 3, shift_mm: 6 },
    });
    const last = lastAllowed(scaleOf(station, 'rise'))!;
    expect(last).toBeLessThanOrEqual(12);
    expect(last * 100).toBeCloseTo(Math.round(last * 100), 6);
  });
});

describe('edits of the rig', () => {
  it('keep the document sound', () => {
    expect(withStops(base(), { f_min: 11 }).aperture).toBe(11);
    expect(withRangeEnd(base(), 'rise_mm', 0, 20).movement_limits.rise_mm).toEqual([-20, 12]);
    const free = parsed({ ...base(), movement_limits: { moves: 'front' } });
    expect(withRangeEnd(free, 'tilt_deg', 1, 8).movement_limits.tilt_deg).toEqual([-8, 8]);
    expect(parsed(withCriterionWay(base(), 'print')).criterion).toHaveProperty('print_width_mm');
  });

  it('say the same focus in another way', () => {
    const start = parsed({ ...base(), focus: { distance_m: 2 } });
    for (const way of ['magnification', 'image_distance', 'distance'] as const) {
      const said = parsed(withFocusWay(start, way));
      expect(focusWay(said.focus)).toBe(way);
      expect(focusDistanceM(said)).toBeCloseTo(2, 2);
    }
    const far = parsed({ ...base(), focus: { distance_m: null } });
    expect(withFocusWay(withFocusWay(far, 'image_distance'), 'distance').focus).toEqual({
      distance_m: null,
    });
  });
});

describe('why', () => {
  it('shows formula, numbers and source for each reason', () => {
    const leaned = parsed({ ...base(), movements: { ...base().movements, tilt_deg: 5 } });
    for (const station of [
      base(),
      leaned,
      withFocusWay(base(), 'magnification'),
      withFocusWay(base(), 'image_distance'),
    ]) {
      for (const reason of ['margin', 'limits', 'imageDistance'] as const) {
        const { formula, numbers, source, words } = why(reason, station);
        expect(formula).toMatch(/[=≤≥]/);
        expect(words).toMatch(/\.$/);
        expect(source).toMatch(/\.$/);
        for (const { value } of numbers) expect(value).not.toMatch(/NaN|undefined|Infinity/);
      }
    }
  });
});

describe('what stands between lens and back', () => {
  it('is said part by part, with a back that leans', () => {
    const station = parsed({
      ...base(),
      chain: [
        { kind: 'board', offset_mm: -20 },
        { kind: 'board', offset_mm: 0 },
        { kind: 'adapter', thickness_mm: 41.75 },
        { kind: 'multiplier', factor: 0.71, circle_limit_mm: 43 },
        { kind: 'view_camera', bellows_min_mm: 60, bellows_max_mm: 320 },
      ],
      movements: { ...base().movements, rear_tilt_deg: -3, rear_swing_deg: 2.5 },
    });
    expect(chainWords(station)).toEqual([
      'Recessed board, 20 mm',
      'Flat board',
      'Adapter, 41.75 mm',
      'Reducer 0.71 ×, passes a circle of 43 mm',
      'Bellows, 60 to 320 mm',
      'Back leaned 3.0° forward at its top',
      'Back swung 2.5° right',
    ]);
    expect(chainWords(base())).toEqual([]);
  });
});

describe('differences', () => {
  it('name each field in which two versions part', () => {
    const theirs = { ...base(), aperture: 11, focus: { distance_m: null } };
    expect(differences(base(), theirs)).toEqual([
      { name: 'aperture', mine: '8', theirs: '11' },
      { name: 'focus distance m', mine: '20', theirs: '∞' },
    ]);
  });

  it('say the gist of long lists of measurements, and still see one figure that parts', () => {
    const fall = (stops: number) => [{ f_number: 8, points: [{ radius_mm: 0, stops: 0 }, { radius_mm: 20, stops }] }]; // prettier-ignore
    const lens = (measured: object) => ({ name: '', measured });
    expect(differences(lens({}), { ...lens({ falloff: fall(1), files: ['a', 'b'] }) })).toEqual([
      { name: 'measured falloff', mine: '—', theirs: 'at f/8' },
      { name: 'measured files', mine: '—', theirs: '2 pictures' },
    ]);
    expect(differences(lens({ falloff: fall(1) }), lens({ falloff: fall(1.2) }))).toEqual([
      { name: 'measured falloff', mine: 'at f/8', theirs: 'at f/8, other figures' },
    ]);
    expect(differences(lens({ falloff: fall(1) }), lens({ falloff: fall(1) }))).toEqual([]);
    // Nothing written is not nothing there.
    expect(differences({ name: '' }, {})).toEqual([{ name: 'name', mine: '', theirs: '—' }]);
  });
});

describe('a text that is no figure', () => {
  const parsers = {
    length: (text: string) => parseLengthMm(text, 'mm'),
    distance: (text: string) => parseDistanceM(text, 'm'),
    angle: parseAngleDeg,
    aperture: parseFNumber,
    ratio: parseRatio,
    time: parseTimeS,
    stops: parseStops,
  };

  it.each(Object.entries(parsers))(
    'for a %s is told what it is not, and what to write',
    (_, parse) => {
      const told = (text: string): string => {
        const read = parse(text);
        return read.ok ? '' : read.message;
      };
      expect(told('soon')).toMatch(/^“soon” is not .*; write .*\.$/);
      expect(told('')).toMatch(/write|Write/);
      expect(told('9'.repeat(81))).toBe(
        'This is too long for a figure; write at most 80 characters.',
      );
      expect(told(`${'9'.repeat(10)}e400`)).toMatch(/too large to be a number|is not a/);
    },
  );
});
