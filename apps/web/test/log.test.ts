import { NO_FACTS } from '@gangway/sidecar/facts';
import { describe, expect, test } from '@jest/globals';
import { newStation, type Logged, type LogChange } from '@gangway/station';
import { linesShown, type WhichLines } from '../src/log/which-lines.js';
import { blockText, logCsv, logJson } from '../src/log/export.js';
import { fixedChanges, fixedIn, changesFor } from '../src/log/match-changes.js';
import { momentFrom, readLogTable, type TableAsked } from '../src/log/read-table.js';
import { clockSaid, readOffset, offsetSaid, spanSaid } from '../src/log/offset-words.js';
import { picturesOf, type Picture, type ReadFile } from '../src/log/picture-files.js';
import { inside } from '../src/log/sidecars.js';
import {
  blockFrom,
  columnsFor,
  fillLines,
  pasteBlock,
  stationNames,
} from '../src/log/table-edits.js';
import { answered, carriedOut, changed, decided, emptyLog, heard, linesOf, redone, undone } from '../src/records/log-lines.js'; // prettier-ignore

const idOf = (n: number): string => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;
const line = (n: number, more: Partial<Logged> = {}): Logged => ({
  id: idOf(n),
  at: `2026-10-03T09:00:${String(n).padStart(2, '0')}+02:00`,
  planned: true,
  ...more,
});
const add = (of: Logged): LogChange => ({ id: of.id, add: of });
const NAMES = stationNames(
  new Map([
    [idOf(90), { name: 'Pier' }],
    [idOf(91), { name: 'Vault' }],
    [idOf(92), { name: 'vault ' }],
  ]) as never,
);
const columns = columnsFor(NAMES);
const column = (path: string) => columns.find((each) => each.path === path)!;

describe('the log on the page', () => {
  const start = changed(emptyLog('job'), { label: 'Shot', changes: [add(line(1)), add(line(2))] });

  test('undo and redo lead back and forth, also past what the server has', () => {
    const note: LogChange = { id: idOf(1), set: { note: { was: undefined, to: 'wind' } } };
    const after = changed(start, { label: 'Note', changes: [note] });
    expect(linesOf(after)[0]!.note).toBe('wind');
    expect(linesOf(undone(after))[0]).toEqual(line(1));
    const none = undone(undone(after));
    expect(linesOf(none)).toEqual([]);
    const again = redone(redone(none));
    expect(linesOf(again)).toEqual(linesOf(after));
    // A line that the server knows as taken out is brought back, not made twice.
    expect(again.waiting.slice(-3)).toEqual([{ id: idOf(1), restore: true }, { id: idOf(2), restore: true }, note]); // prettier-ignore
  });

  test('what waits lies over what the server tells', () => {
    const edited = changed(start, {
      label: 'Note',
      changes: [{ id: idOf(1), set: { note: { was: undefined, to: 'mine' } } }],
    });
    const told = heard(
      edited,
      [
        { position: 1, gone: false, document: line(1, { rating: 3 }) },
        { position: 0.5, gone: false, document: line(7) },
      ],
      { latest: 9, films: [] },
    );
    expect(linesOf(told).map(({ id }) => id)).toEqual([idOf(7), idOf(1), idOf(2)]);
    expect(linesOf(told)[1]).toMatchObject({ note: 'mine' });
    expect(told.latest).toBe(9);
  });

  test('a clash is put to the person, and decided either way', () => {
    const set = { note: { was: 'a', to: 'mine' } };
    const waiting = { ...start, waiting: [{ id: idOf(1), set }] };
    const clashed = answered(waiting, [{ id: idOf(1), outcome: 'clash', document: line(1, { note: 'theirs' }) }]); // prettier-ignore
    expect(linesOf(clashed)[0]!.note).toBe('theirs');
    expect(linesOf(decided(clashed, idOf(1), false))[0]!.note).toBe('theirs');
    const mine = decided(clashed, idOf(1), true);
    expect(linesOf(mine)[0]!.note).toBe('mine');
    expect(mine.waiting).toEqual([{ id: idOf(1), set: { note: { was: 'theirs', to: 'mine' } } }]);
    expect(mine.clashes).toEqual([]);
  });

  test('what comes back of one line takes nothing of another that still waits', () => {
    const edit = (n: number, name: string, to: unknown): LogChange => ({ id: idOf(n), set: { [name]: { was: undefined, to } } }); // prettier-ignore
    const waiting = [edit(1, 'note', 'a'), edit(2, 'rating', 4), edit(1, 'iso', 64)];
    const log = answered({ ...start, waiting }, [
      { id: idOf(1), outcome: 'done', document: line(1, { note: 'a' }) },
    ]);
    expect(linesOf(log)[0]).toEqual(line(1, { note: 'a', iso: 64 }));
  });

  test('what is refused stays to be looked at', () => {
    const refused = answered(start, [
      { id: idOf(1), outcome: 'refused', message: 'No.' },
      { id: idOf(2), outcome: 'done' },
    ]);
    const set: LogChange = { id: idOf(2), set: { note: { was: undefined, to: 'x' } } };
    const edit = answered({ ...start, waiting: [set] }, [{ id: idOf(2), outcome: 'refused', message: 'No.' }]); // prettier-ignore
    expect([edit.clashes, edit.refused]).toEqual([[], [{ change: set, message: 'No.' }]]);
    expect(refused.waiting).toEqual([]);
    expect(refused.refused).toEqual([{ change: add(line(1)), message: 'No.' }]);
  });

  test('changes of lines that are not here harm nothing', () => {
    expect(carriedOut(start, [{ id: idOf(5), set: { note: { to: 'x' } } }]).back).toEqual([]);
  });
});

