import fc from 'fast-check';
import { heldOffAnswer, parseStation, PRESETS, solvedFor, type Station } from '../../src/index.js';
import { everything, exposures, within, worlds } from './worlds.js';

/** Stations of every kind of rig that a hand may stand before: all that can be set and read. */

const maybe = <T>(of: fc.Arbitrary<T>) => fc.option(of, { nil: undefined, freq: 2 });
const sound = (station: Station): boolean => parseStation(station).ok;

type Change = (station: Station) => Station;
const limited =
  (limits: Partial<Station['movement_limits']>): Change =>
  (station) => ({
    ...station,
    movement_limits: { ...station.movement_limits, ...limits },
  });

/** A lens that only its figures are known of stands still in its mount; what breathes is not traced here. */
function plain(station: Station): Station {
  const { close_focus: _, ...lens } = station.lens;
  const multiplied = station.chain.some(({ kind }) => kind === 'multiplier');
  return {
    ...station,
    lens,
    // How a tube beside a converter counts is the program’s own reckoning, not a hand’s.
    chain: multiplied
      ? station.chain.filter(
          (part) => part.kind !== 'board' && !(part.kind === 'adapter' && part.extends_mm),
        )
      : station.chain,
  };
}

/** How it focuses, where the rig allows it, and what its own scales read. */
const scales = fc.record({
  focus_by: fc.constantFrom(
    undefined,
    undefined,
    'helicoid' as const,
    'bellows' as const,
    'rail' as const,
  ),
  zero: maybe(within(-40, 180)),
  onLens: fc.boolean(),
  level: maybe(fc.tuple(within(-1, 1), within(-1, 1))),
  exposure: maybe(exposures),
  filters: fc.array(fc.constantFrom(1, 2, 3.3), { maxLength: 2 }),
  solved: fc.boolean(),
});

function scaled(
  station: Station,
  drawn: typeof scales extends fc.Arbitrary<infer D> ? D : never,
): Station {
  const { chain } = station;
  const draws =
    chain.length === 0 ||
    chain.some(
      (part) => part.kind === 'view_camera' || (part.kind === 'adapter' && part.extends_mm),
    );
  const by = draws || drawn.focus_by === 'helicoid' ? drawn.focus_by : undefined;
  const zero = drawn.zero === undefined ? undefined : Math.round(10 * drawn.zero) / 10;
  const made: Station = {
    ...station,
    lens: {
      ...station.lens,
      ...(by === undefined ? {} : { focus_by: by }),
      ...(zero !== undefined && drawn.onLens ? { bed_infinity_mm: zero } : {}),
    },
    ...(zero !== undefined && !drawn.onLens ? { bed: { infinity_mm: zero } } : {}),
    ...(drawn.exposure
      ? { exposure: { ...drawn.exposure, filters: drawn.filters.map((stops) => ({ stops })) } }
      : {}),
    camera: {
      ...station.camera,
      ...(drawn.level
        ? {
            level_offset_deg: Number(drawn.level[0].toFixed(2)),
            level_offset_roll_deg: Number(drawn.level[1].toFixed(2)),
          }
        : {}),
    },
    marks: (station.marks ?? []).map((each) => ({ ...each, must: 'sharp' as const })),
  };
  const before = sound(made) ? made : station;
  const set = drawn.solved ? solvedFor(before) : before;
  return sound(set) ? set : before;
}

const wide = fc
  .tuple(fc.oneof(everything, worlds), scales)
  .map(([station, drawn]) => scaled(plain(station), drawn));

/** Clicks, dots and parts that turn, and a layout that they can be set to. */
const mechanisms: readonly Change[] = [
  limited({ moves: 'rear', detent_mm: 1, rise_mm: [-30, 30], shift_mm: [-30, 30] }),
  limited({ moves: 'rear', frame_stops: { columns: 4, rows: 2, pitch_mm: [12, 16] } }),
  limited({
    moves: 'rear',
    frame_stops: {
      places_mm: [
        [-9, 0],
        [0, 6],
        [9, 0],
      ],
    },
  }),
  limited({ moves: 'rear', frame_stops: { turns: 4, offset_mm: [8, 8] } }),
  limited({
    moves: 'front',
    radial_shift_mm: 25,
    turn_stops_deg: [0, 30, 60, 90, 120, 150],
    detent_mm: 0.5,
  }),
  limited({ moves: 'front', radial_shift_mm: 25, shift_tilt: 'crossed' }),
  limited({
    moves: 'front',
    radial_shift_mm: 25,
    radial_tilt_deg: 12,
    shift_tilt: 'in_line',
    turn_stops_deg: [0, 90, 180, 270],
    one_way_tilt: true,
  }),
  limited({ moves: 'front', radial_shift_mm: 25, radial_tilt_deg: 12, shift_tilt: 'free' }),
  limited({
    moves: 'front',
    rear_rise_mm: [-25, 25],
    rear_shift_mm: [-25, 25],
    rear_tilt_deg: [-15, 15],
    detent_deg: 1,
  }),
];

const several = fc
  .tuple(
    worlds,
    scales,
    fc.constantFrom(...mechanisms),
    fc.constantFrom(...PRESETS),
    fc.boolean(),
    within(-9, 9),
  )
  .map(([world, drawn, mechanism, preset, follows, lean]): Station => {
    const { rear_tilt_deg: _t, rear_swing_deg: _s, ...set } = world.movements;
    const { crop: _c, ...rest } = mechanism(plain(world));
    const there: Station = {
      ...rest,
      movements: {
        ...set,
        rise_mm: 0,
        shift_mm: Math.round(set.shift_mm) % 6,
        tilt_deg: Math.round(lean),
        swing_deg: 0,
      },
    };
    const before = scaled(sound(there) ? there : world, { ...drawn, solved: false });
    const laid = preset.of(before);
    if (typeof laid === 'string') return before;
    const { mosaic } = laid;
    return follows && mosaic!.moves === 'lens'
      ? { ...laid, mosaic: { ...mosaic!, body_follows: true } }
      : laid;
  });

const inHand = fc
  .tuple(
    worlds,
    scales,
    within(0.5, 20),
    within(0, 14),
    within(-180, 180),
    maybe(fc.tuple(within(20, 60), within(18, 50))),
  )
  .map(([world, drawn, gap_mm, lean_deg, turn_deg, registers]): Station => {
    const { mosaic: _, ...station } = scaled(plain(world), { ...drawn, solved: false });
    const held = {
      gap_mm,
      lean_deg,
      turn_deg,
      ...(registers ? { lens_register_mm: registers[0], body_register_mm: registers[1] } : {}),
    };
    // As it is advised for its marks, where a hand can.
    const pose = heldOffAnswer(station, held)?.pose;
    const told = pose ? { gap_mm: pose.gapMm, lean_deg: pose.leanDeg, turn_deg: pose.turnDeg } : {};
    return { ...station, held_off: { ...held, ...told } };
  });

/** Every kind, those that lean and are focused for their marks most often. */
export const handWorlds: fc.Arbitrary<Station> = fc
  .oneof(
    { weight: 5, arbitrary: wide },
    { weight: 3, arbitrary: several },
    { weight: 1, arbitrary: inHand },
  )
  .filter(sound);
