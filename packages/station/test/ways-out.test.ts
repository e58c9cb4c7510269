import fc from 'fast-check';
import { tiltSwingOf, turnedAxis } from '@gangway/optics';
import {
  CONTROLS,
  coverDrawing,
  coverVerdict,
  evaluate,
  parseStation,
  standingOf,
  stateOf,
  waysOut,
  withFrameAt,
  type Station,
} from '../src/index.js';
import { base, parsed, stations } from './helpers/rigs.js';
import { runs } from '../../../scripts/lib/runs.mjs';

const moved = (movements: Partial<Station['movements']>, more: Partial<Station> = {}): Station =>
  parsed({ ...base(), ...more, movements: { ...base().movements, ...movements } });

const titles = (station: Station): string[] => waysOut(station).map((way) => way.title);

describe('ways out', () => {
  it('every one, once taken, passes the verdict it was offered for, and parses', () => {
    fc.assert(
      fc.property(stations({ leanDeg: 15 }), (station) => {
        const before = stateOf(station);
        for (const way of waysOut(station)) {
          const after = stateOf(way.after);
          expect(way.state).toBe(after);
          if (before === 'soft') expect(after).toBe('sharp');
          else expect(standingOf(after)).not.toBe('outside');
          expect(parseStation(way.after).ok).toBe(true);
        }
      }),
      { numRuns: runs(150) },
    );
  });

  it('those that cut a façade which was whole say so, and stand behind the others', () => {
    const station = moved(
      { rise_mm: 11.5 },
      {
        aperture: 3.5,
        lens: {
          ...base().lens,
          circle: [
            { f_number: 3.5, diameter_mm: 56 },
            { f_number: 11, diameter_mm: 68 },
          ],
        },
        focus: { distance_m: null },
        facade: { distance_m: 20, top_m: 21, width_m: 8 },
      },
    );
    expect(evaluate(station).facade!.framed).toBe(true);
    const ways = waysOut(station);
    const ease = ways.findIndex(({ id }) => id === 'ease-rise');
    const stop = ways.findIndex(({ id }) => id === 'stop-down');
    expect(ways[ease]!.detail).toContain('cuts the façade');
    expect(ways[stop]!.detail).not.toContain('cuts');
    expect(stop).toBeLessThan(ease);
  });

  it('none when all is well', () => {
    expect(stateOf(base())).toBe('sharp');
    expect(titles(base())).toEqual([]);
  });

  it('names the stop, the movement and by how much, for a corner that is out', () => {
    const station = moved({ rise_mm: 12, shift_mm: 6 }, { aperture: 3.5 });
    expect(stateOf(station)).toBe('outside');
    const ways = waysOut(station);
    expect(ways.map((way) => way.id).sort()).toEqual([
      'ease-rise',
      'ease-shift',
      'ease-together',
      'stop-down',
    ]);
    const rise = ways.find((way) => way.id === 'ease-rise')!;
    const limit = evaluate(station).coverage.limits.rise_mm!;
    expect(rise.after.movements.rise_mm).toBeCloseTo(Math.floor(limit * 10) / 10, 9);
    expect(rise.title).toBe(`Ease the rise to ${rise.after.movements.rise_mm.toFixed(1)} mm`);
    const stop = ways.find((way) => way.id === 'stop-down')!;
    expect(stop.title).toMatch(/^Stop down to f\/\d/);
    expect(stop.detail).toMatch(/costs \S+ stops?; diffraction begins$/);
    // No wider engraved stop would do.
    expect(stateOf({ ...station, aperture: stop.after.aperture / 2 ** (1 / 6) })).toBe('outside');
  });

  it('turns the back when that brings the corners in', () => {
    const station = moved({ shift_mm: 12 }, { aperture: 3.5 });
    expect(stateOf(station)).toBe('outside');
    const way = waysOut(station).find((each) => each.id === 'turn-back');
    expect(way?.after.back.orientation).toBe('portrait');
    expect(way?.title).toBe('Turn the back upright');
  });

  it('leads back inside the mechanism', () => {
    const station = moved({ rise_mm: 14 });
    expect(coverVerdict(station, evaluate(station))).toMatchObject({
      state: 'beyond',
      standing: 'outside',
      figure: '14.0 mm',
    });
    expect(titles(station)).toContain('Ease the rise to 12.0 mm');
    const turning = moved(
      { rise_mm: 10, shift_mm: 8 },
      { movement_limits: { moves: 'front', radial_shift_mm: 12 } },
    );
    expect(stateOf(turning)).toBe('beyond');
  });

  it('counts a turning lens by the length of its movement, however it is turned', () => {
    const limits = { moves: 'front' as const, radial_tilt_deg: 8, radial_shift_mm: 12 };
    const turned = tiltSwingOf(turnedAxis({ leanDeg: 8, turnDeg: 45 }));
    const leaned = moved(
      { tilt_deg: turned.tiltDeg, swing_deg: turned.swingDeg },
      { movement_limits: limits },
    );
    expect(stateOf(leaned)).not.toBe('beyond');
    const shifted = moved({ shift_mm: 7.2 }, { movement_limits: limits });
    expect(CONTROLS.rise.mechanism(shifted)[1]).toBeCloseTo(9.6, 2);
    expect(CONTROLS.rise.domain(shifted)).toEqual(CONTROLS.rise.domain(leaned));
  });

  it('never suggests leaning the lens further to save a corner', () => {
    fc.assert(
      fc.property(stations({ leanDeg: 15 }), (station) => {
        for (const { after } of waysOut(station)) {
          expect(Math.abs(after.movements.tilt_deg)).toBeLessThanOrEqual(
            Math.abs(station.movements.tilt_deg) + 1e-9,
          );
        }
      }),
      { numRuns: runs(200) },
    );
  });
});

