import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { AXIS_WIDTH, daysSaid, timeAxis } from '../src/log/time-axis.js';

const at = (moment: string): number => Date.parse(`${moment}Z`) / 1000;
const marksOf = (...moments: string[]): string[] =>
  timeAxis(moments.map(at), 8)!.marks.map(({ said }) => said);

test('marks are round times within a day, days over several', () => {
  expect(marksOf('2026-10-03T07:12:08', '2026-10-03T16:40:00')).toEqual([
    '08:00',
    '10:00',
    '12:00',
    '14:00',
    '16:00',
  ]);
  expect(marksOf('2026-10-03T22:00', '2026-10-04T02:00')).toContain('4 Oct');
  expect(marksOf('2026-10-03T09:00', '2026-10-08T09:00')).toEqual(['4 Oct', '5 Oct', '6 Oct', '7 Oct', '8 Oct']); // prettier-ignore
  expect(marksOf('2026-10-03T09:00:05')).toContain('09:00:15');
  expect(timeAxis([], 8)).toBeNull();
});

test('the days it lasted are named', () => {
  const said = (...moments: string[]): string => daysSaid(timeAxis(moments.map(at), 8)!);
  expect(said('2026-10-03T09:00', '2026-10-03T18:00')).toBe('3 October 2026');
  expect(said('2026-10-03T09:00', '2026-10-05T18:00')).toBe('3 Oct to 5 October 2026');
  expect(said('2026-10-03T09:00', '2027-10-03T18:00')).toBe('3 October 2026 to 3 October 2027');
});

test('every moment lies on the axis, with marks that are few and in order', () => {
  fc.assert(
    fc.property(fc.array(fc.integer({ min: 0, max: 4e9 }), { minLength: 1 }), (moments) => {
      const axis = timeAxis(moments, 8)!;
      for (const each of moments) {
        expect(axis.xOf(each)).toBeGreaterThanOrEqual(0);
        expect(axis.xOf(each)).toBeLessThanOrEqual(AXIS_WIDTH);
      }
      const places = axis.marks.map(({ x }) => x);
      expect(places).toEqual([...places].sort((a, b) => a - b));
      expect(places.length).toBeLessThanOrEqual(9);
    }),
  );
});
