import fc from 'fast-check';
import { coverDrawing, newStation, scalesOf, type Station, type Units } from '@gangway/station';
import { engrave } from '../src/station/barrel/engraving.js';
import { allowedWords, editable, figureOf } from '../src/station/barrel/words.js';
import { ellipseProps, makeSheet, pathOf } from '../src/drawing/finder-sheet.js';

const station = newStation('x');
const scales = Object.values(scalesOf(station));
const WIDTH = 380;

const number = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const altered = (change: Partial<Station['movements']>): Station => ({
  ...station,
  movements: { ...station.movements, ...change },
});

describe('engraved scales', () => {
  it.each(scales.map((scale) => [scale.id, scale] as const))(
    '%s: a place gives back its value',
    (_id, scale) => {
      const { toX, fromX } = engrave(scale, WIDTH, 'metric');
      fc.assert(
        fc.property(number(0, 1), (share) => {
          const value = scale.domain[0] + share * (scale.lastFinite - scale.domain[0]);
          expect(fromX(toX(value))).toBeCloseTo(value, 6);
          expect(toX(value)).toBeGreaterThanOrEqual(0);
          expect(toX(value)).toBeLessThanOrEqual(WIDTH);
        }),
      );
    },
  );

  it.each(
    scales.flatMap((scale) =>
      (['metric', 'feet'] as Units[]).map((units) => [scale.id, units, scale] as const),
    ),
  )('%s in %s: labels rise along the scale and do not run into each other', (_id, units, scale) => {
    const { toX, ticks } = engrave(scale, WIDTH, units);
    const places = ticks.filter(({ label }) => label !== null).map(({ value }) => toX(value));
    expect(places.length).toBeGreaterThanOrEqual(4);
    for (let i = 1; i < places.length; i++) {
      expect(places[i]! - places[i - 1]!).toBeGreaterThan(16);
    }
  });

  it('the distance scale ends in infinity, which a drag to the end reaches', () => {
    const distance = scales.find((scale) => scale.id === 'distance')!;
    const { toX, fromX, ticks } = engrave(distance, WIDTH, 'metric');
    expect(toX(Infinity)).toBe(WIDTH);
    expect(fromX(WIDTH)).toBe(Infinity);
    expect(fromX(WIDTH * 0.5)).toBeLessThan(50);
    expect(ticks.at(-1)).toEqual({ value: Infinity, label: '∞' });
  });

  it('stands still while its own value and the other settings change', () => {
    for (const change of [{ rise_mm: 7 }, { tilt_deg: 4, shift_mm: -3 }]) {
      Object.values(scalesOf(altered(change))).forEach((scale, i) => {
        expect(scale.domain).toEqual(scales[i]!.domain);
        expect(scale.lastFinite).toBe(scales[i]!.lastFinite);
      });
    }
  });
});

describe('words on the barrel', () => {
  it.each([
    [figureOf('rise', 9, 'metric'), ['9.0', 'mm up']],
    [figureOf('rise', -2.35, 'metric'), ['2.35', 'mm fall']],
    [figureOf('shift', -4, 'metric'), ['4.0', 'mm left']],
    [figureOf('tilt', 3.5, 'metric'), ['3.5', '° forward']],
    [figureOf('swing', 0, 'metric'), ['0.0', '°']],
    [figureOf('aperture', 11, 'metric'), ['f/11', '']],
    [figureOf('distance', Infinity, 'feet'), ['∞', '']],
    [[editable('rise', -2.3, 'metric')], ['−2.3']],
  ])('%j', (got, expected) => expect(got).toEqual(expected));

  it('say how far a scale serves, and when none or all of it does', () => {
    const words = (made: Station, id: 'rise' | 'tilt' | 'swing' | 'aperture'): string =>
      allowedWords(scalesOf(made)[id], 'metric');
    expect(words(station, 'aperture')).toBe('all serve');
    expect(words(station, 'rise')).toBe('−12.0 to 12.0');
    const locked = {
      ...station,
      movement_limits: { ...station.movement_limits, tilt_deg: [0, 0] as [number, number] },
    };
    expect(words(locked, 'tilt')).toBe('not on this rig');
    const inLine = {
      ...altered({ rise_mm: 5 }),
      movement_limits: { ...station.movement_limits, shift_tilt: 'in_line' as const },
    };
    expect(words(inLine, 'swing')).toBe('blocked as the others are set');
    expect(words(altered({ shift_mm: 30 }), 'rise')).toBe('no setting serves');
    expect(words({ ...altered({ rise_mm: 12, shift_mm: 7 }), aperture: 3.5 }, 'rise')).toMatch(
      /^serves: /,
    );
  });
});

describe('the sheet of the Cover drawing', () => {
  const drawing = coverDrawing(altered({ rise_mm: 9, shift_mm: 2 }));

  it('gives back places, also turned as on a ground glass', () => {
    for (const groundGlass of [false, true]) {
      const sheet = makeSheet(drawing, 900, 500, groundGlass);
      fc.assert(
        fc.property(number(-40, 40), number(-40, 40), (x, y) => {
          const back = sheet.back(sheet.x(x), sheet.y(y));
          expect(back.x).toBeCloseTo(x, 9);
          expect(back.y).toBeCloseTo(y, 9);
        }),
      );
    }
  });

  it('is upside down and left to right on the ground glass', () => {
    const [upright, turned] = [false, true].map((flip) => makeSheet(drawing, 900, 500, flip));
    expect(upright!.y(9)).toBeLessThan(250);
    expect(turned!.y(9)).toBeCloseTo(500 - upright!.y(9), 9);
    expect(turned!.x(2)).toBeCloseTo(900 - upright!.x(2), 9);
  });

  it('does not change its size while the frame moves within the circle', () => {
    const size = (rise_mm: number): number =>
      makeSheet(coverDrawing(altered({ rise_mm })), 900, 500, false).scaleX;
    expect(size(-12)).toBe(size(0));
    expect(size(12)).toBe(size(0));
  });

  it('draws a round circle round and the envelope closed', () => {
    const sheet = makeSheet(drawing, 900, 500, false);
    const { rx, ry, cx, cy } = ellipseProps(sheet, drawing.circle!);
    expect(rx).toBeCloseTo(ry, 6);
    expect([cx, cy]).toEqual([450, 250]);
    expect(pathOf(sheet, drawing.envelope)).toMatch(/^M.*Z$/);
  });
});
