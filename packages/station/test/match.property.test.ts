import { describe, expect, test } from '@jest/globals';
import { matchFiles, type LogLine, type PictureFile } from '../src/log/index.js';
import { decided, random, shoot } from './helpers/shoots.js';

const SHOOTS = 500;

test(`over ${SHOOTS} shoots nothing wrong is called sure, and nearly all that can be told is told`, () => {
  const wrong: string[] = [];
  let [can, told] = [0, 0];
  for (let seed = 1; seed <= SHOOTS; seed++) {
    const s = shoot(seed);
    const { pairs } = matchFiles(s.files, s.lines);
    expect(pairs.length).toBe(s.files.length);
    const lines = pairs.flatMap(({ line }) => (line === null ? [] : [line]));
    expect(new Set(lines).size).toBe(lines.length);
    const decides = decided(s);
    for (const { file, line, sure, doubt } of pairs) {
      // Whatever has a line is sure or says why not, and what else to look at.
      expect(doubt === undefined).toBe(sure || line === null);
      if (doubt?.other) expect(doubt.other).not.toBe(line);
      if (sure && line !== s.truth.get(file)) wrong.push(`shoot ${seed}: ${file} is not ${line}`);
      if (!decides.has(file)) continue;
      can++;
      if (sure) told++;
    }
  }
  expect(wrong).toEqual([]);
  expect(can).toBeGreaterThan(5000);
  expect(told / can).toBeGreaterThan(0.95);
});

const line = (n: number, clockS: number, more: Partial<LogLine> = {}): LogLine => ({
  id: `line ${n}`,
  clockS,
  bracket: null,
  timeS: null,
  iso: null,
  ...more,
});
const file = (n: number, clockS: number | null, more: Partial<PictureFile> = {}): PictureFile => ({
  key: `P${n}`,
  name: `P${String(n).padStart(4, '0')}.RAW`,
  clockS,
  camera: '',
  timeS: null,
  iso: null,
  ...more,
});
const AT = [0, 47, 160, 171, 420, 1500, 1533, 2900];
const lines = AT.map((at, i) => line(i, 1e9 + at + 3));
const files = AT.map((at, i) => file(i, 1e9 + at + 7200));
const sureOf = (pairs: ReturnType<typeof matchFiles>['pairs']): string[] =>
  pairs.filter(({ sure }) => sure).map(({ file: f, line: l }) => `${f} ${l}`);
const RIGHT = AT.map((_, i) => `P${i} line ${i}`);

