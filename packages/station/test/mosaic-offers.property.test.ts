import fc from 'fast-check';
import { newBudget, effortOf } from '@gangway/optics';
import {
  mosaicReport,
  noneServesSaid,
  offersOf,
  parseStation,
  searchOffers,
  type Mosaic,
  type Station,
} from '../src/index.js';
import { offerReport } from '../src/mosaic/offers/report.js';
import { coversWithOverlap } from '../src/mosaic/offers/cover-solver.js';
import { judged } from '../src/mosaic/offers/judged.js';
import { leastSize, serves, wantOf } from '../src/mosaic/offers/want.js';
import { station, type Given } from './helpers/mosaic.js';
import { runs, seen as often } from '../../../scripts/lib/runs.mjs';

/** Layouts that are offered for a wish: each does what it says, and no fewer frames would. */

const number = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const round = (value: number, digits = 1): number => Number(value.toFixed(digits));

const wishes: fc.Arbitrary<NonNullable<Mosaic['wish']>> = fc.oneof(
  fc.constantFrom({ fill: 'covered' as const }, { fill: 'sharp' as const }),
  number(20, 130).map((mp) => ({ megapixels: round(mp) })),
  number(300, 1100).map((mm) => ({ print_width_mm: round(mm), dpi: 240 })),
  number(30, 110).map((deg) => ({ horizontal_deg: round(deg) })),
  fc.constantFrom(
    { focal_length_mm: 90, width_mm: 120, height_mm: 95 },
    { focal_length_mm: 47, width_mm: 56, height_mm: 56 },
  ),
);

const rigs: fc.Arbitrary<Given> = fc
  .record({
    circle: number(48, 110),
    reach: number(5, 22),
    up: number(0, 22),
    detent: fc.constantFrom(undefined, undefined, 0.5, 1, 3),
    kind: fc.constantFrom(
      'back',
      'back',
      'front',
      'turning',
      'sliding',
      'wheel',
      'leaned',
      'second',
    ),
    orientation: fc.constantFrom('landscape', 'portrait'),
    set: number(-4, 4),
    film: fc.nat(9).map((n) => n === 0),
  })
  .map(({ circle, reach, up, detent, kind, orientation, set, film }): Given => {
    const range = (most: number): [number, number] => [-round(most), round(most)];
    const moves = kind === 'back' || kind === 'sliding' || kind === 'wheel' ? 'rear' : 'front';
    const limits = { moves, rise_mm: range(up), shift_mm: range(reach), detent_mm: detent };
    const at = detent ? Math.round(set / detent) * detent : round(set, 2);
    return {
      back: { orientation, ...(film ? { width_px: undefined, height_px: undefined } : {}) },
      lens: { circle: [{ f_number: 4, diameter_mm: round(circle) }] },
      movements: {
        rise_mm:
          kind === 'turning' || kind === 'sliding' || kind === 'wheel'
            ? 0
            : Math.max(-up, Math.min(up, at)),
        ...(kind === 'leaned' ? { tilt_deg: round(set), swing_deg: round(-set) } : {}),
      },
      movement_limits:
        {
          turning: {
            moves,
            rise_mm: undefined,
            shift_mm: undefined,
            radial_shift_mm: round(reach),
            turn_stops_deg: Array.from({ length: 12 }, (_, i) => i * 30),
            detent_mm: detent,
          },
          sliding: {
            moves,
            frame_stops: { columns: 3, rows: 3, pitch_mm: [round(reach), round(up + 2)] },
          },
          wheel: {
            moves,
            frame_stops: { turns: 4, offset_mm: [round(reach / 3), round(reach / 2)] },
          },
          second: { moves, rear_shift_mm: range(reach), rear_rise_mm: range(up) },
        }[kind as string] ?? limits,
    };
  });

/** A document with an offer's values set at their pointers. */
function taken(before: Station, values: Record<string, unknown>): Station {
  const document = structuredClone(before) as unknown as Record<string, unknown>;
  for (const [pointer, value] of Object.entries(values)) {
    const keys = pointer.slice(1).split('/');
    const last = keys.pop()!;
    const into = keys.reduce<Record<string, unknown>>(
      (inner, key) => inner[key] as Record<string, unknown>,
      document,
    );
    into[last] = value;
  }
  const read = parseStation(document);
  if (!read.ok) throw new Error(JSON.stringify(read.problems));
  return read.value;
}

