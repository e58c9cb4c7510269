import { kitJsonSchema, rigSchema, stationJsonSchema } from '../src/index.js';
import * as z from 'zod';
import {
  evaluate,
  faultSentence,
  keptStation,
  parseEdited,
  parseKitItem,
  parseStation,
  readKept,
  type Station,
} from '../src/index.js';
import { itemFrom, textsOf } from '../src/kit/texts.js';
import { base } from './helpers/rigs.js';

type Node = Record<string, unknown>;

/** Every number a schema speaks of, with its path. */
function numbersIn(node: unknown, path = ''): { path: string; node: Node }[] {
  if (typeof node !== 'object' || node === null) return [];
  const own = node as Node;
  const here =
    (own.type === 'number' || own.type === 'integer') && own.const === undefined
      ? [{ path, node: own }]
      : [];
  return [
    ...here,
    ...Object.entries(own).flatMap(([key, inner]) => numbersIn(inner, `${path}/${key}`)),
  ];
}

describe('every figure has a least and a greatest value', () => {
  it.each([
    ['station', stationJsonSchema()],
    ['kit', kitJsonSchema()],
    ['rig', z.toJSONSchema(rigSchema, { io: 'input' })],
  ])('%s', (_, schema) => {
    const all = numbersIn(schema);
    expect(all.length).toBeGreaterThan(30);
    for (const { path, node } of all) {
      const least = node.minimum ?? node.exclusiveMinimum;
      expect([path, typeof least, typeof node.maximum]).toEqual([path, 'number', 'number']);
      // Above zero alone would allow a millionth of a millionth.
      if (Number(least) === 0) expect(path).not.toMatch(/focal|f_number|diameter|width|factor/);
    }
  });
});

/** Ranges as the document's description lists them. */
const RANGES: readonly (readonly [string, (value: number) => object, number, number])[] = [
  ['focal length', (v) => ({ lens: { ...base().lens, focal_length_mm: v } }), 1, 10_000],
  ['f-number', (v) => ({ lens: { ...base().lens, f_min: v } }), 0.5, 1024],
  ['circle', (v) => ({ lens: { ...base().lens, circle: [{ f_number: 4, diameter_mm: v }] } }), 1, 20_000],
  ['pupil ratio', (v) => ({ lens: { ...base().lens, pupil_ratio: v } }), 0.05, 20],
  ['back', (v) => ({ back: { ...base().back, width_mm: v } }), 1, 5000],
  ['pixels', (v) => ({ back: { ...base().back, width_px: v } }), 1, 1_000_000],
  ['thickness', (v) => ({ chain: [{ kind: 'adapter', thickness_mm: v }] }), 0, 20_000],
  ['offset', (v) => ({ chain: [{ kind: 'board', offset_mm: v }] }), -20_000, 20_000],
  ['multiplier', (v) => ({ chain: [{ kind: 'multiplier', factor: v }] }), 0.1, 20],
  ['pivot', (v) => ({ movement_limits: { moves: 'front', pivot_mm: v } }), -20_000, 20_000],
  ['movement', (v) => ({ movements: { ...base().movements, rise_mm: v } }), -5000, 5000],
  ['lean', (v) => ({ movements: { ...base().movements, tilt_deg: v } }), -80, 80],
  ['image distance', (v) => ({ focus: { image_distance_mm: v } }), 1, 20_000],
  ['magnification', (v) => ({ focus: { magnification: v } }), 0.0001, 100],
  ['distance', (v) => ({ focus: { distance_m: v } }), 0.001, 1_000_000],
  ['height', (v) => ({ camera: { ...base().camera, height_m: v } }), -100_000, 100_000],
  ['circle of confusion', (v) => ({ criterion: { coc_mm: v } }), 0.0001, 100],
  ['time', (v) => ({ stack: { seconds_each: v } }), 0.000001, 2_592_000],
]; // prettier-ignore

