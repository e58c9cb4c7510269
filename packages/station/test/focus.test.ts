import {
  airyWords,
  asPanorama,
  atMagnification,
  bedAnswer,
  blurAt,
  blurRaster,
  boxFaceMarks,
  closeUp,
  cornerFalloff,
  evaluate,
  focusedThrough,
  focusVerdict,
  focusWays,
  heldOff,
  hindrance,
  hingedAt,
  instructionsFor,
  leanedTo,
  looksFor,
  pickablePlaces,
  readings,
  sceneStep,
  sectionOf,
  solvedFor,
  solveStation,
  startHeldOff,
  stopTable,
  tiltOrStack,
  wedgeAtMarks,
  why,
  wiggleFor,
  withJobCriterion,
  withMark,
  withMarks,
  withoutMark,
  withSolve,
  type Mark,
  type Station,
} from '../src/index.js';
import { base, parsed } from './helpers/rigs.js';

const mark = (label: string, x_m: number, y_m: number, z_m: number, more: object = {}): Mark => ({
  label,
  x_m,
  y_m,
  z_m,
  must: 'sharp',
  ...more,
});

/** A 90 mm lens on a small back at a table: leans freely, covers all it may be leaned to. */
const table = (marks: Mark[], more: object = {}): Station =>
  parsed({
    ...base(),
    lens: {
      focal_length_mm: 90,
      f_min: 2.8,
      f_max: 32,
      circle: [{ f_number: 2.8, diameter_mm: 140 }],
    },
    movement_limits: { moves: 'front', tilt_deg: [-25, 25], swing_deg: [-25, 25] },
    focus: { distance_m: 1.2 },
    camera: { height_m: 1.5, pitch_deg: -14, yaw_deg: 0 },
    criterion: { coc_mm: 0.03 },
    marks,
    ...more,
  });

const THREE = [
  mark('Label', -0.08, 1.2, 0.9),
  mark('Stopper', 0.1, 1.25, 1.15),
  mark('Rim', 0, 1.33, 1.5),
];

