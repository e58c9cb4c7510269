import fc from 'fast-check';
import {
  evaluate,
  hindrance,
  instructionsFor,
  limitsLines,
  limitsTable,
  newStation,
  ontoStop,
  readings,
  type Report,
  solvedFor,
  solveStation,
  type Station,
  movesOf,
  orderLines,
} from '../src/index.js';
import { base, parsed } from './helpers/rigs.js';
import { everything, within } from './helpers/worlds.js';
import { mark, table } from './helpers/table.js';
import { runs } from '../../../scripts/lib/runs.mjs';

/** What is moved, as it is ordered. */
const told = (of: Station): string => orderLines(movesOf(of)).join(' ');

type Turning = NonNullable<Report['turning']>;
type Vec = [number, number, number];

const rad = (deg: number): number => (deg * Math.PI) / 180;

/** Turned clockwise as seen from behind, about the way the camera looks: what is up goes to the right. */
const turned = ([x, y, z]: Vec, deg: number): Vec => [
  x * Math.cos(rad(deg)) + y * Math.sin(rad(deg)),
  -x * Math.sin(rad(deg)) + y * Math.cos(rad(deg)),
  z,
];

/**
 * A hand that does what is told: turn the lens, then move it along the one direction it has. Worked
 * here with the lens as a body, apart from how the answer was found.
 */
function carriedOut(limits: Station['movement_limits'], told: Turning) {
  const quarter = limits.shift_tilt === 'crossed' ? 90 : 0;
  const shift = turned([0, told.shift_mm, 0], told.angle_deg);
  const lean = rad(told.tilt_deg);
  // Leaned forward, then turned with the lens.
  const axis = turned(
    [0, -Math.sin(lean), Math.cos(lean)],
    told.tilt_angle_deg ?? told.angle_deg + quarter,
  );
  return {
    shift_mm: shift[0],
    rise_mm: shift[1],
    tilt_deg: (Math.asin(-axis[1]) * 180) / Math.PI,
    swing_deg: (Math.atan2(axis[0], axis[2]) * 180) / Math.PI,
  };
}

/** The in-line, one-way adapter of 12 mm and 8° that clicks every 30°. */
const inLine = (movements: Partial<Station['movements']>): Station =>
  parsed({
    ...base(),
    movement_limits: {
      moves: 'front',
      radial_shift_mm: 12,
      radial_tilt_deg: 8,
      one_way_tilt: true,
      shift_tilt: 'in_line',
      turn_stops_deg: [0, 30, 60, 90, 120, 150, 180, 210, 240, 270, 300, 330],
    },
    movements: { ...base().movements, ...movements },
  });