const meets = (
  wish: NonNullable<Mosaic['wish']>,
  report: ReturnType<typeof mosaicReport>,
): boolean => {
  if (wish.megapixels !== undefined) return report.megapixels! >= wish.megapixels;
  if (wish.print_width_mm !== undefined) {
    return report.width_px! >= (wish.print_width_mm / 25.4) * wish.dpi;
  }
  if (wish.horizontal_deg !== undefined)
    return report.horizontal_deg! >= wish.horizontal_deg - 1e-6;
  if (wish.focal_length_mm !== undefined) {
    const deg = (side: number): number =>
      (2 * Math.atan(side / (2 * wish.focal_length_mm)) * 180) / Math.PI;
    return (
      report.horizontal_deg! >= deg(wish.width_mm) - 1e-6 &&
      report.vertical_deg! >= deg(wish.height_mm) - 1e-6
    );
  }
  return true;
};

describe('every offered layout', () => {
  it('is covered, has its overlap, can be set, and gives what it promises once taken', () => {
    const seen = { offers: 0, nothing: 0, kinds: new Set<string>() };
    fc.assert(
      fc.property(rigs, wishes, number(0.1, 0.5), (rig, wish, share) => {
        const overlap = round(share, 2);
        const moves =
          rig.movement_limits && (rig.movement_limits as { moves: string }).moves === 'rear'
            ? 'rear'
            : 'lens';
        const before = station({ ...rig, mosaic: { pattern: 'grid', moves, overlap, wish } });
        const { offers, why, nearest } = offersOf(before);
        if (offers.length === 0) {
          seen.nothing += 1;
          expect(noneServesSaid(why!)).toMatch(/\w+\./);
        }
        for (const offered of nearest ? [...offers, nearest] : offers) {
          const offer = offerReport(before, offered);
          seen.offers += 1;
          seen.kinds.add(offer.kind);
          const after = taken(before, offer.values);
          const report = mosaicReport(after, {
            ...after.mosaic!,
            wish: undefined,
          } as unknown as Mosaic);
          expect(report.problems.filter(({ code }) => code !== 'no_turning_back')).toEqual([]);
          expect(report.frames).toHaveLength(offer.frames);
          expect([report.width_px, report.height_px]).toEqual([offer.width_px, offer.height_px]);
          const sharp = wish.fill === 'sharp';
          expect(report.frames.every((frame) => (sharp ? frame.sharp : frame.covered))).toBe(true);
          if (after.mosaic!.pattern === 'grid' || after.mosaic!.pattern === 'turn') {
            expect(report.overlaps.every((each) => each.share >= overlap - 1e-3)).toBe(true);
          }
          if (offered !== nearest) expect(meets(wish, report)).toBe(true);
          // Where it is said that no fewer do, none that is offered has fewer, moved the same way.
          const turned = offer.kind === 'turn';
          const fewer = offers.some(
            (other) =>
              !['ring', 'pinwheel'].includes(other.layout.mosaic.pattern) &&
              (other.layout.mosaic.pattern === 'turn') === turned &&
              other.layout.frames.length < offer.frames &&
              (wish.fill === undefined || other.share >= 0.99),
          );
          if (offer.least) expect(fewer).toBe(false);
          // Nothing else is changed.
          const { mosaic: _a, movements: _b, back: _c, ...rest } = after;
          const { mosaic: _d, movements: _e, back: _f, ...same } = before;
          expect(rest).toEqual(same);
        }
      }),
      { numRuns: 100 },
    );
    expect(seen.offers).toBeGreaterThan(often(150));
    expect(seen.nothing).toBeGreaterThan(5);
    expect([...seen.kinds].sort()).toEqual(
      expect.arrayContaining(['free', 'grid', 'ring', 'turn']),
    );
  });
});