describe('the table', () => {
  const lines = [line(1, { f_number: 8 }), line(2, { f_number: 8 }), line(3)];

  test('fills one text into many lines, and says nothing of those that have it', () => {
    const edit = fillLines(lines, column('f_number'), '8');
    expect(edit).toEqual({ ok: true, changes: [{ id: idOf(3), set: { f_number: { was: undefined, to: 8 } } }] }); // prettier-ignore
    expect(fillLines(lines, column('rating'), '9')).toEqual({ ok: false, message: 'Write a whole number from 0 to 5.' }); // prettier-ignore
    expect(fillLines(lines, column('at'), '')).toEqual({ ok: false, message: 'Every line needs its time.' }); // prettier-ignore
    expect(fillLines(lines, column('station'), 'Moon')).toEqual({ ok: false, message: 'There is no station “Moon” in this job.' }); // prettier-ignore
  });

  test('stations of one name are never mixed up', () => {
    const vault = fillLines(lines, column('station'), 'Vault');
    expect(vault).toMatchObject({ ok: false, message: expect.stringMatching(/^Several stations/) });
    const second = fillLines([lines[0]!], column('station'), idOf(92));
    expect(second).toMatchObject({ changes: [{ set: { station: { to: idOf(92) } } }] });
    const said = [90, 92, 93].map((n) => column('station').plain(line(1, { station: idOf(n) })));
    expect(said).toEqual(['Pier', idOf(92), idOf(93)]);
  });

  test('a file written by hand is one that was fixed', () => {
    const edit = fillLines([line(1, { file_sure: false })], column('file'), 'P1.RAW');
    expect(edit).toMatchObject({ changes: [{ set: { file: { to: 'P1.RAW' }, file_fixed: { to: true }, file_sure: { was: false } } }] }); // prettier-ignore
  });

  test('what is copied is pasted as it was', () => {
    const own = [column('note'), column('f_number'), column('movements.rise_mm')];
    const there = [
      line(1, { note: 'a "quay",\ttwo\nlines', f_number: 5.6 }),
      line(2, { note: '=1+CMD()', movements: { rise_mm: -3, shift_mm: 0, tilt_deg: 0, swing_deg: 0 } }), // prettier-ignore
    ] as Logged[];
    const text = blockText(there, own);
    // A spreadsheet must not take it for a formula.
    expect(text).toContain("'=1+CMD()");
    const block = blockFrom(text);
    expect(pasteBlock(there, own, { row: 0, column: 0 }, block)).toEqual({ ok: true, changes: [] });
    expect(blockFrom('f/8\t1/4\r\nf/11\t1/8\r\n')).toEqual([['f/8', '1/4'], ['f/11', '1/8']]); // prettier-ignore
    expect(blockFrom('')).toEqual([]);
  });

  test('pastes a block, all of it or nothing', () => {
    const wide = [column('f_number'), column('movements.rise_mm'), column('movements.shift_mm'), column('note')]; // prettier-ignore
    const edit = pasteBlock(lines, wide, { row: 1, column: 0 }, [['f/11', '3', '-2', 'a'], ['16', '', '1.5', '']]); // prettier-ignore
    expect(edit.ok && edit.changes).toMatchObject([
      { id: idOf(2), set: { movements: { to: { rise_mm: 3, shift_mm: -2 } }, note: { to: 'a' } } },
      { id: idOf(3), set: { f_number: { to: 16 }, movements: { to: { shift_mm: 1.5 } } } },
    ]);
    const bad = pasteBlock(lines, wide, { row: 0, column: 0 }, [['8'], ['wide open']]);
    expect(bad.ok ? '' : bad.message).toMatch(/^Line 2, stop: .* Nothing was pasted\.$/);
    expect(pasteBlock(lines, wide, { row: 2, column: 0 }, [['8'], ['8']]).ok).toBe(false);
    expect(pasteBlock(lines, wide, { row: 0, column: 3 }, [['a', 'b']]).ok).toBe(false);
  });
});

