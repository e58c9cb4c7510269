import fc from 'fast-check';
import {
  editedStation,
  evaluate,
  kitItemSchema,
  newRig,
  parseKitItem,
  parseRig,
  parseStation,
  stateOf,
  withRig,
  type ChainPart,
  type Result,
  type Station,
} from '../src/index.js';
import { criterionSchema } from '../src/document/station.js';
import { item, KIT, rigOf } from './helpers/gear.js';
import { base } from './helpers/rigs.js';
import { everything } from './helpers/worlds.js';
import { runs, seen as often } from '../../../scripts/lib/runs.mjs';

const said = (read: Result<unknown>): string[] =>
  read.ok ? [] : read.problems.map(({ pointer, message }) => `${pointer} ${message}`);

const camera = (least: number, most: number): ChainPart => ({
  kind: 'view_camera',
  bellows_min_mm: least,
  bellows_max_mm: most,
});

describe('rules between fields', () => {
  it.each(['rear_tilt_deg', 'rear_swing_deg'] as const)(
    'hold the back to its own limits: %s',
    (field) => {
      const station = base();
      const at = (deg: number): Station => ({
        ...station,
        movements: { ...station.movements, [field]: deg },
        movement_limits: { ...station.movement_limits, [field]: [-5, 5] },
      });
      expect(stateOf(at(4))).toBe('sharp');
      expect(stateOf(at(40))).toBe('beyond');
    },
  );

  it('hold a bellows to one rule in the kit, in a rig and in a station', () => {
    const says = 'must be at least bellows_min_mm, 300';
    const chain = [camera(300, 100)];
    expect(said(parseRig({ ...newRig('rig'), chain }))).toEqual([
      `/chain/0/bellows_max_mm ${says}`,
    ]);
    expect(said(parseStation({ ...base(), chain }))).toEqual([`/chain/0/bellows_max_mm ${says}`]);
    const item = { kind: 'camera', name: 'camera', bellows_min_mm: 300, bellows_max_mm: 100 };
    expect(said(parseKitItem(item))).toEqual([`/bellows_max_mm ${says}`]);
  });

  it('take one standard of sharpness only, wherever one is given', () => {
    const two = { coc_mm: 0.03, diagonal_divisor: 1500 };
    const says = 'must hold one standard of sharpness only';
    expect(criterionSchema.safeParse(two).error?.issues[0]?.message).toBe(says);
    expect(said(parseStation({ ...base(), criterion: two }))).toEqual([`/criterion ${says}`]);
    expect(criterionSchema.safeParse({ coc_mm: 0.03 }).success).toBe(true);
  });

  it('take one way to focus only', () => {
    const focus = { distance_m: 3, magnification: 0.1 };
    expect(said(parseStation({ ...base(), focus }))).toEqual([
      '/focus must hold only one of distance_m, magnification, image_distance_mm',
    ]);
  });

  it('refuse two variants of one name', () => {
    const { format: _f, version: _v, name: _n, ...settings } = base();
    const kept = (names: string[]) => names.map((name) => ({ name, settings }));
    const read = (present: string, names: string[]) =>
      said(parseStation({ ...base(), variants: { present, kept: kept(names) } }));
    expect(read('a', ['b', 'c'])).toEqual([]);
    expect(read('a', ['b', 'b'])).toEqual([
      '/variants/kept/1/name repeats “b”; give each variant a name of its own',
    ]);
    expect(read('a', ['a'])).toHaveLength(1);
  });

  it('refuse ranges that run backwards', () => {
    const mosaic = { pattern: 'grid', moves: 'rear', near_m: 9, far_m: 3 };
    expect(said(parseStation({ ...base(), mosaic }))).toEqual([
      '/mosaic/near_m must be at most far_m, 3',
    ]);
    const reduced = [{ f_from: 8, f_to: 4, shift_mm: 3 }];
    const says = 'must be at least f_from, 8: from wide to small';
    const { movement_limits } = base();
    expect(
      said(parseStation({ ...base(), movement_limits: { ...movement_limits, reduced } })),
    ).toEqual([`/movement_limits/reduced/0/f_to ${says}`]);
    const { document } = item('Shift 24 f/3.5');
    const lens = { ...document, movement: { moves: 'front', reduced } };
    expect(said(parseKitItem(lens))).toEqual([`/movement/reduced/0/f_to ${says}`]);
    expect(kitItemSchema.safeParse(document).success).toBe(true);
  });

  it('tell one pattern from another', () => {
    const read = (mosaic: object) => said(parseStation({ ...base(), mosaic }));
    expect(read({ pattern: 'pinwheel', frames: 6, offset_mm: [3, 4], moves: 'rear' })).toEqual([]);
    expect(read({ pattern: 'spiral', moves: 'rear' })).toEqual([
      '/mosaic/pattern must be one of "grid", "pinwheel", "ring", "free", "turn"',
    ]);
    expect(read({ pattern: 'grid', rows: 0, moves: 'rear' })).toHaveLength(1);
    expect(read({ pattern: 'turn', columns: 3, moves: 'camera' })).toEqual([]);
    expect(read({ pattern: 'turn', columns: 3, moves: 'rear' })).toEqual([
      '/mosaic/moves must be "camera" where the camera turns',
    ]);
    expect(read({ pattern: 'grid', moves: 'camera' })).toEqual([
      '/mosaic/moves must be "rear" or "lens", not "camera"',
    ]);
    const wish = (of: object) => read({ pattern: 'grid', moves: 'rear', wish: of });
    expect(wish({ fill: 'covered' })).toEqual([]);
    expect(wish({ fill: 'covered', megapixels: 80 })).toHaveLength(1);
    expect(wish({ dpi: 300 })).not.toEqual([]);
  });
});

