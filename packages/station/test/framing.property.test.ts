import fc from 'fast-check';
import {
  changesBetween,
  evaluate,
  framedWell,
  framingWays,
  layoutOf,
  parseStation,
  readings,
  standingOf,
  stateOf,
  atLaidFrame,
  type Station,
} from '../src/index.js';
import { setupOf } from '../src/optical/setup.js';
import { canBeFramed, movedToFrame } from '../src/facade/place.js';
import { reportTurnIn, mostTurnIn, withTurnIn } from '../src/facade/turn-in.js';
import { base, parsed, stations } from './helpers/rigs.js';
import { runs, seen as often } from '../../../scripts/lib/runs.mjs';

const number = (min: number, max: number) => fc.double({ min, max, noNaN: true });

/** Random façades before random rigs, near enough that the top is often out. */
const sites = fc
  .record({
    station: stations({ leanDeg: 4 }),
    distance: number(3, 60),
    top: number(0.1, 1.6),
    width: number(0.1, 1.4),
    foot: fc.option(number(-0.3, 0.3)),
    headroom: number(0, 1),
    aside: fc.option(number(-0.2, 0.2)),
    pitch: fc.oneof(fc.constant(0), number(-10, 10)),
    yaw: fc.oneof(fc.constant(0), number(-15, 15)),
  })
  .filter(({ station, distance }) => distance * 1000 > 2 * station.lens.focal_length_mm)
  .map(({ station, distance, top, width, foot, headroom, aside, pitch, yaw }) =>
    parsed({
      ...station,
      camera: { height_m: 1.6, pitch_deg: pitch, yaw_deg: yaw },
      facade: {
        distance_m: distance,
        top_m: 1.6 + top * distance,
        width_m: width * distance,
        headroom_m: headroom,
        ...(foot === null ? {} : { base_m: Math.min(1.6 + foot * distance, 1.5 + top * distance) }),
        ...(aside === null ? {} : { x_m: aside * distance }),
      },
    }),
  );

/** The façade's corners as a plain pinhole at the moved lens pictures them; null when beside it. */
function corners(station: Station): { x: number; y: number }[] | null {
  const { facade, camera, movements, movement_limits: limits } = station;
  const s = setupOf(station);
  const v = s.imageDistanceMm;
  const [p, t] = [(camera.pitch_deg * Math.PI) / 180, (camera.yaw_deg * Math.PI) / 180];
  const lens = limits.moves === 'front' ? [movements.shift_mm, movements.rise_mm] : [0, 0];
  const found: { x: number; y: number }[] = [];
  const heights = [facade!.top_m + (facade!.headroom_m ?? 0)];
  if (facade!.base_m !== undefined) heights.push(facade!.base_m - (facade!.footroom_m ?? 0));
  for (const height of heights) {
    for (const side of [-1, 1]) {
      const x = 1000 * ((facade!.x_m ?? 0) + (side * facade!.width_m) / 2);
      const [y, z] = [1000 * (height - camera.height_m), 1000 * facade!.distance_m];
      // Turned back by the yaw, then by the pitch.
      const [x1, z1] = [x * Math.cos(t) - z * Math.sin(t), x * Math.sin(t) + z * Math.cos(t)];
      const [y2, z2] = [y * Math.cos(p) - z1 * Math.sin(p), y * Math.sin(p) + z1 * Math.cos(p)];
      if (z2 - v <= 0) return null;
      found.push({ x: (v * (x1 - lens[0]!)) / (z2 - v), y: (v * (y2 - lens[1]!)) / (z2 - v) });
    }
  }
  return found;
}

/** Whether every corner lies in the frame, asked of the pinhole alone. */
function seenWhole(station: Station): boolean {
  const { frame } = setupOf(station);
  return (
    corners(station)?.every(
      ({ x, y }) =>
        Math.abs(x - frame.shiftMm) <= frame.widthMm / 2 + 1e-3 &&
        Math.abs(y - frame.riseMm) <= frame.heightMm / 2 + 1e-3,
    ) ?? false
  );
}

