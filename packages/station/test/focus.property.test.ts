import fc from 'fast-check';
import {
  focusWays,
  hindrance,
  type Mark,
  readings,
  scalesOf,
  solvedFor,
  solveStation,
  stateOf,
  type Station,
  tiltOrStack,
} from '../src/index.js';
import { parsed, stations } from './helpers/rigs.js';
import { runs, seen as often } from '../../../scripts/lib/runs.mjs';

const number = (min: number, max: number) => fc.double({ min, max, noNaN: true });

/** Marks somewhere in front, in focal lengths: about where the lens looks, near and far. */
const marked = (least: number, most: number): fc.Arbitrary<Station> =>
  fc
    .tuple(
      stations({ leanDeg: 0 }),
      fc.array(fc.tuple(number(-0.35, 0.35), number(-0.35, 0.1), number(8, 60)), {
        minLength: least,
        maxLength: most,
      }),
      fc.option(number(2, 20)),
      fc.boolean(),
    )
    .map(([station, places, end, radial]) => {
      const f = station.lens.focal_length_mm / 1000;
      const marks = places.map(([x, y, z], i): Mark => ({
        label: `m${i}`,
        x_m: x * z * f,
        y_m: station.camera.height_m + y * z * f,
        z_m: z * f,
        must: 'sharp',
      }));
      const limits =
        end === null
          ? {}
          : radial
            ? { radial_tilt_deg: end }
            : { tilt_deg: [-end, end], swing_deg: [-end, end] };
      return parsed({
        ...station,
        marks,
        movement_limits: { ...station.movement_limits, ...limits },
      });
    });

describe('any rig before any marks', () => {
  it('is never offered a setting that fails circle, ring or mechanism without saying so', () => {
    let offered = 0;
    fc.assert(
      fc.property(marked(1, 7), (station) => {
        const answer = solveStation(station)!;
        const reason = hindrance(station, answer);
        if (reason !== null) return;
        offered += 1;
        expect(answer.within).toBe(true);
        expect(['sharp', 'soft']).toContain(stateOf(answer.station));
        // And it does what it is offered for.
        for (const { holds } of readings(answer.station).marks!) expect(holds).toBe(true);
        const set = solvedFor(station, solveStation(station));
        expect(['sharp', 'soft']).toContain(stateOf(set));
      }),
      { numRuns: runs(250) },
    );
    expect(offered).toBeGreaterThan(often(60));
  });

  it('gives a sentence, a number or both, never nothing and never NaN', () => {
    fc.assert(
      fc.property(marked(1, 5), number(-3, 3), (station, z) => {
        const odd = parsed({
          ...station,
          marks: [
            ...station.marks!,
            { label: 'odd', x_m: 0, y_m: station.camera.height_m, z_m: z * 0.1, must: 'sharp' },
          ],
        });
        const answer = solveStation(odd)!;
        const reason = hindrance(odd, answer);
        if (reason !== null) expect(reason).toMatch(/^\S.+[.]$/s);
        for (const value of [
          answer.solved.lens.tiltDeg,
          answer.solved.lens.swingDeg,
          answer.solved.imageDistanceMm,
          answer.engravedNeeded,
        ]) {
          expect(Number.isFinite(value)).toBe(true);
        }
        // What is set for them is a station that stands.
        expect(Number.isFinite(readings(parsed(solvedFor(odd))).focus.image_distance_mm)).toBe(
          true,
        );
      }),
      { numRuns: runs(150) },
    );
  });

  it('is at least as well served leaned as straight, and each way does what it says', () => {
    fc.assert(
      fc.property(marked(2, 5), (station) => {
        const answer = solveStation(station)!;
        fc.pre(hindrance(station, answer) === null);
        for (const { id, title, detail, after } of focusWays(station, answer)) {
          const stands = parsed(after);
          scalesOf(stands);
          if (id === 'stack') continue;
          const says = /^f\/[\d.]+ holds (\d+)/.exec(detail);
          if (!says) continue;
          const held = readings(stands).marks!.filter(({ holds }) => holds).length;
          expect({ title, held }).toEqual({ title, held: Number(says[1]) });
        }
        const efforts = tiltOrStack(station);
        const of = (id: string) => efforts.find((each) => each.id === id);
        const [tilt, straight] = [of('tilt')!, of('straight')!];
        if (straight.holds && tilt.holds && answer.within) {
          expect(tilt.fNumber).toBeLessThanOrEqual(straight.fNumber * (1 + 1e-9));
        }
      }),
      { numRuns: runs(60) },
    );
  });
});
