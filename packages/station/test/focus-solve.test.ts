import {
  closeUp,
  evaluate,
  focusVerdict,
  focusWays,
  instructionsFor,
  readings,
  solvedFor,
  solveStation,
  type Station,
  withJobCriterion,
  withMark,
  withoutMark,
  withSolve,
} from '../src/index.js';
import { base } from './helpers/rigs.js';
import { mark, table, THREE } from './helpers/table.js';

describe('the setting for marks', () => {
  it('holds every mark once the scales stand as told, to the digit they are set to', () => {
    const set = solvedFor(table(THREE), solveStation(table(THREE)));
    const report = readings(set);
    expect(report.marks!.every(({ holds }) => holds)).toBe(true);
    // A thousandth of a degree leaves next to nothing.
    for (const { blur_um } of report.marks!) expect(blur_um!).toBeLessThan(0.3);
    expect(focusVerdict(set, report).words).toBe('holds 3 of 3');
    expect(String(set.movements.tilt_deg)).toMatch(/^\d+(\.\d{1,3})?$/);
  });

  it('is told in the order it is done: lean, swing, focus from where, stop', () => {
    const answer = solveStation(table(THREE))!;
    const { set, check, focusOn } = instructionsFor(answer, 'metric');
    expect(set[0]).toMatch(/^Lean the lens forward \d+\.\d°\.$/);
    expect(set[1]).toMatch(/^Swing the lens (left|right) \d\.\d°\.$/);
    // The ring of a leaned lens reads what a straight one would: the tape's figure is another.
    expect(set[2]).toMatch(/^Set the focusing ring to \d\.\d+ m\.$/);
    // All three lie on one plane: any stop holds, and two stops down the lens itself is sharp.
    expect(set.at(-1)).toBe('Stop down to f/5.6; f/2.8 to f/20 hold.');
    expect(check[0]).toBe(`${focusOn}: crisp with the lens wide open.`);
    expect(check).toHaveLength(3);
  });

  it('names the standard on a view camera, and how far to draw it out', () => {
    const marks = [...THREE, mark('Cup', 0.2, 1.32, 1.1), mark('Tray', -0.2, 1.2, 1.4)];
    const station = table(marks, {
      chain: [{ kind: 'view_camera', bellows_min_mm: 40, bellows_max_mm: 300 }],
    });
    const { set } = instructionsFor(solveStation(station)!, 'metric');
    expect(set[0]).toContain('the front standard');
    expect(set.join(' ')).toMatch(/From where infinity is crisp draw out \d+\.\d mm\./);
  });

  it('advises the same stop whatever is set, one that holds', () => {
    const five = [...THREE, mark('Cup', 0.2, 1.3, 1.1), mark('Tray', -0.2, 1.21, 1.4)];
    const wide = solveStation(table(five, { aperture: 2.8 }))!;
    expect(wide.engravedNeeded).toBeGreaterThan(2.8);
    expect(wide.station.aperture).toBeGreaterThanOrEqual(wide.engravedNeeded * (1 - 1e-9));
    expect(solveStation(table(five, { aperture: 32 }))!.station.aperture).toBe(
      wide.station.aperture,
    );
    const after = readings({ ...solvedFor(table(five, { aperture: 2.8 })) });
    expect(after.marks!.every(({ holds }) => holds)).toBe(true);
  });

  it('follows its marks when asked to, and only then', () => {
    const still = table(THREE);
    expect(withMark(still, 0, { y_m: 1.22 }).movements).toEqual(still.movements);
    const follows = withSolve(still, { follow: true });
    expect(follows.movements.tilt_deg).not.toBe(0);
    const moved = withMark(follows, 0, { y_m: 1.22 });
    expect(moved.movements.tilt_deg).not.toBe(follows.movements.tilt_deg);
    expect(readings(moved).marks!.every(({ holds }) => holds)).toBe(true);
    expect(withoutMark(moved, 0).marks).toHaveLength(2);
  });

  it('is in the report with its least stop, and possible', () => {
    const { solution } = evaluate(table(THREE));
    expect(solution).toMatchObject({ possible: true, within_limits: true });
    expect(solution!.reason).toBeUndefined();
    expect(solution!.f_number!).toBeLessThan(1e-6);
    expect(solution!.stack_frames!).toBeGreaterThan(5);
    expect(evaluate(table([])).solution).toBeUndefined();
    expect(evaluate(table([mark('a', 0, 1.4, 2, { must: 'free' })])).solution).toBeUndefined();
  });

  it('moves only what may be moved', () => {
    const tilt = solveStation(table(THREE, { solve: { tilt: true, swing: false } }))!;
    expect(tilt.solved.lens.swingDeg).toBe(0);
    const none = solveStation(table(THREE, { solve: { tilt: false, swing: false } }))!;
    expect(none.solved.lens).toEqual({ tiltDeg: 0, swingDeg: 0 });
    expect(none.engravedNeeded).toBeGreaterThan(tilt.engravedNeeded);
  });

  it('turns a one-way lens to one of its stops and says which', () => {
    const station = table(THREE, {
      movement_limits: {
        moves: 'front',
        tilt_deg: [0, 8],
        radial_tilt_deg: 8,
        one_way_tilt: true,
        turn_stops_deg: [0, 90, 180, 270],
      },
    });
    const answer = solveStation(station)!;
    expect(answer.solved.lens.swingDeg).toBeCloseTo(0, 9);
    expect(answer.solved.lens.tiltDeg).toBeGreaterThan(0);
    expect(answer.solved.lens.tiltDeg).toBeLessThanOrEqual(8 + 1e-9);
    expect(instructionsFor(answer, 'metric').set[0]).toMatch(
      /^Turn the lens to its 0° stop, clockwise as seen from behind, and there lean it \d\.\d° forward\.$/,
    );
    const sideways = solveStation({
      ...station,
      marks: [mark('a', -0.3, 1.3, 0.9), mark('b', 0, 1.3, 1.4), mark('c', 0.35, 1.3, 2.2)],
      camera: { ...station.camera, pitch_deg: 0 },
    })!;
    expect(instructionsFor(sideways, 'metric').set[0]).toMatch(
      /its (90|270)° stop.*lean it \d\.\d° to the (left|right)/,
    );
  });

  it('leans across or along the shift where the two are locked to each other', () => {
    const locked = (shift_tilt: string) =>
      solveStation(
        table(THREE, {
          movement_limits: { moves: 'front', tilt_deg: [-8, 8], swing_deg: [-8, 8], shift_tilt },
          movements: { rise_mm: 3, shift_mm: 0, tilt_deg: 0, swing_deg: 0 },
        }),
      )!;
    expect(locked('in_line').solved.lens.swingDeg).toBeCloseTo(0, 12);
    expect(locked('crossed').solved.lens.tiltDeg).toBeCloseTo(0, 12);
    const slant = solveStation(
      table(THREE, {
        movement_limits: { moves: 'front', radial_tilt_deg: 8, shift_tilt: 'in_line' },
        movements: { rise_mm: 3, shift_mm: 3, tilt_deg: 0, swing_deg: 0 },
      }),
    )!;
    const [x, y] = slant.solved.axis;
    expect(x).toBeCloseTo(y, 9);
  });

  it('takes a breathing lens with the focal length that acts up close', () => {
    const station = table([mark('Eye', 0.001, 1.5, 0.2535), mark('Horn', 0.004, 1.5042, 0.2543)], {
      lens: {
        focal_length_mm: 100,
        f_min: 2.8,
        f_max: 22,
        register_mm: 44,
        circle: [{ f_number: 2.8, diameter_mm: 60 }],
        close_focus: { distance_mm: 250, magnification: 2 },
      },
      focus: { magnification: 1.9 },
      camera: { height_m: 1.5, pitch_deg: 0, yaw_deg: 0 },
      movement_limits: { moves: 'front', tilt_deg: [-8, 8], swing_deg: [0, 0] },
    });
    const set = solvedFor(station);
    expect(readings(set).marks!.every(({ blur_um }) => blur_um! < 3)).toBe(true);
    expect(closeUp(set).focalLengthMm).toBeLessThan(60);
  });
});

