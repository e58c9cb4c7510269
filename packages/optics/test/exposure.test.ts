import fc from 'fast-check';
import {
  apertureStops,
  bellowsStops,
  bracketSpanStops,
  bracketTimesS,
  crossedMm,
  dialStep,
  evOf,
  givenTimeS,
  multiplierStops,
  readStops,
  readTimeS,
  popsFor,
  timeOfEv,
} from '../src/index.js';

describe('a reading', () => {
  it.each([
    // ISO 2720, from memory: EV 0 is 1 s at f/1; each EV halves the light.
    [0, 1, 1],
    [15, 16, 1 / 128],
    [12, 8, 1 / 64],
    [-2, 1.4142135623730951, 8],
  ])('EV %p at f/%p asks %p s', (ev, fNumber, timeS) => {
    expect(timeOfEv(ev, fNumber)).toBeCloseTo(timeS, 12);
    expect(evOf(timeS, fNumber)).toBeCloseTo(ev, 12);
  });

  it('full sun is f/16 at one over the sensitivity (common practice, no source): EV 15 at ISO 100 within a third', () => {
    expect(Math.abs(evOf(1 / 100, 16) - 15)).toBeLessThan(0.36);
  });

  it('f/8 to f/11.3 is a stop; a 1.4 × converter takes one, a 0.71 × reducer gives one', () => {
    expect(apertureStops(8 * Math.SQRT2, 8)).toBeCloseTo(1, 12);
    expect(multiplierStops(Math.SQRT2)).toBeCloseTo(1, 12);
    expect(multiplierStops(0.71)).toBeCloseTo(-0.988, 3);
  });
});

describe('bellows', () => {
  it.each([
    // Ray, Applied Photographic Optics, 3rd ed., 2002: time goes with (1 + m)²; life size asks four times.
    [1, 1, 2],
    [0.5, 1, 2 * Math.log2(1.5)],
    // At twice life size nine times.
    [2, 1, Math.log2(9)],
  ])('at a magnification of %p: %p, %p stops', (m, p, stops) => {
    expect(bellowsStops(m, p)).toBeCloseTo(stops, 12);
  });

  it('110 mm, subject 1 m from the film: read as half a stop (common practice, no source), exactly 0.39', () => {
    // D = v + u with 1/u + 1/v = 1/f.
    const v = (1000 - Math.sqrt(1000 ** 2 - 4 * 1000 * 110)) / 2;
    expect(bellowsStops(v / 110 - 1, 1)).toBeCloseTo(0.39, 2);
  });
});

describe('long times on film', () => {
  it('by exponent, worked by hand: 10 s at 1.31 past 1 s asks 10^1.31 = 20.4 s', () => {
    const film = { exponent: 1.31, from_s: 1 };
    expect(givenTimeS(10, film)).toBeCloseTo(20.417, 3);
    expect(givenTimeS(1, film)).toBe(1);
    expect(givenTimeS(0.5, film)).toBe(0.5);
    // Past 2 s: 2 (8/2)^1.5 = 16.
    expect(givenTimeS(8, { exponent: 1.5, from_s: 2 })).toBeCloseTo(16, 12);
  });

  const table = [
    { metered_s: 1, given_s: 2 },
    { metered_s: 10, given_s: 50 },
    { metered_s: 100, given_s: 1200 },
  ];

  it('by table: its entries as they are, straight in logarithms between, as metered before', () => {
    for (const { metered_s, given_s } of table) {
      expect(givenTimeS(metered_s, { table })).toBeCloseTo(given_s, 9);
    }
    // Halfway in logarithms: √(1 · 10) asks √(2 · 50).
    expect(givenTimeS(Math.sqrt(10), { table })).toBeCloseTo(10, 9);
    expect(givenTimeS(0.5, { table })).toBe(0.5);
  });

  it('a table is refused past its end, whatever rounding does to its last entry', () => {
    expect(givenTimeS(100.1, { table })).toBeNull();
    expect(givenTimeS(0.1 * 1000, { table })).toBeCloseTo(1200, 6);
    expect(givenTimeS(100 * (1 + 1e-12), { table })).toBeCloseTo(1200, 6);
  });

  it('a table made from an exponent gives what the exponent gives', () => {
    const film = { exponent: 1.26, from_s: 1 };
    const made = [1, 3, 12, 80].map((metered_s) => ({
      metered_s,
      given_s: givenTimeS(metered_s, film)!,
    }));
    fc.assert(
      fc.property(fc.double({ min: 1, max: 80, noNaN: true }), (t) => {
        expect(givenTimeS(t, { table: made })! / givenTimeS(t, film)!).toBeCloseTo(1, 9);
      }),
    );
  });
});