test('lines of one sort are those, of one station or of all', () => {
  const station = { ...newStation('Pier'), aperture: 8 };
  const set = { station: idOf(90), f_number: 8 };
  const lines = [
    line(1, set),
    line(2, { ...set, f_number: 11, file: 'P2.RAW', file_sure: false }),
    line(3, { ...set, kept: false, file: 'P3.RAW', file_sure: true }),
    line(4, { film: { holder: '1', side: 'A' } }),
  ];
  const shown = (which: WhichLines, own: string | null = null): number[] =>
    linesShown(lines, { which, station: own }, new Map([[idOf(90), station]]), 'metric').map(({ id }) => Number(id.slice(-2))); // prettier-ignore
  expect(shown('all')).toEqual([1, 2, 3, 4]);
  expect(shown('all', idOf(90))).toEqual([1, 2, 3]);
  expect(shown('changed')).toEqual([2]);
  expect(shown('spoilt')).toEqual([3]);
  expect(shown('alone')).toEqual([1]);
  expect(shown('unsure')).toEqual([2]);
});

describe('a table brought in', () => {
  let made = 100;
  const asked = (there: readonly Logged[] = []): TableAsked => ({
    encoding: null,
    mapping: null,
    columns,
    there: new Map(there.map((each) => [each.id, each])),
    offset: () => '+02:00',
    newId: () => idOf(made++),
  });
  const read = (text: string, there: readonly Logged[] = []) =>
    readLogTable(new TextEncoder().encode(text).buffer as ArrayBuffer, asked(there));

  test('adds, changes and leaves, each line on its own', () => {
    const there = [line(1, { note: 'as is' }), line(2)];
    const result = read(
      `id,Time,Aperture,comment,Station\r\n${idOf(1)},${there[0]!.at},,as is,\r\n${idOf(2)},${there[1]!.at},f/8,,pier\r\n,2026-10-03 10:00,11,"a, b",\r\n,,8,,\r\n`,
      there,
    );
    if ('refused' in result) throw new Error(result.refused);
    expect(result.mapping).toEqual(['id', 'at', 'f_number', 'note', 'station']);
    expect(result.rows.map(({ state }) => state)).toEqual(['same', 'changes', 'new', 'bad']);
    expect(result.changes[1]).toMatchObject({
      add: { at: '2026-10-03T10:00:00+02:00', note: 'a, b' },
    });
    expect(result.local).toBe(1);
  });

  test('formulas are text, and what a spreadsheet guarded comes back as it was', () => {
    const result = read(
      'time,note\n2026-10-03 10:00,"\'=HYPERLINK(""x"")"\n2026-10-03 10:01,=1+1\n',
    );
    if ('refused' in result) throw new Error(result.refused);
    const notes = result.changes.map((each) => 'add' in each && each.add.note);
    expect(notes).toEqual(['=HYPERLINK("x")', '=1+1']);
  });

  test('what the log saves as a table comes back as it was', async () => {
    const there = [
      line(1, { note: '=HYPERLINK("x")', station: idOf(92), f_number: 11, time_s: 1 / 3 }),
      line(2, { note: `a, "b"\nc`, movements: { rise_mm: -3.5, shift_mm: 0, tilt_deg: 0, swing_deg: 0 } }), // prettier-ignore
      line(3, { note: "'@quoted", focus_m: null, film: { holder: '3', side: 'B' }, kept: false }),
      line(4, { filters: ['Grad', 'Polariser 82'], file: 'P1.RAW', file_sure: false, rating: 0 }),
    ] as Logged[];
    const table = await logCsv(there, NAMES as never).text();
    expect(table).toContain(`'=HYPERLINK`);
    const result = read(table, there);
    if ('refused' in result) throw new Error(result.refused);
    expect(result.rows.map(({ state, said }) => (state === 'same' ? 'same' : said))).toEqual(there.map(() => 'same')); // prettier-ignore
    // Each counts: taken out of the log, it comes back as new, and as it was.
    const anew = read(table);
    if ('refused' in anew) throw new Error(anew.refused);
    expect(anew.changes.map((each) => ('add' in each ? each.add : null))).toEqual(there);
  });

  test('as JSON it is every line, whole', async () => {
    const many = Array.from({ length: 2500 }, (_, n) => ({
      ...line(1),
      id: idOf(n),
      note: `${n}`,
    }));
    expect(JSON.parse(await logJson(many).text())).toEqual(many);
    expect(JSON.parse(await logJson([]).text())).toEqual([]);
  });

  test('the preview tells what each line says and what it changes', () => {
    const there = [line(1, { f_number: 8, note: 'fog' })];
    const result = read(
      `id,time,stop,note\n${idOf(1)},${there[0]!.at},f/11,\n,2026-10-03 10:00,8,late\n`,
      there,
    );
    if ('refused' in result) throw new Error(result.refused);
    expect(result.rows.map(({ said }) => said)).toEqual([
      '2026-10-03 09:00:01: stop 8 → 11, note fog → —',
      '2026-10-03 10:00:00 · f/8 · late',
    ]);
  });

  test.each([
    ['', /has no lines/],
    ['a,b\n', /has no lines/],
  ])('%j is refused in words', (text, message) => {
    const result = read(text);
    expect('refused' in result ? result.refused : '').toMatch(message);
  });

  test.each([
    ['2026-05-14 09:30', '2026-05-14T09:30:00+02:00', true],
    ['2026-05-14T09:30:15Z', '2026-05-14T09:30:15Z', false],
    ['2026-05-14 09:30 +01:00', '2026-05-14T09:30:00+01:00', false],
    ['yesterday', 'yesterday', false],
  ])('time %j', (text, at, local) =>
    expect(momentFrom(text, () => '+02:00')).toEqual({ at, local }),
  );
});

