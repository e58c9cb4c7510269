import {
  asFree,
  carrierOf,
  evaluate,
  findable,
  inOrder,
  layoutOf,
  manualList,
  marksByFrame,
  mosaicReport,
  mosaicVerdict,
  movementsOf,
  parseStation,
  pixelsPerMm,
  PRESETS,
  reportMosaic,
  schools,
  seamsOf,
  seamTroubles,
  shootingOrder,
  sparingMove,
  standList,
  troubleSaid,
  why,
  withFrameAdded,
  withFrameMoved,
  withFrameTaken,
  withFrameTurned,
  withLayoutMoved,
  type Mosaic,
  type Station,
} from '../src/index.js';
import { readFrameStops, writeFrameStops } from '../src/kit/frame-stops.js';
import { station, type Given } from './helpers/mosaic.js';

/** What the Mosaic pages do and say, worked by hand. */

const laid = (mosaic: Mosaic, given: Given = {}): Station => station({ ...given, mosaic });
const row: Mosaic = { pattern: 'grid', columns: 3, overlap: 0.5, moves: 'rear' };
const free = (...places: [number, number][]): Mosaic => ({
  pattern: 'free',
  moves: 'rear',
  places: places.map(([x_mm, y_mm]) => ({ x_mm, y_mm })),
});
const placesOf = ({ mosaic }: Station): number[][] =>
  mosaic?.pattern === 'free' ? mosaic.places!.map(({ x_mm, y_mm }) => [x_mm, y_mm]) : [];
const sound = (of: Station): Station => {
  const read = parseStation(of);
  if (!read.ok) throw new Error(JSON.stringify(read.problems));
  return read.value;
};

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
    expect(slid[2]!.says).toEqual(['Slide the back to column 3, row 1 of the picture.']);
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

describe('seams', () => {
  const marks = (x_m: number, at_seams: 'fine' | 'moving') => [
    { label: 'Bell', x_m, y_m: 1.5, z_m: 10, must: 'free' as const, at_seams },
  ];

  it('lie halfway between neighbours, through the middle of what both see', () => {
    const [first] = seamsOf(layoutOf(laid(row)));
    expect(first!.from!.x).toBeCloseTo(-9, 5);
    expect(Math.abs(first!.from!.y - first!.to!.y)).toBeCloseTo(24, 5);
  });

  it('spoil fine detail on them and what moves where two frames see it; a move spares it', () => {
    // 50 mm lens 9.95 m away: 1.79 m to the left is pictured 9 mm left, on the first seam.
    const on = laid(row, { marks: marks(-1.791, 'fine') });
    const troubles = seamTroubles(on);
    expect(troubles.map(troubleSaid)).toEqual(['The seam of frames 1 and 2 runs through Bell.']);
    const move = sparingMove(on)!;
    expect(Math.hypot(move.dx, move.dy)).toBeLessThan(2.1);
    expect(seamTroubles(sound(move.after))).toEqual([]);
    expect(evaluate(move.after).mosaic!.possible).toBe(true);

    // Every place of the middle frame is seen by two.
    const moving = laid(row, { marks: marks(-1, 'moving') });
    expect(seamTroubles(moving).map(troubleSaid)).toEqual([
      'Bell moves, and frames 1 and 2 both see it.',
    ]);
    expect(sparingMove(laid(row))).toBeNull();
  });
});

