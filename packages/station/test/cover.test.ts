import fc from 'fast-check';
import {
  circleAtFocusMm,
  CONTROLS,
  cornerFigures,
  coverVerdict,
  evaluate,
  framingWays,
  lensSwaps,
  limitsLines,
  limitsTable,
  lockedLean,
  ontoStop,
  parseStation,
  pivotMove,
  readings,
  refusal,
  refusedName,
  stateOf,
  turningOf,
  variantsOf,
  withCounterMove,
  withNewVariant,
  withoutVariant,
  withVariant,
  withVariantNamed,
  why,
  type KitItemOf,
  type Station,
  type Stored,
  movesOf,
  orderLines,
} from '../src/index.js';
import { setupOf } from '../src/optical/setup.js';
import { KIT } from './helpers/gear.js';
import { base, parsed, stations } from './helpers/rigs.js';
import { runs } from '../../../scripts/lib/runs.mjs';

/** What is moved, as it is ordered. */
const told = (of: Station): string => orderLines(movesOf(of)).join(' ');

const moved = (movements: Partial<Station['movements']>, more: Partial<Station> = {}): Station =>
  parsed({ ...base(), ...more, movements: { ...base().movements, ...movements } });

describe('limits by stop', () => {
  it('each line, set at its stop, is the report’s own limit', () => {
    fc.assert(
      fc.property(stations({ leanDeg: 2 }), (station) => {
        for (const row of limitsTable(station).rows.slice(0, 3)) {
          const report = readings({
            ...station,
            aperture: row.fNumber,
            back: { ...station.back, orientation: 'portrait' },
            focus: { distance_m: null },
            movements: { rise_mm: 0, shift_mm: 0, tilt_deg: 0, swing_deg: 0 },
          });
          expect(row.upright.up.mm).toBe(report.coverage.limits.rise_mm);
          expect(row.upright.right.mm).toBe(report.coverage.limits.right_mm);
        }
      }),
      { numRuns: runs(60) },
    );
  });

  it('engraves the widest stop of the lens even when it is none of the series', () => {
    const found = limitsTable(base()).rows.map(({ fNumber }) => fNumber);
    expect(found).toEqual([3.5, 4, 5.6, 8, 11, 16, 22]);
  });

  it('as lines: a heading, a line a stop, no empty corners', () => {
    const lines = limitsLines(limitsTable(base()));
    expect(lines).toHaveLength(8);
    expect(lines[0]).toHaveLength(19);
    for (const line of lines) expect(line).toHaveLength(19);
    expect(lines[1]![0]).toBe('3.5');
  });
});

describe('a lens that turns', () => {
  const turning = (movements: Partial<Station['movements']>, stops?: number[]): Station =>
    moved(movements, {
      movement_limits: {
        radial_shift_mm: 12,
        moves: 'front',
        ...(stops ? { turn_stops_deg: stops } : {}),
      },
    });

  it('says the turn and the length: 6 up and 6 right is 45° (worked here)', () => {
    const station = turning({ rise_mm: 6, shift_mm: 6 });
    expect(turningOf(station)).toMatchObject({ reached: true, tiltDeg: 0 });
    expect(turningOf(station)!.angleDeg).toBeCloseTo(45, 9);
    expect(turningOf(station)!.shiftMm).toBeCloseTo(Math.hypot(6, 6), 9);
    expect(told(station)).toBe(
      'Turn the lens to 45°, clockwise as seen from behind, and there shift it 8.5 mm up and to the right.',
    );
  });

  it('knows its stops, either way round, and what none of them gives', () => {
    const down = turning({ rise_mm: -6, shift_mm: 0 }, [0, 30, 60, 90]);
    expect(turningOf(down)).toMatchObject({ angleDeg: 0, shiftMm: -6, reached: true });
    expect(told(down)).toBe(
      'Turn the lens to its 0° stop, clockwise as seen from behind, and there shift it 6.0 mm down.',
    );
    const between = turning({ rise_mm: 6, shift_mm: 3 }, [0, 30, 60]);
    expect(turningOf(between)!.reached).toBe(false);
    expect(told(between)).toMatch(
      /No stop gives all that is set: 30° comes nearest, 0\.4 mm off\.$/,
    );
    const on = ontoStop(between);
    expect(turningOf(on)!.reached).toBe(true);
    expect((Math.atan2(on.movements.shift_mm, on.movements.rise_mm) * 180) / Math.PI).toBeCloseTo(
      30,
      0,
    );
  });

  it('a one-way tilt is turned to lean the other way: back is 180°', () => {
    const back = moved(
      { tilt_deg: -5 },
      {
        movement_limits: { one_way_tilt: true, moves: 'front', turn_stops_deg: [0, 90, 180, 270] },
      },
    );
    expect(turningOf(back)).toMatchObject({ angleDeg: 180, reached: true });
    expect(told(back)).toBe(
      'Turn the lens to its 180° stop, clockwise as seen from behind, and there lean it 5.0° back.',
    );
  });

  it('a lens that does not turn is only moved', () => {
    expect(turningOf(moved({ rise_mm: 6 }))).toBeNull();
    expect(told(moved({ rise_mm: 6 }))).toBe('Raise the lens 6.0 mm.');
  });
});

