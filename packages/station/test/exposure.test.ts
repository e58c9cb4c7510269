import {
  cardOf,
  centreStops,
  clockAfter,
  evaluate,
  exposureSteps,
  exposureVerdict,
  exposureWays,
  flashReading,
  parseStation,
  rangeHeld,
  untilS,
  withFlashReading,
  type Exposure,
  type Station,
} from '../src/index.js';
import { station, type Given } from './helpers/mosaic.js';

/** From the meter to the shutter, each figure worked by hand. */

const place = (exposure: Exposure, given: Given = {}): Station => station({ ...given, exposure });
const exposed = (exposure: Exposure, given: Given = {}) =>
  evaluate(place(exposure, given)).exposure!;
const codes = (exposure: Exposure, given: Given = {}): string[] =>
  exposed(exposure, given).problems.map(({ code }) => code);
const refused = (exposure: object): string[] => {
  const read = parseStation({ ...station({}), exposure });
  return read.ok ? [] : read.problems.map(({ pointer, message }) => `${pointer} ${message}`);
};

describe('the time', () => {
  it('goes with the square of the f-numbers, and against the sensitivity', () => {
    // 1/8 s at f/4 and ISO 400; f/8 and ISO 100 take 4 × 4 as long.
    const { time_s, given_s, dial_s, off_stops } = exposed({
      iso: 100,
      meter: { time_s: 1 / 8, f_number: 4, iso: 400 },
    });
    expect(time_s).toBeCloseTo(2, 12);
    expect(given_s).toBe(time_s);
    expect(dial_s).toBe(2);
    expect(off_stops).toBeCloseTo(0, 12);
  });

  it('takes filters, bellows and converters by hand, and filters alone through the lens', () => {
    const near: Given = {
      focus: { magnification: 0.5 },
      chain: [{ kind: 'multiplier', factor: 2 }],
    };
    const hand = exposed({ meter: { time_s: 1 }, filters: [{ stops: 1.5 }, { stops: 1 }] }, near);
    // What is set is the bare lens's: 2 log₂ 1.5.
    const bellows = evaluate(place({}, near)).focus.bellows_stops!;
    expect(hand.bellows_stops).toBe(bellows);
    expect(hand.bellows_stops).toBeCloseTo(2 * Math.log2(1.5), 9);
    expect(hand.multiplier_stops).toBeCloseTo(2, 12);
    expect(hand.added_stops).toBeCloseTo(2.5 + bellows + 2, 12);
    expect(hand.time_s).toBeCloseTo(2 ** (4.5 + bellows), 9);
    const seen = exposed(
      { meter: { time_s: 1, through_lens: true }, filters: [{ stops: 2.5 }] },
      near,
    );
    expect(seen.added_stops).toBe(2.5);
    expect(seen.time_s).toBeCloseTo(2 ** 2.5, 12);
  });

  it('is the same read as EV: EV 9 at f/8 is 1/8 s (ISO 2720, from memory)', () => {
    expect(exposed({ meter: { ev: 9 } }).time_s).toBeCloseTo(1 / 8, 12);
    // Read at ISO 400, used at 100: two stops more.
    expect(exposed({ iso: 100, meter: { ev: 9, iso: 400 } }).time_s).toBeCloseTo(1 / 2, 12);
  });

  it('lies halfway between the darkest and the brightest spot, or as one of them is placed', () => {
    const spots = [{ ev: 5 }, { ev: 9 }, { ev: 13 }];
    const even = exposed({ meter: { spots } });
    expect(even.time_s).toBeCloseTo(64 / 2 ** 9, 12);
    expect(even.scene_range_stops).toBe(8);
    // The shadow of EV 5 two stops under middle grey: exposed for EV 7.
    const placed = exposed({
      meter: { spots: [{ ev: 5, place_stops: -2 }, { ev: 9 }, { ev: 13 }] },
    });
    expect(placed.time_s).toBeCloseTo(64 / 2 ** 7, 12);
  });

  it('without a reading there is none, and the verdict says so', () => {
    const nothing = exposed({ filters: [{ stops: 1 }] });
    expect(nothing).toMatchObject({ time_s: null, given_s: null, dial_s: null, brackets_s: [] });
    expect(exposureVerdict(place({}), exposed({})).words).toBe('not metered yet');
  });
});

