import {
  asFree,
  carrierOf,
  evaluate,
  findable,
  layoutOf,
  parseStation,
  PRESETS,
  reportMosaic,
  seamsOf,
  seamTroubles,
  sparingMove,
  troubleSaid,
  withFrameAdded,
  withFrameMoved,
  withFrameTaken,
  withFrameTurned,
  withLayoutMoved,
  type Station,
} from '../src/index.js';
import { free, laid, placesOf, row, station, type Given } from './helpers/mosaic.js';

/** Seams, and frames moved by hand. */

const sound = (of: Station): Station => {
  const read = parseStation(of);
  if (!read.ok) throw new Error(JSON.stringify(read.problems));
  return read.value;
};

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
    const move = sparingMove(on).move!;
    expect(Math.hypot(move.dx, move.dy)).toBeLessThan(2.1);
    expect(seamTroubles(sound(move.after))).toEqual([]);
    expect(evaluate(move.after).mosaic!.possible).toBe(true);

    // Every place of the middle frame is seen by two.
    const moving = laid(row, { marks: marks(-1, 'moving') });
    expect(seamTroubles(moving).map(troubleSaid)).toEqual([
      'Bell moves, and frames 1 and 2 both see it.',
    ]);
    expect(sparingMove(laid(row))).toEqual({ move: null, all: true });
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