describe('leaning the back instead', () => {
  const view = (more: object = {}): Station =>
    table(THREE, {
      chain: [{ kind: 'view_camera', bellows_min_mm: 40, bellows_max_mm: 400 }],
      movement_limits: {
        moves: 'front',
        tilt_deg: [-25, 25],
        swing_deg: [-25, 25],
        rear_tilt_deg: [-30, 30],
        rear_swing_deg: [-30, 30],
      },
      ...more,
    });

  it('holds the same marks and says what it does to upright lines', () => {
    const station = view();
    const way = focusWays(station, solveStation(station)!).find(
      ({ id }) => id === 'other-standard',
    )!;
    expect(way.title).toBe('Lean the back instead');
    expect(way.detail).toContain('upright lines converge');
    expect(way.after.movements.tilt_deg).toBe(0);
    expect(way.after.movements.rear_tilt_deg).toBeGreaterThan(0);
    const after = readings(way.after);
    expect(after.marks!.every(({ holds }) => holds)).toBe(true);
    expect(after.perspective.convergence_deg).not.toBeCloseTo(
      readings(station).perspective.convergence_deg,
      1,
    );
  });

  it('is told for the rear standard, and in the report', () => {
    const station = view({ solve: { tilt: true, swing: true, rear: true } });
    const { set } = instructionsFor(solveStation(station)!, 'metric');
    expect(set[0]).toMatch(/^Lean the rear standard back at its top \d+\.\d°\.$/);
    expect(evaluate(station).solution!.rear_tilt_deg).toBeGreaterThan(0);
  });

  it('is not offered where the back does not lean', () => {
    const station = table(THREE);
    const ids = focusWays(station, solveStation(station)!).map(({ id }) => id);
    expect(ids).not.toContain('other-standard');
    expect(ids).toEqual(expect.arrayContaining(['straight', 'stack', 'tilt-alone']));
  });
});

describe('verdict and standard', () => {
  it('without marks tells what is sharp ahead; with some, how many hold', () => {
    const none = table([]);
    expect(focusVerdict(none, readings(none)).words).toContain('is sharp ahead');
    const loose = table([mark('a', 0, 1.2, 3)]);
    const verdict = focusVerdict(loose, readings(loose));
    expect(verdict).toMatchObject({ standing: 'costs', figure: 'f/8', words: 'holds 0 of 1' });
    expect(verdict.sentence).toContain('a is not as wanted');
  });

  it('a job’s standard is taken where the back can tell it', () => {
    expect(withJobCriterion(base(), { coc_mm: 0.02 }).criterion).toEqual({ coc_mm: 0.02 });
    expect(withJobCriterion(base(), null).criterion).toEqual({ diagonal_divisor: 1500 });
    expect(withJobCriterion(base(), { pixels: 2 }).criterion).toEqual({ diagonal_divisor: 1500 });
  });
});