describe('shift and tilt locked to each other', () => {
  it('in line: with rise set, swing is not to be had; crossed: tilt is not', () => {
    const locked = (shift_tilt: 'in_line' | 'crossed', movements: object): Station =>
      moved(movements, { movement_limits: { ...base().movement_limits, shift_tilt } });
    expect(lockedLean(locked('in_line', { rise_mm: 5 }))).toBe('swing_deg');
    expect(lockedLean(locked('crossed', { rise_mm: 5 }))).toBe('tilt_deg');
    expect(lockedLean(locked('in_line', { shift_mm: 5 }))).toBe('tilt_deg');
    expect(lockedLean(moved({ rise_mm: 5 }))).toBeNull();
    const station = locked('in_line', { rise_mm: 5 });
    expect(refusal(CONTROLS.swing, station, 2)).toMatch(/locked to each other/);
    expect(refusal(CONTROLS.tilt, station, 2)).toBeNull();
  });
});

describe('a tilt axis off the lens centre', () => {
  it('moves the picture by b sin τ in the direction of lean; the counter-movement undoes it', () => {
    const leaned = moved(
      { tilt_deg: 6, rise_mm: 1 },
      {
        movement_limits: { ...base().movement_limits, pivot_mm: 40 },
      },
    );
    const found = pivotMove(leaned)!;
    expect(found.riseMm).toBeCloseTo(-40 * Math.sin((6 * Math.PI) / 180), 9);
    const back = withCounterMove(leaned);
    expect(setupOf(back).whole.riseMm).toBeCloseTo(1, 2);
    expect(pivotMove(moved({ tilt_deg: 6 }))).toBeNull();
  });
});

describe('corners', () => {
  it('the worst of them is the report’s own', () => {
    fc.assert(
      fc.property(stations(), (station) => {
        const { coverage } = readings(station);
        const found = cornerFigures(station);
        const worst = found.find(({ corner }) => corner === coverage.worst_corner)!;
        const losses = found.map(({ falloffStops }) => falloffStops ?? Infinity);
        const darkest = Math.max(...losses);
        expect(worst.marginMm).toBe(coverage.margin_mm);
        expect(coverage.corner_falloff_stops).toBe(Number.isFinite(darkest) ? darkest : null);
      }),
      { numRuns: runs(200) },
    );
  });

  it('a ring’s room is what it has less what the corner needs (worked here)', () => {
    const ringed = parsed({
      ...base(),
      lens: { ...base().lens, filter: { clear_diameter_mm: 74, ahead_of_pupil_mm: 30 } },
      aperture: 8,
      focus: { distance_m: null },
    });
    const half = Math.hypot(18, 12);
    const needed = 2 * (30 * (half / 24) + 24 / 8 / 2);
    expect(cornerFigures(ringed)[0]!.ringMm).toBeCloseTo(74 - needed, 9);
    expect(circleAtFocusMm(ringed)).toBeCloseTo(67, 9);
  });
});

describe('a crop', () => {
  it('is the largest part of its shape, slid as asked', () => {
    const square = setupOf(parsed({ ...base(), crop: { across: 1, up: 1 } }));
    expect(square.frame).toMatchObject({ widthMm: 24, heightMm: 24, shiftMm: 0 });
    const right = setupOf(parsed({ ...base(), crop: { across: 1, up: 1, slide: 1 } }));
    expect(right.frame.shiftMm).toBe(6);
    const wide = setupOf(parsed({ ...base(), crop: { across: 2, up: 1, slide: -1 } }));
    expect(wide.frame).toMatchObject({ widthMm: 36, heightMm: 18, riseMm: -3 });
    expect(wide.whole).toMatchObject({ widthMm: 36, heightMm: 24, riseMm: 0 });
  });

  it('clears a corner that the whole back has in the dark', () => {
    const dark = moved({ rise_mm: 11, shift_mm: 10 }, { aperture: 3.5 });
    expect(stateOf(dark)).toBe('outside');
    expect(stateOf({ ...dark, crop: { across: 4, up: 5, slide: -1 } })).not.toBe('outside');
  });

  it('keeps limits in the movement’s own millimetres', () => {
    fc.assert(
      fc.property(stations(), fc.double({ min: -1, max: 1, noNaN: true }), (station, slide) => {
        const cropped = { ...station, crop: { across: 1, up: 1, slide } };
        const { rise_mm: limit } = readings(cropped).coverage.limits;
        fc.pre(limit !== null && Number.isFinite(limit));
        const at = { ...cropped, movements: { ...station.movements, rise_mm: limit } };
        const margin = readings(at).coverage.margin_mm;
        expect(margin === null || margin > -1e-6).toBe(true);
      }),
      { numRuns: runs(200) },
    );
  });
});

