import fc from 'fast-check';
import {
  centreStops,
  CONTROL_IDS,
  CONTROLS,
  editedStation,
  evaluate,
  holdInvariants,
  exposureVerdict,
  exposureWays,
  framingWays,
  framedWell,
  parseStation,
  scalesOf,
  standingOf,
  stateOf,
  waysOut,
} from '../src/index.js';
import { everything } from './helpers/worlds.js';
import { runs, seen as often } from '../../../scripts/lib/runs.mjs';

beforeAll(holdInvariants);

describe('any station at all', () => {
  it('gives a report that JSON can say, and every sentence in it is whole', () => {
    const seen = new Set<string>();
    fc.assert(
      fc.property(everything, (station) => {
        const report = evaluate(station);
        expect(JSON.parse(JSON.stringify(report))).toEqual(report);
        const sentences = [
          ...report.rig.problems.map(({ message }) => message),
          ...(report.mosaic?.problems ?? []).map(({ message }) => message),
          ...(report.exposure?.problems ?? []).map(({ message }) => message),
          ...(report.exposure ? [exposureVerdict(station, report.exposure).sentence] : []),
        ];
        for (const sentence of sentences) {
          expect(sentence).not.toMatch(/NaN|undefined|Infinity (mm|m|°|×|kg)/);
        }
        for (const part of Object.keys(report)) seen.add(part);
      }),
      { numRuns: runs(60) },
    );
    // The worlds hold what the report can speak of.
    expect([...seen]).toEqual(
      expect.arrayContaining([
        'facade',
        'marks',
        'solution',
        'turn_in',
        'mosaic',
        'exposure',
        'rig',
      ]),
    );
  });

  it('is offered ways out that parse, cure, and name what they change', () => {
    let offered = 0;
    fc.assert(
      fc.property(everything, (station) => {
        const state = stateOf(station);
        for (const { title, detail, after } of waysOut(station)) {
          offered += 1;
          const there = stateOf(after);
          expect(state === 'soft' ? there === 'sharp' : standingOf(there) !== 'outside').toBe(true);
          expect(`${title} ${detail}`).not.toMatch(/NaN|undefined|−0\.0 /);
          const read = editedStation(after, station);
          expect(read.ok ? [] : read.problems).toEqual([]);
        }
      }),
      { numRuns: runs(150) },
    );
    expect(offered).toBeGreaterThan(often(15));
  });

  it('is offered exposures that parse and do what they say', () => {
    let offered = 0;
    fc.assert(
      fc.property(everything, (station) => {
        for (const { id, title, detail, after } of exposureWays(station)) {
          offered += 1;
          expect(`${title} ${detail}`).not.toMatch(/NaN|undefined|Infinity/);
          const read = editedStation(after, station);
          expect(read.ok ? [] : read.problems).toEqual([]);
          const [was, now] = [evaluate(station).exposure!, evaluate(after).exposure!];
          const codes = now.problems.map(({ code }) => code);
          if (id === 'brackets' || id === 'development') {
            expect(now.covers_range).toBe(true);
            expect(codes.filter((code) => code.startsWith('range'))).toEqual([]);
          }
          if (id === 'stop down' || id === 'grey filter') expect(codes).not.toContain('too_short');
          if (id === 'one pop') expect(now.flash!.pops).toBe(1);
          const falls = was.corner_stops! - centreStops(station.exposure!);
          if (id === 'centre filter') {
            expect(now.filter_stops - was.filter_stops).toBeCloseTo(falls, 1);
          }
          if (id === 'corner bracket') {
            const over = 0.5 * (after.exposure!.brackets!.frames - 1);
            expect(over * after.exposure!.brackets!.step_stops).toBeGreaterThanOrEqual(
              falls - 1e-6,
            );
          }
        }
      }),
      { numRuns: runs(120) },
    );
    expect(offered).toBeGreaterThan(often(15));
  });

  it('is offered framings that parse and frame', () => {
    let offered = 0;
    fc.assert(
      fc.property(
        everything.filter(({ facade }) => facade !== undefined),
        (station) => {
          for (const { after } of framingWays(station)) {
            offered += 1;
            expect(framedWell(after)).toBe(true);
            expect(parseStation(after).ok).toBe(true);
          }
        },
      ),
      { numRuns: 40 },
    );
    expect(offered).toBeGreaterThan(often(10));
  });

  it('has scales on which what stands in a stretch is what setting it gives', () => {
    let checked = 0;
    fc.assert(
      fc.property(everything, (drawn) => {
        // How a lock of tilt to shift is told is the rig's to say, not the frame's.
        const { shift_tilt: _, ...movement_limits } = drawn.movement_limits;
        const station = { ...drawn, movement_limits };
        const scales = scalesOf(station);
        // Distances are looked at here and there along their scale, closer where it turns.
        for (const id of CONTROL_IDS.filter((each) => each !== 'distance')) {
          for (const { from, to, standing } of scales[id].segments) {
            if (!Number.isFinite(from) || !Number.isFinite(to)) continue;
            const middle = (from + to) / 2;
            const after = CONTROLS[id].write(station, middle);
            if (to - from < 1e-3 || !parseStation(after).ok) continue;
            const state = stateOf(after);
            // Another movement is set past its own end: that is told on its own scale.
            if (state === 'beyond') continue;
            checked += 1;
            expect([id, middle, standingOf(state)]).toEqual([id, middle, standing]);
          }
        }
      }),
      { numRuns: runs(60) },
    );
    expect(checked).toBeGreaterThan(100);
  });
});