describe('a lens or adapter that turns', () => {
  it('rise 8 with a lean of 4° back on an in-line one-way adapter is one angle', () => {
    const station = inLine({ rise_mm: 8, tilt_deg: -4 });
    expect(evaluate(station).turning).toMatchObject({
      angle_deg: 180,
      shift_mm: -8,
      tilt_deg: 4,
      reached: true,
    });
    expect(told(station)).toBe(
      'Turn the lens to its 180° stop, clockwise as seen from behind, and there shift it 8.0 mm up and lean it 4.0° back.',
    );
  });

  it('rise 8 with a swing of 4° is none: the nearest is told, and by how much it misses', () => {
    const station = inLine({ rise_mm: 8, swing_deg: 4 });
    const { turning, rig } = evaluate(station);
    expect(turning!.reached).toBe(false);
    expect(rig.problems.map(({ code }) => code)).toContain('axes_locked');
    const had = carriedOut(station.movement_limits, turning!);
    expect(turning!.off_mm).toBeCloseTo(Math.hypot(had.rise_mm - 8, had.shift_mm), 9);
    expect(told(station)).toMatch(/No stop gives all that is set: \d+° comes nearest, /);
    expect(evaluate(ontoStop(station)).turning!.reached).toBe(true);
  });

  it('is solved with the shift it has: leaned back though it tilts one way only', () => {
    // A ceiling that comes down: its plane wants the lens leaned back.
    const marks = [
      mark('Near', -0.1, 1.85, 0.9),
      mark('Far', 0.1, 1.7, 1.6),
      mark('Side', 0.3, 1.775, 1.25),
    ];
    const { movement_limits } = inLine({});
    const station = table(marks, {
      movement_limits,
      movements: { ...base().movements, rise_mm: 8 },
      camera: { height_m: 1.5, pitch_deg: 0, yaw_deg: 0 },
    });
    const answer = solveStation(station)!;
    expect(answer.solved.lens.tiltDeg).toBeLessThan(-0.5);
    expect(instructionsFor(answer, 'metric').set[0]).toMatch(
      /^Turn the lens to its 180° stop, clockwise as seen from behind, and there shift it 8\.0 mm up and lean it \d\.\d° back\.$/,
    );
    expect(readings(solvedFor(station)).turning!.reached).toBe(true);
  });

  it('a back that turns goes the other way than the picture', () => {
    const { movement_limits } = inLine({});
    const station = parsed({
      ...inLine({ rise_mm: 8 }),
      movement_limits: { ...movement_limits, moves: 'rear' },
    });
    expect(told(station)).toBe(
      'Turn the back to its 0° stop, clockwise as seen from behind, and there shift it 8.0 mm down.',
    );
  });

  it('told apart where shift and tilt turn by themselves', () => {
    const station: Station = {
      ...inLine({ rise_mm: 8, swing_deg: 4 }),
      movement_limits: { ...inLine({}).movement_limits, shift_tilt: 'free' },
    };
    expect(evaluate(station).turning).toMatchObject({ angle_deg: 0, tilt_angle_deg: 270 });
    expect(told(station)).toBe(
      'Turn the lens’s shift to its 0° stop, clockwise as seen from behind, and there shift it 8.0 mm up, then turn the lens’s tilt to its 270° stop and there lean it 4.0° to the right.',
    );
  });

  const mechanisms = fc.record({
    radial_shift_mm: fc.constantFrom(undefined, 12, 30),
    radial_tilt_deg: fc.constantFrom(undefined, 8, 15),
    one_way_tilt: fc.boolean(),
    shift_tilt: fc.constantFrom(undefined, 'in_line' as const, 'crossed' as const, 'free' as const),
    turn_stops_deg: fc.constantFrom(undefined, [0, 90], [0, 30, 60, 90], [-45, 0, 45, 90, 180]),
  });
  const movements = fc.record({
    rise_mm: fc.oneof(fc.constant(0), within(-12, 12)),
    shift_mm: fc.oneof(fc.constant(0), within(-12, 12)),
    tilt_deg: fc.oneof(fc.constant(0), within(-8, 8)),
    swing_deg: fc.oneof(fc.constant(0), within(-8, 8)),
  });

  it('carried out literally the instruction gives the movements, or misses them by what is told', () => {
    fc.assert(
      fc.property(mechanisms, movements, (made, set) => {
        const limits = Object.fromEntries(
          Object.entries(made).filter(([, value]) => value !== undefined),
        );
        const station = parsed({
          ...base(),
          movement_limits: { moves: 'front', ...limits },
          movements: { ...set },
        });
        const { turning } = readings(station);
        fc.pre(turning !== null);
        const had = carriedOut(station.movement_limits, turning!);
        if (made.one_way_tilt) expect(turning!.tilt_deg).toBeGreaterThanOrEqual(0);
        if (made.turn_stops_deg) {
          const stops = made.turn_stops_deg.map((deg) => (deg + 360) % 360);
          expect(stops).toContain(turning!.angle_deg);
        }
        const locked = made.shift_tilt === 'in_line' || made.shift_tilt === 'crossed';
        const both =
          locked || (!made.radial_shift_mm && !made.radial_tilt_deg && !made.one_way_tilt);
        if (both || made.radial_shift_mm) {
          const off = Math.hypot(had.rise_mm - set.rise_mm, had.shift_mm - set.shift_mm);
          expect(off).toBeCloseTo(turning!.off_mm, 9);
        }
        if (turning!.reached && (both || made.radial_tilt_deg || made.one_way_tilt)) {
          expect(Math.abs(had.tilt_deg - set.tilt_deg)).toBeLessThan(0.11);
          expect(Math.abs(had.swing_deg - set.swing_deg)).toBeLessThan(0.11);
        }
        // Going onto what comes nearest is something a hand can do.
        expect(readings(ontoStop(station)).turning!.reached).toBe(true);
      }),
      { numRuns: runs(2000) },
    );
  });

  it('what is advised for marks is a lean that can be had with the shift as it is', () => {
    fc.assert(
      fc.property(everything, (station) => {
        const before = readings(station).turning;
        fc.pre(before !== null && before.off_mm < 0.01);
        const answer = solveStation(station);
        fc.pre(answer !== null && hindrance(station, answer) === null);
        expect(readings(solvedFor(station)).turning!.off_deg).toBeLessThan(0.1);
      }),
      { numRuns: runs(60) },
    );
  });
});

