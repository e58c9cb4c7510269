import {
  evaluate,
  hindrance,
  instructionsFor,
  type Mark,
  readings,
  solvedFor,
  solveStation,
  type Station,
} from '../src/index.js';

import { mark, table, THREE } from './helpers/table.js';

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
    expect(notes).toContain('a tilt would not help');
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
    // Named wherever it stands in the list.
    const last = table([...near.marks!].reverse(), level);
    expect(told(last).reason).toMatch(/^Nib lies nearer/);
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
    expect(told(rig).reason).toContain('this rig goes to 0.13× with the lens straight');
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
          f_min: 4,
          f_max: 4,
          circle: [{ f_number: 4, diameter_mm: 140 }],
          filter: { clear_diameter_mm: 42, ahead_of_pupil_mm: 30 },
        },
        aperture: 4,
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

describe('marks on the centre line', () => {
  const straightOn = (marks: Mark[]): readonly string[] =>
    instructionsFor(
      solveStation(
        table(marks, {
          lens: {
            focal_length_mm: 90,
            f_min: 4,
            f_max: 45,
            circle: [{ f_number: 4, diameter_mm: 140 }],
          },
          camera: { height_m: 1.5, pitch_deg: 0, yaw_deg: 0 },
        }),
      )!,
      'metric',
    ).notes;

  it('one behind the other: no lean helps, and no plane is spoken of', () => {
    // 90 mm, marks at 620, 740 and 860 mm on the axis.
    const notes = straightOn([0.62, 0.74, 0.86].map((z, i) => mark(`M${i}`, 0, 1.5, z)));
    expect(notes.join(' ')).toContain('no lean helps, only a smaller stop or a stack');
    expect(notes.join(' ')).not.toContain('any plane through it serves');
  });

  it('above each other: a swing would not help; nothing is said where a tilt holds them all', () => {
    const bent = straightOn([
      mark('Near', 0, 1.4, 0.62),
      mark('Middle', 0, 1.52, 0.74),
      mark('Far', 0, 1.42, 0.86),
    ]);
    expect(bent.join(' ')).toContain('a swing would not help');
    const held = straightOn([
      mark('Near', 0, 1.3, 0.62),
      mark('Middle', 0, 1.36, 0.74),
      mark('Far', 0, 1.42, 0.86),
    ]);
    expect(held.join(' ')).not.toContain('would not help');
  });
});
