import fc from 'fast-check';
import {
  changesBetween,
  coverVerdict,
  evaluate,
  fStop,
  framingWays,
  markWays,
  parseStation,
  readings,
  standingOf,
  stateOf,
  waysOut,
  type FramingWay,
  type Station,
} from '../src/index.js';
import { framedWell } from '../src/facade/verdict.js';
import { base, parsed, stations } from './helpers/rigs.js';
import { within } from './helpers/worlds.js';

/** How each setting is called where a way speaks of it; written here, apart from the words themselves. */
const SPOKEN: readonly (readonly [RegExp, (after: Station, title: string) => RegExp])[] = [
  [/^\/movements\/rise_mm/, () => /rise|fall|Raise|Lower|lift|drop|Ease (to|the back)/i],
  [/^\/movements\/shift_mm/, () => /shift|Ease (to|the back)/i],
  [/^\/movements\/tilt_deg/, () => /tilt|lean/i],
  [/^\/movements\/swing_deg/, () => /swing|lean/i],
  [/^\/aperture/, (after) => new RegExp(fStop(after.aperture).replace('.', '\\.'))],
  [/^\/back\/orientation/, ({ back }) => (back.orientation === 'portrait' ? /upright/ : /level/)],
  [/^\/camera\/height_m/, () => /Raise the camera|Lower the camera/],
  [/^\/camera\/pitch_deg/, () => /Point the camera/],
  [/^\/crop/, ({ crop }) => (crop ? /Crop to/ : /not cropped/)],
  [/^\/mosaic/, ({ mosaic }) => (mosaic ? /frames/ : /one frame/)],
  // What stands in front comes no nearer by itself: it is the camera that steps.
  [/^\/(facade|site|marks)/, () => /Step (back|closer)/],
  [/^\/focus/, () => /focus|draw/],
];

interface Offer {
  readonly title: string;
  readonly detail: string;
  readonly after: Station;
}

function saysAll(before: Station, { title, detail, after }: Offer): void {
  for (const pointer of Object.keys(changesBetween(before, after))) {
    const [, words] = SPOKEN.find(([of]) => of.test(pointer)) ?? [];
    if (!words) throw new Error(`nothing names ${pointer} in “${title}; ${detail}”`);
    expect(`${title}; ${detail}`).toMatch(words(after, title));
  }
}

/** Whether one step leads back to where the one before came from. */
const undoes = (before: Station, next: Offer): boolean =>
  Object.keys(changesBetween(before, next.after)).length === 0;

const turning = fc.constantFrom(
  {},
  { radial_shift_mm: 12, turn_stops_deg: [0, 30, 60, 90] },
  { radial_shift_mm: 12, radial_tilt_deg: 8, shift_tilt: 'crossed', one_way_tilt: true },
);

const scenes = fc
  .record({
    station: stations(),
    turning,
    wide: within(0.4, 1.4),
    high: within(0.3, 1.2),
    away: within(150, 1500),
    marks: fc.array(fc.tuple(within(-0.8, 0.8), within(-0.5, 0.8)), { maxLength: 2 }),
  })
  .map(({ station, turning: turns, wide, high, away, marks }): Station => {
    const f = station.lens.focal_length_mm;
    const distance_m = (away * f) / 1000;
    const { width_mm } = station.back;
    const size = (share: number): number => (share * width_mm * distance_m) / f;
    return parsed({
      ...station,
      movement_limits: { ...station.movement_limits, ...turns },
      facade: { distance_m, width_m: size(wide), top_m: 1.6 + size(high), base_m: 0 },
      marks: marks.map(([x, y], i) => ({
        label: `M${i}`,
        x_m: size(x),
        y_m: 1.6 + size(y),
        z_m: distance_m,
        must: 'sharp',
      })),
    });
  });

const byHand = (before: Station, after: Station): void => {
  if (readings(before).turning?.reached === false) return;
  expect(readings(after).turning?.reached ?? true).toBe(true);
};

