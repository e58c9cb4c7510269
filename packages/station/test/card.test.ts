import {
  cardOf,
  cardStanding,
  cardText,
  careOf,
  carried,
  packingOf,
  parseStation,
  restsOnAssumed,
  shortForm,
  tapesOf,
  type KitItem,
  type Station,
} from '../src/index.js';
import { station, type Given } from './helpers/mosaic.js';

const card = (given: Given = {}) => cardOf(station(given));
const step = (id: string, given: Given = {}) => card(given).steps.find((each) => each.id === id);
const saidIn = (part: string, given: Given = {}): string[] =>
  card(given)
    .steps.filter((each) => each.part === part)
    .map(({ says, figure }) => `${says}${figure === undefined ? '' : `: ${figure}`}`);

const BELLOWS = { kind: 'view_camera' as const, bellows_min_mm: 40, bellows_max_mm: 700 };

describe('where to stand', () => {
  it('a front is found again by the tape: square on, and to both its corners', () => {
    // 12 wide, its middle 1 to the right, 5 ahead: corners at −5 and 7.
    const tapes = tapesOf(station({ facade: { distance_m: 5, top_m: 8, width_m: 12, x_m: 1 } }));
    expect(tapes.map(({ to, m }) => [to, Number(m.toFixed(3))])).toEqual([
      ['the front, square on', 5],
      ['its left corner', Number(Math.hypot(5, 5).toFixed(3))],
      ['its right corner', Number(Math.hypot(7, 5).toFixed(3))],
    ]);
  });

  it('a room by its walls, and without either the feet are marked', () => {
    const room = { length_m: 14, width_m: 9, ceiling_m: 5, behind_m: 1.2, left_m: 4 };
    expect(saidIn('stand', { site: { room } })).toEqual([
      'Tripod to the wall behind: 1.20 m',
      'Tripod to the wall on the left: 4.00 m',
      'Tripod to the wall on the right: 5.00 m',
      'Tripod to the end wall: 12.8 m',
      'Height of the sensor mark: 1.50 m',
    ]);
    expect(saidIn('stand').join()).toContain('mark where the feet stand');
    expect(step('place', { stand: { note: 'Brass stud by the bollard' } })!.detail).toBe(
      'Brass stud by the bollard',
    );
  });
});

describe('movements, as the hand makes them', () => {
  it('a back goes the other way than the picture, a front with it', () => {
    const set = { rise_mm: 6.04, shift_mm: -3 };
    expect(saidIn('move', { movements: set, movement_limits: { moves: 'rear' } })).toEqual([
      'Lower the back: 6.0 mm',
      'Shift the back right: 3.0 mm',
      'At zero stay',
    ]);
    expect(saidIn('move', { movements: set, movement_limits: { moves: 'front' } })).toEqual([
      'Raise the lens: 6.0 mm',
      'Shift the lens left: 3.0 mm',
      'At zero stay',
    ]);
  });

  it('a bellows camera has standards, each by its name', () => {
    expect(
      saidIn('move', {
        chain: [BELLOWS],
        movements: { tilt_deg: 4.2, rear_swing_deg: -2 },
        movement_limits: { moves: 'front' },
      }),
    ).toEqual([
      'Lean the front standard forward: 4.2°',
      'Swing the rear standard to face left: 2.0°',
      'At zero stay',
    ]);
  });

  it('nothing to move is said as well', () => {
    expect(saidIn('move', { movement_limits: { moves: 'front' } })).toEqual([
      'Leave the lens straight and at zero',
    ]);
  });
});

