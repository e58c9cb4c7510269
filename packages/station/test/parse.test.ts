import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { Ajv2020 } from 'ajv/dist/2020.js';
import { parseStation, parseStationText, stationJsonSchema } from '../src/index.js';
import { migrate } from '../src/document/migrations.js';
import { base, parsed, stations } from './helpers/rigs.js';
import { runs } from '../../../scripts/lib/runs.mjs';

type Doc = Record<string, unknown>;

/** The whole document, every field of the format filled. */
const full = (): Doc => ({
  ...base(),
  back: {
    name: 'Back',
    width_mm: 44,
    height_mm: 33,
    width_px: 11648,
    height_px: 8736,
    orientation: 'portrait',
    register_mm: 18.3,
    mount: '18.3 mm, 62 mm throat',
    medium: 'digital',
  },
  lens: {
    ...base().lens,
    sharp_fraction: 0.8,
    pupil_ratio: 1.1,
    register_mm: 60,
    flange_focal_mm: 61,
    mount: '60 mm',
    filter: { clear_diameter_mm: 77, ahead_of_pupil_mm: 25 },
    close_focus: { distance_mm: 250, magnification: 0.3 },
  },
  chain: [
    { kind: 'adapter', thickness_mm: 41.7 },
    { kind: 'multiplier', factor: 1.4, circle_limit_mm: 60 },
    { kind: 'board', offset_mm: -15 },
    { kind: 'view_camera', bellows_min_mm: 60, bellows_max_mm: 400 },
  ],
  movement_limits: {
    rise_mm: [-12, 12],
    shift_mm: [-12, 12],
    tilt_deg: [-8, 8],
    swing_deg: [0, 0],
    radial_shift_mm: 12,
    radial_tilt_deg: 8,
    pivot_mm: 30,
    moves: 'rear',
  },
  movements: {
    rise_mm: 1,
    shift_mm: 2,
    tilt_deg: 3,
    swing_deg: 0,
    rear_tilt_deg: 1,
    rear_swing_deg: -1,
  },
  facade: { distance_m: 20, top_m: 15, width_m: 18, base_m: 0, headroom_m: 1, footroom_m: 1 },
  marks: [{ label: 'door', x_m: 0, y_m: 1, z_m: 19, must: 'sharp' }],
  solve: { tilt: true, swing: false },
  turn_in: { yaw_deg: 6, keep: 'left' },
  mosaic: {
    pattern: 'grid',
    columns: 3,
    rows: 1,
    overlap: 0.25,
    frames: 4,
    offset_mm: [8, 8],
    moves: 'rear',
    near_m: 2,
    far_m: 40,
  },
});

const setAt = (document: Doc, pointer: string, value: unknown): Doc => {
  const copy = structuredClone(document);
  const keys = pointer.slice(1).split('/');
  let inner = copy as Record<string, unknown>;
  for (const key of keys.slice(0, -1)) inner = inner[key] as Record<string, unknown>;
  inner[keys.at(-1)!] = value;
  return copy;
};

const problemsOf = (document: unknown): { pointer: string; message: string }[] => {
  const read = parseStation(document);
  return read.ok ? [] : read.problems;
};

