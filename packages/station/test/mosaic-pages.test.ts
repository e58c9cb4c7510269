import {
  evaluate,
  inOrder,
  layoutOf,
  manualList,
  marksByFrame,
  mosaicReport,
  mosaicVerdict,
  pixelsPerMm,
  reportMosaic,
  schools,
  shootingOrder,
  standList,
  why,
  type Mosaic,
  type Station,
} from '../src/index.js';
import { free, laid, placesOf, row, type Given } from './helpers/mosaic.js';

/** What the Mosaic pages do and say, worked by hand. */

describe('the verdict of the step', () => {
  const said = (mosaic: Mosaic, given: Given = {}): string => {
    const { figure, words } = mosaicVerdict(reportMosaic(laid(mosaic, given), mosaic));
    return `${figure} ${words}`;
  };

  it('is what comes out, a black corner, a gap, or what is to be settled', () => {
    expect(said(row)).toBe('48 MP from 3, 2 soft at a corner');
    expect(said(row, { lens: { circle: [{ f_number: 4, diameter_mm: 72 }] } })).toBe(
      'Corner black in 2 frames',
    );
    expect(said(free([-18, 0], [18.072, 0]))).toBe('12 px apart');
    expect(said({ ...row, moves: 'lens' })).toBe('1 to settle, 3 frames');
    expect(
      said({ ...row, columns: 1 }, { back: { width_px: undefined, height_px: undefined } }),
    ).toBe('36 × 24 mm from 1');
  });
});

describe('the order of shooting', () => {
  it('sets each frame on the gear in hand, come to from one side, the first again at the end', () => {
    const steps = shootingOrder(laid(row, { movement_limits: { rise_mm: [0, 0], detent_mm: 1 } }));
    expect(steps.map(({ index, again }) => [index, again])).toEqual([
      [0, false],
      [1, false],
      [2, false],
      [0, true],
    ]);
    expect(steps.map(({ says }) => says.join(' '))).toEqual([
      'Shift the back 18.0 mm right (18 clicks).',
      'Shift the back to 0.',
      'Shift the back 18.0 mm left (18 clicks).',
      'Shift the back 18.0 mm right (18 clicks).',
    ]);
    // Only where the gear has to come back does it go too far first.
    expect(steps.map(({ runUp }) => runUp !== null)).toEqual([true, false, false, true]);
  });

  it('says the stop of a turning lens, of a sliding back, of a pinwheel, and the angle of a turn', () => {
    const ring = laid(
      { pattern: 'ring', frames: 4, radius_mm: 10, moves: 'lens' },
      {
        movement_limits: {
          moves: 'front',
          rise_mm: undefined,
          shift_mm: undefined,
          radial_shift_mm: 12,
          turn_stops_deg: [0, 90],
        },
      },
    );
    expect(shootingOrder(ring)[1]!.says[0]).toBe(
      'Turn the lens to its 90° stop, clockwise as seen from behind, and there shift it 10.0 mm to the right.',
    );
    const sliding = { frame_stops: { columns: 3, rows: 1, pitch_mm: [18, 12] } };
    const slid = shootingOrder(laid(row, { movement_limits: sliding }));
    expect(slid[2]!.says).toEqual([
      'Slide the back to the dot of column 3, row 1 of the picture: back to the left, the right of the picture.',
    ]);
    const wheel = laid(
      { pattern: 'pinwheel', frames: 4, offset_mm: [4, 8], moves: 'rear' },
      { movement_limits: { frame_stops: { turns: 4, offset_mm: [4, 8] } } },
    );
    expect(shootingOrder(wheel)[1]!.says).toEqual(['Turn the adapter to its stop 2 of 4.']);
    const turn = laid({ pattern: 'turn', moves: 'camera', columns: 2, overlap: 0.5 });
    expect(shootingOrder(turn)[0]!.says).toEqual(['Turn the camera 9.9° left of the middle.']);
  });

  it('moves the body after a lens that must stay where it is', () => {
    const follows = laid(
      { pattern: 'grid', columns: 2, overlap: 0.5, moves: 'lens', body_follows: true },
      { movement_limits: { moves: 'front' } },
    );
    expect(shootingOrder(follows)[1]!.says).toEqual([
      'Shift the lens 9.0 mm right.',
      'Move the body 9.0 mm left of its middle.',
    ]);
  });

  it('puts free places in order: line by line from the top left, the shorter way', () => {
    const mixed = laid(free([14, 0], [-14, 16], [0, 1], [14, 17], [-14, 0], [0, 16]));
    expect(placesOf(inOrder(mixed))).toEqual([
      [-14, 16],
      [0, 16],
      [14, 17],
      [-14, 0],
      [0, 1],
      [14, 0],
    ]);
    // Steps of 20 across and 8 up: columns are the shorter way.
    const tall = laid(free([0, -8], [20, 8], [0, 0], [20, 0], [0, 8], [20, -8]));
    expect(placesOf(inOrder(tall)).slice(0, 3)).toEqual([
      [0, 8],
      [0, 0],
      [0, -8],
    ]);
  });

  it('lists what is set by hand, and what stands on the tripod', () => {
    const at = laid(row);
    expect(manualList(at).join(' ')).toMatch(/white balance.*autofocus.*Stabiliser off/);
    expect(standList(at, layoutOf(at))[0]).toMatch(/lens stays still/);
    const across = laid(
      { ...row, moves: 'lens' },
      { movement_limits: { moves: 'front' }, lens: { mass_g: 900, has_foot: true } },
    );
    expect(standList(across, layoutOf(across)).join(' ')).toMatch(
      /Clamp the lens by its foot.*900 g, hangs 18 mm/,
    );
  });

  it('tells of a throat that moves with the sensor, and stays silent where it is wide', () => {
    // 50 mm lens at f/8, throat 30 mm wide 20 mm ahead: the corner's light passes 19.5 mm off its middle.
    const shaded = laid(row, { back: { throat_mm: 30, register_mm: 20 } });
    expect(standList(shaded, layoutOf(shaded)).join(' ')).toMatch(/throat moves with the sensor/);
    const wide = laid(row, { back: { throat_mm: 90, register_mm: 20 } });
    expect(standList(wide, layoutOf(wide)).join(' ')).not.toMatch(/throat/);
  });
});