describe('verdicts', () => {
  it('put the margin first and name the corner', () => {
    const out = moved({ rise_mm: 12, shift_mm: 6 }, { aperture: 3.5 });
    const verdict = coverVerdict(out, evaluate(out));
    expect(verdict.figure).toMatch(/^−\d/);
    expect(verdict.words).toBe('mm, top right outside');
    expect(verdict.sentence).toContain('outside the circle at f/3.5');
    expect(coverVerdict(base(), evaluate(base()))).toMatchObject({
      standing: 'within',
      words: 'mm to spare',
    });
  });

  it('name the filter ring when it cuts in', () => {
    const station = moved({ rise_mm: 8 });
    const small = {
      ...station,
      lens: { ...station.lens, filter: { clear_diameter_mm: 40, ahead_of_pupil_mm: 20 } },
    };
    expect(evaluate(small).coverage.filter_clear).toBe(false);
    expect(coverVerdict(small, evaluate(small))).toMatchObject({
      state: 'ring',
      standing: 'outside',
    });
  });
});

describe('dragging the frame', () => {
  it('lands where the frame is covered, from anywhere', () => {
    const place = fc.double({ min: -400, max: 400, noNaN: true });
    fc.assert(
      fc.property(stations(), place, place, (station, x, y) => {
        const drawing = coverDrawing(station);
        fc.pre(drawing.envelope.length >= 3);
        const moved = withFrameAt(station, drawing, { x, y });
        const { coverage } = evaluate(moved);
        expect(stateOf(moved)).not.toBe('beyond');
        // Set values are rounded to a hundredth of a millimetre.
        expect(coverage.margin_mm ?? 0).toBeGreaterThan(-0.05);
      }),
      { numRuns: runs(400) },
    );
  });

  it('goes exactly where it is put inside', () => {
    const drawing = coverDrawing(base());
    const { movements } = withFrameAt(base(), drawing, { x: 3, y: -4.5 });
    expect(movements).toMatchObject({ shift_mm: 3, rise_mm: -4.5 });
  });
});