describe('ranges', () => {
  const refusedForSize = (document: object): boolean => {
    const read = parseStation({ ...base(), ...document });
    return (
      !read.ok && read.problems.some(({ message }) => /^must be a.* from .* to /.test(message))
    );
  };

  it.each(RANGES)('%s', (_, change, least, most) => {
    expect([least, most].map((value) => refusedForSize(change(value)))).toEqual([false, false]);
    const past = Math.max(1, Math.abs(most)) * 1e-6;
    for (const value of [least - past, most + 1, -1e300, 1e300]) {
      expect(refusedForSize(change(value))).toBe(true);
    }
  });

  it('a pivot leaves at least a millimetre of what is set on the bed', () => {
    const leaned = (image_distance_mm: number) =>
      parseStation({
        ...base(),
        movement_limits: { moves: 'front', pivot_mm: 100 },
        // Draws back by 100 (1 − cos 60°) = 50 mm.
        movements: { ...base().movements, tilt_deg: 60 },
        focus: { image_distance_mm },
      });
    expect(leaned(51.001).ok).toBe(true);
    const short = leaned(50.9);
    expect(short.ok ? '' : short.problems[0]!.message).toContain(
      'at least 51.00 mm as they lean now',
    );
  });
});

/** As an earlier version took it: a lens of a hundredth of a millimetre's circle, a height of 150 km. */
const older = (): Station => ({ ...base(), camera: { ...base().camera, height_m: 150_000 } });

describe('what is stored already', () => {
  it('is read though a rule came later, its faults named', () => {
    const { value, faults } = readKept(parseStation, older());
    expect(value).toEqual(older());
    expect(faults.map(faultSentence)).toEqual([
      'Camera, height (m) must be a number of m from -100,000 to 100,000, not 150000.',
    ]);
    expect(keptStation(older())).toMatchObject({ kind: 'faulty', faults });
    expect(Number.isFinite(evaluate(older()).coverage.margin_mm)).toBe(true);
  });

  it('takes changes that leave the fault as it is, and no other fault', () => {
    const moved = { ...older(), movements: { ...older().movements, rise_mm: 3 } };
    expect(parseEdited(parseStation, moved, older())).toMatchObject({ ok: true, value: moved });
    const worse = { ...older(), camera: { ...older().camera, height_m: 160_000 } };
    expect(parseEdited(parseStation, worse, older()).ok).toBe(false);
    const second = { ...moved, aperture: 2000 };
    const refused = parseEdited(parseStation, second, older());
    expect(refused.ok ? [] : refused.problems.map(({ pointer }) => pointer)).toContain('/aperture');
    expect(refused.ok ? [] : refused.problems.map(({ pointer }) => pointer)).not.toContain(
      '/camera/height_m',
    );
    // Once it is sound it stays so.
    expect(parseEdited(parseStation, older(), base()).ok).toBe(false);
  });

  it.each([
    ['nothing', null],
    ['a list', []],
    ['text', 'x'],
    ['another format', { format: 'else', name: 'Else' }],
    ['a later version', { ...base(), version: 2 }],
    ['no lens', { ...base(), lens: null }],
    ['a figure that is text', { ...base(), aperture: 'f/8' }],
  ])('that is %s is broken, and says why', (_, document) => {
    const kept = keptStation(document);
    expect(kept.kind).toBe('broken');
    if (kept.kind === 'broken') {
      expect(kept.faults.length).toBeGreaterThan(0);
      expect(kept.name.length).toBeGreaterThan(0);
    }
  });

  it('from which nothing can be worked out is broken too, though it could be read', () => {
    const vanishing = {
      ...base(),
      lens: {
        ...base().lens,
        focal_length_mm: 1e-308,
        circle: [{ f_number: 4, diameter_mm: 1e308 }],
      },
    };
    expect(keptStation(vanishing).kind).toBe('broken');
  });

  it('in the kit may be changed beside its fault', () => {
    const item = { kind: 'board', name: 'Old board', offset_mm: 30_000 } as const;
    expect(parseKitItem(item).ok).toBe(false);
    const renamed = itemFrom('board', { ...textsOf(item), name: 'Board' }, item);
    expect(renamed.item).toMatchObject({ ok: true, value: { name: 'Board', offset_mm: 30_000 } });
    const further = itemFrom('board', { ...textsOf(item), offset_mm: '40000' }, item);
    expect(further.messages.offset_mm).toContain('from -20,000 to 20,000');
  });
});