describe('shift beside turn', () => {
  it('serves by shift where all is sharp and the lens stays; by turn where near and far part', () => {
    const sharp = { lens: { circle: [{ f_number: 4, diameter_mm: 140 }] } };
    const both = schools(laid(row, sharp))!;
    expect(both).toMatchObject({ serves: 'shift', noTurn: null });
    expect(both.turn!.horizontalDeg).toBeGreaterThanOrEqual(both.shift!.horizontalDeg - 1e-6);
    // 72° laid flat: stretched (cos 19.8° / cos 36°)² or more at the ends.
    expect(both.turn!.stretched).toBeGreaterThan(1.3);
    const parts = schools(
      laid(
        { ...row, moves: 'lens', near_m: 1, far_m: 9 },
        { ...sharp, movement_limits: { moves: 'front' } },
      ),
    )!;
    expect(parts.serves).toBe('turn');
    expect(parts.why).toMatch(/part by \d+ px/);
  });

  it('finds the shift for a turn, and says where there is none', () => {
    const narrow = schools(
      laid({ pattern: 'turn', moves: 'camera', columns: 2, overlap: 0.3, near_m: 2 }),
    )!;
    expect(narrow.shift).not.toBeNull();
    expect(narrow.shift!.horizontalDeg).toBeGreaterThanOrEqual(narrow.turn!.horizontalDeg - 1e-6);
    expect(narrow.turn!.pupilWithinMm).toBeGreaterThan(0);
    const wide = schools(laid({ pattern: 'turn', moves: 'camera', columns: 8 }))!;
    expect(wide).toMatchObject({ shift: null, serves: 'turn' });
    expect(wide.noShift).toMatch(/only a turn does/);
  });
});

