import fc from 'fast-check';
import {
  circleFromRow,
  circleTableOf,
  columnsOf,
  guessMapping,
  guarded,
  guessTable,
  itemFromRow,
  readField,
  tableOf,
  unguarded,
  unmapped,
  withCircles,
  fieldsOf,
  type FieldDef,
  type KitItem,
  type KitItemOf,
} from '../src/index.js';
import { runs } from '../../../scripts/lib/runs.mjs';
import { item, KIT } from './helpers/gear.js';

const lens = item('Shift 24 f/3.5').document as KitItemOf<'lens'>;
const items: KitItem[] = KIT.map(({ document }) => document);

describe('headings', () => {
  it.each([
    [['Name', 'Focal length', 'Widest stop', 'Smallest stop', 'Circle'], 'lens'],
    [['name', 'focal_length_mm', 'f_min', 'f_max', 'image circle', 'weight'], 'lens'],
    [['name', 'width', 'height', 'pixels'], 'back'],
    [['lens', 'stop', 'diameter_mm'], 'circle'],
    [['lens', 'f_number', 'diameter'], 'circle'],
  ])('%j look like a table of %s', (headings, table) => {
    expect(guessTable(headings)).toBe(table);
  });

  it('take each field once, in the file’s order', () => {
    expect(guessMapping(['Model', 'name', 'FL', 'focal'], 'lens')).toEqual([
      'name',
      null,
      'focal_length_mm',
      null,
    ]);
  });

  it('know every column by its own name and by its label', () => {
    for (const table of ['lens', 'back', 'circle'] as const) {
      const paths = columnsOf(table).map(({ path }) => path);
      expect(guessMapping(paths, table)).toEqual(paths);
      const labels = columnsOf(table).map(({ label }) => label);
      expect(guessMapping(labels, table).filter(Boolean).length).toBe(new Set(labels).size);
    }
  });

  it('say which needed columns are missing', () => {
    expect(unmapped('back', ['name', 'width_mm']).map(({ path }) => path)).toEqual(['height_mm']);
    expect(unmapped('circle', ['lens', 'f_number', 'diameter_mm'])).toEqual([]);
  });
});

describe('lines', () => {
  it('of the demo’s lenses and backs read as they were written', () => {
    for (const kind of ['lens', 'back'] as const) {
      const { heading, lines } = tableOf(kind, items);
      const mapping = guessMapping(heading, kind);
      const read = lines.map((cells, i) => itemFromRow(kind, { line: i + 2, cells }, mapping));
      expect(read.map((each) => each.ok && each.value)).toEqual(
        items.filter((each) => each.kind === kind),
      );
    }
  });

  it('have plain minus signs and no needless columns', () => {
    const { heading, lines } = tableOf('lens', [
      { ...lens, movement: { tilt_deg: [-8, 2], moves: 'front' } },
    ]);
    expect(heading).not.toContain('notes');
    expect(lines[0]![heading.indexOf('movement.tilt_deg')]).toBe('-8 to 2');
  });

  it('are taken out of a spreadsheet’s guard, and only out of that', () => {
    expect(unguarded("'=1+1")).toBe('=1+1');
    expect(unguarded("'-x")).toBe('-x');
    expect(unguarded("''=1")).toBe("'=1");
    expect(unguarded("'t Hart")).toBe("'t Hart");
  });

  it('with too many cells are refused; with too few the missing are asked for', () => {
    const mapping = ['name', 'width_mm', 'height_mm'];
    const row = (...cells: string[]) => itemFromRow('back', { line: 2, cells }, mapping);
    expect(row('x', '36', '24').ok).toBe(true);
    expect(row('x', '36', '24', '').ok).toBe(true);
    const more = row('x, y', '36', '24', '9');
    expect(!more.ok && more.problems[0]!.message).toContain('4 cells where the heading has 3');
    const less = row('x', '36');
    expect(!less.ok && less.problems[0]!.pointer).toBe('/height_mm');
  });
});