describe('matching', () => {
  test('finds the clock, and every line', () => {
    const { pairs, offsets } = matchFiles(files, lines);
    expect(sureOf(pairs)).toEqual(RIGHT);
    expect(offsets['']).toMatchObject({ kind: 'found' });
    expect((offsets[''] as { offsetS: number }).offsetS).toBeCloseTo(7197, 0);
  });

  test('calls nothing of an even series sure that lacks a frame', () => {
    const even = Array.from({ length: 10 }, (_, i) => line(i, 1e9 + 30 * i));
    const nine = Array.from({ length: 9 }, (_, i) => file(i, 1e9 + 30 * i + 5000));
    const { pairs, offsets } = matchFiles(nine, even);
    expect(sureOf(pairs)).toEqual([]);
    expect(offsets['']).toMatchObject({ kind: 'undecided' });
  });

  test('what is fixed by hand stays, and the rest follows it', () => {
    const even = Array.from({ length: 10 }, (_, i) => line(i, 1e9 + 30 * i));
    const nine = Array.from({ length: 9 }, (_, i) => file(i, 1e9 + 30 * i + 5000));
    const { pairs } = matchFiles(nine, even, { fixed: [{ file: 'P3', line: 'line 4' }] });
    expect(pairs.find(({ file: f }) => f === 'P3')).toMatchObject({ line: 'line 4', by: 'hand' });
    // The first has a line without a file beside it: that one is for the person to say.
    expect(sureOf(pairs).sort()).toEqual(nine.slice(1).map((_, i) => `P${i + 1} line ${i + 2}`));
    expect(pairs.find(({ file: f }) => f === 'P0')).toMatchObject({ line: 'line 1' });
    const none = matchFiles(files, lines, { fixed: [{ file: 'P2', line: null }] }).pairs;
    expect(none.find(({ file: f }) => f === 'P2')).toMatchObject({ line: null, by: 'hand' });
  });

  test('goes by the clock it is given', () => {
    const [one] = matchFiles([file(1, 1e9 + 3600)], [line(0, 1e9 + 2)]).pairs;
    expect(one!.sure).toBe(false);
    const given = matchFiles([file(1, 1e9 + 3600)], [line(0, 1e9 + 2), line(1, 1e9 + 900)], {
      offsetsS: { '': 3600 },
    });
    expect(given.pairs[0]).toMatchObject({ line: 'line 0', sure: true });
    expect(given.offsets['']).toEqual({ kind: 'given', offsetS: 3600 });
  });

  test('says which line is the other one, where two are alike and seconds apart', () => {
    const twice = [...lines.slice(0, 5), line(50, 1e9 + 424), ...lines.slice(5)];
    const { pairs } = matchFiles(files, twice);
    const [own, other] = [pairs[4]!.line, pairs[4]!.doubt?.other];
    expect([own, other].sort()).toEqual(['line 4', 'line 50']);
    expect(pairs[4]).toMatchObject({ sure: false, doubt: { why: 'beside' } });
    // The other way round: two files of one line.
    const double = [...files.slice(0, 5), file(50, 1e9 + 7625), ...files.slice(5)].map((each, i) => ({ ...each, name: `P${i}.RAW` })); // prettier-ignore
    const found = matchFiles(double, lines).pairs.filter(({ line: l }) => l === 'line 4');
    expect(found).toMatchObject([{ sure: false, doubt: { why: 'beside', other: null } }]);
  });

  test('two cameras have a clock each, and no line serves both', () => {
    const other = AT.map((at, i) => file(100 + i, 1e9 + at * 1.0 + 500 + 11, { camera: 'B' }));
    const mixed = [...lines, ...AT.map((at, i) => line(100 + i, 1e9 + at + 17))];
    const { pairs, offsets } = matchFiles([...files, ...other], mixed);
    const taken = pairs.flatMap(({ line: l }) => (l === null ? [] : [l]));
    expect(new Set(taken).size).toBe(taken.length);
    expect(Object.keys(offsets).sort()).toEqual(['', 'B']);
  });

  test('pairs that were exposed otherwise than logged are shown, never sure', () => {
    const told = lines.map((each) => ({ ...each, timeS: 0.25, iso: 100 }));
    const shot = files.map((each, i) => ({ ...each, timeS: i === 4 ? 1 : 0.25, iso: 100 }));
    const { pairs } = matchFiles(shot, told);
    expect(pairs[4]).toMatchObject({ line: 'line 4', sure: false, doubt: { why: 'exposure' } });
    expect(sureOf(pairs)).toEqual(RIGHT.filter((_, i) => i !== 4));
  });

  test('files of another day belong to no line, and nothing is said of their clock', () => {
    const next = random(8);
    const strange = AT.map((_, i) => file(i, 1.2e9 + 90_000 * i + Math.round(9000 * next())));
    const { pairs, offsets } = matchFiles(strange, lines);
    expect(sureOf(pairs)).toEqual([]);
    expect(offsets['']).toMatchObject({ kind: 'undecided' });
  });

  test('files without a time, without lines, and no files at all', () => {
    expect(matchFiles([], lines)).toEqual({ pairs: [], offsets: {}, stopped: false });
    expect(matchFiles(files, []).pairs.every(({ line: l }) => l === null)).toBe(true);
    const untimed = files.map((each) => ({ ...each, clockS: null }));
    expect(matchFiles(untimed.slice(0, 3), lines).pairs.every(({ sure }) => !sure)).toBe(true);
  });

  test('a camera whose clock was never set', () => {
    const lost = AT.map((at, i) => file(i, 315_532_800 + at));
    const { pairs } = matchFiles(lost, lines);
    expect(sureOf(pairs)).toEqual(RIGHT);
    const fixed = matchFiles(lost, lines, { fixed: [{ file: 'P0', line: 'line 0' }] }).pairs;
    expect(sureOf(fixed).sort()).toEqual(RIGHT);
  });

  test('the order in which files and lines are given changes nothing', () => {
    const next = random(5);
    const mix = <T>(all: readonly T[]): T[] =>
      all
        .map((each) => ({ each, at: next() }))
        .sort((a, b) => a.at - b.at)
        .map(({ each }) => each);
    const { pairs } = matchFiles(mix(files), mix(lines));
    expect(sureOf(pairs).sort()).toEqual(RIGHT);
  });
});
