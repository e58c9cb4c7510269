import fc from 'fast-check';
import { CARES, parseStation, type Exposure, type Film, type Station } from '../../src/index.js';

type Chain = Station['chain'];

/** Stations that draw whatever a station may have to do with lens, back and light. */

export const within = (min: number, max: number) => fc.double({ min, max, noNaN: true });
/** There in half of the draws: `freq` n leaves one in n out. */
const maybe = <T>(of: fc.Arbitrary<T>) => fc.option(of, { nil: undefined, freq: 2 });

const given = <T extends object>(fields: T): { [K in keyof T]: Exclude<T[K], undefined> } =>
  Object.fromEntries(Object.entries(fields).filter(([, value]) => value !== undefined)) as never;

const bellows = { kind: 'view_camera' as const, bellows_min_mm: 0, bellows_max_mm: 5000 };
const multiplier = within(0.6, 2).map((factor) => ({ kind: 'multiplier' as const, factor }));
const tilting = {
  kind: 'adapter' as const,
  thickness_mm: 18,
  movement: { moves: 'front' as const },
};

const chains: fc.Arbitrary<Chain> = fc.oneof(
  { weight: 3, arbitrary: fc.constant<Chain>([]) },
  { weight: 2, arbitrary: fc.constant<Chain>([bellows]) },
  multiplier.map((each): Chain => [each]),
  multiplier.map((each): Chain => [each, bellows]),
  multiplier.map((each): Chain => [bellows, each]),
  multiplier.map((each): Chain => [each, tilting]),
  fc.tuple(multiplier, multiplier).map(([a, b]): Chain => [a, bellows, b]),
);

const leans = fc.oneof(fc.constant(0), within(-14, 14));
const shifts = fc.oneof(fc.constant(0), within(-0.25, 0.25));

const focuses = (f: number): fc.Arbitrary<Station['focus']> =>
  fc.oneof(
    fc.constant({ distance_m: null }),
    within(4.6, 400).map((times) => ({ distance_m: (times * f) / 1000 })),
    within(0.02, 2.5).map((magnification) => ({ magnification })),
    within(1, 2.2).map((times) => ({ image_distance_mm: times * f })),
  );

export const mark = (f: number): fc.Arbitrary<NonNullable<Station['marks']>[number]> =>
  fc
    .record({
      label: fc.constant(''),
      x_m: within(-0.4, 0.4),
      y_m: within(-0.4, 0.4),
      // Near ones lie inside the focal length, measured from a lens drawn well out.
      z_m: fc.oneof(within(2.6, 12), within(5, 300)),
      must: fc.constantFrom('sharp' as const, 'free' as const),
      infinite: fc.oneof({ weight: 4, arbitrary: fc.constant(false) }, { weight: 1, arbitrary: fc.constant(true) }), // prettier-ignore
    })
    .map(({ x_m, y_m, z_m, ...rest }) => {
      const z = (z_m * f) / 1000;
      return { ...rest, x_m: x_m * z, y_m: 1.4 + y_m * z, z_m: z };
    });

export const worlds: fc.Arbitrary<Station> = within(15, 400).chain((f) =>
  fc
    .record({
      chain: chains,
      back: fc.record({ w: within(0.4, 1.3), aspect: within(0.6, 1), portrait: fc.boolean() }),
      circle: within(0.8, 3),
      pupil_ratio: maybe(within(0.5, 2.2)),
      n: within(2.8, 32),
      focus: focuses(f),
      tilt: leans,
      swing: leans,
      rear_tilt_deg: maybe(leans),
      rear_swing_deg: maybe(leans),
      shift: shifts,
      rise: shifts,
      rear: maybe(fc.tuple(shifts, shifts)),
      moves: fc.constantFrom('front' as const, 'rear' as const),
      pivot: maybe(within(-0.3, 0.5)),
      base: maybe(within(-0.2, 0.5)),
      crop: maybe(fc.record({ across: within(1, 3), up: within(1, 3), slide: within(-1, 1) })),
      pitch: within(-12, 12),
      yaw: within(-40, 40),
      criterion: fc.oneof<fc.Arbitrary<Station['criterion']>[]>(
        within(500, 3000).map((diagonal_divisor) => ({ diagonal_divisor })),
        within(0.002, 0.1).map((coc_mm) => ({ coc_mm })),
        within(100, 900).map((print_width_mm) => ({ print_width_mm, viewing_distance_mm: 500 })),
        within(1, 6).map((pixels) => ({ pixels })),
      ),
      marks: fc.array(mark(f), { maxLength: 4 }),
    })
    .map((drawn): Station => {
      const w = drawn.back.w * f;
      const second = drawn.moves === 'front' && drawn.rear;
      return {
        format: 'gangway.station',
        version: 1,
        name: 'drawn',
        back: {
          width_mm: w,
          height_mm: w * drawn.back.aspect,
          width_px: 6000,
          orientation: drawn.back.portrait ? 'portrait' : 'landscape',
        },
        lens: {
          focal_length_mm: f,
          f_min: 1,
          f_max: 64,
          circle: [{ f_number: 5.6, diameter_mm: drawn.circle * f }],
          ...given({ pupil_ratio: drawn.pupil_ratio }),
        },
        chain: drawn.chain,
        movement_limits: {
          moves: drawn.moves,
          ...given({
            pivot_mm: drawn.pivot && drawn.pivot * f,
            rear_pivot_mm: drawn.base && drawn.base * f,
          }),
        },
        aperture: drawn.n,
        focus: drawn.focus,
        movements: {
          rise_mm: drawn.rise * f,
          shift_mm: drawn.shift * f,
          tilt_deg: drawn.tilt,
          swing_deg: drawn.swing,
          ...given({ rear_tilt_deg: drawn.rear_tilt_deg, rear_swing_deg: drawn.rear_swing_deg }),
          ...(second ? { rear_shift_mm: second[0] * f, rear_rise_mm: second[1] * f } : {}),
        },
        camera: { height_m: 1.4, pitch_deg: drawn.pitch, yaw_deg: drawn.yaw },
        criterion: drawn.criterion,
        ...(drawn.crop ? { crop: drawn.crop } : {}),
        marks: drawn.marks.map((each) => ({ ...each, must: 'free' as const })),
      };
    }),
);