describe('circles', () => {
  const mapping = ['lens', 'f_number', 'diameter_mm'];

  it('of all lenses, a line a stop, read again', () => {
    const { heading, lines } = circleTableOf(items);
    expect(heading).toEqual(mapping);
    const stops = items.flatMap((each) => (each.kind === 'lens' ? each.circle : []));
    expect(lines).toHaveLength(stops.length);
    const read = lines.map((cells, i) => circleFromRow({ line: i + 2, cells }, mapping));
    expect(read.map((each) => each.ok && each.value.diameter_mm)).toEqual(
      stops.map(({ diameter_mm }) => diameter_mm),
    );
  });

  it('replace those of the same stop, and stand in order', () => {
    const made = withCircles(lens, [
      { lens: lens.name, f_number: 16, diameter_mm: 71 },
      { lens: lens.name, f_number: 4, diameter_mm: 63 },
    ]);
    expect(
      made.ok && made.value.kind === 'lens' && made.value.circle.map((each) => each.f_number),
    ).toEqual([3.5, 4, 5.6, 8, 11, 16]);
    expect(made.ok && made.value).toMatchObject({
      circle: expect.arrayContaining([{ f_number: 16, diameter_mm: 71 }]) as unknown,
    });
    expect(withCircles(lens, [{ lens: lens.name, f_number: 4, diameter_mm: -1 }]).ok).toBe(false);
  });
});

describe('single fields', () => {
  const field = (path: string): FieldDef =>
    [...fieldsOf('lens'), ...fieldsOf('back')].find((each) => each.path === path)!;

  it.each([
    ['movement.rise_mm', '12', [-12, 12]],
    ['movement.rise_mm', '±12', [-12, 12]],
    ['movement.rise_mm', '−8 to 12', [-8, 12]],
    ['movement.rise_mm', '0.5 in', [-12.7, 12.7]],
    ['movement.tilt_deg', '-8 … 8', [-8, 8]],
    ['movement.turn_stops_deg', '0, 30, 60', [0, 30, 60]],
    ['circle', 'f/4 60', [{ f_number: 4, diameter_mm: 60 }]],
    ['circle', 'F/4=6 cm', [{ f_number: 4, diameter_mm: 60 }]],
    ['mass_g', '1.2 kg', 1200],
    ['mass_g', '780 g', 780],
    ['width_px', '8256 px', 8256],
    ['close_focus.magnification', '1:2', 0.5],
    ['has_foot', 'Yes', true],
    ['has_foot', '0', false],
    ['iris', 'set on the lens', 'mechanical'],
  ])('%s takes “%s”', (path, text, value) => {
    expect(readField(field(path), text)).toEqual({ ok: true, value });
  });
});

describe('cells that a table program would run', () => {
  const sign = fc.constantFrom(
    '=',
    '+',
    '-',
    '@',
    '\u2212',
    '\uff1d',
    '\uff0b',
    '\uff0d',
    '\uff20',
  );
  const passed = fc.string({
    unit: fc.constantFrom(
      ' ',
      '\t',
      '\r',
      '\n',
      '\u2028',
      '\u2029',
      '\u00a0',
      '\u200b',
      '\ufeff',
      '\u0000',
    ),
    maxLength: 4,
  });

  it('are guarded whatever stands before or after the sign', () => {
    fc.assert(
      fc.property(passed, sign, fc.string(), (before, mark, after) => {
        const cell = `${before}${mark}${after}x`;
        expect(guarded(cell)).toBe(`'${cell}`);
        expect(guarded(`${before}${mark}\n1+1`).startsWith("'")).toBe(true);
      }),
      { numRuns: runs(500) },
    );
    for (const plain of ['West front', '1/250', '3:2', 'a=b', '', '12']) {
      expect(guarded(plain)).toBe(plain);
    }
  });

  it('stay figures where they are figures', () => {
    for (const figure of ['-2.5', '+3', '-1e-3', '-.5', '-2,5', '1.5']) {
      expect(guarded(figure)).toBe(figure);
    }
  });

  it('read back as they were', () => {
    const any = fc.tuple(passed, fc.option(sign), fc.constantFrom('', "'", "''"), fc.string());
    fc.assert(
      fc.property(any, fc.boolean(), ([before, mark, quote, rest], first) => {
        const cell = first ? `${quote}${before}${mark ?? ''}${rest}` : `${before}${quote}${rest}`;
        expect(unguarded(guarded(cell))).toBe(cell);
      }),
      { numRuns: runs(1000) },
    );
  });
});