describe('film and shutter', () => {
  const slow = { exponent: 1.31, from_s: 1 };

  it('tells the time in words as engraved, or by the clock', () => {
    const at = place({
      meter: { time_s: 1.05 },
      reciprocity: slow,
      shutter: { kind: 'leaf', slowest_s: 1, fastest_s: 1 / 500, steps: 'half' },
    });
    const report = evaluate(at).exposure!;
    expect(report.given_s).toBeCloseTo(1.05 ** 1.31, 9);
    expect(report.dial_s).toBe(1);
    const longer = place({ ...at.exposure, meter: { time_s: 10 } });
    const clock = evaluate(longer).exposure!;
    expect(clock.dial_s).toBeNull();
    expect(exposureVerdict(longer, clock).figure).toBe('20.4 s');
    expect(clock.problems.map(({ code }) => code)).toEqual(['by_clock']);
  });

  it('a table is refused past its end: no time, and a stop that says how far it goes', () => {
    const table = [
      { metered_s: 1, given_s: 2 },
      { metered_s: 30, given_s: 180 },
    ];
    const past = place({ meter: { time_s: 60 }, reciprocity: { table } });
    const report = evaluate(past).exposure!;
    expect(report).toMatchObject({ given_s: null, dial_s: null });
    expect(report.problems).toEqual([
      expect.objectContaining({ code: 'past_table', severity: 'stop' }),
    ]);
    expect(report.problems[0]!.message).toContain('30 s metered; 1 min is past it');
    expect(exposureVerdict(past, report)).toMatchObject({ standing: 'outside', figure: 'No time' });
    // Of a bracket only the longest may be past it.
    const bracket = exposed({
      meter: { time_s: 20 },
      reciprocity: { table },
      brackets: { frames: 3, step_stops: 1 },
    });
    expect(bracket.brackets_s[2]).toBeNull();
    expect(bracket.problems.map(({ code }) => code)).toEqual(['bracket_past_table']);
  });

  it('a shutter that is too slow says by how much, and both cures bring it into reach', () => {
    const bright = place(
      {
        meter: { time_s: 1 / 2000 },
        shutter: { kind: 'leaf', fastest_s: 1 / 500, steps: 'full' },
      },
      { aperture: 8 },
    );
    const report = evaluate(bright).exposure!;
    expect(report.problems[0]).toMatchObject({ code: 'too_short', severity: 'stop' });
    const ways = exposureWays(bright);
    expect(ways.map(({ title }) => title)).toEqual([
      'Stop down to f/16',
      'Put on a grey filter of 2 stops',
    ]);
    for (const { after } of ways) {
      const then = evaluate(after).exposure!;
      expect(then.problems).toEqual([]);
      expect(then.given_s).toBeCloseTo(1 / 500, 6);
    }
  });

  it('film of which nothing is known is told of past a second, and not before', () => {
    const film: Given = { back: { medium: 'film' } };
    expect(codes({ meter: { time_s: 4 } }, film)).toEqual(['film_unknown']);
    expect(codes({ meter: { time_s: 1 } }, film)).toEqual([]);
    expect(codes({ meter: { time_s: 4 }, reciprocity: slow }, film)).toEqual([]);
    expect(codes({ meter: { time_s: 4 } })).toEqual([]);
  });
});

