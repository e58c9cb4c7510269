import { describe, expect, test } from '@jest/globals';
import { readDemo } from '../../../apps/server/src/demo.js';
import {
  columnAt,
  doneOtherwise,
  exposuresOf,
  fieldsBetween,
  fieldWith,
  LOG_COLUMNS,
  loadedStates,
  newStation,
  nextFilm,
  parseLogged,
  plannedFor,
  progressOf,
  setSaid,
  withFields,
  type Loaded,
  type Logged,
  type Station,
  movedMoment,
  offSaid,
} from '../src/index.js';

const { day, log } = readDemo();
const named = (name: string): Station => day.find(({ document }) => document.name.startsWith(name))!.document; // prettier-ignore
const line = (more: Partial<Logged> = {}): Logged => ({
  id: '00000000-0000-4000-8000-000000000001',
  at: '2026-10-03T09:00:00+02:00',
  planned: true,
  ...more,
});

describe('what is planned', () => {
  const hall = named('Customs house, hall');
  const frames = named('Ropewalk in three');

  test('brackets are told one by one, the shortest first', () => {
    expect(exposuresOf(hall).map(({ bracket }) => bracket)).toEqual([1, 2, 3]);
    const times = [1, 2, 3].map((bracket) => plannedFor(hall, { frame: null, bracket }).time_s!);
    expect(times).toEqual([...times].sort((a, b) => a - b));
    // 1 2/3 stops apart, as they were asked for.
    expect(Math.log2(times[1]! / times[0]!)).toBeCloseTo(5 / 3, 2);
  });

  test('each frame has its own movement, as the hand sets it', () => {
    const shifts = [1, 2, 3].map(
      (frame) => plannedFor(frames, { frame, bracket: null }).movements!,
    );
    expect(new Set(shifts.map((each) => JSON.stringify(each))).size).toBe(3);
  });

  test('every exposure of every demo station makes a line that is one', () => {
    for (const { document } of day) {
      for (const which of exposuresOf(document)) {
        const made = { ...line(), ...plannedFor(document, which) };
        expect(parseLogged(made)).toMatchObject({ ok: true });
        expect(doneOtherwise(document, made)).toEqual([]);
        expect(setSaid(made)).not.toBe('');
      }
    }
    expect(log).toHaveLength(60);
  });
});

describe('what comes next', () => {
  test('goes through brackets and frames, and takes a spoilt one again', () => {
    const hall = named('Customs house, hall');
    const shot = (bracket: number, kept?: boolean): Logged =>
      line({ bracket, ...(kept === undefined ? {} : { kept }) });
    expect(progressOf(hall, []).next).toEqual({ frame: null, bracket: 1 });
    expect(progressOf(hall, [shot(1), shot(2)])).toMatchObject({ next: { bracket: 3 }, taken: 2, of: 3 }); // prettier-ignore
    expect(progressOf(hall, [shot(1), shot(2, false), shot(3)]).next).toMatchObject({ bracket: 2 });
    expect(progressOf(hall, [shot(1), shot(2), shot(3)]).next).toBeNull();
  });

  test('knows what is loaded and what is left of it', () => {
    const marsh = named('Salt marsh');
    const stock = marsh.exposure!.film!.name!;
    const loaded: Loaded[] = [
      { stock: 'Other film', holder: '9', side: 'A' },
      { stock, holder: '1', side: 'A' },
      { stock, holder: '1', side: 'B' },
      { stock, roll: '2', frames: 2 },
    ];
    const exposed: Logged[] = [];
    const expose = (): unknown => {
      const film = nextFilm(marsh, loaded, exposed);
      if (film) exposed.push(line({ film }));
      return film;
    };
    expect([expose(), expose(), expose(), expose(), expose()]).toEqual([
      { stock, holder: '1', side: 'A' },
      { stock, holder: '1', side: 'B' },
      { stock, roll: '2', frame: 1 },
      { stock, roll: '2', frame: 2 },
      null,
    ]);
    expect(loadedStates(loaded, exposed).map(({ full }) => full)).toEqual([
      false,
      true,
      true,
      true,
    ]);
    expect(nextFilm(newStation('digital'), loaded, [])).toBeNull();
  });
});

