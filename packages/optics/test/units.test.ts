import fc from 'fast-check';
import {
  readAngleDeg,
  readDistanceM,
  readFNumber,
  readLengthMm,
  readRatio,
  type Read,
} from '../src/index.js';
import { runs } from '../../../scripts/lib/runs.mjs';

const value = (parsed: Read): number => (parsed.ok ? parsed.value : NaN);

describe('reading what people write', () => {
  it.each([
    ['2.4m', 2400],
    ['240 cm', 2400],
    ['7\' 10"', 2387.6],
    ['7′ 10″', 2387.6],
    ["7' 10 1/2", 2400.3],
    ['7 ft 10 in', 2387.6],
    ['3 1/2 in', 88.9],
    ['−5', -5],
    ['1,5 m', 1500],
    ['.5m', 500],
    ['12', 12],
    ["-1'", -304.8],
  ])('length %s', (text, mm) => {
    expect(value(readLengthMm(text, 'mm'))).toBeCloseTo(mm, 9);
  });

  it.each([
    ['f/11', 11],
    ['F8', 8],
    ['1:4', 4],
    ['5.6', 5.6],
  ])('aperture %s', (text, n) => expect(value(readFNumber(text))).toBe(n));

  it.each([
    ['3.5°', 3.5],
    ['−2 deg', -2],
    ["3° 30'", 3.5],
  ])('angle %s', (text, angle) => expect(value(readAngleDeg(text))).toBe(angle));

  it.each([
    ['1/4', 0.25],
    ['1:2', 0.5],
    ['2×', 2],
    ['0.5x', 0.5],
  ])('ratio %s', (text, ratio) => expect(value(readRatio(text))).toBe(ratio));

  it('infinity is a distance', () => {
    expect(value(readDistanceM('∞', 'm'))).toBe(Infinity);
    expect(value(readDistanceM('Inf', 'm'))).toBe(Infinity);
    expect(value(readDistanceM('12', 'ft'))).toBeCloseTo(3.6576, 9);
  });

  it.each(['', 'abc', '12abc', '--3', 'NaN', '1e400', "7'' 3'", 'Infinity mm', '0x10'])(
    'refuses %p',
    (text) => {
      for (const parse of [
        (t: string) => readLengthMm(t, 'mm'),
        readAngleDeg,
        readFNumber,
        readRatio,
      ]) {
        const read = parse(text);
        expect(read.ok).toBe(false);
        if (!read.ok) expect(read.written).toBe(text.trim());
      }
    },
  );

  it('never throws, never gives what is not finite', () => {
    fc.assert(
      fc.property(fc.string(), (text) => {
        for (const read of [readLengthMm(text, 'm'), readAngleDeg(text), readFNumber(text)]) {
          expect(!read.ok || Number.isFinite(read.value)).toBe(true);
        }
      }),
      { numRuns: runs(2000) },
    );
  });
});