describe('brackets', () => {
  it('three, a stop and two thirds apart (common practice, no source), hold 9 + 3⅓ stops', () => {
    const report = exposed({
      meter: { time_s: 1 },
      brackets: { frames: 3, step_stops: 5 / 3 },
      medium_range_stops: 9,
      scene_range_stops: 12,
    });
    expect(report.brackets_s).toEqual([expect.closeTo(0.315, 3), 1, expect.closeTo(3.1748, 3)]);
    expect(report.span_stops).toBeCloseTo(12.333, 3);
    expect(report.covers_range).toBe(true);
  });

  it('each has the film’s answer of its own', () => {
    const report = exposed({
      meter: { time_s: 2 },
      brackets: { frames: 3, step_stops: 2 },
      reciprocity: { exponent: 1.5, from_s: 1 },
    });
    expect(report.brackets_s[0]).toBe(0.5);
    expect(report.brackets_s[1]).toBeCloseTo(2 ** 1.5, 12);
    expect(report.brackets_s[2]).toBeCloseTo(8 ** 1.5, 12);
  });

  it('too few are told of, and as many are offered as hold the scene', () => {
    const short = place({
      meter: { spots: [{ ev: 2 }, { ev: 16 }] },
      medium_range_stops: 7,
      brackets: { frames: 2, step_stops: 2 },
    });
    expect(evaluate(short).exposure).toMatchObject({
      covers_range: false,
      problems: [
        expect.objectContaining({
          code: 'range',
          message: 'The scene spans 14 stops; the bracket holds 9 stops.',
        }),
      ],
    });
    // 7 + 4 × 2 = 15 holds 14; 7 + 3 × 2 does not.
    const [way] = exposureWays(short);
    expect(way!.after.exposure!.brackets).toEqual({ frames: 5, step_stops: 2 });
  });

  it('a spot placed high or low leaves one end unheld, though the span would do', () => {
    // Darkest three stops under middle grey: the lights end at +7, and one exposure at +5.
    const placed = place({
      meter: { spots: [{ ev: 2, place_stops: -3 }, { ev: 12 }] },
      medium_range_stops: 10,
    });
    const report = evaluate(placed).exposure!;
    expect(report.covers_range).toBe(true);
    expect(rangeHeld(placed, report)).toMatchObject({
      scene: [-3, 7],
      frames: [[-5, 5]],
      past: { darks: 0, lights: 2 },
      covers: false,
    });
    expect(report.problems).toEqual([
      expect.objectContaining({
        code: 'range',
        message:
          'The scene spans 10 stops; one exposure holds 10 stops. Lost: 2 stops of the lights.',
      }),
    ]);
    const [way] = exposureWays(placed);
    expect(rangeHeld(way!.after, evaluate(way!.after).exposure!)!.covers).toBe(true);
  });

  it('steps wider than one exposure holds leave gaps, and narrower ones are offered', () => {
    const wide = place({
      meter: { ev: 10 },
      scene_range_stops: 12,
      medium_range_stops: 4,
      brackets: { frames: 3, step_stops: 5 },
    });
    const { problems, covers_range } = evaluate(wide).exposure!;
    expect(covers_range).toBe(true);
    expect(problems.map(({ code }) => code)).toEqual(['range_gaps']);
    const [way] = exposureWays(wide);
    expect(way!.after.exposure!.brackets!.step_stops).toBeLessThanOrEqual(4);
    expect(evaluate(way!.after).exposure!.problems).toEqual([]);
  });

  it('those past the shutter’s last step are held open by the clock', () => {
    const long: Exposure = {
      meter: { time_s: 1 / 2 },
      brackets: { frames: 3, step_stops: 2 },
      shutter: { kind: 'leaf', slowest_s: 1 },
    };
    const { brackets_dial_s, problems } = exposed(long);
    expect(brackets_dial_s).toEqual([1 / 8, 1 / 2, null]);
    expect(problems).toEqual([
      expect.objectContaining({
        code: 'by_clock',
        message: expect.stringContaining('The longest bracket is past the shutter’s last step'),
      }),
    ]);
  });
});

describe('corners', () => {
  // cos⁴ of 40.5° at the corner of 72 × 46 mm behind 50 mm, all but 1.6 stops.
  const wide = place({ meter: { time_s: 1 } }, { back: { width_mm: 72, height_mm: 46 } });

  it('that fall off are offered a centre filter or an exposure of their own', () => {
    const { corner_stops: corner } = evaluate(wide).exposure!;
    expect(corner).toBeCloseTo(-4 * Math.log2(Math.cos(Math.atan(Math.hypot(36, 23) / 50))), 1);
    const ways = exposureWays(wide);
    expect(ways.map(({ id }) => id)).toEqual(['centre filter', 'corner bracket']);
    const [filtered, bracketed] = ways.map(({ after }) => after);
    expect(centreStops(filtered!.exposure!)).toBeCloseTo(corner!, 1);
    expect(evaluate(filtered!).exposure!.time_s).toBeCloseTo(
      2 ** centreStops(filtered!.exposure!),
      9,
    );
    const { frames, step_stops: step } = bracketed!.exposure!.brackets!;
    expect(((frames - 1) / 2) * step).toBeGreaterThanOrEqual(corner!);
    // Evened out, nothing more is offered.
    expect(exposureWays(filtered!)).toEqual([]);
  });
});

