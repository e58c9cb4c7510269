import fc from 'fast-check';
import { advised, solveStation, waysOut, type Station } from '../src/index.js';
import { base, parsed } from './helpers/rigs.js';
import { mark, table } from './helpers/table.js';
import { runs } from '../../../scripts/lib/runs.mjs';

describe('the lean that is advised', () => {
  it('is plain where a slanting one gains less than a stop', () => {
    // A table that falls a little to one side: tilt does nearly all of it, at the widest stop.
    const lens = {
      focal_length_mm: 90,
      f_min: 8,
      f_max: 32,
      circle: [{ f_number: 8, diameter_mm: 140 }],
    };
    const marks = [
      mark('near', 0, 0.9, 0.6),
      mark('far', 0, 0.9, 1.2),
      mark('side', 0.2, 0.915, 0.9),
    ];
    const station = table(marks, { lens, aperture: 8 });
    const best = solveStation(station)!;
    expect(Math.abs(best.solved.lens.swingDeg)).toBeGreaterThan(0.3);
    const told = advised(station)!;
    expect(told.solved.lens.swingDeg).toBe(0);
    expect(Math.max(told.engravedNeeded, station.lens.f_min)).toBeLessThan(
      Math.max(best.engravedNeeded, station.lens.f_min) * Math.SQRT2,
    );
  });

  it('slants where that gains a stop and more', () => {
    const station = table([
      mark('near left', -0.25, 0.8, 0.6),
      mark('far left', -0.25, 0.8, 1.2),
      mark('near right', 0.25, 1.0, 0.6),
      mark('far right', 0.25, 1.0, 1.2),
    ]);
    const best = solveStation(station)!;
    const told = advised(station)!;
    expect(told.solved.lens).toEqual(best.solved.lens);
    expect(Math.abs(told.solved.lens.swingDeg)).toBeGreaterThan(0.3);
  });

  it('never costs a stop, whatever is marked, and slants only for one', () => {
    const place = fc.tuple(
      fc.double({ min: -0.4, max: 0.4, noNaN: true }),
      fc.double({ min: 0.6, max: 1.3, noNaN: true }),
      fc.double({ min: 0.5, max: 3, noNaN: true }),
    );
    fc.assert(
      fc.property(fc.array(place, { minLength: 2, maxLength: 5 }), (places) => {
        const station = table(places.map(([x, y, z], i) => mark(`m${i}`, x, y, z)));
        const [best, told] = [solveStation(station), advised(station)];
        fc.pre(best !== null && told !== null);
        const needed = (n: number): number => Math.max(station.lens.f_min, n);
        const [a, b] = [needed(best.engravedNeeded), needed(told.engravedNeeded)];
        expect(b).toBeLessThanOrEqual(a * Math.SQRT2 * (1 + 1e-9));
        expect(Number(told.held)).toBeGreaterThanOrEqual(Number(best.held));
        expect(Number(told.within)).toBeGreaterThanOrEqual(Number(best.within));
      }),
      { numRuns: runs(60) },
    );
  });
});

describe('ways out where the back moves', () => {
  const rear = (rise_mm: number, shift_mm = 0): Station =>
    parsed({
      ...base(),
      movement_limits: { rise_mm: [-30, 30], shift_mm: [-30, 30], moves: 'rear' },
      movements: { rise_mm, shift_mm, tilt_deg: 0, swing_deg: 0 },
    });
  it('name what the hand does to it', () => {
    const titles = (station: Station) => waysOut(station).map(({ title }) => title);
    expect(titles(rear(25)).join('; ')).toMatch(/Ease the drop of the back to \d+\.\d mm/);
    expect(titles(rear(-25)).join('; ')).toMatch(/Ease the lift of the back to \d+\.\d mm/);
    expect(titles(rear(0, 25)).join('; ')).toMatch(/Ease the shift of the back to the left to/);
    expect([...titles(rear(25)), ...titles(rear(-25))].join()).not.toMatch(/rise|fall/);
  });
});