const limit = (most: number) =>
  maybe(fc.tuple(within(0, most), within(0, most)).map(([a, b]): [number, number] => [-a, b]));

/** What a mechanism may be like besides the ends of its movements. */
const mechanisms = fc.record({
  rise: limit(40),
  shift: limit(40),
  tilt: limit(15),
  swing: limit(15),
  rear_tilt: limit(15),
  rear_swing: limit(15),
  radial_shift_mm: maybe(within(0, 40)),
  radial_tilt_deg: maybe(within(0, 15)),
  one_way_tilt: maybe(fc.boolean()),
  shift_tilt: maybe(fc.constantFrom('in_line' as const, 'crossed' as const, 'free' as const)),
  turn_stops_deg: maybe(fc.array(within(-180, 180), { maxLength: 5 })),
  reduced: maybe(
    fc
      .record({ f_from: within(1, 8), more: within(0, 20), shift_mm: within(0, 20) })
      .map(({ f_from, more, shift_mm }) => [{ f_from, f_to: f_from + more, shift_mm }]),
  ),
});

const boards = maybe(within(-20, 20).map((offset_mm) => ({ kind: 'board' as const, offset_mm })));
const adapters = maybe(
  fc.record({ thickness_mm: within(0, 30), extends_mm: within(0, 20) }).map((each) => ({
    kind: 'adapter' as const,
    ...each,
  })),
);

const moved = { moves: fc.constantFrom('rear' as const, 'lens' as const) };
const wished = {
  overlap: maybe(within(0, 0.9)),
  near_m: maybe(within(0.05, 3)),
  far_m: maybe(within(4, 90)),
  output: maybe(fc.constantFrom({ across: 1, up: 1 }, { across: 5, up: 2 })),
  seconds_each: maybe(within(1, 90)),
};
/** Any layout of several frames. */
export const mosaics = fc
  .oneof(
    fc.record({
      pattern: fc.constant('grid' as const),
      columns: fc.integer({ min: 1, max: 3 }),
      rows: fc.integer({ min: 1, max: 2 }),
      ...moved,
      ...wished,
    }),
    fc.record({
      pattern: fc.constant('pinwheel' as const),
      frames: maybe(fc.integer({ min: 1, max: 7 })),
      offset_mm: maybe(fc.tuple(within(-15, 15), within(-15, 15))),
      ...moved,
      ...wished,
    }),
    fc.record({
      pattern: fc.constant('ring' as const),
      frames: maybe(fc.integer({ min: 1, max: 12 })),
      radius_mm: maybe(within(0, 15)),
      start_deg: maybe(within(-90, 90)),
      middle: maybe(fc.boolean()),
      ...moved,
      ...wished,
    }),
    fc.record({
      pattern: fc.constant('free' as const),
      places: fc.array(
        fc.record({
          x_mm: within(-20, 20),
          y_mm: within(-20, 20),
          rotation_deg: fc.constantFrom(0, 90, 13),
        }),
        { maxLength: 5 },
      ),
      ...moved,
      ...wished,
    }),
    fc.record({
      pattern: fc.constant('turn' as const),
      columns: fc.integer({ min: 1, max: 12 }),
      projection: fc.constantFrom('flat' as const, 'cylinder' as const),
      moves: fc.constant('camera' as const),
      ...wished,
    }),
  )
  .map((drawn) => given(drawn));