describe('focus, stop and exposure', () => {
  it('the crispest mark is what to look at; the others say at which stop they come in', () => {
    const marks = [
      { label: 'Post', x_m: 0, y_m: 1.5, z_m: 4, must: 'sharp' as const },
      { label: 'Door', x_m: 0, y_m: 1.5, z_m: 9, must: 'sharp' as const },
    ];
    const given: Given = { marks, focus: { distance_m: 4 }, aperture: 16 };
    expect(step('focus', given)).toMatchObject({
      figure: '4.00 m',
      detail: 'Post comes crispest there: look at it with the lens wide open.',
    });
    // 50 mm, 4 against 9 m, 0.03 mm: worked from 1/q = 1/f − 1/d as f |v − q| / (c q).
    const q = (d: number): number => 1 / (1 / 50 - 1 / (d - v));
    const v = (4000 - Math.sqrt(4000 ** 2 - 4 * 4000 * 50)) / 2;
    const needs = (50 * Math.abs(v - q(9000))) / (0.03 * q(9000));
    expect(step('check', given)!.detail).toBe(`Door: comes in at f/${needs.toFixed(1)}.`);
    expect(step('look', given)!.detail).toBe('Post, Door.');
  });

  it('a bracket is told in times a hand can set', () => {
    const exposure: Station['exposure'] = {
      iso: 100,
      meter: { time_s: 1 / 4, f_number: 8, iso: 100, through_lens: true },
      brackets: { frames: 3, step_stops: 5 / 3 },
      shutter: { kind: 'focal_plane', steps: 'third' },
    };
    expect(saidIn('expose', { exposure })).toEqual([
      'Expose 3 times, 1⅔ stops apart: 1/13 · 1/4 · 0.8 s',
    ]);
    expect(saidIn('meter', { exposure })[0]).toContain('shifted, the meter reads wrong');
  });

  it('an even bracket has no middle one, and its times are told by the code too', () => {
    const given: Given = {
      exposure: {
        meter: { time_s: 1 / 4, f_number: 8 },
        brackets: { frames: 2, step_stops: 2 },
        shutter: { kind: 'focal_plane', steps: 'third' },
        filters: [{ stops: 0 }],
      },
    };
    // A stop to either side of 1/4 s.
    expect(saidIn('expose', given).at(-1)).toBe('Expose 2 times, 2 stops apart: 1/8 · 1/2 s');
    expect(cardText(station(given))).toContain('time 1/8 · 1/2 s');
    expect(cardText(station(given))).not.toMatch(/filter {2}/);
    // Past its last step by the clock; how far off the middle's step is matters to nobody here.
    const { exposure } = given;
    const slow = station({
      exposure: { ...exposure, shutter: { kind: 'leaf', steps: 'full', slowest_s: 1 / 4 } },
    });
    expect(cardOf(slow).steps.find(({ id }) => id === 'time')!.detail).toBe(
      'Past 1/4 s, the shutter’s last step, by the clock.',
    );
  });

  it('a lens that is wide open is not stopped down', () => {
    const { f_min, f_max } = station({}).lens;
    expect(saidIn('stop', { aperture: f_min })[0]).toMatch(/^Open the iris fully/);
    expect(saidIn('stop', { aperture: f_max })[0]).toMatch(/^Stop down to/);
  });

  it('a lens in the hand is leaned to the side it is turned to', () => {
    const lean = (turn_deg: number): string =>
      step('turn body', { held_off: { gap_mm: 6, lean_deg: 9, turn_deg } })!.says;
    // The body goes the other way than the lens looks.
    expect(lean(0)).toContain('turn the body up');
    expect(lean(90)).toContain('turn the body to the right');
    expect(lean(180)).toContain('turn the body down');
    expect(step('stop', { held_off: { gap_mm: 6, lean_deg: 9 }, aperture: 11 })!.figure).toBe(
      'f/4',
    );
  });

  it('flash has pops and power, and no time', () => {
    const exposure: Station['exposure'] = { flash: true, iso: 100, meter: { f_number: 5.6 } };
    expect(saidIn('expose', { exposure, aperture: 8 })).toEqual([
      'In the dark hold the shutter open (B or T)',
      'Fire the flash 2 times in the dark, each at: full power',
    ]);
    const once = { ...exposure, shutter: { kind: 'leaf' as const, sync_s: 1 / 128 } };
    expect(saidIn('expose', { exposure: once, aperture: 5.6 })[0]).toBe(
      'Set the shutter to: 1/125 s',
    );
  });
});

describe('what cannot be trusted', () => {
  it('a plan with something to settle says so, on the card and as its verdict', () => {
    const cut: Given = {
      movements: { rise_mm: 19, shift_mm: 19 },
      lens: { circle: [{ f_number: 4, diameter_mm: 60 }] },
    };
    expect(cardStanding(station(cut))).toMatchObject({
      standing: 'outside',
      figure: '1',
      words: 'to settle',
    });
    expect(card(cut).unsettled.stops[0]).toContain('outside the circle');
    expect(cardStanding(station({}))).toMatchObject({ standing: 'within', figure: 'Ready' });
    const table = [
      { metered_s: 1, given_s: 2 },
      { metered_s: 2, given_s: 5 },
    ];
    const past: Given = { exposure: { meter: { time_s: 60 }, reciprocity: { table } } };
    expect(card(past).unsettled.stops.join()).toContain('past it');
  });

  it('a figure that rests on what nobody gave is marked, with its reason', () => {
    const bare = card({});
    const level = bare.steps.find(({ id }) => id === 'level')!;
    expect(restsOnAssumed(bare, level)).toBe(true);
    expect(bare.assumed.map(({ pointer }) => pointer)).toContain('/camera/level_offset_deg');
    const checked = card({ camera: { level_offset_deg: 0.2 } });
    expect(
      restsOnAssumed(
        checked,
        checked.steps.find(({ id }) => id === 'level')!,
      ),
    ).toBe(false);
    expect(checked.steps.find(({ id }) => id === 'level')!.figure).toContain('0.20° up');
  });
});

describe('care', () => {
  it('comes from the station, unless somebody said what applies', () => {
    expect(careOf(station({}))).toEqual(['sun']);
    const room = { length_m: 14, width_m: 9, ceiling_m: 5, behind_m: 1.2, left_m: 4 };
    expect(careOf(station({ site: { room } }))).toEqual([]);
    expect(careOf(station({ camera: { height_m: 6 } }))).toEqual(['sun', 'height', 'falling']);
    expect(careOf(station({ exposure: { flash: true } }))).toContain('mains');
    expect(careOf(station({ stand: { care: ['road'] } }))).toEqual(['road']);
    expect(careOf(station({ stand: { care: [] } }))).toEqual([]);
  });
});

