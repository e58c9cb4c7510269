import {
  advised,
  cardOf,
  cardText,
  fStop,
  clicked,
  instructionsFor,
  orderLines,
  ordersOf,
  plannedFor,
  PRESETS,
  reportMosaic,
  setSaid,
  shootingOrder,
  shortForm,
  stopsOnScale,
  CONTROLS,
  mosaicVerdict,
  type Station,
} from '../src/index.js';
import { station as made } from './helpers/mosaic.js';
import { table } from './helpers/table-top.js';

/** What is set is told from one place: the same figure on card, paper, tag, code, log and page. */

const step = (of: Station, id: string) => cardOf(of).steps.find((each) => each.id === id);

describe('a ring is engraved for the lens straight', () => {
  // 90 mm leaned 8.13° forward, its plane 1.712 m ahead: worked out by hand. v is the lesser root of
  // v² − D v + D f/a_z; the ring stands where it reads v + f v/(v − f).
  const leaned = table({ tilt_deg: 8.13 });
  const a = Math.cos((8.13 * Math.PI) / 180);
  const v = (1712 - Math.sqrt(1712 ** 2 - (4 * 1712 * 90) / a)) / 2;
  const reads = (v + (90 * v) / (v - 90)) / 1000;

  it('reads 1.465 m where the plane lies 1.712 m ahead, everywhere', () => {
    expect(reads).toBeCloseTo(1.465, 3);
    expect(step(leaned, 'focus')!.figure).toBe('1.465 m');
    expect(cardText(leaned)).toContain('ring at 1.465 m');
    expect(shortForm(leaned).join(' ')).toContain('ring at 1.465 m');
    const logged = plannedFor(leaned, { frame: null, bracket: null });
    expect(logged.ring_m).toBe(1.465);
    expect(setSaid(logged)).toContain('ring at 1.465 m');
    expect(setSaid(logged)).not.toContain('1.71');
    for (const each of cardOf(leaned).steps) {
      expect(`${each.says} ${each.figure} ${each.detail}`).not.toContain('1.71');
    }
  });

  it('and Focus says what the card says', () => {
    const solved = advised({ ...table({}), solve: { tilt: true, swing: false } })!;
    expect(solved.solved.lens.tiltDeg).toBeCloseTo(8.13, 1);
    const { set } = instructionsFor(solved, 'metric');
    const focus = ordersOf(solved.station).orders.find(({ id }) => id === 'focus')!;
    expect(set).toContain(`${focus.says} ${focus.figure}.`);
    expect(Number(/(\d\.\d+) m/.exec(set.join(' '))![1])).toBeCloseTo(1.465, 2);
  });
});

describe('a bed has a zero of its own', () => {
  const three = (more: Partial<Station> = {}): Station => ({
    ...table({ tilt_deg: 0 }),
    back: { width_mm: 120, height_mm: 95, orientation: 'landscape', medium: 'film' },
    lens: {
      focal_length_mm: 150,
      f_min: 5.6,
      f_max: 45,
      circle: [{ f_number: 5.6, diameter_mm: 210 }],
      focus_by: 'bellows',
    },
    criterion: { coc_mm: 0.1 },
    focus: { distance_m: 2 },
    aperture: 22,
    marks: [],
    ...more,
  });
  // 150 mm at 2 m: v = (2000 − √(2000² − 4·2000·150))/2.
  const out = (2000 - Math.sqrt(2000 ** 2 - 4 * 2000 * 150)) / 2 - 150;

  it('counts from where infinity is crisp until its own reading there is known', () => {
    expect(step(three(), 'focus')).toMatchObject({
      says: 'From where infinity is crisp draw out',
      figure: `${out.toFixed(1)} mm`,
    });
    const known = three({ bed: { infinity_mm: 31.4 } });
    expect(step(known, 'focus')).toMatchObject({
      says: 'Set the standard on its bed at',
      figure: `${(31.4 + out).toFixed(1)} mm`,
    });
    expect(cardText(known)).toContain(`bed at ${(31.4 + out).toFixed(1)} mm`);
    expect(plannedFor(known, { frame: null, bracket: null }).bed_mm).toBeCloseTo(31.4 + out, 1);
    const withLens = three({ lens: { ...three().lens, bed_infinity_mm: 31.4 } });
    expect(step(withLens, 'focus')!.figure).toBe(`${(31.4 + out).toFixed(1)} mm`);
  });

  it('is taken for sheet film where nobody said, and told to be taken', () => {
    const { focus_by: _, ...lens } = three().lens;
    const card = cardOf(three({ lens }));
    expect(card.steps.find(({ id }) => id === 'focus')!.says).toContain('infinity is crisp');
    expect(card.assumed.map(({ pointer }) => pointer)).toContain('/lens/focus_by');
    expect(cardOf(three()).assumed.map(({ pointer }) => pointer)).not.toContain('/lens/focus_by');
  });
});