describe('ways to frame a façade', () => {
  it('every one, once taken, is framed, covered and within the mechanism, and parses', () => {
    let offered = 0;
    fc.assert(
      fc.property(sites, (station) => {
        for (const way of framingWays(station)) {
          offered += 1;
          expect(framedWell(way.after)).toBe(true);
          expect(parseStation(way.after).ok).toBe(true);
          if (way.after.mosaic) {
            const layout = layoutOf(way.after);
            for (const i of layout.frames.keys()) {
              expect(standingOf(stateOf(atLaidFrame(way.after, layout, i)))).not.toBe('outside');
            }
          } else {
            expect(seenWhole(way.after)).toBe(true);
            expect(way.state).toBe(stateOf(way.after));
            expect(standingOf(way.state)).not.toBe('outside');
            expect(readings(way.after).facade!.fits).toBe(true);
          }
        }
      }),
      { numRuns: runs(120) },
    );
    expect(offered).toBeGreaterThan(often(60));
  });

  it('figures quoted are the figures after', () => {
    fc.assert(
      fc.property(sites, (station) => {
        for (const { id, title, after } of framingWays(station)) {
          const figure = Number(/(\d+\.\d+)/.exec(title)?.[1]);
          const { facade, camera } = after;
          if (id === 'frame-step-back') {
            expect(facade!.distance_m - station.facade!.distance_m).toBeCloseTo(figure, 5);
          } else if (id === 'frame-step-closer') {
            expect(station.facade!.distance_m - facade!.distance_m).toBeCloseTo(figure, 5);
          } else if (id === 'frame-raise') {
            expect(camera.height_m - station.camera.height_m).toBeCloseTo(figure, 5);
          } else if (id === 'frame-lower') {
            expect(station.camera.height_m - camera.height_m).toBeCloseTo(figure, 5);
          } else if (id.startsWith('frame-pitch')) {
            expect(Math.abs(camera.pitch_deg - station.camera.pitch_deg)).toBeCloseTo(figure, 3);
          } else if (id === 'frame-stop-down') {
            expect(title).toContain(`f/${after.aperture}`);
          }
        }
      }),
      { numRuns: runs(60) },
    );
  });

  it('what a search asks in short is what the movement found says', () => {
    let [found, none] = [0, 0];
    fc.assert(
      fc.property(sites, fc.constantFrom(0.5, 0.9, 1), (station, share) => {
        const moved = movedToFrame(station, share);
        expect(canBeFramed(setupOf(station), share)).toBe(moved !== null);
        if (moved) found++;
        else none++;
      }),
      { numRuns: runs(1000) },
    );
    expect(Math.min(found, none)).toBeGreaterThan(often(50));
  });

  it('a search asks the core too where the circle keeps a shift that leaves no rise', () => {
    // At 9.49 mm of shift a circle of 60 mm leaves 0.01 mm of rise; the core, of 54, asks for 5.9 mm and leaves 0.56.
    const station = parsed({
      ...base(),
      back: { width_mm: 36, height_mm: 24, orientation: 'landscape' },
      lens: {
        ...base().lens,
        focal_length_mm: 24,
        circle: [{ f_number: 8, diameter_mm: 60 }],
        sharp_fraction: 0.9,
      },
      aperture: 8,
      focus: { image_distance_mm: 24 },
      camera: { height_m: 1.6, pitch_deg: 0, yaw_deg: 0 },
      movements: { rise_mm: 0, shift_mm: 9.49, tilt_deg: 0, swing_deg: 0 },
      movement_limits: { rise_mm: [-15, 15], shift_mm: [-15, 15], moves: 'front' },
      facade: { distance_m: 10, width_m: 4, top_m: 1.6 + (12.3 * 10) / 24 },
    });
    expect(movedToFrame(station)?.movements).toMatchObject({ shift_mm: 5.9 });
    expect(canBeFramed(setupOf(station), 1)).toBe(true);
  });

  it('none where the façade is in the picture', () => {
    fc.assert(
      fc.property(sites, (station) => {
        if (framedWell(station)) expect(framingWays(station)).toEqual([]);
        expect(readings(station).facade!.framed).toBe(seenWhole(station));
      }),
      { numRuns: runs(300) },
    );
  });

  it('the report’s ways set by pointer what the way itself sets', () => {
    fc.assert(
      fc.property(sites, (station) => {
        const ways = framingWays(station);
        const told = evaluate(station).facade!.ways_out;
        expect(told.map(({ id }) => id)).toEqual(ways.map(({ id }) => id));
        told.forEach(({ set }, i) => {
          const made = structuredClone(station) as unknown as Record<
            string,
            Record<string, unknown>
          >;
          for (const [pointer, value] of Object.entries(set)) {
            const [key, inner] = pointer.slice(1).split('/') as [string, string?];
            if (inner === undefined) {
              if (value === null) delete made[key];
              else made[key] = value as Record<string, unknown>;
            } else if (value === null) delete made[key]![inner];
            else made[key]![inner] = value;
          }
          expect(changesBetween(made as unknown as Station, ways[i]!.after)).toEqual({});
        });
      }),
      { numRuns: 40 },
    );
  });
});

describe('turn in, shift back', () => {
  const turns = fc.record({
    station: stations({ leanDeg: 3 }),
    yaw: number(-25, 25),
    keep: fc.constantFrom('left' as const, 'right' as const, 'center' as const),
  });

  it('possible means: once made, the frame is covered and within the mechanism', () => {
    fc.assert(
      fc.property(turns, ({ station, yaw, keep }) => {
        const asked = { ...station, turn_in: { yaw_deg: yaw, keep } };
        const report = reportTurnIn(setupOf(station), asked.turn_in);
        fc.pre(report.shift_mm !== null);
        const made = withTurnIn(setupOf(asked));
        expect(made.movements.shift_mm).toBeCloseTo(report.shift_mm, 3);
        expect(made.camera.yaw_deg).toBeCloseTo(station.camera.yaw_deg + yaw, 5);
        const { coverage } = readings(made);
        if (report.possible) expect(coverage.margin_mm ?? 1).toBeGreaterThan(-2e-3);
      }),
      { numRuns: runs(300) },
    );
  });

  it('the most that may be turned is possible, a little more is not', () => {
    fc.assert(
      fc.property(turns, ({ station, keep }) => {
        const s = setupOf(station);
        const side = keep === 'left' ? -1 : 1;
        const most = mostTurnIn(s, keep, side);
        fc.pre(most > 0.01 && most < 80);
        const at = (deg: number): boolean =>
          reportTurnIn(s, { yaw_deg: side * deg, keep }).possible;
        expect(at(most - 0.001)).toBe(true);
        expect(at(most + 0.001)).toBe(false);
      }),
      { numRuns: runs(200) },
    );
  });
});
