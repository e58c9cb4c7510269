import { evaluate, rigStation, type ChainPart, type WholeRig } from '../src/index.js';
import { codes, KIT, plain, problemsOf, rigOf, type SaidProblem } from './helpers/gear.js';

/** The one problem of a code, which must be there. */
function the(rig: WholeRig, code: string): SaidProblem {
  const found = problemsOf(rig).find((problem) => problem.code === code);
  if (!found) throw new Error(`no ${code} in ${codes(rig).join(', ')}`);
  return found;
}

const adapter = (thickness_mm: number, more: object = {}) =>
  ({ kind: 'adapter', thickness_mm, ...more }) as const;

it('a rig that is well has nothing to mind', () => {
  expect(codes(plain())).toEqual([]);
  expect(KIT.length).toBeGreaterThan(30);
});

describe('mounting', () => {
  it('mount_mismatch names both mounts, and the adapter that would do', () => {
    const rig = plain({ mount: 'A' }, [], { mount: 'B', register_mm: 18 });
    expect(the(rig, 'mount_mismatch')).toMatchObject({
      severity: 'stop',
      joint: 0,
      want: { kind: 'adapter', thicknessMm: 26 },
    });
    expect(the(rig, 'mount_mismatch').cure).toContain('26.00 mm');
    expect(evaluate(rigStation(rig)).rig.mounts).toBe(false);
    const joined = plain({ mount: 'A' }, [adapter(26, { front_mount: 'a ', rear_mount: 'B' })], {
      mount: 'B',
      register_mm: 18,
    });
    expect(codes(joined)).toEqual([]);
  });

  it('throat_too_narrow follows the barrel as deep as it goes, and no deeper', () => {
    const barrel = { rear_diameter_mm: 46, rear_protrusion_mm: 10 };
    const tube = adapter(26, { throat_mm: 42 });
    const small = { register_mm: 18, throat_mm: 45 };
    expect(the(plain(barrel, [tube], small), 'throat_too_narrow').joint).toBe(0);
    expect(codes(plain(barrel, [adapter(26, { throat_mm: 50 })], small))).not.toContain(
      'throat_too_narrow',
    );
    // Past a thin adapter the body's throat is in the way too.
    expect(
      the(plain(barrel, [adapter(5, { throat_mm: 50 })], small), 'throat_too_narrow').joint,
    ).toBe(1);
  });

  it('rear_element_strikes when the barrel reaches further than is clear', () => {
    const into = { rear_protrusion_mm: 9 };
    expect(the(plain(into, [], { clear_depth_mm: 6 }), 'rear_element_strikes').message).toContain(
      '9.0 mm',
    );
    expect(codes(plain(into, [], { clear_depth_mm: 12 }))).toEqual([]);
    const glass = { kind: 'multiplier', factor: 2, clear_depth_mm: 4 } as const;
    expect(the(plain(into, [glass]), 'rear_element_strikes').joint).toBe(0);
  });

  it('register_no_room: no gap for an adapter, or too small a one for its mechanism', () => {
    const reversed = plain({ register_mm: 18 }, [], { register_mm: 44 });
    expect(the(reversed, 'register_no_room')).toMatchObject({ severity: 'warn' });
    const impossible = plain({ register_mm: 71 }, [adapter(27, { least_thickness_mm: 34 })]);
    expect(the(impossible, 'register_no_room')).toMatchObject({ severity: 'stop', joint: 0 });
    expect(evaluate(rigStation(impossible)).rig.mounts).toBe(false);
    const thick = plain({ register_mm: 71 }, [adapter(34, { least_thickness_mm: 34 })]);
    expect(the(thick, 'register_no_room').message).toContain('leave 27.00 mm');
  });
});