describe('a mosaic of a standard that stands still', () => {
  const problemsOf = (moves: 'rear' | 'lens', own: 'rear' | 'front', limits: object = {}) => {
    const station: Station = {
      ...base(),
      movement_limits: { moves: own, ...limits },
      mosaic: { pattern: 'grid', columns: 2, moves },
    };
    expect(said(parseStation(station))).toEqual([]);
    const { mosaic } = evaluate(station);
    expect(mosaic?.possible).toBe(mosaic?.problems.length === 0);
    return mosaic?.problems.map(({ message }) => message);
  };

  it('is read, and reported', () => {
    expect(problemsOf('rear', 'front')).toEqual([
      'The mosaic asks for the back to move; on this rig only the lens does.',
    ]);
    expect(problemsOf('lens', 'rear')).toEqual([
      'The mosaic asks for the lens to move; on this rig only the back does.',
    ]);
    expect(problemsOf('rear', 'rear')).toEqual([]);
    expect(problemsOf('lens', 'front')).toEqual([]);
    expect(problemsOf('rear', 'front', { rear_rise_mm: [-20, 20] })).toEqual([]);
  });
});

describe('another rig in a station', () => {
  const lenses = KIT.filter(({ document }) => document.kind === 'lens');
  const backs = KIT.filter(({ document }) => document.kind === 'back');

  it('gives one that parses, however lens and back lean', () => {
    let leaned = 0;
    fc.assert(
      fc.property(
        everything,
        fc.constantFrom(...lenses),
        fc.constantFrom(...backs),
        (station, lens, back) => {
          const rig = rigOf(lens.document.name, [], back.document.name);
          const after = withRig(station, rig);
          expect(said(parseStation(after))).toEqual([]);
          if ((station.movements.rear_tilt_deg ?? 0) !== 0) leaned += 1;
        },
      ),
      { numRuns: runs(400) },
    );
    expect(leaned).toBeGreaterThan(often(20));
  });
});

describe('an edited station', () => {
  const marks = Array.from({ length: 20 }, (_, i) => ({
    label: `mark ${i}`,
    x_m: i / 10,
    y_m: 1,
    z_m: 9,
    must: 'free' as const,
  }));

  it('keeps what the edit left alone as it was, object for object', () => {
    const before: Station = { ...base(), marks };
    const after = {
      ...before,
      marks: marks.map((mark, i) => (i === 3 ? { ...mark, x_m: 5 } : mark)),
    };
    const read = editedStation(after, before);
    expect(read.ok && read.value === after).toBe(true);
    expect(read.ok && read.value.lens === before.lens).toBe(true);
  });

  it('refuses just what the whole document would be refused for', () => {
    const edits: ((station: Station) => unknown)[] = [
      (s) => ({ ...s, aperture: 900 }),
      (s) => ({ ...s, aperture: 'wide' }),
      (s) => ({ ...s, marks: [...(s.marks ?? []), { label: 'half', must: 'sharp' }] }),
      (s) => ({ ...s, marks: Array.from({ length: 501 }, () => marks[0]) }),
      (s) => ({ ...s, movements: { ...s.movements, rise_mm: Infinity } }),
      (s) => ({ ...s, lens: undefined }),
      (s) => ({ ...s, site: { boxes: [{ name: 'here', x_m: 0, z_m: -9, width_m: 1, depth_m: 1, height_m: 1 }] } }), // prettier-ignore
      (s) => ({ ...s, note: 'kept' }),
      (s) => ({ ...s, movements: { ...s.movements, rise_mm: 3 } }),
      (s) => ({ ...s, focus: { distance_m: 0.01 } }),
      (s) => ({ ...s, chain: [camera(300, 100)] }),
    ];
    let refused = 0;
    fc.assert(
      fc.property(everything, fc.constantFrom(...edits), (station, edit) => {
        const after = edit(station) as Station;
        const whole = parseStation(after);
        const read = editedStation(after, station);
        expect(said(read)).toEqual(said(whole));
        if (!whole.ok) refused += 1;
      }),
    );
    expect(refused).toBeGreaterThan(10);
  });
});

describe('a copy from the kit', () => {
  const copy = { kit_id: 'a', kit_revision: 3 };

  it('says where it is from in one object; the older two fields are read', () => {
    const { lens } = base();
    const old = { ...base(), lens: { ...lens, ...copy, filter: { clear_diameter_mm: 60, ahead_of_pupil_mm: 9, ...copy } } }; // prettier-ignore
    const read = parseStation(old);
    expect(read.ok && read.value.lens).toEqual({
      ...lens,
      origin: copy,
      filter: { clear_diameter_mm: 60, ahead_of_pupil_mm: 9, origin: copy },
    });
    const chain = [{ ...camera(100, 300), ...copy }];
    const rig = parseRig({ ...newRig('old'), chain });
    expect(rig.ok && rig.value.chain).toEqual([{ ...camera(100, 300), origin: copy }]);
  });

  it('that tells half of it is no copy', () => {
    const { lens } = base();
    const read = parseStation({ ...base(), lens: { ...lens, kit_id: 'a' } });
    expect(read.ok && read.value.lens).toEqual(lens);
  });
});