describe('framing words', () => {
  const facade = { distance_m: 16, top_m: 18.4, width_m: 15, base_m: 4.6, headroom_m: 0.5 };

  it('say from where it fits when it does not, and how much rise when it does', () => {
    const cut = parsed({ ...base(), facade });
    expect(coverVerdict(cut, readings(cut))).toMatchObject({ figure: 'Cut', standing: 'costs' });
    const far = parsed({ ...base(), facade: { ...facade, distance_m: 19 } });
    const verdict = coverVerdict(far, readings(far));
    expect(verdict.words).toBe('of rise frames the façade');
    const behind = parsed({
      ...base(),
      camera: { height_m: 1.6, pitch_deg: 0, yaw_deg: 150 },
      facade,
    });
    expect(coverVerdict(behind, readings(behind)).figure).toBe('Behind');
    expect(evaluate(behind).facade!.rise_needed_mm).toBeNull();
  });

  it('speak of the scene in feet to those who measure in feet', () => {
    const cut = parsed({ ...base(), facade });
    expect(coverVerdict(cut, readings(cut), 'feet').words).toMatch(/^façade fits from \d+′ \d+″$/);
    const back = framingWays(cut, [], 'feet').find(({ id }) => id === 'frame-step-back')!;
    expect(back.title).toMatch(/^Step back \d+′ [\d.]+″$/);
    expect(back.detail).not.toMatch(/\d m /);
    const metric = framingWays(cut).find(({ id }) => id === 'frame-step-back')!;
    expect(metric.after).toEqual(back.after);
  });

  it('open to their reason', () => {
    const station = parsed({ ...base(), facade, turn_in: { yaw_deg: -5, keep: 'left' } });
    expect(why('facadeRise', station).formula).toContain('v (H − h₀)/D');
    expect(why('turnIn', station).formula).toContain('tan(β − ψ)');
  });

  it('other lenses of the kit are offered where they frame it, with the rest of the rig', () => {
    const station = parsed({ ...base(), facade });
    const lenses = KIT.filter(
      (stored): stored is Stored<KitItemOf<'lens'>> => stored.document.kind === 'lens',
    );
    const swaps = lensSwaps(station, lenses);
    expect(swaps.length).toBeGreaterThan(3);
    const offered = framingWays(station, swaps).filter(({ id }) => id.startsWith('frame-lens'));
    expect(offered.length).toBeGreaterThan(0);
    for (const { after } of offered) {
      expect(after.lens.focal_length_mm).toBeLessThan(24);
      expect(readings(after).rig.problems.every(({ severity }) => severity !== 'stop')).toBe(true);
    }
  });
});

describe('variants', () => {
  it('are laid by, chosen, renamed and removed; nothing is lost on the way', () => {
    const first = moved({ rise_mm: 5 });
    const two = parsed(withNewVariant(first, 'Upright'));
    expect(variantsOf(two).map(({ name, present }) => [name, present])).toEqual([
      ['Upright', true],
      ['As set', false],
    ]);
    const upright = parsed({ ...two, back: { ...two.back, orientation: 'portrait' } });
    const back = parsed(withVariant(upright, 'As set'));
    expect(back.back.orientation).toBe('landscape');
    expect(back.movements.rise_mm).toBe(5);
    expect(variantsOf(back)[1]!.station.back.orientation).toBe('portrait');
    expect(parsed(withVariant(back, 'Upright'))).toEqual(upright);
    const named = withVariantNamed(back, 'Upright', 'Tall');
    expect(variantsOf(named).map(({ name }) => name)).toEqual(['As set', 'Tall']);
    const { variants: _, ...alone } = withoutVariant(named, 'Tall');
    expect(alone).toEqual(first);
    expect(withVariant(back, 'nothing of this name')).toBe(back);
  });

  it('names are given once', () => {
    const two = withNewVariant(base(), 'Upright');
    expect(refusedName(two, ' upright ')).toMatch(/already/);
    expect(refusedName(two, 'Upright', 'Upright')).toBeNull();
    expect(refusedName(two, '  ')).toMatch(/name/);
  });

  it('a kept variant that is not sound is refused where it is', () => {
    const two = withNewVariant(base(), 'Upright');
    two.variants!.kept[0]!.settings.aperture = 99;
    const read = parseStation(two);
    expect(read.ok).toBe(false);
    if (!read.ok) expect(read.problems[0]!.pointer).toBe('/variants/kept/0/settings/aperture');
  });

  it('what a newer hand wrote into a station stays with it', () => {
    const odd = parsed({ ...base(), weather: 'drizzle' });
    const two = parsed(withVariant(withNewVariant(odd, 'B'), 'As set'));
    expect((two as unknown as { weather: string }).weather).toBe('drizzle');
  });
});