describe('frames by hand', () => {
  it('are moved, added, turned and taken away; a pattern is taken apart first', () => {
    const apart = sound(asFree(laid(row)));
    expect(placesOf(apart)).toEqual([
      [-18, 0],
      [0, 0],
      [18, 0],
    ]);
    expect(layoutOf(apart).middle).toEqual(layoutOf(laid(row)).middle);
    expect(placesOf(sound(withFrameMoved(apart, 1, 1.234, -2)))[1]).toEqual([1.23, -2]);
    expect(placesOf(sound(withFrameTaken(apart, 0)))).toHaveLength(2);
    const added = sound(withFrameAdded(laid({ ...row, overlap: 0.3 }), 2));
    expect(placesOf(added)[3]![0]).toBeCloseTo(25.2 * 2, 6);
    const turned = sound(withFrameTurned(apart, 2));
    expect(turned.mosaic).toMatchObject({ places: [{}, {}, { rotation_deg: 90 }] });
  });

  it('drop onto detents, stops and the angles at which a lens turns', () => {
    const dropped = (movement_limits: object, dx: number, dy: number) => {
      const at = laid(free([0, 0]), { movement_limits });
      const after = sound(withFrameMoved(at, 0, dx, dy));
      const carrier = carrierOf(after, 'rear')!;
      const [frame] = layoutOf(after).frames;
      expect(findable(carrier, frame!.set, frame!.rotationDeg)).toBe(true);
      return placesOf(after)[0];
    };
    expect(dropped({ detent_mm: 2 }, 4.7, -1.2)).toEqual([4, -2]);
    expect(
      dropped(
        {
          frame_stops: {
            places_mm: [
              [0, 0],
              [9, 3],
            ],
          },
        },
        7,
        1,
      ),
    ).toEqual([9, 3]);
    const turning = {
      rise_mm: undefined,
      shift_mm: undefined,
      radial_shift_mm: 12,
      turn_stops_deg: [0, 90],
    };
    expect(dropped(turning, 6, 1)).toEqual([6, 0]);
  });

  it('move together: a grid by its movements, free places each by as much', () => {
    const grid = withLayoutMoved(laid(row), 1.5, -2);
    expect(grid.movements).toMatchObject({ rise_mm: -2, shift_mm: 1.5 });
    expect(placesOf(withLayoutMoved(laid(free([0, 0], [20, 4])), 1, 1))).toEqual([
      [1, 1],
      [21, 5],
    ]);
  });

  it('begin on the detents and within the reach of the gear', () => {
    const begun = (id: string, given: Given): Station | string =>
      PRESETS.find((each) => each.id === id)!.of(station(given));
    const clicks = begun('row', {
      movement_limits: { shift_mm: [-20, 20], detent_mm: 3 },
    }) as Station;
    // 25.2 mm are wanted, 20 can be had each way: 18 on the clicks.
    expect(layoutOf(sound(clicks)).frames.map(({ set }) => Math.round(set.shiftMm))).toEqual([
      -18, 0, 18,
    ]);
    expect(reportMosaic(clicks, clicks.mosaic!).problems).toEqual([]);
    const pair = begun('column', { movement_limits: { detent_mm: 3 } }) as Station;
    expect(layoutOf(pair).frames.map(({ set }) => set.riseMm)).toEqual(
      [6, -6].map((mm) => expect.closeTo(mm, 9)),
    );
    expect(begun('column', { movement_limits: { rise_mm: [0, 0] } })).toBe(
      'Nothing on this rig moves far enough up and down from where it is set. Lay out a row, or turn the camera.',
    );
  });

  it('begin from what the rig can do, or say why not', () => {
    const gear = station({});
    for (const { id, of } of PRESETS) {
      const begun = of(gear);
      if (typeof begun === 'string') {
        expect(id).toBe('stops');
        expect(begun).toMatch(/stops in the kit/);
      } else expect(layoutOf(sound(begun)).frames.length).toBeGreaterThan(1);
    }
    const diagonal = PRESETS.find(({ id }) => id === 'diagonal')!.of(gear) as Station;
    expect(reportMosaic(diagonal, diagonal.mosaic!).overlaps[0]!.share).toBeCloseTo(0.3, 2);
    const still = station({ movement_limits: { rise_mm: [0, 0] } });
    expect(PRESETS.find(({ id }) => id === 'ring')!.of(still)).toMatch(/needs both/);
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
    const tilted = {
      lens: { circle: [{ f_number: 4, diameter_mm: 200 }] },
      movements: { tilt_deg: 6 },
      focus: { distance_m: 3 },
      camera: { height_m: 1, pitch_deg: 0, yaw_deg: 0 },
      marks: [{ label: 'Floor', x_m: 0, y_m: 0.4, z_m: 1.8, must: 'sharp' as const }],
    };
    const tall: Mosaic = { pattern: 'grid', rows: 2, overlap: 0.3, moves: 'rear' };
    const rear = marksByFrame(laid(tall, tilted));
    expect(rear).toHaveLength(2);
    const lens = marksByFrame(
      laid({ ...tall, moves: 'lens' }, { ...tilted, movement_limits: { moves: 'front' } }),
    );
    expect(lens).toHaveLength(2);
    expect([...rear, ...lens].join(' ')).toMatch(/Floor/);
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

describe('stops for several frames in the kit', () => {
  it.each([
    ['4 × 2, 12 × 16 mm', { columns: 4, rows: 2, pitch_mm: [12, 16] }],
    ['7x7, 6', { columns: 7, rows: 7, pitch_mm: [6, 6] }],
    [
      '−8 0; 0 0; 8,5 0',
      {
        places_mm: [
          [-8, 0],
          [0, 0],
          [8.5, 0],
        ],
      },
    ],
    ['4 turns, 4.5 10.5', { turns: 4, offset_mm: [4.5, 10.5] }],
  ])('%s', (text, value) => {
    const read = readFrameStops(text);
    expect(read).toEqual({ ok: true, value });
    expect(readFrameStops(writeFrameStops(value as never))).toEqual(read);
  });

  it('say what is wrong', () => {
    expect(readFrameStops('two by four')).toMatchObject({ ok: false });
    expect(readFrameStops('4 turns, off')).toMatchObject({ ok: false });
  });

  it('give a sliding back its reach where nothing else does', () => {
    const sliding = {
      frame_stops: { columns: 4, rows: 2, pitch_mm: [12, 16] as [number, number] },
      moves: 'rear' as const,
    };
    const { lens } = station({});
    const chain = [{ kind: 'adapter' as const, thickness_mm: 20, movement: sliding }];
    expect(movementsOf({ lens, chain })).toMatchObject({ shift_mm: [-18, 18], rise_mm: [-8, 8] });
  });
});