describe('station document', () => {
  it('takes every field, and keeps unknown ones at every depth', () => {
    const document = full();
    const odd = setAt(setAt(document, '/lens/colour', 'black'), '/future', { a: [1, { b: null }] });
    (odd.chain as Doc[])[0]!.contacts = true;
    expect(parsed(odd)).toEqual(odd);
  });

  // What is refused: where, what was put there, and what the sentence must say.
  it.each([
    ['/name', 5, 'must be text'],
    ['/name', 'a\u0000b', 'control characters'],
    ['/back/width_mm', '36', 'a number of mm from 1 to 5,000'],
    ['/back/width_mm', 0, 'from 1 to 5,000'],
    ['/back/height_mm', -24, 'from 1 to 5,000'],
    ['/back/height_mm', 50, 'at most width_mm (44)'],
    ['/back/orientation', 'sideways', '"landscape" or "portrait"'],
    ['/back/width_px', 10.5, 'a whole number'],
    ['/lens/focal_length_mm', null, 'a number of mm from 1 to 10,000'],
    ['/lens/focal_length_mm', 0.00001, 'from 1 to 10,000'],
    ['/lens/f_min', 1e-308, 'a number from 0.5 to 1,024'],
    ['/lens/f_max', 1, 'no wider than the widest stop, f/'],
    ['/lens/circle', [], 'at least one entry'],
    ['/lens/circle/1/f_number', 3.5, 'repeats f/3.5'],
    ['/lens/circle/1/f_number', 2, 'from the widest to the smallest'],
    ['/aperture', 2, 'from f/3.5 to f/22'],
    ['/focus', { distance_m: 0.05 }, 'nearer than a 24 mm lens can focus'],
    ['/focus', { distance_m: 5, magnification: 1 }, 'only one of'],
    ['/focus', {}, 'distance_m, magnification, image_distance_mm'],
    ['/focus', { distance_m: -3 }, 'a number of m from 0.001 to 1,000,000'],
    ['/chain/0/kind', 'tube', '"adapter", "multiplier"'],
    ['/chain/3/bellows_max_mm', 10, 'at least bellows_min_mm'],
    ['/movement_limits/rise_mm', [5, -5], 'from the least to the greatest'],
    ['/movement_limits/moves', 'both', '"front" or "rear"'],
    ['/movements/tilt_deg', 95, 'from -80 to 80'],
    ['/criterion', { pixels: 2, coc_mm: 0.03 }, 'one standard'],
    ['/marks/0/must', 'maybe', '"sharp" or "soft"'],
    ['/mosaic/overlap', 1.5, 'from 0 to 0.95'],
  ])('refuses %s = %j', (pointer, value, says) => {
    const problems = problemsOf(setAt(full(), pointer, value));
    expect(problems.map((each) => each.message).join('; ')).toContain(says);
    expect(problems.some((each) => each.pointer.startsWith(pointer))).toBe(true);
  });

  it('asks for pixels when sharpness is counted in them', () => {
    const problems = problemsOf({ ...base(), criterion: { pixels: 2 } });
    expect(problems).toEqual([
      { pointer: '/criterion/pixels', message: expect.stringContaining('back.width_px') },
    ]);
  });

  it('refuses other documents, older than known and newer ones', () => {
    expect(problemsOf([])[0]!.message).toContain('JSON object');
    expect(problemsOf({ hello: 1 })[0]).toMatchObject({ pointer: '/format' });
    expect(problemsOf({ ...base(), version: 2 })[0]!.message).toContain('newer Gangway');
    expect(problemsOf({ ...base(), version: 2 })[0]!.message).toContain('version 1');
    expect(problemsOf({ ...base(), version: '1' })[0]!.message).toContain('must be 1');
  });

  it('reads files: empty, not JSON, too large, beyond numbers', () => {
    const says = (text: string): string => {
      const read = parseStationText(text);
      return read.ok ? '' : read.problems[0]!.message;
    };
    expect(says('')).toContain('empty');
    expect(says('{')).toContain('not JSON');
    expect(says(' '.repeat(3_000_000))).toContain('3.0 MB');
    expect(says(JSON.stringify(base()).replace('"aperture":8', '"aperture":1e400'))).toContain(
      'too large to be a number',
    );
    expect(says(JSON.stringify(base()).replace('"chain":[]', '"chain":[],"odd":1e999'))).toContain(
      'too large',
    );
    expect(says('['.repeat(50_000))).toContain('not JSON');
    expect(parseStationText(`\uFEFF${JSON.stringify(base())}`).ok).toBe(true);
  });

  it('never throws, whatever JSON comes', () => {
    fc.assert(
      fc.property(fc.jsonValue(), fc.constantFrom(...Object.keys(full())), (value, key) => {
        expect(parseStation(value).ok).toBe(false);
        const read = parseStation({ ...full(), [key]: value });
        if (!read.ok) expect(read.problems.length).toBeGreaterThan(0);
      }),
      { numRuns: runs(1000) },
    );
  });

  it('migrates step by step, and not past a missing step', () => {
    const steps = {
      1: (d: Doc) => ({ ...d, two: true }),
      2: (d: Doc) => ({ ...d, three: true }),
    };
    expect(migrate({ version: 1 }, steps, 3)).toEqual({ version: 3, two: true, three: true });
    expect(migrate({ version: 0 }, steps, 3)).toBeNull();
    expect(migrate({ version: 4 }, steps, 3)).toBeNull();
  });
});

describe('JSON Schema', () => {
  const ajv = new Ajv2020({ strict: false });
  const validate = ajv.compile(stationJsonSchema());

  it('takes what the parser takes', () => {
    expect(validate(full())).toBe(true);
    fc.assert(
      fc.property(stations(), (station) => {
        expect(validate(station)).toBe(true);
      }),
      { numRuns: runs(50) },
    );
  });

  it('refuses single fields as the parser does', () => {
    expect(validate(setAt(full(), '/back/width_mm', 0))).toBe(false);
    expect(validate(setAt(full(), '/version', 2))).toBe(false);
    expect(validate(setAt(full(), '/chain/0/kind', 'tube'))).toBe(false);
  });

  it('is the one that ships', () => {
    const shipped = readFileSync(new URL('../station.schema.json', import.meta.url), 'utf8');
    expect(JSON.parse(shipped)).toEqual(stationJsonSchema());
  });
});