test('what was done otherwise is told with what was planned', () => {
  const station = named('Customs house, north front');
  const planned = { ...line(), ...plannedFor(station, { frame: null, bracket: null }) };
  const done = { ...planned, f_number: 11, movements: { ...planned.movements!, rise_mm: 4 } };
  expect(doneOtherwise(station, done)).toEqual([
    { name: 'stop', planned: 'f/8', done: 'f/11' },
    { name: 'rise', planned: '9.0 mm', done: '4.0 mm' },
  ]);
  // What was not written down is not called a change.
  // A line that says nothing of how it was set is not otherwise.
  expect(doneOtherwise(station, line())).toEqual([]);
  expect(doneOtherwise(station, { ...line(), f_number: 8, time_s: planned.time_s!, iso: 64, filters: planned.filters! })).toEqual([]); // prettier-ignore
});

describe('columns', () => {
  test('every line of the demo reads back from what is written for other programs', () => {
    for (const own of log) {
      let made: Logged = { ...line(), id: own.id, at: own.at };
      for (const column of LOG_COLUMNS) {
        const read = column.read(column.plain(own));
        expect(read.ok).toBe(true);
        if (!read.ok || read.value === undefined) continue;
        const [field, to] = fieldWith(made, column.path, read.value);
        made = { ...made, [field]: to };
      }
      const { station: _, ...rest } = own;
      // Names of stations are the page’s own column.
      expect(made).toEqual(rest);
    }
  });

  test.each([
    ['f_number', 'f/11', 11],
    ['time_s', '1/4', 0.25],
    ['iso', 'ISO 200', 200],
    ['focus_m', '∞', null],
    ['focus_m', '240 cm', 2.4],
    ['movements.rise_mm', '8', 8],
    ['film.side', 'b', 'B'],
    ['flash', 'yes', true],
    ['filters', 'Polariser 82; Grey 3', ['Polariser 82', 'Grey 3']],
    ['shutter', 'focal plane', 'focal_plane'],
  ] as const)('%s takes %j', (path, text, value) => {
    const read = columnAt(path)!.read(text);
    expect(read.ok).toBe(true);
    if (read.ok && typeof value === 'number') expect(read.value).toBeCloseTo(value, 6);
    else expect(read).toEqual({ ok: true, value });
  });

  test.each([
    ['rating', '7', 'Write a whole number from 0 to 5.'],
    ['file', '../x.jpg', 'Write the name of a file, without folders.'],
    ['at', 'noon', 'Write a time with its offset: 2026-05-14 09:30:00+02:00.'],
    ['film.side', 'C', 'Write one of A, B.'],
  ] as const)('%s refuses %j in words', (path, text, message) => {
    expect(columnAt(path)!.read(text)).toEqual({ ok: false, message });
  });
});

test('fields change one by one, and infinity is no missing distance', () => {
  const near = line({ focus_m: 3, note: 'a' });
  const far = line({ focus_m: null });
  const set = fieldsBetween(near, far)!;
  expect(set).toEqual({ focus_m: { was: 3, to: null }, note: { was: 'a', to: undefined } });
  expect(withFields(near, set)).toEqual({ kind: 'done', line: far });
  expect(withFields(far, set)).toEqual({ kind: 'done', line: far });
  expect(withFields(line({ focus_m: 5, note: 'a' }), set)).toEqual({ kind: 'clash', fields: ['focus_m'] }); // prettier-ignore
  expect(withFields(near, { id: { was: near.id, to: 'x' } })).toMatchObject({ line: { id: near.id } }); // prettier-ignore
});

describe('a clock that was off', () => {
  it('moves a moment within its own zone', () => {
    expect(movedMoment('2026-05-14T09:30:00+02:00', 3600)).toBe('2026-05-14T10:30:00+02:00');
    expect(movedMoment('1970-01-01T00:03:00-05:00', -180)).toBe('1970-01-01T00:00:00-05:00');
    expect(movedMoment('2026-12-31T23:59:59Z', 1)).toBe('2027-01-01T00:00:00Z');
    expect(movedMoment('2026-12-31T23:59:59Z', 8e12)).toBeNull();
  });

  it.each([
    [-10 * 365.25 * 86_400, '10 years ahead of'],
    [200, '3 minutes behind'],
    [86_400 * 3, '3 days behind'],
    [-7200, '2 hours ahead of'],
  ])('%f s is %s', (off, words) => expect(offSaid(off)).toBe(words));
});
