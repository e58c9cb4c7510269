import fc from 'fast-check';
import {
  cardOf,
  doneOtherwise,
  newStation,
  parseLogged,
  planFor,
  type Logged,
  type Station,
} from '@gangway/station';
import { shotChanges, shownWhich } from '../src/log/shot.js';
import { changed, emptyLog, linesOf, type OpenLog } from '../src/records/log-lines.js';

/** Days at the camera: what the step on the screen was, what was done, what was planned just then. */

const STATION = '00000000-0000-4000-8000-0000000000aa';

const begun = (frames: number, brackets: number): Station => {
  const plain = newStation('Ropewalk');
  return {
    ...plain,
    movement_limits: { moves: 'rear', shift_mm: [-30, 30], rise_mm: [-30, 30] },
    exposure: {
      iso: 100,
      meter: { time_s: 1 / 8, f_number: 8, iso: 100 },
      ...(brackets > 1 ? { brackets: { frames: brackets, step_stops: 2 } } : {}),
    },
    ...(frames > 1
      ? { mosaic: { pattern: 'grid', columns: frames, rows: 1, overlap: 0.4, moves: 'rear' } }
      : {}),
  };
};

/** What happens, one after the other, on one of two devices. */
const happenings = fc.array(
  fc.oneof(
    fc.record({
      kind: fc.constant('shot' as const),
      device: fc.integer({ min: 0, max: 1 }),
      // The step that is on the screen: any frame, taken before or not.
      step: fc.integer({ min: 0, max: 7 }),
      spoilt: fc.boolean(),
      stop: fc.option(fc.constantFrom(5.6, 11, 16), { nil: undefined, freq: 3 }),
    }),
    fc.record({
      kind: fc.constant('plan' as const),
      aperture: fc.constantFrom(4, 5.6, 8, 11.3, 16),
      tilt: fc.constantFrom(0, 2, 4),
    }),
  ),
  { minLength: 3, maxLength: 14 },
);

interface Truth {
  readonly line: Logged;
  readonly frame: number | null;
  readonly plan: NonNullable<Logged['plan']>;
  readonly stop: number | undefined;
}

describe('drawn days of a log', () => {
  it('every line says what was done and what was planned then', () => {
    let again = 0;
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 4 }),
        fc.constantFrom(1, 1, 3),
        happenings,
        (frames, brackets, day) => {
          let station = begun(frames, brackets);
          let revision = 1;
          const devices: OpenLog[] = [emptyLog('job'), emptyLog('job')];
          const truth: Truth[] = [];
          for (const each of day) {
            if (each.kind === 'plan') {
              station = {
                ...station,
                aperture: each.aperture,
                movements: { ...station.movements, tilt_deg: each.tilt },
              };
              revision += 1;
              continue;
            }
            const steps = cardOf(station).steps.filter(({ frame }) => frame !== undefined);
            const shown = steps.length === 0 ? null : steps[each.step % steps.length]!.frame!;
            const log = devices[each.device]!;
            const which = shownWhich(log, STATION, station, shown);
            const set: Partial<Logged> = {
              ...(each.stop === undefined ? {} : { f_number: each.stop }),
              ...(each.spoilt ? { kept: false } : {}),
            };
            const shot = {
              stationId: STATION,
              station,
              log,
              which,
              set,
              note: '',
              atMs: 1.8e12 + truth.length,
              revision,
            };
            const changes = shotChanges(shot, false);
            devices[each.device] = changed(log, { label: 'Shot', changes });
            const made = (changes[0] as { add: Logged }).add;
            truth.push({
              line: made,
              frame: shown,
              plan: planFor(station, which, revision),
              stop: each.stop,
            });
          }
          const all = devices.flatMap((log) => linesOf(log));
          expect(all).toHaveLength(truth.length);
          for (const { line, frame, plan, stop } of truth) {
            const kept = all.find(({ id }) => id === line.id)!;
            // The step on the screen is the frame that is logged, taken before or not.
            expect(kept.frame ?? null).toBe(frame === null ? null : frame + 1);
            expect(kept.plan).toEqual(plan);
            expect(kept.f_number).toBe(stop ?? plan.f_number);
            expect(parseLogged(kept).ok).toBe(true);
            // Whatever became of the station since, the line is told by its own plan.
            const otherwise = doneOtherwise(station, kept).map(({ name }) => name);
            expect(otherwise).toEqual(
              stop !== undefined && Math.abs(2 * Math.log2(stop / plan.f_number!)) > 1 / 6
                ? ['stop']
                : [],
            );
          }
          const taken = truth.map(({ frame }) => frame);
          if (new Set(taken).size < taken.length) again += 1;
        },
      ),
      { numRuns: 200 },
    );
    expect(again).toBeGreaterThan(20);
  });

  it('a bracket is gone through before it begins again', () => {
    const station = begun(2, 3);
    let log = emptyLog('job');
    const brackets = [0, 0, 0, 0, 1].map((frame) => {
      const which = shownWhich(log, STATION, station, frame);
      const shot = {
        stationId: STATION,
        station,
        log,
        which,
        set: {},
        note: '',
        atMs: 1.8e12,
        revision: 1,
      };
      log = changed(log, { label: 'Shot', changes: shotChanges(shot, false) });
      return [which.frame, which.bracket];
    });
    expect(brackets).toEqual([
      [1, 1],
      [1, 2],
      [1, 3],
      [1, 1],
      [2, 1],
    ]);
  });
});
