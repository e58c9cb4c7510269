import { parseKitItem, type KitItemOf, type Stored } from '@gangway/station';
import { readImport, type ImportAsk, type ImportPreview } from '../src/kit/read-import.js';

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

const ask = (bytes: Uint8Array | string, more: Partial<ImportAsk> = {}): ImportAsk => {
  const raw = typeof bytes === 'string' ? new TextEncoder().encode(bytes) : bytes;
  return {
    ask: 1,
    bytes: raw.buffer.slice(raw.byteOffset, raw.byteOffset + raw.byteLength) as ArrayBuffer,
    name: 'kit.csv',
    encoding: null,
    table: null,
    mapping: null,
    taken: ['lens:quay 35'],
    lenses: [lens],
    ...more,
  };
};

function preview(...args: Parameters<typeof ask>): ImportPreview {
  const read = readImport(ask(...args));
  if (read.kind === 'refused') throw new Error(read.message);
  return read;
}

const refusedWith = (...args: Parameters<typeof ask>): string => {
  const read = readImport(ask(...args));
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
    const mapping = ['name', 'focal_length_mm', 'f_min', 'f_max', 'circle'];
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
    ['PK\u0003\u0000\u0000', 'no text'],
    ['{"format":"gangway.station","version":1}', 'must be "gangway.kit"'],
    ['{"items":', 'not JSON'],
  ])('%j', (text, words) => {
    expect(refusedWith(text)).toContain(words);
  });

  it('too large, too long', () => {
    expect(refusedWith(new Uint8Array(21_000_000).fill(65))).toContain('21 MB');
    expect(refusedWith(HEAD + 'x,1,1,1,1\n'.repeat(50_001))).toContain('Split it');
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

  it('UTF-16 with its mark is read as such', () => {
    const text = `\uFEFF${HEAD}Qué 35,35,4,22,f/4: 60\n`;
    const bytes = new Uint8Array(Buffer.from(text, 'utf16le'));
    expect(preview(bytes)).toMatchObject({ encoding: 'utf-16le', doubt: null });
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