describe('as text', () => {
  it('holds every setting and no address', () => {
    const text = cardText(
      station({
        name: 'Ropewalk, north end',
        movements: { rise_mm: 6, tilt_deg: -2 },
        camera: { pitch_deg: -3 },
        exposure: {
          iso: 100,
          meter: { time_s: 0.5, f_number: 8, iso: 100 },
          filters: [{ name: 'Orange', stops: 4 / 3 }],
        },
      }),
    );
    expect(text.split('\n')).toEqual([
      'Ropewalk, north end',
      '50 mm on 36×24 mm, level',
      'height 1.50 m',
      'tipped 3.0° down',
      'back 6.0 mm down',
      'tilt 2.0° back',
      'ring at 82.1 m',
      'stop f/8',
      'filter Orange 1⅓ stops',
      'time 1.3 s ISO 100',
    ]);
    expect(text).not.toMatch(/https?:|localhost/);
    expect(shortForm(station({})).length).toBeLessThanOrEqual(6);
  });

  it('a printed distance too near to focus goes outward until it can be', () => {
    const close = station({ focus: { distance_m: 0.2004 } });
    // Near life size a ring is set by its magnification.
    expect(carried(close).focus.magnification).toBeCloseTo(0.914, 9);
    expect(parseStation(carried(station({ focus: { distance_m: 0.20001 } }), 'feet')).ok).toBe(
      true,
    );
  });
});

describe('packing', () => {
  const kit: { id: string; document: KitItem }[] = [
    { id: 'a', document: lens('Shift 24', 24) },
    { id: 'b', document: lens('Old 25', 25) },
    { id: 'c', document: lens('Tele 200', 200) },
    { id: 'd', document: { kind: 'extra', name: 'Release', comes_with: 'every_job', count: 2 } },
    { id: 'e', document: { kind: 'extra', name: 'Dark cloth', comes_with: 'bellows' } },
    { id: 'f', document: { kind: 'extra', name: 'Holders', comes_with: 'film', count: 5 } },
  ];
  function lens(name: string, focal_length_mm: number): KitItem {
    return {
      kind: 'lens',
      name,
      focal_length_mm,
      f_min: 4,
      f_max: 22,
      circle: [{ f_number: 4, diameter_mm: 60 }],
    };
  }
  const with_ = (kit_id: string, name: string, given: Given = {}): Station =>
    station({ ...given, lens: { name, origin: { kit_id, kit_revision: 1 }, ...given.lens } });

  it('lists each thing once, with where it is used and what could stand in', () => {
    const { gear } = packingOf(
      [with_('a', 'Shift 24'), with_('c', 'Tele 200'), with_('a', 'Shift 24')],
      kit,
    );
    const lenses = gear.filter(({ kind }) => kind === 'lens');
    expect(lenses.map(({ name, usedAt, spares }) => [name, usedAt, spares])).toEqual([
      ['Shift 24', [0, 2], ['Old 25']],
      ['Tele 200', [1], []],
    ]);
    expect(gear.filter(({ kind }) => kind === 'back')).toHaveLength(1);
  });

  it('extras come along by what is shot, with spares where there are several', () => {
    const film = with_('a', 'Shift 24', { back: { medium: 'film' }, chain: [BELLOWS] });
    const names = (stations: Station[]): string[] =>
      packingOf(stations, kit).extras.map(({ name }) => name);
    expect(names([with_('a', 'Shift 24')])).toEqual(['Release']);
    expect(names([film])).toEqual(['Release', 'Dark cloth', 'Holders']);
    const [release, cloth] = packingOf([film], kit).extras;
    expect(release!.spares).toEqual(['2 of them']);
    // How many there are nobody said.
    expect(cloth!.spares).toBeNull();
  });

  it('counts the film: brackets and frames of a mosaic', () => {
    const exposure: Station['exposure'] = {
      film: { name: 'Slow' },
      brackets: { frames: 3, step_stops: 1 },
    };
    const mosaic: Station['mosaic'] = { pattern: 'grid', columns: 2, moves: 'rear' };
    const { gear } = packingOf(
      [with_('a', 'Shift 24', { exposure, mosaic }), with_('a', 'Shift 24', { exposure })],
      kit,
    );
    expect(gear.find(({ kind }) => kind === 'film')).toMatchObject({ name: 'Slow', count: 9 });
  });

  it('a draw past an arm’s length needs a second pair of hands', () => {
    const long = station({
      lens: { focal_length_mm: 300, f_max: 45 },
      chain: [BELLOWS],
      focus: { magnification: 1 },
    });
    expect(packingOf([station({}), long], kit).hands).toEqual([
      {
        station: 1,
        why: 'The bellows are drawn out 600 mm: from the glass nobody reaches the front.',
      },
    ]);
  });
});