describe('flash', () => {
  const unit = { flash: true, iso: 100 };

  it('is answered in aperture, power and pops, not in time', () => {
    // Read f/16 at full power, wanted f/16 through a bellows at life size: two stops, four pops.
    const report = exposed(
      { ...unit, meter: { f_number: 16 } },
      { aperture: 16, focus: { magnification: 1 } },
    );
    expect(report).toMatchObject({ time_s: null, given_s: null, dial_s: null });
    expect(report.flash_stops).toBeCloseTo(2, 9);
    expect(report.flash).toMatchObject({ pops: 4, power: expect.closeTo(1, 9) });
    // One pop serves two stops wider.
    expect(report.flash!.f_number).toBeCloseTo(8, 9);
  });

  it('at less than full power it is turned up first', () => {
    const { flash } = exposed(
      { ...unit, meter: { f_number: 8 }, flash_power: { metered: 1 / 8, least: 1 / 64 } },
      { aperture: 11.314 },
    );
    expect(flash).toMatchObject({ pops: 1, power: expect.closeTo(1 / 4, 4) });
  });

  it('more light than at its least power is a stop', () => {
    const bright: Exposure = {
      ...unit,
      meter: { f_number: 22 },
      flash_power: { metered: 1 / 32, least: 1 / 64 },
    };
    expect(codes(bright, { aperture: 5.6 })).toContain('flash_over');
    expect(codes(bright, { aperture: 22 })).not.toContain('flash_over');
  });

  it('opened up as offered, one pop does', () => {
    const four = place({ ...unit, meter: { f_number: 8 } }, { aperture: 16 });
    expect(evaluate(four).exposure!.flash!.pops).toBe(4);
    const way = exposureWays(four).find(({ id }) => id === 'one pop')!;
    expect(way.title).toBe('Open up to f/8');
    expect(evaluate(way.after).exposure!.flash).toMatchObject({ pops: 1 });
  });

  it('takes no stop a time was metered at for its own reading', () => {
    const metered = place({ ...unit, meter: { time_s: 1 / 60, f_number: 8 } });
    expect(evaluate(metered).exposure).toMatchObject({ flash: null });
    expect(flashReading(metered.exposure!)).toBeUndefined();
    expect(cardOf(metered).steps.map(({ part }) => part)).not.toContain('meter');
    const read = withFlashReading(metered, 11);
    expect(read.exposure!.meter).toEqual({ f_number: 11 });
    expect(evaluate(read).exposure!.flash).not.toBeNull();
  });

  it('asks a time the shutter is fully open at', () => {
    const lit = (shutter: Exposure['shutter']): string[] =>
      codes({ ...unit, meter: { f_number: 8 }, shutter });
    expect(lit({ kind: 'leaf' })).toEqual([]);
    expect(lit({ kind: 'focal_plane', sync_s: 1 / 180 })).toEqual(['sync']);
    expect(lit({ kind: 'electronic', readout_s: 0.05 })).toEqual(['sync']);
  });
});

describe('what moves', () => {
  // 50 mm at infinity, 6 µm: at 50 m less the image distance, m = 50 / 49 950.
  const tram = {
    meter: { time_s: 1 / 64 },
    crossing: { speed_m_s: 10, distance_m: 50 },
    shutter: { kind: 'electronic', readout_s: 0.03, steps: 'full' },
  } satisfies Exposure;

  it('is smeared by the time and skewed by the read, in pixels', () => {
    const { smear_px, skew_px, problems } = exposed(tram);
    const perSecond = (10_000 * 50) / 49_950 / 0.006;
    expect(smear_px).toBeCloseTo(perSecond / 64, 6);
    expect(skew_px).toBeCloseTo(perSecond * 0.03, 6);
    expect(problems.map(({ code }) => code)).toEqual(['skew']);
  });

  it('crosses in focus where nobody said how far off, which is told as assumed', () => {
    const { distance_m: _, ...crossing } = tram.crossing;
    const near = evaluate(place({ ...tram, crossing }, { focus: { distance_m: 50 } }));
    expect(near.exposure!.skew_px).toBeCloseTo(
      exposed(tram, { focus: { distance_m: 50 } }).skew_px!,
      3,
    );
    expect(near.assumed).toContainEqual(
      expect.objectContaining({ pointer: '/exposure/crossing/distance_m', value: 50 }),
    );
    const far = evaluate(place({ ...tram, crossing }, { focus: { distance_m: null } }));
    expect(far.exposure).toMatchObject({ skew_px: null, smear_px: null });
  });

  it('is not skewed by a leaf shutter', () => {
    expect(exposed({ ...tram, shutter: { kind: 'leaf' } }).skew_px).toBe(0);
    expect(codes({ ...tram, shutter: { kind: 'electronic' } })).toEqual(['skew_unknown']);
  });
});