describe('the shutter’s scale', () => {
  it.each([
    [1 / 125, 'third', -7, 1 / 128],
    [0.4, 'half', Math.round(2 * Math.log2(0.4)) / 2, 2 ** -1.5],
    [1.34, 'third', 1 / 3, 2 ** (1 / 3)],
    [0.7, 'full', -1, 0.5],
  ] as const)('%p s on %p steps stands at 2^%p', (given, steps, _power, timeS) => {
    expect(dialStep(given, { steps })!.timeS).toBeCloseTo(timeS, 12);
  });

  it('its nearest step is never off by more than half a step', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -13, max: 12, noNaN: true }),
        fc.constantFrom('full' as const, 'half' as const, 'third' as const),
        (log, steps) => {
          const { offStops, timeS } = dialStep(2 ** log, { steps })!;
          const per = { full: 1, half: 2, third: 3 }[steps];
          expect(Math.abs(offStops)).toBeLessThanOrEqual(0.5 / per + 1e-9);
          expect(Math.log2(timeS) - log).toBeCloseTo(offStops, 9);
        },
      ),
    );
  });

  it('ends as engraved: 30 s is a step of a shutter that goes to 30 s, 40 s is held by the clock', () => {
    expect(dialStep(31, { steps: 'third', slowestS: 30 })!.timeS).toBe(32);
    expect(dialStep(40, { steps: 'third', slowestS: 30 })).toBeNull();
    expect(dialStep(1.05, { steps: 'half', slowestS: 1 })!.timeS).toBe(1);
    expect(dialStep(1.4, { steps: 'half', slowestS: 1 })).toBeNull();
    const fastest = dialStep(1 / 4000, { steps: 'half', fastestS: 1 / 500 })!;
    expect(fastest.timeS).toBe(1 / 512);
    expect(fastest.offStops).toBeCloseTo(Math.log2(4000 / 512), 12);
  });
});

describe('brackets, pops and what crosses', () => {
  it('three a stop and two thirds apart (common practice, no source) lie evenly about the metered time', () => {
    const times = bracketTimesS(1, 3, 5 / 3);
    expect(times.map(Math.log2)).toEqual([-5 / 3, 0, 5 / 3].map((x) => expect.closeTo(x, 12)));
    expect(bracketTimesS(1, 2, 2)).toEqual([0.5, 2]);
    expect(bracketSpanStops(9, 3, 5 / 3)).toBeCloseTo(12.333, 3);
  });

  it('four times the light of one pop takes four; a twentieth more is missed by nobody', () => {
    expect([0.3, 1, 1.05, 1.2, 4, 4.5].map(popsFor)).toEqual([1, 1, 1, 2, 4, 5]);
  });

  it('a tram at 10 m/s, pictured at 1:500, runs 0.4 mm in a read of 20 ms', () => {
    expect(crossedMm(10, 0.02, 1 / 500)).toBeCloseTo(0.4, 12);
  });
});

describe('times and stops as people write them', () => {
  it.each([
    ['1/125', 1 / 125],
    ['0.5', 0.5],
    ['4 s', 4],
    ['4"', 4],
    ['2 min', 120],
    ['1m30', 90],
    ['1\' 30"', 90],
    ['1:30', 90],
    ['1:05:00', 3900],
    ['1 h 5 min', 3900],
    ['1h5', 3900],
    ['8 ms', 0.008],
    ['1,3 s', 1.3],
  ])('%p is %p s', (text, value) => {
    expect(readTimeS(text)).toEqual({ ok: true, value: expect.closeTo(value, 12) });
  });

  it.each(['', 'soon', '5 min 3 h', '1:2:3:4', '4 s s'])('%p is no time', (text) => {
    const read = readTimeS(text);
    expect(read.ok).toBe(false);
    expect(read).toMatchObject({ unreadable: expect.stringMatching(/_time$/) });
  });

  it.each([
    ['1 1/3', 4 / 3],
    ['1⅓', 4 / 3],
    ['-2/3', -2 / 3],
    ['+0.7 stops', 0.7],
    ['8x', 3],
    ['×2', 1],
    ['2.5×', Math.log2(2.5)],
  ])('%p is %p stops', (text, value) => {
    expect(readStops(text)).toEqual({ ok: true, value: expect.closeTo(value, 12) });
  });

  it('a factor of nothing is refused', () => {
    expect(readStops('0×').ok).toBe(false);
    expect(readStops('bright').ok).toBe(false);
  });
});