describe('focus', () => {
  it('no_infinity with the farthest focus and the thickness that would do (worked here)', () => {
    const rig = plain({}, [adapter(29)], { register_mm: 18 });
    const problem = the(rig, 'no_infinity');
    // e = 3 mm: v = 53, D = 53 + 50·53/3 = 936 mm.
    expect(problem.message).toContain('3.00 mm too far out');
    expect(problem.message).toContain('0.936 m');
    expect(problem.want).toEqual({ kind: 'adapter', thicknessMm: 26 });
    expect(evaluate(rigStation(rig)).rig).toMatchObject({ reaches_infinity: false });
    expect(evaluate(rigStation(rig)).rig.farthest_focus_m).toBeCloseTo(0.9363, 4);
  });

  it('past_infinity when the chain is too short', () => {
    const rig = plain({}, [adapter(24)], { register_mm: 18 });
    expect(the(rig, 'past_infinity').cure).toContain('26.00 mm');
    expect(evaluate(rigStation(rig)).rig.reaches_infinity).toBe(true);
  });

  it('focus_out_of_reach on either side of what the rig does', () => {
    const near = {
      ...rigStation(plain({ close_focus: { distance_mm: 450, magnification: 0.15 } })),
    };
    const code = (focus: object): string[] =>
      evaluate({ ...near, focus } as never).rig.problems.map((problem) => problem.code);
    expect(code({ distance_m: 0.45 })).toEqual([]);
    expect(code({ magnification: 0.3 })).toContain('focus_out_of_reach');
    const far = rigStation(plain({}, [adapter(29)], { register_mm: 18 }));
    expect(
      evaluate({ ...far, focus: { distance_m: 5 } }).rig.problems.map(({ code: c }) => c),
    ).toContain('focus_out_of_reach');
  });

  it('focus_out_of_reach where the lens stands too far in to focus at all', () => {
    const close_focus = { distance_mm: 450, magnification: 0.15 };
    const rig = plain({ close_focus }, [{ kind: 'board', offset_mm: -20 }]);
    expect(the(rig, 'focus_out_of_reach').message).toContain('20.00 mm too far in');
    expect(Number.isFinite(evaluate(rigStation(rig)).focus.bellows_stops)).toBe(true);
  });

  it('focus_by_wire and iris_stuck where contacts end, and neither where they go through', () => {
    const electric = { iris: 'electronic', focus_by: 'wire' } as const;
    const dumb = plain(electric, [adapter(0, { contacts: false, name: 'Dumb' })]);
    expect(the(dumb, 'focus_by_wire').message).toContain('“Dumb”');
    expect(the(dumb, 'iris_stuck').message).toContain('stuck at f/2');
    expect(codes(plain(electric, [adapter(0, { contacts: true })], { contacts: true }))).toEqual(
      [],
    );
    const untold = the(plain(electric, [adapter(0, { name: 'Untold' })]), 'iris_stuck');
    expect(untold.severity).toBe('warn');
    expect(untold.message).toContain('whether “Untold” carries the contacts is not known');
    expect(codes(plain(electric, [], { contacts: false }))).toContain('iris_stuck');
    expect(codes({ ...dumb, aperture: 8 })).toContain('iris_stuck');
    expect(
      problemsOf({ ...dumb, aperture: 8 }).find(({ code }) => code === 'iris_stuck'),
    ).toMatchObject({ severity: 'stop' });
  });

  it('iris_stuck for a lens without one, when another stop is planned', () => {
    const station = { ...rigStation(plain({ iris: 'none' })), aperture: 8 };
    expect(evaluate(station).rig.problems.map(({ code }) => code)).toEqual(['iris_stuck']);
  });

  it('nothing_to_focus_with for a lens in a plain barrel', () => {
    expect(the(plain({ focus_by: 'bellows' }), 'nothing_to_focus_with').severity).toBe('warn');
    expect(codes(plain({ focus_by: 'bellows' }, [adapter(0, { extends_mm: 8 })]))).toEqual([]);
  });
});

