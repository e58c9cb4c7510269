import { parseKitItem, type KitItemOf, type Stored } from '@gangway/station';
import { makeDesk, type ImportHead } from '../src/kit/import-desk.js';
import { readImport, type Question } from '../src/kit/read-import.js';

const lens: Stored<KitItemOf<'lens'>> = {
  id: 'one',
  revision: 3,
  document: {
    kind: 'lens',
    name: 'Quay 35',
    focal_length_mm: 35,
    f_min: 2.8,
    f_max: 22,
    circle: [{ f_number: 2.8, diameter_mm: 58 }],
  },
};

const bytesOf = (from: Uint8Array | string): ArrayBuffer => {
  const raw = typeof from === 'string' ? new TextEncoder().encode(from) : from;
  return raw.buffer.slice(raw.byteOffset, raw.byteOffset + raw.byteLength) as ArrayBuffer;
};

const question = (more: Partial<Question> = {}): Question => ({
  encoding: null,
  table: null,
  mapping: null,
  taken: ['lens:quay 35'],
  lenses: [lens],
  ...more,
});

function preview(from: Uint8Array | string, more: Partial<Question> = {}) {
  const read = readImport(bytesOf(from), question(more));
  if (read.kind === 'refused') throw new Error(read.message);
  return { ...read, rows: read.rows.map((row, i) => ({ ...row, item: read.itemOf(i) })) };
}

const refusedWith = (from: Uint8Array | string): string => {
  const read = readImport(bytesOf(from), question());
  return read.kind === 'refused' ? read.message : 'taken';
};

const HEAD = 'Name,Focal length,f_min,f_max,Image circle\r\n';

describe('a table of lenses', () => {
  it('maps headings people use, and reads each line on its own', () => {
    const { rows, table, mapping } = preview(
      `${HEAD}"Marsh 135, long",135 mm,f/4,32,f/4: 170\r\nBad,-5,4,22,f/4: 60\r\n,50,4,22,f/4: 60\r\nQUAY 35,35,2.8,22,f/4: 60\r\n`,
    );
    expect(table).toBe('lens');
    expect(mapping).toEqual(['name', 'focal_length_mm', 'f_min', 'f_max', 'circle']);
    expect(rows.map(({ line, state }) => [line, state])).toEqual([
      [2, 'good'],
      [3, 'bad'],
      [4, 'bad'],
      [5, 'same_name'],
    ]);
    expect(rows[0]!.item).toMatchObject({ name: 'Marsh 135, long', focal_length_mm: 135 });
    expect(rows[1]!.message).toBe('Focal length: must be a number of mm from 1 to 10,000, not -5.');
    expect(rows[2]!.message).toBe('Name: Give this: a name.');
  });

  it('asks for columns it cannot guess, and takes a mapping given by hand', () => {
    const text = 'what,mm,wide,small,round\nMarsh,135,4,32,f/4: 170\n';
    expect(preview(text).rows).toEqual([]);
    const mapping = { 0: 'name', 1: 'focal_length_mm', 2: 'f_min', 3: 'f_max', 4: 'circle' };
    expect(preview(text, { table: 'lens', mapping }).rows[0]).toMatchObject({ state: 'good' });
  });

  it('two lines of one name: the second is told, not lost', () => {
    const line = 'Marsh,135,4,32,f/4: 170\n';
    const { rows } = preview(HEAD + line + line);
    expect(rows.map(({ state }) => state)).toEqual(['good', 'same_name']);
  });

  it('takes formula-like cells as text, with or without a spreadsheet’s guard', () => {
    const { rows } = preview(
      `${HEAD}=1+1,50,2,16,f/2: 44\n'=A1|x,50,2,16,f/2: 44\n'-x,50,2,16,f/2: 44\n`,
    );
    expect(rows.map(({ name }) => name)).toEqual(['=1+1', '=A1|x', '-x']);
  });

  it('a line with more cells than headings says so', () => {
    const { rows } = preview(`${HEAD}Marsh 135, long,135,4,32,f/4: 170\n`);
    expect(rows[0]!.message).toContain('a cell with a comma needs quotes');
  });
});

describe('files that are something else', () => {
  it.each([
    ['', 'The file is empty.'],
    ['\n\n', 'headings'],
    ['name,focal\n', 'no lines under them'],
    [`${HEAD}"Marsh,1,2,3,4\nNext,1,2,3,4\n`, 'quote that is not closed'],
    ['PK\u0003\u0000\u0000', 'not a text file'],
    ['{"format":"gangway.station","version":1}', 'must be "gangway.kit"'],
    ['{"items":', 'not JSON'],
  ])('%j', (text, words) => {
    expect(refusedWith(text)).toContain(words);
  });

  it('too large, too long', () => {
    expect(refusedWith(`[${' '.repeat(21_000_000)}]`)).toContain(
      'is 21 MB; a kit is at most 20 MB',
    );
    expect(refusedWith(new Uint8Array(201_000_000))).toContain('201 MB; a table is at most 200 MB');
    expect(refusedWith(HEAD + 'x\n'.repeat(1_000_001))).toContain('1,000,001 lines');
  });

  it('not in UTF-8: read as Western European, and said so', () => {
    const bytes = new Uint8Array([
      ...Buffer.from(HEAD),
      ...Buffer.from('Qu\xe9 35,35,4,22,f/4: 60\n', 'latin1'),
    ]);
    const read = preview(bytes);
    expect(read.doubt).toContain('not in UTF-8');
    expect(read.rows[0]).toMatchObject({ name: 'Qué 35', state: 'good' });
  });

  it.each([
    ['utf-16le', true],
    ['utf-16be', true],
    ['utf-16le', false],
    ['utf-16be', false],
  ] as const)('%s is read as such, with its mark: %s', (encoding, mark) => {
    const text = `${mark ? '\uFEFF' : ''}${HEAD}Qué 35,35,4,22,f/4: 60\n`;
    const buffer = Buffer.from(text, 'utf16le');
    const bytes = new Uint8Array(encoding === 'utf-16le' ? buffer : buffer.swap16());
    expect(preview(bytes)).toMatchObject({ encoding, doubt: null });
    expect(preview(bytes).rows[0]!.name).toBe('Qué 35');
  });
});