/** Short to long, as people meter. */
const times = within(-13, 11).map((log) => 2 ** log);
const reciprocities: fc.Arbitrary<NonNullable<Exposure['reciprocity']>> = fc.oneof(
  fc.record({ exponent: within(1, 1.6), from_s: within(0.1, 4) }),
  fc
    .array(fc.tuple(within(1.2, 20), within(1.2, 5)), { minLength: 2, maxLength: 5 })
    .map((steps) => {
      const table = [{ metered_s: 0.5, given_s: 0.6 }];
      for (const [by, more] of steps) {
        const { metered_s, given_s } = table.at(-1)!;
        table.push({ metered_s: metered_s * by, given_s: given_s * by * more });
      }
      return { table };
    }),
);
const meters: fc.Arbitrary<NonNullable<Exposure['meter']>> = fc
  .record({
    read: fc.oneof(
      times.map((time_s) => ({ time_s })),
      within(-6, 17).map((ev) => ({ ev })),
      fc
        .array(within(-4, 16), { minLength: 1, maxLength: 4 })
        .map((evs) => ({ spots: evs.map((ev) => ({ ev })) })),
      fc.tuple(within(-4, 16), within(-4, 16), within(-4, 4)).map(([ev, other, place_stops]) => ({
        spots: [{ ev, place_stops }, { ev: other }],
      })),
      fc.constant({}),
    ),
    f_number: maybe(within(2, 32)),
    iso: maybe(within(25, 6400)),
    through_lens: maybe(fc.boolean()),
  })
  .map(({ read, ...rest }) => ({ ...read, ...given(rest) }));

const films: fc.Arbitrary<Film> = fc
  .record({
    name: maybe(fc.constant('Sheet film')),
    iso: maybe(within(12, 800)),
    range_stops: maybe(within(4, 9)),
    reciprocity: maybe(reciprocities),
    soft: within(8, 20),
    pushed: within(3, 6),
  })
  .map(({ soft, pushed, ...rest }) => ({
    ...given(rest),
    developments: [
      { name: 'soft', iso: 32, range_stops: soft },
      { name: 'pushed', push_stops: 1, range_stops: pushed },
    ],
  }));

/** Any exposure. */
export const exposures: fc.Arbitrary<Exposure> = fc
  .record({
    iso: maybe(within(25, 6400)),
    meter: maybe(meters),
    filters: maybe(
      fc.array(
        fc.record({ stops: within(0, 10), centre: maybe(fc.boolean()) }).map((each) => given(each)),
        { maxLength: 3 },
      ),
    ),
    compensation_stops: maybe(within(-3, 3)),
    reciprocity: maybe(reciprocities),
    brackets: maybe(
      fc.record({ frames: fc.integer({ min: 1, max: 7 }), step_stops: within(0, 8) }),
    ),
    scene_range_stops: maybe(within(2, 20)),
    medium_range_stops: maybe(within(4, 14)),
    shutter: maybe(
      fc.record({
        kind: fc.constantFrom('leaf' as const, 'focal_plane' as const, 'electronic' as const),
        fastest_s: within(-13, -6).map((log) => 2 ** log),
        slowest_s: within(-1, 6).map((log) => 2 ** log),
        steps: fc.constantFrom('full' as const, 'half' as const, 'third' as const),
        readout_s: within(0.003, 0.2),
      }),
    ),
    flash: maybe(fc.boolean()),
    flash_power: maybe(fc.record({ metered: within(0.1, 1), least: within(0.002, 0.05) })),
    moving: maybe(fc.boolean()),
    crossing: maybe(
      fc
        .record({ speed_m_s: within(0, 40), distance_m: maybe(within(1, 300)) })
        .map((drawn) => given(drawn)),
    ),
    loaded: maybe(fc.tuple(films, fc.constantFrom(undefined, 'soft', 'pushed'))),
    starts_at: maybe(fc.constantFrom('05:10', '23:58')),
    ends_by: maybe(fc.constantFrom('06:00', '00:10')),
  })
  .map(({ loaded, ...drawn }) => ({
    ...given(drawn),
    ...(loaded ? { film: loaded[0], ...given({ development: loaded[1] }) } : {}),
  }));

const sights = fc.record({
  exposure: maybe(exposures),
  stand: maybe(
    fc
      .record({
        note: maybe(fc.string({ maxLength: 80 })),
        care: maybe(fc.uniqueArray(fc.constantFrom(...CARES))),
      })
      .map((drawn) => given(drawn)),
  ),
  facade: maybe(
    fc
      .record({ distance: within(20, 400), top: within(1, 60), width: within(1, 60) })
      .map(({ distance, top, width }) => ({
        distance_m: distance,
        top_m: top,
        width_m: width,
        base_m: 0,
      })),
  ),
  mosaic: maybe(mosaics),
  turn_in: maybe(
    fc.record({ yaw_deg: within(-30, 30), keep: fc.constantFrom('left', 'right', 'center') }),
  ),
  must: fc.array(fc.constantFrom('sharp' as const, 'soft' as const, 'free' as const), {
    minLength: 4,
    maxLength: 4,
  }),
});