describe('what turns stays where it serves all frames', () => {
  const limits = {
    moves: 'front' as const,
    radial_shift_mm: 20,
    radial_tilt_deg: 10,
    shift_tilt: 'in_line' as const,
    turn_stops_deg: [0, 90, 180, 270],
  };
  const row = PRESETS.find(({ id }) => id === 'row')!;
  const column = PRESETS.find(({ id }) => id === 'column')!;

  it('one stop for a row, the shift this way and that', () => {
    const laid = row.of(made({ movement_limits: limits, movements: { swing_deg: 3 } })) as Station;
    const turn = ordersOf(laid).orders.find(({ id }) => id === 'turn')!;
    expect(turn.says).toMatch(/it stays there for all frames$/);
    const said = shootingOrder(laid).flatMap(({ says }) => says);
    expect(said.join(' ')).not.toContain('Turn');
    expect(said[0]).toMatch(/^Shift the lens .* to the left\.$/);
    expect(said[2]).toMatch(/^Shift the lens .* to the right\.$/);
  });

  it('a lean that would be lost on the way is the headline', () => {
    const leaned = made({
      movement_limits: limits,
      movements: { tilt_deg: 3 },
      mosaic: { pattern: 'grid', columns: 3, rows: 1, overlap: 0.6, moves: 'lens' },
    });
    const report = reportMosaic(leaned, leaned.mosaic!);
    expect(report.problems[0]).toMatchObject({ code: 'lean_lost', severity: 'stop' });
    expect(mosaicVerdict(report).figure).toBe('Lean lost');
    // Along the way that it leans it is kept.
    expect(typeof row.of(made({ movement_limits: limits, movements: { tilt_deg: 3 } }))).toBe(
      'string',
    );
    expect(typeof column.of(made({ movement_limits: limits, movements: { tilt_deg: 3 } }))).toBe(
      'object',
    );
  });
});

describe('a back on dots', () => {
  const limits = {
    moves: 'rear' as const,
    frame_stops: { columns: 3, rows: 1, pitch_mm: [12, 8] as [number, number] },
  };
  it('is told by its dot and by the hand, and moves from dot to dot', () => {
    const at = made({ movement_limits: limits, movements: { shift_mm: -12 } });
    expect(step(at, 'dot')!.says).toBe(
      'Slide the back to the dot of column 1, row 1 of the picture: back to the right, the left of the picture',
    );
    expect(stopsOnScale(at, 'shift')).toEqual([-12, 0, 12]);
    expect(CONTROLS.shift.step(at, 1, 1)).toBe(0);
    expect(CONTROLS.shift.step(at, -1, 1)).toBe(-12);
  });

  it('has the fixed rules on its card', () => {
    const laid = PRESETS.find(({ id }) => id === 'stops')!.of(
      made({ movement_limits: limits }),
    ) as Station;
    const fixed = step(laid, 'fixed')!;
    expect(fixed.says).toContain('time, stop, ISO, white balance, focus');
    expect(fixed.detail).toMatch(/white balance.*focus once/s);
  });
});