describe('circles and kit files', () => {
  it('circles of several lines become one change of the lens they name', () => {
    const { rows, table } = preview(
      'lens,stop,diameter\nquay 35,f/8,62\nQuay 35,2.8,59\nNobody,4,60\nQuay 35,soon,60\n',
    );
    expect(table).toBe('circle');
    const good = rows.filter(({ state }) => state === 'good');
    expect(good).toHaveLength(1);
    expect(good[0]!.changes).toEqual({ id: 'one', revision: 3 });
    expect(good[0]!.item).toMatchObject({
      circle: [
        { f_number: 2.8, diameter_mm: 59 },
        { f_number: 8, diameter_mm: 62 },
      ],
    });
    expect(rows.filter(({ state }) => state === 'bad').map(({ message }) => message)).toEqual([
      'The kit has no lens of this name; import the lens first.',
      'Stop: “soon” is not an aperture; write for example f/11.',
    ]);
  });

  it('a kit file is read item by item', () => {
    const file = JSON.stringify({
      format: 'gangway.kit',
      version: 1,
      items: [lens.document, { kind: 'board', name: 'Flat', offset_mm: 0 }, { kind: 'board' }],
    });
    const { rows, form } = preview(file);
    expect(form).toBe('kit');
    expect(rows.map(({ state }) => state)).toEqual(['same_name', 'good', 'bad']);
    expect(rows[1]!.item && parseKitItem(rows[1]!.item).ok).toBe(true);
  });
});

describe('what was read lies where the page asks for it', () => {
  const desk = makeDesk();
  const read = (text: string, more: Partial<Question> = {}): ImportHead => {
    const head = desk.read(bytesOf(text), question(more));
    if (head.kind === 'refused') throw new Error(head.message);
    return head;
  };

  it('bad lines first, by any part of the list', () => {
    const line = (i: number): string =>
      i % 3 === 0 ? `Bad ${i},-5,4,22,f/4: 60` : `Lens ${i},50,4,22,f/4: 60`;
    const head = read(HEAD + Array.from({ length: 30 }, (_, i) => line(i)).join('\n'));
    expect(head).toMatchObject({ rows: 30, bad: 10, same: 0, columnCount: 5 });
    expect(desk.lines(0, 2).map(({ name }) => name)).toEqual(['Bad 0', 'Bad 3']);
    expect(desk.lines(10, 12)).toMatchObject([
      { name: 'Lens 1', what: 'lens' },
      { name: 'Lens 2', what: 'lens' },
    ]);
    expect(desk.lines(29, 40)).toHaveLength(1);
  });

  it('parts hold every line to be taken once, and no other', () => {
    const names = ['A', 'B', 'QUAY 35', 'C', 'D', 'E'];
    read(HEAD + names.map((name) => `${name},50,4,22,f/4: 60`).join('\n'));
    for (const [withSame, wanted] of [
      [false, ['A', 'B', 'C', 'D', 'E']],
      [true, names],
    ] as const) {
      const found: string[] = [];
      for (let next: number | null = 0; next !== null;) {
        const part = desk.part(next, 2, withSame);
        expect(part.items.length).toBeLessThanOrEqual(2);
        found.push(...part.items.map(({ name }) => name));
        next = part.next;
      }
      expect(found).toEqual(wanted);
    }
  });

  it('of a hundred thousand columns those in use are shown, and some; the others are found', () => {
    const headings = Array.from({ length: 100_000 }, (_, i) => `Measure ${i}`);
    for (const [at, name] of ['Name', 'Focal length', 'f_min', 'f_max'].entries()) {
      headings[at * 20_000 + 7] = name;
    }
    const cells = headings.map((_, i) => ['Wide 20', '20', '2.8', '22'][(i - 7) / 20_000] ?? '');
    cells[99_999] = 'f/4: 60';
    const text = `${headings.join(',')}\n${cells.join(',')}\n`;
    const head = read(text);
    expect(head.columnCount).toBe(100_000);
    expect(head.columns.length).toBeLessThan(40);
    expect(head.columns.filter(({ path }) => path !== null)).toHaveLength(4);
    expect(head.rows).toBe(0);
    const [last] = desk.columns('measure 99999');
    expect(last).toMatchObject({ index: 99_999, path: null });
    const mapped = read(text, { table: 'lens', mapping: { ...head.mapping, 99_999: 'circle' } });
    expect(mapped).toMatchObject({ rows: 1, bad: 0 });
    expect(desk.part(0, 9, false).items).toMatchObject([{ name: 'Wide 20' }]);
  });

  it('tells how far it has come', () => {
    const told: number[] = [];
    const text = HEAD + 'x,50,4,22,f/4: 60\n'.repeat(5000);
    desk.read(bytesOf(text), question(), (done, of) => told.push(done / of));
    expect(told).toEqual([0, 0.4, 0.8]);
  });
});