/** What an owner measured, as parts of the focal length and of the stops there are. */
const owns = fc.record({
  circle: maybe(fc.tuple(within(1.2, 3), within(0, 0.5))),
  fall: maybe(fc.tuple(within(0.1, 1), within(0.5, 4))),
  sharp: maybe(fc.tuple(within(20, 90), within(0.2, 1))),
  detail: maybe(fc.tuple(within(0.2, 1), within(0.2, 1))),
  off: maybe(fc.tuple(within(-0.02, 0.02), within(-0.02, 0.02))),
  use: maybe(fc.constant(false)),
  zero: maybe(fc.record({ tilt_deg: within(-1, 1), swing_deg: within(-1, 1) })),
});

type Own = typeof owns extends fc.Arbitrary<infer Drawn> ? Drawn : never;

function measuredOn({ focal_length_mm: f, f_min, f_max }: Station['lens'], own: Own) {
  const stops = [f_min, Math.sqrt(f_min * f_max)];
  const zone = (name: string, at: number) => ({ zone: name, radius_mm: at * f });
  const zones = (value: string, middle: number, corner: number) => [
    { ...zone('centre', 0.1), [value]: middle },
    { ...zone('corner', 0.8), [value]: corner },
  ];
  return given({
    circle: own.circle && stops.map((f_number, i) => ({ f_number, diameter_mm: f * (own.circle![0] + i * own.circle![1]) })),
    falloff: own.fall && stops.map((f_number, i) => ({ f_number, points: [0, 0.5, 1].map((part) => ({ radius_mm: part * f, stops: own.fall![i]! * part * part })) })),
    sharpness: own.sharp && stops.map((f_number, i) => ({ f_number, zones: zones('mtf50_cy_mm', own.sharp![0] * (1 + i / 2), own.sharp![0] * own.sharp![1]) })),
    detail: own.detail && stops.map((f_number, i) => ({ f_number, zones: zones('kept', i === 0 ? own.detail![0] : 1, own.detail![1]) })),
    centre_mm: own.off && { x: own.off[0] * f, y: own.off[1] * f },
    use: own.use,
  });
} // prettier-ignore

/**
 * {@link worlds} with everything else a station may have: ends of the mechanism, locks and stops,
 * boards, adapters, filters, lenses that shorten up close, a façade, a grid, marks of every kind.
 * Only such as parse.
 */
export const everything: fc.Arbitrary<Station> = fc
  .record({
    world: worlds,
    mechanism: mechanisms,
    board: boards,
    adapter: adapters,
    sight: sights,
    filter: maybe(fc.record({ clear: within(0.5, 3), ahead: within(0, 0.8) })),
    close: maybe(fc.record({ share: within(0.7, 1.1), magnification: within(0.1, 1) })),
    register: maybe(within(0.3, 1.2)),
    own: maybe(owns),
  })
  .map(({ world, mechanism, board, adapter, sight, filter, close, register, own }): Station => {
    const f = world.lens.focal_length_mm;
    const { rise, shift, tilt, swing, rear_tilt, rear_swing, ...others } = mechanism;
    const drawn = {
      ...world,
      chain: [...[adapter, board].filter((part) => part !== undefined), ...world.chain],
      lens: {
        ...world.lens,
        ...given({
          measured: own && measuredOn(world.lens, own),
          register_mm: register && register * f,
          filter: filter && {
            clear_diameter_mm: filter.clear * f,
            ahead_of_pupil_mm: filter.ahead * f,
          },
          close_focus: close && {
            distance_mm: close.share * f * (2 + close.magnification + 1 / close.magnification),
            magnification: close.magnification,
          },
        }),
      },
      movement_limits: {
        ...world.movement_limits,
        ...given({
          rise_mm: rise,
          shift_mm: shift,
          tilt_deg: tilt,
          swing_deg: swing,
          rear_tilt_deg: rear_tilt,
          rear_swing_deg: rear_swing,
          zero: own?.zero,
          ...others,
        }),
      },
      marks: world.marks?.map((each, i) => ({ ...each, must: sight.must[i]! })),
      ...given({
        facade: sight.facade,
        mosaic: sight.mosaic,
        turn_in: sight.turn_in,
        exposure: sight.exposure,
      }),
    };
    return drawn as Station;
  })
  .filter((station) => parseStation(station).ok);