describe('the shutter, by kind of camera', () => {
  const acts = (more: Partial<Station>): string[] =>
    cardOf(made(more as never)).steps.flatMap(({ id, says }) =>
      id.startsWith('release') ? [says] : [],
    );
  const meter = { time_s: 0.25, f_number: 8 };
  const bellows = { kind: 'view_camera' as const, bellows_min_mm: 40, bellows_max_mm: 400 };

  it('an electronic shutter behind a leaf that must stand open', () => {
    const lens = { needs_open_shutter: true };
    expect(
      acts({ lens: lens as never, exposure: { meter, shutter: { kind: 'electronic' } } }),
    ).toEqual([
      'Open the shutter in the lens',
      'Lock it open',
      'Release the electronic shutter',
      'Close the shutter in the lens',
    ]);
  });

  it('sheet film: close, cock, slide out, release, slide in', () => {
    const exposure = { meter, shutter: { kind: 'leaf' as const }, film: { name: 'Sheet film' } };
    const sheet = { width_mm: 120, height_mm: 95 } as never;
    expect(acts({ chain: [bellows], back: sheet, exposure })).toEqual([
      'Close the shutter',
      'Cock it',
      'Put in the holder and draw the slide out',
      'Release',
      'Slide in, its exposed side out',
    ]);
    // A roll holder stays on, and a body that cocks its lens by itself needs none of it.
    expect(acts({ chain: [bellows], exposure })).toEqual([
      'Close the shutter',
      'Cock it',
      'Slide out',
      'Release',
      'Slide in, then wind on',
    ]);
    expect(acts({ exposure })).toEqual([]);
  });

  it('a mirror goes up first; of several exposures each is ticked', () => {
    const back = { mirror: true } as never;
    const exposure = { meter, shutter: { kind: 'focal_plane' as const } };
    expect(acts({ back, exposure })).toEqual(['Mirror up, and wait until it is still', 'Release']);
    const bracketed = made({
      back,
      exposure: { ...exposure, brackets: { frames: 3, step_stops: 2 } },
    } as never);
    const each = cardOf(bracketed).steps.filter(({ id }) => id.startsWith('release'));
    expect(each.map(({ says }) => says)).toEqual([1, 2, 3].map((n) => `Exposure ${n} of 3`));
    expect(new Set(each.map(({ figure }) => figure)).size).toBe(3);
    expect(each[0]!.detail).toBe('Mirror up, and wait until it is still. Release.');
  });
});

describe('a click of the control that is there', () => {
  const at = made({ movement_limits: { moves: 'front', detent_mm: 1, rise_mm: [-10, 10] } });
  it('of iris, shutter, sensitivity and a standard; none past the end', () => {
    expect(fStop(clicked(at, { kind: 'iris' }, 8, 1)!)).toBe('f/9');
    expect(fStop(clicked(at, { kind: 'iris' }, 11, -1)!)).toBe('f/10');
    expect(clicked(at, { kind: 'iris' }, at.lens.f_min, -1)).toBeNull();
    const shutter = {
      ...at,
      exposure: { shutter: { kind: 'leaf' as const, steps: 'full' as const, slowest_s: 1 } },
    };
    expect(clicked(shutter, { kind: 'shutter' }, 0.5, 1)).toBe(1);
    expect(clicked(shutter, { kind: 'shutter' }, 1, 1)).toBeNull();
    expect([100, 125, 800, 64].map((iso) => clicked(at, { kind: 'iso' }, iso, 1))).toEqual([
      125, 160, 1000, 80,
    ]);
    const rise = { kind: 'standard', standard: 'front', movement: 'rise' } as const;
    expect(clicked(at, rise, 9, 1)).toBe(10);
    expect(clicked(at, rise, 10, 1)).toBeNull();
  });
});