describe('bellows', () => {
  const camera = (least: number, most: number) =>
    ({ kind: 'view_camera', bellows_min_mm: least, bellows_max_mm: most }) as const;
  const sheet = { width_mm: 120, height_mm: 95, register_mm: undefined } as never;
  const wide = (more: object = {}) => ({
    focal_length_mm: 72,
    register_mm: undefined as never,
    circle: [{ f_number: 2, diameter_mm: 230 }],
    ...more,
  });

  it('bellows_too_long asks for the board that lets the lens in', () => {
    const rig = plain(wide(), [camera(90, 450)], sheet);
    expect(the(rig, 'bellows_too_long').cure).toContain('a 20 mm recessed board');
    expect(evaluate(rigStation(rig)).rig.reaches_infinity).toBe(false);
    const cured = plain(wide(), [{ kind: 'board', offset_mm: -20 }, camera(90, 450)], sheet);
    expect(codes(cured)).toEqual(['bellows_cramped']);
    expect(evaluate(rigStation(cured)).rig.reaches_infinity).toBe(true);
  });

  it('bellows_too_short for a lens the bed is too short for; telephoto design cures it', () => {
    const long = wide({ focal_length_mm: 360 });
    expect(the(plain(long, [camera(60, 320)], sheet), 'bellows_too_short').message).toContain(
      '360.0 mm',
    );
    const tele = wide({ focal_length_mm: 360, flange_focal_mm: 262 });
    expect(codes(plain(tele, [camera(60, 320)], sheet))).toEqual([]);
    const out = plain(long, [{ kind: 'board', offset_mm: 50 }, camera(60, 320)], sheet);
    expect(codes(out)).toEqual([]);
  });

  it('bellows_cramped just above the least draw', () => {
    expect(the(plain(wide(), [camera(70, 450)], sheet), 'bellows_cramped').cure).toContain(
      'bag bellows',
    );
    expect(codes(plain(wide(), [camera(60, 450)], sheet))).toEqual([]);
  });
});

describe('circle, ring and handling', () => {
  it('circle_small and no_movement', () => {
    const small = plain({ circle: [{ f_number: 2, diameter_mm: 40 }] });
    expect(the(small, 'circle_small').message).toContain('43.3 mm');
    const tight = { ...plain({ circle: [{ f_number: 2, diameter_mm: 44 }] }) };
    const moving = {
      ...tight,
      lens: {
        ...tight.lens,
        movement: { rise_mm: [-11, 11] as [number, number], moves: 'front' as const },
      },
    };
    expect(codes(tight)).toEqual([]);
    expect(the(moving, 'no_movement').message).toContain('of rise');
  });

  it('converter_clips with both circles', () => {
    const rig = plain({}, [{ kind: 'multiplier', factor: 2, circle_limit_mm: 46 }]);
    expect(the(rig, 'converter_clips').message).toMatch(/46\.0 mm.*120\.0 mm/);
  });

  it('ring_cuts from a shift on that a walk along the frame confirms', () => {
    const rig = rigOf('Shift 24 f/3.5', [], 'Small format back');
    const filter = { clear_diameter_mm: 76, ahead_of_pupil_mm: 40 };
    const ringed: WholeRig = { ...rig, lens: { ...rig.lens, filter } };
    const cut = Number(/from ([\d.]+) mm of shift/.exec(the(ringed, 'ring_cuts').message)![1]);
    const clearAt = (shift_mm: number): boolean => {
      const station = rigStation(ringed);
      return evaluate({ ...station, movements: { ...station.movements, shift_mm } }).coverage
        .filter_clear;
    };
    expect(clearAt(cut - 0.1)).toBe(true);
    expect(clearAt(cut + 0.1)).toBe(false);
  });

  it('throat_shades when a wide frame looks through a narrow mount', () => {
    const rig = (throat_mm: number) =>
      plain({ register_mm: 40 }, [], { throat_mm, register_mm: 40 });
    expect(the(rig(12), 'throat_shades').severity).toBe('warn');
    expect(codes(rig(48)).filter((code) => code === 'throat_shades')).toEqual([]);
  });

  it('front_heavy by mass and distance, when they are given', () => {
    const heavy = { mass_g: 1500, balance_ahead_mm: 95 };
    expect(the(plain(heavy, [], { mass_g: 700 }), 'front_heavy').cure).toContain('rail');
    expect(
      the(plain({ ...heavy, has_foot: true }, [], { mass_g: 700 }), 'front_heavy').cure,
    ).toContain('foot of the lens');
    expect(codes(plain(heavy))).toEqual([]);
    expect(codes(plain(heavy, [], { mass_g: 1600 }))).toEqual([]);
  });

  it('axes_locked when shift and tilt are set as they cannot be', () => {
    const station = rigStation(plain());
    const set = (shift_tilt: 'in_line' | 'crossed' | 'free', movements: object): string[] =>
      evaluate({
        ...station,
        movement_limits: { moves: 'front', shift_tilt },
        movements: { ...station.movements, ...movements },
      }).rig.problems.map(({ code }) => code);
    const along = { rise_mm: 5, tilt_deg: 4 };
    const across = { shift_mm: 5, tilt_deg: -4 };
    expect(set('in_line', along)).toEqual([]);
    expect(set('in_line', across)).toEqual(['axes_locked']);
    expect(set('crossed', along)).toEqual(['axes_locked']);
    expect(set('crossed', across)).toEqual([]);
    expect(set('free', { ...along, ...across })).toEqual([]);
    expect(set('in_line', { tilt_deg: 4 })).toEqual([]);
  });

  it('open_shutter and modified are notes with their caution', () => {
    expect(the(plain({ needs_open_shutter: true }), 'open_shutter').severity).toBe('warn');
    const { message, cure } = the(plain({ modified: true }), 'modified');
    expect(message).toMatch(/swarf.*mirror or shutter.*warranty/);
    expect(cure).toContain('workshop');
  });
});

