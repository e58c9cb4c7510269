import { describe, expect, test } from '@jest/globals';
import { Ajv2020 } from 'ajv/dist/2020.js';
import fc from 'fast-check';
import {
  jobJsonSchema,
  jobText,
  newStation,
  parseJob,
  parseJobText,
  type Job,
  type Logged,
} from '../src/index.js';

const STATION = '00000000-0000-4000-8000-0000000000a1';
const idOf = (n: number): string => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;
const exposure = (n: number, more: object = {}): Logged => ({
  id: idOf(n),
  station: STATION,
  at: '2026-05-14T09:30:05+02:00',
  planned: true,
  ...more,
});
const job = (more: object = {}): Job =>
  ({
    format: 'gangway.job',
    version: 1,
    name: 'Orrin Quay',
    stations: [{ id: STATION, status: 'shot', document: newStation('Customs house') }],
    exposures: [exposure(1), exposure(2, { f_number: 11, time_s: 0.25, note: 'wind' })],
    ...more,
  }) as Job;

const problemsOf = (document: unknown): string[] => {
  const read = parseJob(document);
  return read.ok ? [] : read.problems.map(({ pointer, message }) => `${pointer}: ${message}`);
};

describe('the job file', () => {
  test('is the same bytes each time, whatever the order of its members', () => {
    const first = jobText(job());
    const turned = (value: unknown): unknown =>
      Array.isArray(value)
        ? value.map(turned)
        : typeof value === 'object' && value !== null
          ? Object.fromEntries(
              Object.entries(value)
                .reverse()
                .map(([k, v]) => [k, turned(v)]),
            )
          : value;
    const again = parseJob(turned(JSON.parse(first)));
    expect(again.ok && jobText(again.value)).toBe(first);
    expect(first.startsWith('{\n  "format": "gangway.job",\n  "version": 1,\n  "name": ')).toBe(
      true,
    );
    expect(first.endsWith('}\n')).toBe(true);
    expect(first).not.toContain('\r');
    expect(JSON.parse(first)).toEqual(JSON.parse(JSON.stringify(job())));
  });

  test('one figure changed is one line changed', () => {
    const [a, b] = [job(), job({ exposures: [exposure(1), exposure(2, { f_number: 16, time_s: 0.25, note: 'wind' })] })].map((each) => jobText(each).split('\n')); // prettier-ignore
    expect(a!.filter((line, i) => line !== b![i])).toEqual(['      "f_number": 11,']);
  });

  test('keeps what it does not know, after what it knows and by name', () => {
    fc.assert(
      fc.property(
        fc.dictionary(
          fc.string({ minLength: 1, maxLength: 6 }).map((k) => `x${k}`),
          fc.jsonValue({ maxDepth: 2 }),
          { maxKeys: 5 },
        ),
        (extra) => {
          const text = jobText(job({ ...extra, exposures: [{ ...extra, ...exposure(1) }] }));
          const read = parseJobText(text);
          // A field that JSON cannot keep is refused in words; what is read is kept to the byte.
          if (read.ok) expect(jobText(read.value)).toBe(text);
          const names = Object.keys(JSON.parse(text)).filter((name) => name.startsWith('x'));
          expect(names).toEqual([...names].sort((a, b) => (a < b ? -1 : 1)));
        },
      ),
    );
  });

  test('numbers in their shortest form, a minus zero as zero', () => {
    const text = jobText(
      job({ exposures: [exposure(1, { f_number: 11.0, x: -0, y: 1e21, z: 0.1 + 0.2 })] }),
    );
    expect(text).toContain('"f_number": 11,');
    expect(text).toContain('"x": 0,\n      "y": 1e+21,\n      "z": 0.30000000000000004\n');
  });

  test('meets its JSON Schema, by a validator that is not ours', () => {
    const validate = new Ajv2020({ strict: false }).compile(jobJsonSchema());
    expect(validate(JSON.parse(jobText(job())))).toBe(true);
    expect(validate({ ...job(), exposures: [{ id: 1 }] })).toBe(false);
  });

  test.each([
    [
      'another format',
      { format: 'gangway.kit' },
      '/format: must be "gangway.job" for a job, not "gangway.kit"',
    ],
    [
      'a newer version',
      { version: 2 },
      '/version: 2 was written by a newer Gangway; this one understands version 1',
    ],
    ['no stations', { stations: undefined }, '/stations: is missing; give a list'],
    ['stations that are no list', { stations: {} }, '/stations: must be a list, not {}'],
    [
      'a station of another job',
      { exposures: [exposure(1, { station: idOf(9) })] },
      '/exposures/0/station: names a station that is not in this job',
    ],
    [
      'one line twice',
      { exposures: [exposure(1), exposure(1)] },
      '/exposures/1/id: is there twice',
    ],
    [
      'a way out of the folder',
      { exposures: [exposure(1, { file: '../../a.jpg' })] },
      '/exposures/0/file: must be the name of a file, without folders: no /, \\ or :',
    ],
    [
      'a clock that was never set',
      { exposures: [exposure(1, { at: '1969-12-31T00:00:00Z' })] },
      '/exposures/0/at: must be a time from 1970 to 2199 with its offset, like 2026-05-14T09:30:00+02:00, not "1969-12-31T00:00:00Z"',
    ],
    [
      'a day that is not',
      { exposures: [exposure(1, { at: '2026-02-30T00:00:00Z' })] },
      '/exposures/0/at: must be a time from 1970 to 2199 with its offset, like 2026-05-14T09:30:00+02:00, not "2026-02-30T00:00:00Z"',
    ],
    [
      'a time without its offset',
      { exposures: [exposure(1, { at: '2026-02-03T00:00:00' })] },
      '/exposures/0/at: must be a time from 1970 to 2199 with its offset, like 2026-05-14T09:30:00+02:00, not "2026-02-03T00:00:00"',
    ],
  ])('refuses %s', (_, more, problem) => {
    expect(problemsOf(JSON.parse(JSON.stringify(job(more as object))))).toContain(problem);
  });

  test('a station that is none is told by its place', () => {
    const broken = job({
      stations: [{ id: STATION, document: { ...newStation('x'), aperture: 'f/8' } }],
    });
    expect(problemsOf(broken)[0]).toMatch(/^\/stations\/0\/document\/aperture: must be a number/);
  });

  test('names of a prototype’s are kept as any other', () => {
    const text = jobText(job()).replace('"name": "Orrin Quay",', '"name": "Orrin Quay", "__proto__": {"a": 1},'); // prettier-ignore
    const read = parseJobText(text);
    expect(read.ok && jobText(read.value)).toContain('"__proto__": {\n    "a": 1\n  }');
    expect(({} as { a?: number }).a).toBeUndefined();
  });

  test.each(['', 'x', '[1]', '{"format":'])('text %j is refused in words', (text) => {
    const read = parseJobText(text);
    expect(read.ok ? '' : read.problems[0]!.message).toMatch(/JSON|empty/);
  });
});
