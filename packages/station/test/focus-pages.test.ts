import {
  airyWords,
  atMagnification,
  bedAnswer,
  closeUp,
  cornerFalloff,
  evaluate,
  fStop,
  heldOff,
  hindrance,
  instructionsFor,
  looksFor,
  readings,
  reportMosaic,
  rowAtFocus,
  receivedAnswer,
  sentAnswer,
  solvedFor,
  solveStation,
  startHeldOff,
  type Station,
  stopTable,
  tiltOrStack,
  wedgeAtMarks,
  why,
  wiggleFor,
} from '../src/index.js';
import { base } from './helpers/rigs.js';
import { mark, table, THREE } from './helpers/table.js';

describe('stops', () => {
  it('the best makes the smallest spot; the widest that holds is the first that does', () => {
    const set = { ...solvedFor(table([...THREE, mark('Cup', 0.2, 1.3, 1.1)])), aperture: 2.8 };
    const { lines, best, widestHolding, why: words } = stopTable(set);
    expect(lines.map(({ fNumber }) => fNumber)).toEqual(
      [...lines.map(({ fNumber }) => fNumber)].sort((a, b) => a - b),
    );
    for (const line of lines.filter((each) => each.serves && each.fNumber >= 5.6)) {
      expect(line.spotUm!).toBeGreaterThanOrEqual(best!.spotUm! - 1e-9);
    }
    const before = lines[lines.indexOf(widestHolding!) - 1];
    expect(widestHolding!.holds).toBe(4);
    if (before) expect(before.holds).toBeLessThan(4);
    expect(words).toContain('makes the smallest spot of the worst mark');
    const now = lines.find(({ fNumber }) => Math.abs(fNumber - 8) < 1e-9)!;
    expect(now.spotUm).toBeCloseTo(Math.hypot(now.worstBlurUm!, now.airyUm), 9);
    expect(airyWords(now)).toMatch(/^Airy disc, f\/8 acting as f\//);
  });

  it('on 44 × 33 mm at 3.76 µm f/11 takes nothing, f/22 shows, f/32 is plain (common practice, no source)', () => {
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
    const at = (n: number) => lines.find((line) => fStop(line.fNumber) === `f/${n}`)!.diffraction;
    expect([at(11), at(16), at(22), at(32)]).toEqual(['none', 'begins', 'visible', 'plain']);
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
    expect(why('solution', set).numbers).toHaveLength(7);
    expect(why('solution', table([])).result).toBe('—');
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
    // What acts on the film is set over 1 + m/p on the ring, m at the middle of the spread.
    expect(answer.ring.byDiffraction).toBeCloseTo(answer.byDiffraction / (1 + 12 / 90), 9);
    expect(answer.ring.byCoc).toBeCloseTo(answer.byCoc / (1 + 12 / 90), 9);
    expect(answer.ring.byFocusSet).toBe(false);
    const wide = { ...station, lens: { ...station.lens, pupil_ratio: 2 } };
    expect(bedAnswer(wide)!.ring.byCoc).toBeCloseTo(answer.byCoc / (1 + 12 / 180), 9);
    // Seen from the exit pupil, 90 mm before the lens: the harmonic mean of q + k.
    expect(bedAnswer(wide)!.focusAtMm).toBeCloseTo((2 * 194 * 190) / (194 + 190) - 180, 9);
    // Infinity's place untold, the draw is that of the focus set.
    const { infinity_mm: _, ...untold } = station.bed!;
    const { ring, byCoc } = bedAnswer({ ...station, bed: untold })!;
    expect(ring.byFocusSet).toBe(true);
    const { magnification } = readings(station).focus;
    expect(ring.byCoc).toBeCloseTo(byCoc / (1 + magnification), 9);
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
    const set = solvedFor(table(THREE), solveStation(table(THREE)));
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
    const depths = readings(by.stack!.after).marks!.map(({ image_depth_mm: q }) => q!);
    const middle = (Math.min(...depths) + Math.max(...depths)) / 2;
    expect(by.stack!.stepMm).toBeCloseTo(2 * 8 * 0.03 * 0.7 * (middle / 90), 4);
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
    const { mosaic } = rowAtFocus(table([])) as Station;
    const { near_m, far_m } = readings(table([])).focus;
    expect(mosaic).toMatchObject({ columns: 3, rows: 1, moves: 'lens' });
    expect(mosaic!.near_m).toBeCloseTo(near_m!, 9);
    expect(mosaic!.far_m).toBeCloseTo(far_m!, 9);
  });

  it('asks the gear first: where nothing shifts no frames are planned', () => {
    const fixed = {
      moves: 'front' as const,
      rise_mm: [0, 0] as [number, number],
      shift_mm: [0, 0] as [number, number],
    };
    expect(rowAtFocus(table([], { movement_limits: fixed }))).toMatch(/Nothing on this rig moves/);
    // As far as the other movement leaves of one length.
    const turning = { moves: 'front' as const, radial_shift_mm: 10 };
    const raised = table([], {
      movement_limits: turning,
      movements: { ...base().movements, rise_mm: 8 },
    });
    const laid = rowAtFocus(raised) as Station;
    expect(reportMosaic(laid, laid.mosaic!).problems.map(({ code }) => code)).not.toContain(
      'out_of_reach',
    );
    expect(
      reportMosaic(laid, laid.mosaic!).frames.every(
        ({ rise_mm, shift_mm }) => Math.hypot(rise_mm, shift_mm) <= 10 + 1e-6,
      ),
    ).toBe(true);
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
    // A blur of c stands for a travel of N c (1 + m).
    expect(read.mmPerBlur).toBeCloseTo(2.8 * 0.03 * (1 + read.magnification), 3);
    // That lean at the edge of the frame moves the image by one such step.
    expect(18 * Math.sin((read.degPerBlur * Math.PI) / 180)).toBeCloseTo(read.mmPerBlur, 9);
  });
});

describe('only this one', () => {
  it('uses the lean it may, and leaves the rest softer than a straight lens would', () => {
    const row = [mark('Left', -0.4, 1.5, 2), mark('One', 0, 1.5, 2), mark('Right', 0.4, 1.5, 2)];
    const station = table([row[1]!, row[0]!, row[2]!], {
      camera: { height_m: 1.5, pitch_deg: 0, yaw_deg: 0 },
    });
    const least = (each: Station): number =>
      Math.min(
        ...readings(each)
          .marks!.slice(1)
          .map(({ blur_um }) => blur_um!),
      );
    const one = looksFor(station).find(({ id }) => id === 'one')!;
    const { movements } = one.after;
    expect(Math.hypot(movements.tilt_deg, movements.swing_deg)).toBeGreaterThan(5);
    const straight = { ...one.after, movements: { ...movements, tilt_deg: 0, swing_deg: 0 } };
    expect(least(one.after)).toBeGreaterThan(2 * least(straight));
    const locked = { ...station, solve: { tilt: false, swing: false } };
    expect(looksFor(locked).find(({ id }) => id === 'one')!.after.movements).toMatchObject({
      tilt_deg: 0,
      swing_deg: 0,
    });
  });
});

describe('an answer that comes from a worker', () => {
  it('gives the same instructions as the one that was sent', () => {
    const found = solveStation(table(THREE))!;
    const came = receivedAnswer(structuredClone(sentAnswer(found)));
    expect(instructionsFor(came, 'metric')).toEqual(instructionsFor(found, 'metric'));
    const { facts: _a, station: _b, ...mine } = found.setup;
    const { facts: _c, station: _d, ...theirs } = came.setup;
    expect(theirs).toEqual(mine);
  });
});