describe('with everything else', () => {
  it('keeps the plane with a back that moves, and takes it along with a lens that moves', () => {
    // Tilted 6° the plane meets the axis at 0.4 m and stands 50 / sin 6° = 478 mm off the lens there.
    // Frames lie 0.7 × 24 / 2 = 8.4 mm up and down. A lens that goes so far takes the plane along:
    // by 8.4 × 400 / 478 = 7 mm in depth at the mark, blurred 0.14 mm / (2.8 × 1.14) = 0.045 mm.
    const tilted = {
      lens: { f_min: 2.8, circle: [{ f_number: 2.8, diameter_mm: 200 }] },
      aperture: 2.8,
      movements: { tilt_deg: 6 },
      focus: { distance_m: 0.4 },
      marks: [{ label: 'Seal', x_m: 0, y_m: 1.5, z_m: 0.4, must: 'sharp' as const }],
    };
    const tall: Mosaic = { pattern: 'grid', rows: 2, overlap: 0.3, moves: 'rear' };
    expect(marksByFrame(laid(tall, tilted))).toEqual(['Holds Seal.', 'Holds Seal.']);
    const lens = laid(
      { ...tall, moves: 'lens' },
      { ...tilted, movement_limits: { moves: 'front' } },
    );
    expect(marksByFrame(lens)).toEqual([
      'Sees Seal; Seal not as wanted.',
      'Sees Seal; Seal not as wanted.',
    ]);
  });

  it('tells pixels of the thing itself at twice life size: 2 / 6 µm = 333 px a mm', () => {
    const macro = laid(row, { focus: { magnification: 2 } });
    expect(pixelsPerMm(layoutOf(macro))).toBeCloseTo(2 / 0.006, 9);
    expect(pixelsPerMm(layoutOf(laid(row)))).toBeNull();
  });

  it('names what was taken where nobody gave it, and gives every figure its reason', () => {
    const { assumed } = evaluate(laid({ pattern: 'grid', columns: 2, moves: 'rear' }));
    expect(assumed.map(({ pointer }) => pointer)).toEqual(
      expect.arrayContaining(['/mosaic/overlap', '/mosaic/seconds_each', '/mosaic/bits']),
    );
    const asked = laid(
      { ...row, moves: 'lens', near_m: 2 },
      { movement_limits: { moves: 'front' } },
    );
    expect(evaluate(asked).assumed.map(({ pointer }) => pointer)).toContain('/mosaic/far_m');
    const turned = laid({ pattern: 'turn', columns: 3, moves: 'camera', near_m: 2 });
    expect(evaluate(turned).assumed.map(({ pointer }) => pointer)).toContain('/mosaic/far_m');
    const travels = (of: Station): string[] =>
      evaluate(of).assumed.flatMap(({ pointer }) =>
        /movement_limits/.test(pointer) ? pointer : [],
      );
    expect(travels(laid(row))).toEqual([]);
    expect(travels(laid(row, { movement_limits: { rise_mm: undefined } }))).toEqual([
      '/movement_limits/rise_mm',
    ]);
    const stopped = { columns: 3, rows: 1, pitch_mm: [18, 0] as [number, number] };
    expect(
      travels(
        laid(row, {
          movement_limits: { rise_mm: undefined, shift_mm: undefined, frame_stops: stopped },
        }),
      ),
    ).toEqual([]);
    expect(travels(laid(row, { movement_limits: { moves: 'front' } }))).toEqual([
      '/movement_limits/rear_rise_mm',
      '/movement_limits/rear_shift_mm',
    ]);
    for (const reason of [
      'mosaicPixels',
      'mosaicField',
      'mosaicOverlap',
      'mosaicLight',
      'mosaicParallax',
      'mosaicWork',
    ] as const) {
      const told = why(reason, asked);
      expect(`${told.title} ${told.result} ${told.words}`).not.toMatch(/NaN|undefined|null/);
    }
    expect(why('mosaicPixels', laid(row)).result).toBe('12000 × 4000 px');
  });

  it('leaves the crop of a single picture aside, and says so', () => {
    const cropped = laid(row, { crop: { across: 1, up: 1 } });
    const report = mosaicReport(cropped, row);
    expect(report.width_px).toBe(12000);
    expect(report.problems.map(({ code }) => code)).toEqual(['cropped']);
  });
});
