import fc from 'fast-check';
import { runs } from '../../../scripts/lib/runs.mjs';
import {
  CONTROLS,
  parseStation,
  readingOf,
  readings,
  stateOf,
  type Station,
} from '../src/index.js';
import { changeParses } from '../src/document/edited.js';
import { rigFacts } from '../src/optical/facts.js';
import { setup, setupOf } from '../src/optical/setup.js';
import { opticalState } from '../src/optical/state.js';
import { focusWalk, leanWalk, shiftWalk, stopWalk } from '../src/optical/walk.js';
import { rounded } from '../src/words/rounded.js';
import { base } from './helpers/rigs.js';
import { everything, within } from './helpers/worlds.js';

const fresh = (station: Station) => setup(rigFacts(station), station);

/** A copy that shares nothing: nothing known of the first is known of it. */
const apart = (station: Station): Station => structuredClone(station);

describe('what hangs on the gear alone', () => {
  const station = base();

  it('is found again while the gear is the same, whatever is set', () => {
    const moved = { ...station, aperture: 8, movements: { ...station.movements, rise_mm: 3 } };
    expect(rigFacts(moved)).toBe(rigFacts(station));
    const other = { ...station, lens: { ...station.lens, focal_length_mm: 90 } };
    expect(rigFacts(other)).not.toBe(rigFacts(station));
    expect(rigFacts({ ...station, back: { ...station.back } })).not.toBe(rigFacts(station));
  });

  it('keeps of one lens only a few rigs, and never gives the wrong one', () => {
    const many = Array.from({ length: 40 }, (_, i) => ({
      ...station,
      back: { ...station.back, width_mm: 30 + i },
    }));
    for (const each of [...many, ...many]) {
      expect(rigFacts(each).size).toEqual({
        widthMm: each.back.width_mm,
        heightMm: each.back.height_mm,
      });
    }
  });
});

describe('a setup', () => {
  it('of a station that only has something else in front is that of the station as it stands', () => {
    fc.assert(
      fc.property(everything, within(-1, 1), (station, by) => {
        setupOf(station);
        const raised = {
          ...station,
          camera: { ...station.camera, height_m: station.camera.height_m + by },
        };
        expect(setupOf(raised)).toEqual(fresh(raised));
        expect(setupOf(raised).station).toBe(raised);
        expect(setupOf(raised)).toBe(setupOf(raised));
      }),
      { numRuns: runs(200) },
    );
  });
});

describe('a walk', () => {
  it('says of any value what a setup made for it says', () => {
    const seen = new Set<string>();
    fc.assert(
      fc.property(
        everything,
        within(-12, 12),
        within(1, 60),
        fc.oneof(fc.constant(Infinity), within(0.2, 60)),
        (station, by, fNumber, distanceM) => {
          const s = setupOf(station);
          const made = (changed: Station) => fresh(changed);
          const same = (said: string, changed: Station): void => {
            seen.add(said);
            expect(said).toBe(opticalState(made(changed)));
          };
          const set = (movements: Partial<Station['movements']>): Station => ({
            ...station,
            movements: { ...station.movements, ...movements },
          });
          same(leanWalk(s, 'tilt_deg')(by), set({ tilt_deg: by }));
          same(leanWalk(s, 'swing_deg')(by), set({ swing_deg: by }));
          same(shiftWalk(s, made, 'rise_mm')(by), set({ rise_mm: by }));
          same(stopWalk(s)(fNumber), { ...station, aperture: fNumber });
          const focused = CONTROLS.distance.write(station, distanceM);
          if (parseStation(focused).ok) same(focusWalk(s)(distanceM), focused);
        },
      ),
      { numRuns: runs(2500) },
    );
    expect([...seen].sort()).toEqual(['outside', 'ring', 'sharp', 'soft']);
  });
});

describe('a reading', () => {
  it('gives section by section what the whole report has, each worked out once', () => {
    fc.assert(
      fc.property(everything, (station) => {
        const all = readings(apart(station));
        const one = readingOf(apart(station));
        for (const name of Object.keys(all) as (keyof typeof all)[]) {
          expect(one[name]).toEqual(all[name]);
          expect(one[name]).toBe(one[name]);
        }
        expect(JSON.stringify(one)).toBe(JSON.stringify(all));
      }),
      { numRuns: runs(200) },
    );
  });

  it('has nothing where the station has nothing', () => {
    const { facade: _f, marks: _m, turn_in: _t, ...bare } = base();
    const one = readingOf(bare);
    expect([one.facade, one.marks, one.turn_in, one.measured]).toEqual(Array(4).fill(undefined));
  });
});

it('a change is judged by what changed as the whole station is', () => {
  fc.assert(
    fc.property(
      everything,
      fc.constantFrom('aperture', 'rise', 'pitch', 'distance', 'nothing'),
      within(-500, 500),
      (station, what, value) => {
        const after = {
          aperture: { ...station, aperture: value },
          rise: { ...station, movements: { ...station.movements, rise_mm: value * 20 } },
          pitch: { ...station, camera: { ...station.camera, pitch_deg: value } },
          distance: { ...station, focus: { distance_m: value / 1000 } },
          nothing: { ...station },
        }[what] as Station;
        expect(changeParses(after, station)).toBe(parseStation(apart(after)).ok);
      },
    ),
    { numRuns: runs(600) },
  );
});

it('rounds as the decimals written out would, near a half as well', () => {
  const written = (value: number, decimals: number): number => Number(value.toFixed(decimals)) + 0;
  fc.assert(
    fc.property(
      fc.oneof(
        within(-1e6, 1e6),
        within(-2, 2),
        fc.integer({ min: -1e7, max: 1e7 }).map((n) => n / 2000),
      ),
      fc.integer({ min: 0, max: 6 }),
      (value, decimals) => {
        expect(rounded(value, decimals)).toBe(written(value, decimals));
      },
    ),
    { numRuns: 2000 },
  );
  expect(Object.is(rounded(-0.0001, 2), 0)).toBe(true);
});

it('states asked through a setup and of the station are one', () => {
  fc.assert(
    fc.property(everything, (station) => {
      const state = stateOf(station);
      if (state !== 'beyond') expect(opticalState(fresh(station))).toBe(state);
    }),
    { numRuns: runs(300) },
  );
});