describe('the least number of frames, against every subset', () => {
  const stops = fc.uniqueArray(
    fc.tuple(fc.integer({ min: -3, max: 3 }), fc.integer({ min: -2, max: 2 })),
    { minLength: 3, maxLength: 8, selector: ([x, y]) => `${x} ${y}` },
  );
  const inMm = (places: [number, number][]): [number, number][] =>
    places.map(([x, y]) => [x * 7, y * 6]);
  const fixed = fc.oneof(
    number(220, 900).map((mm) => ({ print_width_mm: round(mm), dpi: 240 })),
    fc
      .record({ w: number(38, 70), h: number(26, 60) })
      .map(({ w, h }) => ({ focal_length_mm: 50, width_mm: round(w), height_mm: round(h) })),
  );

  it('of a back with stops of its own', () => {
    let [proven, some] = [0, 0];
    fc.assert(
      fc.property(
        stops,
        fixed,
        fc.constantFrom(0.1, 0.25, 0.4),
        number(60, 100),
        (places, wish, overlap, circle) => {
          const before = station({
            lens: { circle: [{ f_number: 4, diameter_mm: round(circle) }] },
            movement_limits: {
              moves: 'rear',
              frame_stops: { places_mm: inMm(places) },
            },
            mosaic: { pattern: 'grid', moves: 'rear', overlap, wish },
          });
          const own = offersOf(before).offers.filter(
            ({ layout }) => layout.mosaic.moves === 'rear',
          );
          const fewest = Math.min(Infinity, ...own.map(({ layout }) => layout.frames.length));
          const brute = Math.min(
            ...(['landscape', 'portrait'] as const).map((orientation) =>
              fewestOfAll({ ...before, back: { ...before.back, orientation } }, inMm(places)),
            ),
          );
          expect(brute).toBeGreaterThanOrEqual(fewest);
          const first = own[0];
          if (first?.least) expect(first.layout.frames.length).toBe(brute);
          if (first) some += 1;
          if (first?.least) proven += 1;
        },
      ),
      { numRuns: runs(60) },
    );
    expect(some).toBeGreaterThan(often(15));
    expect(proven / some).toBeGreaterThan(0.8);
  });

  it('of a back on detents, for certain', () => {
    let some = 0;
    fc.assert(
      fc.property(
        fixed,
        fc.constantFrom(0.1, 0.25, 0.4),
        number(55, 100),
        fc.constantFrom(6, 8, 10, 13),
        fc.tuple(fc.integer({ min: -1, max: 1 }), fc.integer({ min: -1, max: 1 })),
        (wish, overlap, circle, detent, [right, up]) => {
          const before = station({
            movements: { shift_mm: right * detent, rise_mm: up * detent },
            lens: { circle: [{ f_number: 4, diameter_mm: round(circle) }] },
            movement_limits: {
              moves: 'rear',
              rise_mm: [-detent, detent],
              shift_mm: [-detent, detent],
              detent_mm: detent,
            },
            mosaic: { pattern: 'grid', moves: 'rear', overlap, wish },
          });
          const own = offersOf(before).offers.filter(
            ({ layout }) => layout.mosaic.moves === 'rear',
          );
          const nine = [-1, 0, 1].flatMap((y) => [-1, 0, 1].map((x) => [x * detent, y * detent]));
          const brute = Math.min(
            ...(['landscape', 'portrait'] as const).map((orientation) =>
              fewestOfAll({ ...before, back: { ...before.back, orientation } }, nine),
            ),
          );
          const fewest = Math.min(Infinity, ...own.map(({ layout }) => layout.frames.length));
          expect(fewest).toBe(brute);
          if (own[0]) {
            some += 1;
            expect(own[0].least).toBe(true);
          }
        },
      ),
      { numRuns: 40 },
    );
    expect(some).toBeGreaterThan(often(10));
  });

  /** Every subset of the places, tried. */
  function fewestOfAll(before: Station, places: readonly (readonly number[])[]): number {
    const { overlap = 0.3, wish } = before.mosaic!;
    let least = Infinity;
    for (let subset = 1; subset < 1 << places.length; subset++) {
      const chosen = places.filter((_, i) => subset & (1 << i));
      if (chosen.length >= least) continue;
      const after: Station = {
        ...before,
        mosaic: {
          pattern: 'free',
          moves: 'rear',
          overlap,
          places: chosen.map(([x_mm, y_mm]) => ({ x_mm: x_mm!, y_mm: y_mm! })),
        },
      };
      const tried = judged(after, { overlap, sharp: false, effort: effortOf(newBudget()) });
      if (!tried) continue;
      const want = wantOf(after, tried.layout, wish!);
      if ('code' in want || !serves(want, tried.picture, 0.006)) continue;
      const covered = coversWithOverlap({
        places: chosen.map(([x, y]) => ({ x: x!, y: y! })),
        frame: tried.layout.frame,
        overlap,
        target: {
          ...leastSize(want, tried.layout, tried.picture.centre),
          centre: tried.picture.centre,
        },
      });
      if (covered) least = chosen.length;
    }
    return least;
  }
});

describe('what is said of the number of frames', () => {
  it('is said of the fewest only: not of three upright frames where two level ones do', () => {
    // 800 mm at 300 dots an inch are 9449 px, 56.7 mm: two level frames give 36 × 1.7 = 61.2 mm,
    // three upright ones 24 × 2.4 = 57.6 mm.
    const wish = { print_width_mm: 800, dpi: 300 };
    const asked = station({ mosaic: { pattern: 'grid', moves: 'rear', overlap: 0.3, wish } });
    const across = offersOf(asked).offers.filter(({ layout }) => !layout.turn);
    expect(across.map(({ layout, least }) => [layout.frames.length, least])).toEqual([
      [2, true],
      [3, false],
    ]);
  });

  it('finds a layout on stops that are no block of columns and rows', () => {
    // Three stops on a slope, no two in one row: the outer two give 60 mm across, 20 mm high.
    const places_mm = [
      [-12, 2],
      [0, 0],
      [12, -2],
    ] as [number, number][];
    const wish = { focal_length_mm: 50, width_mm: 58, height_mm: 15 };
    const asked = station({
      movement_limits: { frame_stops: { places_mm } },
      mosaic: { pattern: 'grid', moves: 'rear', overlap: 0.3, wish },
    });
    const [first] = offersOf(asked).offers;
    expect(first).toMatchObject({ least: true });
    expect(first!.layout.frames).toHaveLength(2);
  });
});