describe('limits at each stop of a lens that turns', () => {
  const turning = (stops: number[]): Station => ({
    ...newStation('turning'),
    lens: {
      ...newStation('turning').lens,
      circle: [
        { f_number: 3.5, diameter_mm: 60 },
        { f_number: 8, diameter_mm: 67 },
      ],
    },
    focus: { distance_m: null },
    movement_limits: { moves: 'front', radial_shift_mm: 40, turn_stops_deg: stops },
  });
  const every15 = Array.from({ length: 24 }, (_, i) => 15 * i);

  it('moved so far along its angle a corner just touches the circle, by the report', () => {
    const station = turning(every15);
    const { rows, clicks } = limitsTable(station);
    const told = clicks.flatMap(({ anglesDeg }) => anglesDeg).sort((a, b) => a - b);
    expect(told).toEqual(every15);
    for (const click of clicks) {
      for (const deg of click.anglesDeg) {
        rows.forEach((row, i) => {
          const { mm } = click.rows[i]!.level;
          const at = (length: number) =>
            readings({
              ...station,
              aperture: row.fNumber,
              movements: {
                ...station.movements,
                rise_mm: length * Math.cos((deg * Math.PI) / 180),
                shift_mm: length * Math.sin((deg * Math.PI) / 180),
              },
            }).coverage.covered;
          expect(at(mm! - 1e-6)).toBe(true);
          expect(at(mm! + 1e-6)).toBe(false);
        });
      }
    }
  });

  it('no slide goes further than it is told to, whichever way it is turned', () => {
    const { radial_shift_mm: _, ...limits } = turning([0, 30, 90]).movement_limits;
    const ranged: Station = {
      ...turning([0, 30, 90]),
      movement_limits: { ...limits, rise_mm: [-8, 8], shift_mm: [-8, 8] },
    };
    for (const { rows } of limitsTable(ranged).clicks) {
      for (const { level } of rows) expect(level.mm).toBeLessThanOrEqual(8);
    }
  });

  it('straight up and sideways it goes as far as the scales say; nothing that turns has none', () => {
    const { rows, clicks } = limitsTable(turning([0, 90]));
    rows.forEach((row, i) => {
      expect(clicks[0]!.rows[i]!.level.mm).toBeCloseTo(row.level.up.mm!, 9);
      expect(clicks[1]!.rows[i]!.upright.mm).toBeCloseTo(row.upright.right.mm!, 9);
    });
    expect(limitsTable(newStation('plain')).clicks).toEqual([]);
    const [head, first] = limitsLines(limitsTable(turning([0, 90])));
    expect(head).toContain('level_at_90_deg_mm');
    expect(first).toHaveLength(head!.length);
  });
});