const facts = { ...NO_FACTS, clockS: 1 };
const read = (path: string): ReadFile => ({ path, facts, thumb: null, fault: null });

describe('pictures', () => {
  test('a raw file and a JPEG of one name in one folder are one', () => {
    const made = picturesOf([read('a/P1.JPG'), read('a/P1.dng'), read('b/P1.dng')]);
    expect(made.map(({ key, name, names }) => [key, name, names.length])).toEqual([
      ['a/p1', 'P1.dng', 2],
      ['b/p1', 'P1.dng', 1],
    ]);
  });

  const picture = (name: string): Picture => picturesOf([read(name)])[0]!;
  const pictures = [picture('P1.RAW'), picture('P2.RAW')];

  test('what was found goes into the log, and what no longer holds out of it', () => {
    const lines = [line(1), line(2, { file: 'P2.RAW', file_sure: true }), line(3, { file: 'OTHER.RAW' })]; // prettier-ignore
    const pairs = [{ file: 'p1', line: idOf(1), sure: false, by: 'data', likely: 0.6 }] as const;
    expect(changesFor(pictures, lines, { pairs, offsets: {}, stopped: false })).toMatchObject([
      { id: idOf(1), set: { file: { to: 'P1.RAW' }, file_sure: { to: false } } },
      { id: idOf(2), set: { file: { was: 'P2.RAW', to: undefined } } },
    ]);
  });

  test('what was said by hand moves, and is known again', () => {
    const lines = [line(1, { file: 'P1.RAW', file_fixed: true }), line(2)];
    expect(fixedIn(pictures, lines, ['p2'])).toEqual([{ file: 'p1', line: idOf(1) }, { file: 'p2', line: null }]); // prettier-ignore
    const moved = fixedChanges(pictures[0]!, idOf(2), lines);
    expect(moved.map(({ id }) => id)).toEqual([idOf(1), idOf(2)]);
    expect(fixedChanges(pictures[0]!, undefined, lines)).toMatchObject([{ id: idOf(1), set: { file: { to: undefined } } }]); // prettier-ignore
  });
});

test.each([
  ['../../etc/x.xmp', 'etc/x.xmp'],
  ['/a//b/./c.xmp', 'a/b/c.xmp'],
  ['a\\..\\b.xmp', 'a_.._b.xmp'],
])('%j stays inside its archive', (path, safe) => expect(inside(path)).toBe(safe));

test.each([
  ['1 h 0 min 37 s behind', -3637],
  ['−1:00:37', -3637],
  ['2:30', 9000],
  ['1 day 2 h ahead', 93_600],
  ['on time', 0],
  ['soon', null],
  ['5 parsecs', null],
])('a clock %j', (text, seconds) => expect(readOffset(text)).toBe(seconds));

test('how a clock was found is told with it', () => {
  expect(clockSaid({ kind: 'found', offsetS: -3640 })).toEqual({ figure: '1 h 40 s behind', words: 'found from the times' }); // prettier-ignore
  expect(clockSaid({ kind: 'given', offsetS: 0 })).toEqual({ figure: 'on time', words: 'as you gave it' }); // prettier-ignore
  const open = clockSaid({ kind: 'undecided', offsetsS: [0, 3600] });
  expect(open.words).toContain('undecided: 2 settings');
});

test('clocks are said as they are read', () => {
  for (const seconds of [0, 37, -3637, 90_061, -59]) {
    expect(readOffset(offsetSaid(seconds))).toBe(seconds);
  }
  expect(spanSaid(3637)).toBe('1 h 37 s');
});