describe('by the clock', () => {
  it('ends when all of it is done, past midnight too', () => {
    expect(clockAfter('23:58', 150)).toBe('00:00:30');
    expect(untilS('22:00', '01:00')).toBe(3 * 3600);
    const long = exposed({
      meter: { time_s: 600 },
      brackets: { frames: 2, step_stops: 0 },
      starts_at: '16:20',
      ends_by: '16:30',
    });
    expect(long).toMatchObject({ total_s: 1200, ends_at: '16:40:00' });
    expect(long.problems).toEqual([
      expect.objectContaining({
        code: 'ends_late',
        message: 'It ends at 16:40:00, 10 min after 16:30: begin earlier.',
      }),
    ]);
  });
});

describe('light that is gone', () => {
  it('a shutter that opens after it is late, one that opens before midnight is not', () => {
    const opened = (starts_at: string, ends_by: string): string[] =>
      codes({ meter: { time_s: 60 }, starts_at, ends_by });
    expect(opened('16:20', '16:10')).toEqual(['ends_late']);
    expect(opened('22:00', '05:00')).toEqual([]);
  });
});

describe('the steps between meter and shutter', () => {
  it('add up from the metered to the given time', () => {
    const at = place(
      {
        iso: 50,
        meter: { time_s: 1 / 4, iso: 100, f_number: 11 },
        filters: [{ name: 'Orange', stops: 1.3 }, { stops: 1.5 }],
        reciprocity: { exponent: 1.31, from_s: 1 },
        compensation_stops: -0.5,
      },
      { focus: { magnification: 0.2 } },
    );
    const report = evaluate(at).exposure!;
    const steps = exposureSteps(at, at.exposure!, report, 'metric');
    expect(steps.map(({ title }) => title)).toEqual([
      'Meter',
      'Aperture, f/8',
      'ISO 50',
      'Bellows',
      'Orange',
      'Filter 2',
      'Compensation',
      'Film, long time',
    ]);
    const last = steps.at(-1)!;
    expect(2 ** (last.from + last.stops)).toBeCloseTo(report.given_s!, 9);
    steps.slice(1).forEach(({ from }, i) => {
      expect(from).toBeCloseTo(steps[i]!.from + steps[i]!.stops, 12);
    });
  });
});

describe('what is refused', () => {
  it.each([
    [{ meter: { time_s: 1, ev: 9 } }, '/exposure/meter/ev must be left out beside time_s'],
    [{ reciprocity: { exponent: 1.3, from_s: 1, table: [] } }, '/exposure/reciprocity'],
    [
      {
        reciprocity: {
          table: [
            { metered_s: 2, given_s: 3 },
            { metered_s: 1, given_s: 4 },
          ],
        },
      },
      '/exposure/reciprocity/table/1/metered_s must be above 2 s',
    ],
    [
      {
        reciprocity: {
          table: [
            { metered_s: 2, given_s: 1 },
            { metered_s: 3, given_s: 4 },
          ],
        },
      },
      '/exposure/reciprocity/table/0/given_s must be at least the metered time',
    ],
    [
      {
        meter: {
          spots: [
            { ev: 1, place_stops: 0 },
            { ev: 2, place_stops: 1 },
          ],
        },
      },
      '/exposure/meter/spots/1/place_stops must be left out',
    ],
    [
      { shutter: { kind: 'leaf', fastest_s: 1, slowest_s: 0.1 } },
      '/exposure/shutter/fastest_s must be at most slowest_s',
    ],
    [{ development: 'soft' }, '/exposure/development needs a film'],
    [{ starts_at: '25:00' }, '/exposure/starts_at must be a time of day'],
    [{ meter: { time_s: 0 } }, '/exposure/meter/time_s must be a number of s'],
  ])('%j', (exposure, says) => {
    expect(refused(exposure).join('\n')).toContain(says);
  });

  it('a station from before, with brackets alone, is read as it was', () => {
    expect(refused({ brackets: { frames: 3, step_stops: 1 } })).toEqual([]);
  });
});