describe('the setting for marks', () => {
  it('holds every mark once the scales stand as told, to the digit they are set to', () => {
    const set = solvedFor(table(THREE));
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
    expect(set[2]).toBe(`Focus on ${focusOn}, ${tapeTo(focusOn)} from the sensor mark.`);
    expect(set.at(-1)).toBe('Stop down to f/8.');
    expect(check[0]).toBe(`${focusOn}: crisp with the lens wide open.`);
    expect(check).toHaveLength(3);
  });

  const tapeTo = (label: string): string => {
    const { x_m, y_m, z_m } = THREE.find((each) => each.label === label)!;
    const m = Math.hypot(x_m, y_m - 1.5, z_m);
    return m < 1 ? `${m.toFixed(3)} m` : `${m.toFixed(2)} m`;
  };

  it('names the standard on a view camera, and how far to rack past the mark', () => {
    const marks = [...THREE, mark('Cup', 0.2, 1.32, 1.1), mark('Tray', -0.2, 1.2, 1.4)];
    const station = table(marks, {
      chain: [{ kind: 'view_camera', bellows_min_mm: 40, bellows_max_mm: 300 }],
    });
    const { set } = instructionsFor(solveStation(station)!, 'metric');
    expect(set[0]).toContain('the front standard');
    expect(set.join(' ')).toMatch(/then (draw out|rack in) \d+\.\d\d mm/);
  });

  it('keeps the stop that is set when it holds, else takes the next engraved one', () => {
    const five = [...THREE, mark('Cup', 0.2, 1.3, 1.1), mark('Tray', -0.2, 1.21, 1.4)];
    const wide = solveStation(table(five, { aperture: 2.8 }))!;
    expect(wide.engravedNeeded).toBeGreaterThan(2.8);
    expect(wide.station.aperture).toBeGreaterThanOrEqual(wide.engravedNeeded * (1 - 1e-9));
    expect(wide.station.aperture / wide.engravedNeeded).toBeLessThan(2 ** (1 / 6) * 1.02);
    expect(solveStation(table(five, { aperture: 32 }))!.station.aperture).toBe(32);
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
      /^Turn the lens to its 0° stop so that tilt runs up and down, and lean it \d\.\d°\.$/,
    );
    const sideways = solveStation({
      ...station,
      marks: [mark('a', -0.3, 1.3, 0.9), mark('b', 0, 1.3, 1.4), mark('c', 0.35, 1.3, 2.2)],
      camera: { ...station.camera, pitch_deg: 0 },
    })!;
    expect(instructionsFor(sideways, 'metric').set[0]).toContain('so that tilt runs sideways');
  });

  it('leans across or along the shift where the two are locked to each other', () => {
    const locked = (shift_tilt: string) =>
      solveStation(
        table(THREE, {
          movement_limits: { moves: 'front', tilt_deg: [-8, 8], swing_deg: [-8, 8], shift_tilt },
          movements: { rise_mm: 3, shift_mm: 0, tilt_deg: 0, swing_deg: 0 },
        }),
      )!;
    expect(locked('in_line').solved.lens.swingDeg).toBe(0);
    expect(locked('crossed').solved.lens.tiltDeg).toBe(0);
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

describe('marks that make trouble', () => {
  const told = (station: Station) => {
    const answer = solveStation(station);
    return {
      answer,
      reason: hindrance(station, answer),
      notes: answer ? instructionsFor(answer, 'metric').notes.join(' ') : '',
    };
  };
  const level = { camera: { height_m: 1.5, pitch_deg: 0, yaw_deg: 0 } };

  it('in one line: any plane serves, the least lean is taken', () => {
    const line = [0, 1, 2].map((i) => mark(`m${i}`, 0.1 * i, 1.2 + 0.05 * i, 1 + 0.3 * i));
    const { answer, reason, notes } = told(table(line));
    expect(reason).toBeNull();
    expect(notes).toContain('one line');
    expect(answer!.engravedNeeded).toBeLessThan(1e-6);
  });

  it('all at one place: focus on it, straight', () => {
    const { answer, reason, notes } = told(
      table([mark('a', 0, 1.4, 1.2), mark('b', 0, 1.4, 1.2), mark('c', 0, 1.4, 1.2)]),
    );
    expect(reason).toBeNull();
    expect(notes).toContain('one place');
    expect(Math.abs(answer!.solved.lens.tiltDeg)).toBeLessThan(1e-3);
  });

  it('in one plane with the lens: no lean does it, the best wedge is given', () => {
    const { answer, notes } = told(
      table([mark('a', -0.4, 1.5, 2), mark('b', 0.4, 1.5, 2.2), mark('c', 0, 1.5, 4)], level),
    );
    expect(notes).toContain('passes through the lens');
    expect(answer!.engravedNeeded).toBeGreaterThan(1);
    expect(Number.isFinite(answer!.engravedNeeded)).toBe(true);
  });

  it('behind the camera: named, and the rest solved', () => {
    const station = table([...THREE, mark('Door', 0, 1.5, -2)]);
    const { answer, reason } = told(station);
    expect(reason).toContain('Door lies behind the camera');
    expect(answer!.marks.sharp).toHaveLength(3);
    const { solution } = evaluate(station);
    expect(solution!.possible).toBe(false);
    expect(solution!.tilt_deg).not.toBeNull();
    const alone = told(table([mark('Door', 0, 1.5, -2)]));
    expect(alone.answer).toBeNull();
    expect(evaluate(table([mark('Door', 0, 1.5, -2)])).solution).toMatchObject({
      possible: false,
      tilt_deg: null,
    });
  });

  it('nearer than the lens focuses', () => {
    const near = table([mark('Nib', 0, 1.5, 0.12), mark('Far', 0, 1.5, 2)], level);
    expect(told(near).reason).toMatch(/^Nib lies nearer than this lens can focus at all/);
    const rig = table([mark('Cup', 0, 1.5, 0.5)], {
      ...level,
      lens: {
        focal_length_mm: 90,
        f_min: 2.8,
        f_max: 32,
        register_mm: 44,
        circle: [{ f_number: 2.8, diameter_mm: 140 }],
        close_focus: { distance_mm: 900, magnification: 0.13 },
      },
    });
    expect(told(rig).reason).toContain('closer than this rig focuses: it draws out to 0.13×');
  });

  it('that ask for more tilt than there is: the end is named, and the best given', () => {
    const limits = { movement_limits: { moves: 'front', tilt_deg: [-4, 4], swing_deg: [-4, 4] } };
    const { answer, notes } = told(table(THREE, limits));
    expect(answer!.solved.lens.tiltDeg).toBeCloseTo(4, 4);
    expect(notes).toContain('The tilt stands at its end, 4.0°');
    const { reason } = told(
      table(THREE, {
        ...limits,
        lens: {
          focal_length_mm: 90,
          f_min: 2.8,
          f_max: 8,
          circle: [{ f_number: 2.8, diameter_mm: 140 }],
        },
      }),
    );
    expect(reason).toMatch(
      /^The best wedge asks for f\/\d+, held by the end of the tilt.*; this lens stops down to f\/8\.$/,
    );
  });

  it('that the circle cannot cover: said first, and not called possible', () => {
    const station = table(THREE, {
      lens: {
        focal_length_mm: 90,
        f_min: 2.8,
        f_max: 32,
        circle: [{ f_number: 2.8, diameter_mm: 30 }],
      },
    });
    const { solution } = evaluate(station);
    expect(solution).toMatchObject({ possible: false, within_limits: false });
    expect(solution!.reason).toMatch(/A corner lies \d+\.\d mm outside the image circle/);
  });

  it('held back by the circle, or by the ring: within it, and named', () => {
    const lens = {
      focal_length_mm: 90,
      f_min: 2.8,
      f_max: 32,
      circle: [{ f_number: 2.8, diameter_mm: 60 }],
    };
    const small = told(table(THREE, { lens }));
    expect(small.reason).toBeNull();
    expect(small.answer!.bounds).toContain('circle');
    expect(readings(small.answer!.station).coverage.covered).toBe(true);
    const ring = told(
      table(THREE, {
        lens: {
          ...lens,
          circle: [{ f_number: 2.8, diameter_mm: 140 }],
          filter: { clear_diameter_mm: 30, ahead_of_pupil_mm: 30 },
        },
      }),
    );
    expect(ring.answer!.bounds).toContain('ring');
    expect(readings(ring.answer!.station).coverage.filter_clear).toBe(true);
  });

  it('at infinity: the ground from near to the horizon', () => {
    const station = table(
      [mark('Reeds', 0, 0, 4), mark('Horizon', 0, 1.5, 1, { infinite: true })],
      level,
    );
    const { answer, reason } = told(station);
    expect(reason).toBeNull();
    // The hinge line lies on the ground below the lens: sin θ = f / height.
    expect(Math.sin((answer!.solved.lens.tiltDeg * Math.PI) / 180)).toBeCloseTo(0.09 / 1.5, 4);
    expect(readings(solvedFor(station)).marks!.every(({ holds }) => holds)).toBe(true);
  });
});

describe('stops', () => {
  it('the best makes the smallest spot; the widest that holds is the first that does', () => {
    const set = { ...solvedFor(table([...THREE, mark('Cup', 0.2, 1.3, 1.1)])), aperture: 2.8 };
    const { lines, best, widestHolding, why: words } = stopTable(set);
    expect(lines.map(({ fNumber }) => fNumber)).toEqual(
      [...lines.map(({ fNumber }) => fNumber)].sort((a, b) => a - b),
    );
    for (const line of lines) expect(line.spotUm!).toBeGreaterThanOrEqual(best!.spotUm! - 1e-9);
    const before = lines[lines.indexOf(widestHolding!) - 1];
    expect(widestHolding!.holds).toBe(4);
    if (before) expect(before.holds).toBeLessThan(4);
    expect(words).toContain('makes the smallest spot of the worst mark');
    const now = lines.find(({ fNumber }) => fNumber === 8)!;
    expect(now.spotUm).toBeCloseTo(Math.hypot(now.worstBlurUm!, now.airyUm), 9);
    expect(airyWords(now)).toMatch(/^Airy disc, f\/8 acting as f\//);
  });

  it('on 44 × 33 mm at 3.76 µm f/16 is comfortable, f/22 begins, f/32 is plain (common practice, no source)', () => {
    const { lines } = stopTable(
      table([], {
        back: {
          width_mm: 44,
          height_mm: 33,
          width_px: Math.round(44 / 0.00376),
          orientation: 'landscape',
        },
        focus: { distance_m: null },
      }),
    );
    const at = (n: number) => lines.find(({ fNumber }) => fNumber === n)!.diffraction;
    expect([at(16), at(22), at(32)]).toEqual(['hidden', 'begins', 'plain']);
  });

  it('tells spots in pixels and on the print where those are the standard', () => {
    const back = { width_mm: 36, height_mm: 24, width_px: 9000, orientation: 'portrait' };
    const set = solvedFor(table(THREE, { back }));
    expect(stopTable(set).lines[0]!.spotPixels).toBeCloseTo(
      stopTable(set).lines[0]!.spotUm! / 4,
      9,
    );
    const print = stopTable({
      ...set,
      criterion: { print_width_mm: 480, viewing_distance_mm: 600 },
    }).lines[0]!;
    expect(print.spotOnPrintMm).toBeCloseTo((print.spotUm! / 1000) * (480 / 24), 9);
  });

  it('opens to its reason', () => {
    const set = solvedFor(table(THREE));
    expect(why('bestStop', set).formula).toContain('Airy');
    expect(why('solution', set).numbers).toHaveLength(6);
    expect(why('solution', table([])).result).toBe('—');
  });
});

describe('the sections', () => {
  const set = solvedFor(table(THREE, { solve: { tilt: true, swing: false } }));

  it('carry the plane through the marks it holds, and the hinge where it lies', () => {
    const section = sectionOf(solvedFor(table(THREE)), 'side');
    for (const { at, plane } of section.marks) {
      expect(plane!.x).toBeCloseTo(at.x, 4);
      expect(plane!.y).toBeCloseTo(at.y, 3);
    }
    const side = sectionOf(set, 'side');
    const { nx, ny, k } = side.plane!;
    expect(nx * side.hinge!.x + ny * side.hinge!.y).toBeCloseTo(k, 6);
    expect(Math.hypot(side.hinge!.x, side.hinge!.y) * 1000).toBeCloseTo(
      readings(set).focus.hinge_mm!,
      6,
    );
    // Sensor plane, lens plane and plane of sharp focus share one line.
    expect(nx * side.meeting!.x + ny * side.meeting!.y).toBeCloseTo(k, 6);
    const [a, b] = side.sensor;
    const cross = (side.meeting!.x - a.x) * (b.y - a.y) - (side.meeting!.y - a.y) * (b.x - a.x);
    expect(cross).toBeCloseTo(0, 9);
    expect(side.groundM).toBeLessThan(-1.3);
    expect(sectionOf(set, 'plan').hinge).toBeNull();
  });

  it('lie level: a thing as high as the lens stands as high in the drawing', () => {
    const { at } = sectionOf(withMarks(set, [mark('a', 0, 1.5, 3)]), 'side').marks[0]!;
    const lensHeight = -sectionOf(set, 'side').groundM!;
    expect(at.y).toBeCloseTo(1.5 - lensHeight, 9);
  });

  it('focus where the plane is dragged to, swinging it about the hinge', () => {
    const to = { x: 1, y: -0.1 };
    const after = focusedThrough(set, 'side', to)!;
    const before = sectionOf(set, 'side');
    const now = sectionOf(after, 'side');
    expect(after.movements).toEqual(set.movements);
    expect(now.hingeMm).toBeCloseTo(before.hingeMm!, 6);
    // The lens centre moved by the change of focus; the place stood still.
    const shift =
      (readings(after).focus.image_distance_mm - readings(set).focus.image_distance_mm) / 1000;
    const { nx, ny, k } = now.plane!;
    const pitch = (14 * Math.PI) / 180;
    const here = { x: to.x - shift * Math.cos(pitch), y: to.y + shift * Math.sin(pitch) };
    expect(nx * here.x + ny * here.y).toBeCloseTo(k, 8);
    expect(focusedThrough(set, 'side', { x: -1, y: 0 })).toBeNull();
  });

  it('lean where hinge or lens are dragged to, as far as the mechanism goes', () => {
    expect(sectionOf(hingedAt(set, 'side', -600), 'side').hingeMm).toBeCloseTo(-600, -1);
    expect(leanedTo(set, 'side', 90).movements.tilt_deg).toBe(25);
    expect(leanedTo(set, 'plan', -3).movements.swing_deg).toBe(-3);
    const plan = sectionOf(hingedAt(set, 'plan', 900), 'plan');
    expect(plan.hingeMm!).toBeCloseTo(900, -1);
  });

  it('move things along the drawing’s own directions', () => {
    expect(sceneStep(set, 'side', 0, 0.1).y_m).toBeCloseTo(0.1, 9);
    expect(sceneStep(set, 'side', 0.1, 0).z_m).toBeCloseTo(0.1, 9);
    expect(sceneStep(set, 'plan', 0, 0.1).x_m).toBeCloseTo(0.1, 9);
  });

  it('have limits at which a thing just holds', () => {
    const side = sectionOf(set, 'side');
    const { x_m, y_m, z_m } = sceneStep(set, 'side', 1, 0);
    expect([x_m, y_m]).toEqual([expect.closeTo(0, 9), expect.closeTo(0, 9)]);
    for (const limit of side.limits) {
      const { nx, ny, k } = limit!;
      const x = 1.1;
      const y = (k - nx * x) / ny;
      // Back into the scene: the section's origin is the lens centre.
      const v = readings(set).focus.image_distance_mm / 1000;
      const pitch = (-14 * Math.PI) / 180;
      const [cy, cz] = [1.5 + v * Math.sin(pitch), v * Math.cos(pitch)];
      expect(blurAt(set)(0, cy + y, cz + x * z_m) * 1000).toBeCloseTo(30, 3);
    }
  });
});

describe('the blur picture', () => {
  it('has the blur of a wall where it stands, and of the far where nothing does', () => {
    const station = parsed({
      ...table([]),
      camera: { height_m: 1.5, pitch_deg: 0, yaw_deg: 0 },
      facade: { distance_m: 6, top_m: 1.6, width_m: 1, base_m: 1.4 },
    });
    const { width, height, blurUm } = blurRaster(station);
    const at = (x: number, y: number): number => blurUm[y * width + x]!;
    const wall = blurAt(station)(0, 1.5, 6) * 1000;
    expect(at(Math.floor(width / 2), Math.floor(height / 2))).toBeCloseTo(wall, 0);
    const far = blurAt(station)(0, 1.5, 1e7) * 1000;
    expect(at(2, 2) / far).toBeCloseTo(1, 2);
    expect(width / height).toBeCloseTo(1.5, 1);
  });

  it('meets the nearest of boxes, turned or not', () => {
    const station = parsed({
      ...table([]),
      camera: { height_m: 1.5, pitch_deg: 0, yaw_deg: 0 },
      site: {
        boxes: [
          { name: 'far', x_m: 0, z_m: 9, width_m: 9, depth_m: 2, height_m: 6 },
          { name: 'near', x_m: 0, z_m: 4, width_m: 1, depth_m: 1, height_m: 3, turn_deg: 45 },
        ],
      },
    });
    const { width, height, blurUm } = blurRaster(station);
    const middle = blurUm[Math.floor(height / 2) * width + Math.floor(width / 2)]!;
    expect(middle / (blurAt(station)(0, 1.5, 4 - Math.SQRT1_2) * 1000)).toBeCloseTo(1, 1);
    expect(
      blurUm[Math.floor(height / 2) * width]! / (blurAt(station)(0, 1.5, 8) * 1000),
    ).toBeCloseTo(1, 2);
  });
});

describe('without scales, and from the bed', () => {
  it('focus far, lean near comes to rest where two marks are solved', () => {
    const scene = (pitch_deg: number): Station =>
      table([THREE[0]!, THREE[2]!], {
        solve: { tilt: true, swing: false },
        camera: { height_m: 1.5, pitch_deg, yaw_deg: 0 },
      });
    const answer = solveStation(scene(0))!;
    const wiggle = wiggleFor(answer)!;
    expect(wiggle).toMatchObject({ movement: 'tilt', far: 'Rim', near: 'Label', settles: true });
    expect(wiggle.rounds.at(-1)!.leanDeg).toBeCloseTo(answer.solved.lens.tiltDeg, 0);
    expect(wiggle.rounds.length).toBeGreaterThan(1);
    expect(wiggle.words[0]).toBe('Begin with the lens straight.');
    // Pointed down at it the near mark never comes in from a straight lens.
    const pointed = wiggleFor(solveStation(scene(-14))!)!;
    expect(pointed.words.join(' ')).toMatch(
      pointed.settles ? /^Set a first tilt/ : /does not come to rest/,
    );
    expect(wiggleFor(solveStation(table([THREE[0]!]))!)).toBeNull();
  });

  it('two readings give focus and stop by both schools', () => {
    const station = table([], { bed: { near_mm: 14, far_mm: 10, infinity_mm: 0 } });
    const answer = bedAnswer(station)!;
    expect(answer.spreadMm).toBe(4);
    expect(answer.byDiffraction).toBeCloseTo(38.7, 1);
    expect(answer.byCoc).toBeCloseTo(4 / 0.06, 6);
    const [near, far] = [104, 100];
    expect(answer.focusAtMm).toBeCloseTo((2 * near * far) / (near + far) - 90, 9);
    expect(bedAnswer(table([], { bed: { near_mm: 14 } }))).toBeNull();
    expect(bedAnswer(table([], { bed: { near_mm: 14, far_mm: 10 } }))!.focusAtMm).toBe(12);
  });

  it('with heights on the glass the lean is that of the plane through both', () => {
    // A table 300 mm below the lens, seen at 900 and 1600 mm from it.
    const f = 90;
    const image = (z: number) => (f * z) / (z - f);
    const [qn, qf] = [image(900), image(1600)];
    const { lean } = bedAnswer(
      table([], {
        bed: {
          infinity_mm: 0,
          near_mm: qn - f,
          far_mm: qf - f,
          near_up_mm: (-300 / 900) * qn,
          far_up_mm: (-300 / 1600) * qf,
        },
      }),
    )!;
    expect(Math.sin((lean!.frontDeg! * Math.PI) / 180)).toBeCloseTo(f / 300, 9);
    // The rule of thumb reads some 6 % high below 10°, more past it (Merklinger 1993, from memory).
    expect(lean!.thumbDeg! / lean!.frontDeg!).toBeGreaterThan(1.03);
    // The back laid through both images of the marks.
    const rise = (-300 / 1600) * qf - (-300 / 900) * qn;
    expect(Math.tan((lean!.rearDeg * Math.PI) / 180)).toBeCloseTo((qn - qf) / rise, 9);
  });
});

describe('soft on purpose', () => {
  const row = [
    mark('Left', -0.35, 1.5, 2, { must: 'soft', blur_um: 300 }),
    mark('Middle', 0, 1.5, 2),
    mark('Right', 0.35, 1.5, 2, { must: 'soft', blur_um: 300 }),
  ];
  const level = { camera: { height_m: 1.5, pitch_deg: 0, yaw_deg: 0 } };

  it('isolates one of three at equal distance', () => {
    const station = table(row, { ...level, solve: { tilt: false, swing: true } });
    const set = solvedFor(station);
    const marks = readings(set).marks!;
    expect(marks.every(({ holds }) => holds)).toBe(true);
    expect(marks[0]!.blur_um!).toBeGreaterThanOrEqual(300);
    expect(marks[1]!.blur_um!).toBeLessThan(1);
    expect(set.aperture).toBe(2.8);
  });

  it('says so when a thing cannot be left as soft as wanted', () => {
    const beside = table(
      [mark('a', 0, 1.5, 2), mark('b', 0, 1.5, 2.02, { must: 'soft', blur_um: 9000 })],
      level,
    );
    const answer = solveStation(beside);
    expect(hindrance(beside, answer)).toMatch(/b .*soft as wanted/);
    expect(evaluate(beside).solution!.possible).toBe(false);
  });

  it('offers looks to begin from, each with the first mark held', () => {
    const looks = looksFor(
      table(
        row.map((each) => ({ ...each, must: 'sharp' as const })),
        level,
      ),
    );
    expect(looks.map(({ id }) => id)).toEqual(['one', 'slice', 'toy-town']);
    for (const { after } of looks) {
      expect(Math.min(...readings(after).marks!.map(({ blur_um }) => blur_um!))).toBeLessThan(1);
      expect(after.marks).toHaveLength(3);
    }
    expect(looksFor(table([]))).toEqual([]);
  });

  it('measures the wedge where each thing stands: thicker further from the hinge', () => {
    const set = solvedFor(table(THREE));
    const wedge = wedgeAtMarks(set);
    expect(wedge.map(({ thicknessMm }) => thicknessMm!)).toEqual(
      [...wedge.map(({ thicknessMm }) => thicknessMm!)].sort((a, b) => a - b),
    );
    for (const { offPlaneMm, times } of wedge) {
      expect(Math.abs(offPlaneMm)).toBeLessThan(0.5);
      expect(times!).toBeLessThan(0.05);
    }
    const straight = wedgeAtMarks(table([mark('a', 0, 1.2, 2)], level))[0]!;
    const { near_m, far_m } = readings(table([], level)).focus;
    expect(straight.thicknessMm).toBeCloseTo((far_m! - near_m!) * 1000, 3);
  });

  it('a lean darkens the corner it leaves behind', () => {
    const at = (tilt_deg: number) =>
      cornerFalloff(table([], { movements: { rise_mm: 0, shift_mm: 0, tilt_deg, swing_deg: 0 } }));
    expect(at(12).most).toBeGreaterThan(at(0).most);
    expect(at(12).least).toBeLessThan(at(0).least);
  });
});

describe('lean or stack', () => {
  it('lays one frame, a stack and both side by side', () => {
    const marks = [...THREE, mark('Cup', 0.2, 1.36, 1.1), mark('Tray', -0.2, 1.18, 1.4)];
    const efforts = tiltOrStack(table(marks, { stack: { overlap: 0.3, seconds_each: 4 } }));
    const by = Object.fromEntries(efforts.map((each) => [each.id, each]));
    expect(by.tilt!.frames).toBe(1);
    expect(by.stack!.frames).toBeGreaterThan(by.both!.frames);
    expect(by.stack!.seconds).toBe(by.stack!.frames * 4);
    expect(by.stack!.stepMm).toBeCloseTo(2 * 8 * 0.03 * 0.7, 9);
    expect(by.stack!.leanDeg).toBe(0);
    expect(readings(by.tilt!.after).marks!.every(({ holds }) => holds)).toBe(true);
    expect(tiltOrStack(table([]))).toEqual([]);
  });
});

describe('close up', () => {
  it('twice life size, 100 mm macro, 250 mm from the sensor: 55.6 mm acts (common practice, no source)', () => {
    const macro = table([], {
      lens: {
        focal_length_mm: 100,
        f_min: 2.8,
        f_max: 22,
        register_mm: 44,
        thread_ahead_of_pupil_mm: 30,
        circle: [{ f_number: 2.8, diameter_mm: 60 }],
        close_focus: { distance_mm: 250, magnification: 2 },
      },
      aperture: 11,
      focus: { distance_m: 1 },
    });
    const read = closeUp(atMagnification(macro, 2));
    expect(read.focalLengthMm).toBeCloseTo(55.6, 1);
    expect(read.magnification).toBeCloseTo(2, 9);
    expect(read.effective).toBeCloseTo(33, 6);
    expect(read.stopsLost).toBeCloseTo(2 * Math.log2(3), 9);
    expect(read.subjectToSensorMm).toBeCloseTo(250, 6);
    expect(read.workingMm).toBeCloseTo(250 - 166.667 - 30, 2);
    expect(read.seenMm[0]).toBeCloseTo(18, 9);
    // Depth close up is 2 N c (1 + m) / m² to a few parts in a thousand.
    expect(read.depthMm! / ((2 * 11 * 0.03 * 3) / 4)).toBeCloseTo(1, 2);
    expect(read.breathes).toBe(true);
  });

  it('hands three frames at this focus on, with the depth that is sharp', () => {
    const { mosaic } = asPanorama(table([]));
    const { near_m, far_m } = readings(table([])).focus;
    expect(mosaic).toMatchObject({ columns: 3, rows: 1, moves: 'lens' });
    expect(mosaic!.near_m).toBeCloseTo(near_m!, 9);
    expect(mosaic!.far_m).toBeCloseTo(far_m!, 9);
  });
});

describe('held off the body', () => {
  const held = { ...startHeldOff(base()), gap_mm: 4, lean_deg: 6 };

  it('a gap of e mm gives m ≈ e/f', () => {
    const read = heldOff(table([]), { ...held, lean_deg: 0 });
    expect(read.magnification).toBeCloseTo(4 / 90, 9);
    expect(read.planeM).toBeCloseTo((90 * (2 + 4 / 90 + 90 / 4)) / 1000, 6);
    expect(read.infinityPossible).toBeNull();
  });

  it('infinity is possible only where the lens’s register is longer than the body’s', () => {
    const long = heldOff(table([]), { ...held, lens_register_mm: 44, body_register_mm: 18 });
    expect(long.infinityPossible).toBe(true);
    expect(long.infinityGapMm).toBeCloseTo(26 + 90 / Math.cos((6 * Math.PI) / 180) - 90, 9);
    expect(long.pastInfinity).toBe(true);
    const short = heldOff(table([]), { ...held, lens_register_mm: 18, body_register_mm: 44 });
    expect(short.infinityPossible).toBe(false);
    expect(short.notes.join(' ')).toContain('near things only');
  });

  it('the lean needs flange radius × sin τ of gap, none where the back fits the throat', () => {
    const wide = heldOff(table([]), { ...held, flange_diameter_mm: 60, throat_mm: 48 });
    expect(wide.clearanceMm).toBeCloseTo(30 * Math.sin((6 * Math.PI) / 180), 9);
    expect(wide.fits).toBe(true);
    expect(heldOff(table([]), { ...held, gap_mm: 1, flange_diameter_mm: 60 }).fits).toBe(false);
    const inside = heldOff(table([]), {
      ...held,
      gap_mm: 0,
      flange_diameter_mm: 40,
      throat_mm: 48,
    });
    expect(inside.fits).toBe(true);
    expect(inside.notes.join(' ')).toContain('into the throat');
  });

  it('says how steady a hand must be', () => {
    const read = heldOff(table([]), held);
    expect(read.mmPerBlur).toBeCloseTo(2.8 * 0.03, 9);
    // That lean at the edge of the frame moves the image by one such step.
    expect(18 * Math.sin((read.degPerBlur * Math.PI) / 180)).toBeCloseTo(read.mmPerBlur, 9);
  });
});

describe('marks from the site', () => {
  const station = parsed({
    ...table([]),
    site: {
      boxes: [
        { name: 'Table', x_m: 0.1, z_m: 2, width_m: 1.2, depth_m: 0.8, height_m: 0.75 },
        { name: 'Tin', x_m: 0, z_m: 2, width_m: 0.2, depth_m: 0.1, height_m: 0.3, base_m: 0.75 },
      ],
    },
    facade: { distance_m: 9, top_m: 5, width_m: 6, base_m: 0, x_m: 1 },
  });

  it('four corners of a top lie level, four of a front upright and nearest', () => {
    const top = boxFaceMarks(station, 0, 'top');
    expect(top.map(({ y_m }) => y_m)).toEqual([0.75, 0.75, 0.75, 0.75]);
    expect(new Set(top.map(({ label }) => label)).size).toBe(4);
    const front = boxFaceMarks(station, 1, 'front');
    expect(front.every(({ z_m }) => z_m === 1.95)).toBe(true);
    expect(Math.max(...front.map(({ y_m }) => y_m))).toBeCloseTo(1.05, 9);
    expect(boxFaceMarks(station, 7, 'top')).toEqual([]);
  });

  it('places may be picked from boxes and façade', () => {
    const places = pickablePlaces(station);
    expect(places.filter(({ of }) => of === 'Tin')).toHaveLength(10);
    expect(places.find(({ of, name }) => of === 'Façade' && name === 'top right')!.at).toEqual({
      x_m: 4,
      y_m: 5,
      z_m: 9,
    });
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