describe('a lens in the hand', () => {
  const held = made({
    held_off: { gap_mm: 6, lean_deg: 5, turn_deg: 0 },
    aperture: 11,
    exposure: { meter: { time_s: 1 / 64, f_number: 4 }, iso: 100 },
    marks: [
      { label: 'Label', x_m: 0, y_m: 1.5, z_m: 0.6, must: 'sharp' },
      { label: 'Glass', x_m: 0, y_m: 1.7, z_m: 0.9, must: 'sharp' },
    ],
  });

  it('is told by the method first, at its widest stop, and logged with gap and lean', () => {
    const steps = cardOf(held).steps.filter(({ part }) => part === 'focus');
    expect(steps.map(({ id }) => id)).toEqual(['held ring', 'gap', 'turn body']);
    expect(steps[1]!.says).toContain('until Label is crisp');
    expect(steps[2]!.says).toMatch(/turn the body up until Glass is crisp/);
    expect(step(held, 'stop')!.figure).toBe('f/4');
    const logged = plannedFor(held, { frame: null, bracket: null });
    expect(logged).toMatchObject({ f_number: 4, held_off: { gap_mm: 6, lean_deg: 5 } });
    expect(logged.focus_m).toBeUndefined();
    // The stop that is set for when it is mounted again stays in the document.
    expect(held.aperture).toBe(11);
  });
});

describe('a back that leans comes nearer as it goes across', () => {
  // Worked out by hand. Swung 3° and 14.4 mm to the side, the middle of the back lies 14.4 tan 3° =
  // 0.755 mm nearer or further along the lens’s axis.
  const row = (distanceM: number | null): Station =>
    made({
      movement_limits: { moves: 'front', rear_shift_mm: [-20, 20], rear_swing_deg: [-10, 10] },
      movements: { rear_swing_deg: 3 },
      focus: { distance_m: distanceM },
      mosaic: { pattern: 'grid', columns: 3, rows: 1, overlap: 0.6, moves: 'rear' },
    });
  const a = Math.cos((3 * Math.PI) / 180);
  const by = 14.4 * Math.tan((3 * Math.PI) / 180);
  const read = (draw: number): number => {
    const v = 50 + draw;
    return (v + (50 * v) / (v - 50)) / 1000;
  };

  it('each frame has its own focus, from the ring’s own reading', () => {
    const said = shootingOrder(row(1)).map(({ says }) => says.at(-1)!);
    // The lesser root of v² − D v + D f/a_z, along the back’s normal; along the lens’s axis v/a_z.
    const m = (1000 - Math.sqrt(1000 ** 2 - (4 * 1000 * 50) / a)) / 2 / a - 50;
    [m + by, m, m - by].forEach((draw, i) => {
      const metres = Number(/ring to ([\d.]+) m\.$/.exec(said[i]!)![1]);
      expect(Math.abs(metres / read(draw) - 1)).toBeLessThan(0.005);
    });
    expect(reportMosaic(row(1), row(1).mosaic!).problems).toEqual([]);
  });

  it('a frame whose focus lies past infinity is refused', () => {
    // Focused at infinity v is f/a_z, so the ring stands 50/a_z² − 50 = 0.137 mm out: 0.755 mm less
    // is not there.
    const { problems } = reportMosaic(row(null), row(null).mosaic!);
    expect(problems).toEqual([expect.objectContaining({ code: 'focus_lost', severity: 'stop' })]);
    expect(problems[0]!.message).toContain('at frame 3 it lies 0.62 mm past infinity');
    const { mosaic: _, ...single } = row(null);
    expect(PRESETS.find(({ id }) => id === 'row')!.of(single)).toMatch(/past infinity/);
  });

  it('so is one that bellows do not go to', () => {
    // At infinity the draw is 50/a_z² mm straight on, and 0.755 mm less at frame 3.
    const on = (least: number): Station => ({
      ...row(null),
      chain: [{ kind: 'view_camera', bellows_min_mm: least, bellows_max_mm: 300 }],
    });
    const past = (least: number) =>
      reportMosaic(on(least), on(least).mosaic!).problems.find(({ code }) => code === 'focus_lost');
    const draw = 50 / a ** 2 - by;
    expect(past(draw + 0.02)!.message).toMatch(
      /at frame 3 the bellows would have to be 0\.02 mm shorter/,
    );
    expect(past(draw - 0.02)).toBeUndefined();
  });

  it('reads as sentences, one full stop each', () => {
    for (const line of orderLines(ordersOf(row(1)).orders)) expect(line).toMatch(/[^.]\.$/);
  });
});