describe('throats that shade the corners', () => {
  const adapted = (throat_mm: number, more: Partial<Parameters<typeof plain>[2]> = {}) =>
    plain(
      {
        focal_length_mm: 80,
        f_min: 2.8,
        register_mm: 46.5,
        circle: [{ f_number: 2.8, diameter_mm: 90 }],
      },
      [{ kind: 'adapter', thickness_mm: 26.5, throat_mm, name: 'Adapter 46.5 to 20' }],
      { width_mm: 54, height_mm: 40, register_mm: 20, ...more },
    );

  it('of the adapter: the width needed is a figure, and shifting less is no cure', () => {
    const found = problemsOf({ ...adapted(24), aperture: 2.8 }).find(
      ({ code }) => code === 'throat_shades',
    )!;
    // By hand, 20 mm before the sensor: 2 · 33.6 (1 − 20/80) + 28.57 · 20/80 = 57.5 mm.
    expect(found.message).toBe(
      'The throat of “Adapter 46.5 to 20”, 24.0 mm, shades the corners, even with nothing shifted: 57.6 mm would let the whole stop through.',
    );
    expect(found.cure).not.toMatch(/shift less/i);
    expect(found.cure).toContain('a throat of at least 57.6 mm');
    expect(codes({ ...adapted(57.6), aperture: 2.8 })).not.toContain('throat_shades');
  });

  it('of a body behind bellows too, and less shift where that helps', () => {
    const bellows: ChainPart = {
      kind: 'view_camera',
      bellows_min_mm: 20,
      bellows_max_mm: 200,
    };
    const rig = plain(
      { focal_length_mm: 80, focus_by: 'bellows', circle: [{ f_number: 2, diameter_mm: 160 }] },
      [bellows],
      {
        register_mm: 27,
        throat_mm: 46,
      },
    );
    const station = { ...rigStation(rig), aperture: 11 };
    expect(evaluate(station).rig.problems.map(({ code }) => code)).not.toContain('throat_shades');
    const shifted = { ...station, movements: { ...station.movements, shift_mm: 40 } };
    const found = evaluate(shifted).rig.problems.find(({ code }) => code === 'throat_shades')!;
    expect(found.message).toContain('at these movements');
    expect(found.cure).toMatch(/^Shift less/);
  });
});