describe('a lens that is turned to shift', () => {
  // Ranges of 12 mm, detents of 1 mm, stops every 30°: two level frames 60 mm across lie at ±12.
  const turning: Given = {
    movement_limits: {
      moves: 'front',
      rise_mm: [-12, 12],
      shift_mm: [-12, 12],
      detent_mm: 1,
      shift_tilt: 'free',
      turn_stops_deg: [0, 30, 60, 90],
    },
  };
  const wish = { print_width_mm: 900, dpi: 240 };

  it.each([0, 5, 9])('is laid through the middle when it was set %s mm off', (rise_mm) => {
    const mosaic: Mosaic = { pattern: 'grid', moves: 'lens', overlap: 0.3, wish };
    const { offers } = offersOf(station({ ...turning, movements: { rise_mm }, mosaic }));
    const [first] = offers.filter(({ layout }) => layout.mosaic.pattern === 'grid');
    expect(first!.layout.frames.map(({ set }) => [set.shiftMm, set.riseMm])).toEqual([
      [-12, 0],
      [12, 0],
    ]);
    expect(first!.least).toBe(false);
  });
});

describe('wishes that one frame serves, or a turn never does', () => {
  const offered = (given: Given, wish: NonNullable<Mosaic['wish']>) =>
    offersOf(station({ ...given, mosaic: { pattern: 'grid', moves: 'rear', wish } })).offers;

  it('are answered by one frame, for certain, and by nothing that turns', () => {
    const offers = offered({}, { megapixels: 20 });
    expect(offers.map(({ layout, least }) => [layout.frames.length, least])).toEqual([
      [1, true],
      [1, true],
    ]);
  });

  it('are not answered by turning a camera up close, where its plane turns away', () => {
    const turns = (given: Given) =>
      offered(given, { megapixels: 130 }).filter(({ layout }) => layout.turn).length;
    expect(turns({})).toBeGreaterThan(0);
    expect(turns({ focus: { magnification: 0.5 } })).toBe(0);
    const close = station({
      focus: { magnification: 0.5 },
      mosaic: { pattern: 'turn', moves: 'camera', columns: 3 },
    });
    expect(mosaicReport(close, close.mosaic!).problems.map(({ code }) => code)).toContain(
      'turned_close',
    );
  });
});

describe('wishes that cannot be had', () => {
  const said = (given: Given, wish: NonNullable<Mosaic['wish']>, overlap = 0.3): string => {
    const asked = station({ ...given, mosaic: { pattern: 'grid', moves: 'rear', overlap, wish } });
    const { why } = offersOf(asked);
    // It comes to the page from a worker.
    return why ? noneServesSaid(structuredClone(why)) : '';
  };

  it('say what limits and the nearest that can be had', () => {
    expect(said({}, { megapixels: 500 })).toBe(
      'The nearest by shift is 112 MP, from 12 frames, limited by the circle at f/8.',
    );
    // A sensor so small would take hundreds of frames, of which 64 are tried.
    const chip = { width_mm: 6, height_mm: 4, width_px: 600, height_px: 400 };
    expect(said({ back: chip }, { megapixels: 500 })).toMatch(/ Not every layout was tried\.$/);
    expect(said({ movement_limits: { detent_mm: 12 } }, { megapixels: 60 }, 0.9)).toMatch(
      /^An overlap of 90 % asks for steps of 3\.6 mm or less; the detents are 12\.0 mm apart\. The most overlap on them is 67 %\./,
    );
    expect(said({ back: { width_px: undefined, height_px: undefined } }, { megapixels: 20 })).toBe(
      'The back has no pixels given, so that they cannot be wished for; give them in the kit.',
    );
  });

  it('are told in the report as well, and a search shows its best so far on the way', () => {
    const mosaic: Mosaic = { pattern: 'grid', moves: 'rear', wish: { megapixels: 500 } };
    const report = mosaicReport(station({ mosaic }), mosaic);
    expect(report.offers).toEqual([]);
    expect(report.problems.map(({ code }) => code)).toEqual(['wish']);
    const steps = [...searchOffers(station({ mosaic: { ...mosaic, wish: { fill: 'covered' } } }))];
    expect(steps.every(({ share }) => share >= 0 && share <= 1)).toBe(true);
    expect(steps.some(({ found }) => found.offers.length > 0)).toBe(true);
  });
});