describe('ways out of a corner', () => {
  it('cure what they are offered for, name every change, can be set by hand and lead in no circle', () => {
    fc.assert(
      fc.property(scenes, (station) => {
        const before = stateOf(station);
        for (const way of waysOut(station)) {
          const after = stateOf(way.after);
          if (before === 'soft') expect(after).toBe('sharp');
          else expect(standingOf(after)).not.toBe('outside');
          expect(parseStation(way.after).ok).toBe(true);
          saysAll(station, way);
          byHand(station, way.after);
          for (const next of waysOut(way.after)) expect(undoes(station, next)).toBe(false);
        }
      }),
      { numRuns: 2000 },
    );
  });

  it('for marks outside the frame: the same', () => {
    fc.assert(
      fc.property(scenes, (station) => {
        const ways = markWays(station);
        fc.pre(ways.length > 0);
        for (const way of ways) {
          expect(readings(way.after).marks!.every(({ in_frame }) => in_frame)).toBe(true);
          expect(standingOf(stateOf(way.after))).not.toBe('outside');
          saysAll(station, way);
          byHand(station, way.after);
          expect(markWays(way.after)).toEqual([]);
          for (const next of waysOut(way.after)) expect(undoes(station, next)).toBe(false);
        }
      }),
      { numRuns: 100 },
    );
  });

  it('of framing a façade: the same, and no way out of a soft corner takes it back', () => {
    fc.assert(
      fc.property(scenes, (station) => {
        const ways: FramingWay[] = framingWays(station);
        fc.pre(ways.length > 0);
        for (const way of ways) {
          expect(framedWell(way.after)).toBe(true);
          saysAll(station, way);
          byHand(station, way.after);
          expect(framingWays(way.after)).toEqual([]);
          if (way.after.mosaic || stateOf(way.after) !== 'soft') continue;
          for (const next of waysOut(way.after)) expect(framedWell(next.after)).toBe(true);
        }
      }),
      { numRuns: 100 },
    );
  });
});

/** 24 mm whose circle is 60 wide open and 67 from f/8, with 12 mm of shift. */
const front = (more: Partial<Station> = {}): Station =>
  parsed({
    ...base(),
    lens: {
      focal_length_mm: 24,
      f_min: 3.5,
      f_max: 22,
      circle: [
        { f_number: 3.5, diameter_mm: 60 },
        { f_number: 8, diameter_mm: 67 },
      ],
    },
    aperture: 8,
    focus: { distance_m: null },
    facade: { distance_m: 18, top_m: 19, width_m: 14, base_m: 0 },
    ...more,
  });

describe('a façade 19 m high and 14 m wide from 18 m', () => {
  it('asks for its rise rounded up, never to what does not serve', () => {
    const upright = front({ back: { ...base().back, orientation: 'portrait' } });
    // By hand: 24 (19 − 1.6) / 17.976 − 18 = 5.23 mm.
    const { rise_needed_mm } = evaluate(upright).facade!;
    expect(rise_needed_mm).toBeCloseTo((24 * 17.4) / 17.976 - 18, 1);
    const verdict = coverVerdict(upright, evaluate(upright));
    expect(verdict.figure).toBe(`${(Math.ceil(rise_needed_mm! * 10) / 10).toFixed(1)} mm`);
    const set = {
      ...upright,
      movements: { ...upright.movements, rise_mm: Number.parseFloat(verdict.figure) },
    };
    expect(evaluate(set).facade!.framed).toBe(true);
  });

  it('half a millimetre short is cured by that half millimetre, not by nine remedies', () => {
    const upright = front({ back: { ...base().back, orientation: 'portrait' } });
    const needed = evaluate(upright).facade!.rise_needed_mm!;
    const short = {
      ...upright,
      movements: { ...upright.movements, rise_mm: Math.floor((needed - 0.5) * 10) / 10 },
    };
    const ways = framingWays(short);
    expect(ways[0]!.id).toBe('frame-move');
    expect(ways.length).toBeLessThanOrEqual(2);
    expect(stateOf(ways[0]!.after)).toBe('sharp');
  });

  it('wide open, a corner half a millimetre out is eased by that much', () => {
    const level = front({ aperture: 3.5, facade: undefined as never });
    const { facade: _, ...bare } = level;
    const limit = evaluate(bare as Station).coverage.limits.rise_mm!;
    const out = {
      ...bare,
      movements: { ...base().movements, rise_mm: Number((limit + 0.5).toFixed(2)) },
    } as Station;
    const ways = waysOut(out);
    expect(ways.length).toBeLessThanOrEqual(4);
    const ease = ways.find(({ id }) => id === 'ease-rise')!;
    expect(out.movements.rise_mm - ease.after.movements.rise_mm).toBeLessThan(0.65);
  });
});
