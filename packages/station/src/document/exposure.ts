import {
  distanceM,
  exactlyOne,
  fNumber,
  list,
  oneOf,
  quantity,
  record,
  text,
  timeS,
  yesOrNo,
} from './fields.js';
import { origin } from './parts.js';

/** What the meter said and what stands between it and the shutter. */

export const iso = () => quantity('', { min: 0.01, max: 10_000_000 });
const stopsOf = () => quantity('stops', { min: -30, max: 30 });
export const rangeStops = () => quantity('stops', { min: 0.1, max: 40 });
export const filterStops = () => quantity('stops', { min: 0, max: 30 });
const ev = () => quantity('', { min: -30, max: 40 });

const TABLE = 'must hold at least two entries: { metered_s, given_s }';

/** How a film answers to long times. */
export const reciprocitySchema = exactlyOne(
  [
    { exponent: quantity('', { min: 1, max: 3 }), from_s: timeS() },
    {
      table: list(record({ metered_s: timeS(), given_s: timeS() }), 100).min(2, { error: TABLE }),
    },
  ],
  'must be either exponent with from_s, or a table',
);

/** One way a film is developed, and what it then holds. */
const developmentSchema = record({
  name: text(),
  /** Sensitivity it is exposed at. */
  iso: iso().optional(),
  /** Against the usual development: above 0 pushed. */
  push_stops: quantity('stops', { min: -10, max: 10 }).optional(),
  /** Range of a scene that it holds. */
  range_stops: rangeStops().optional(),
});

/** A film, as the kit and a station’s copy of it tell it. */
export const filmShape = {
  iso: iso().optional(),
  range_stops: rangeStops().optional(),
  reciprocity: reciprocitySchema.optional(),
  developments: list(developmentSchema, 24).optional(),
};

/** The light as it was read: as a time, as EV or as spots; of a flash meter the f-number alone. */
const meterSchema = record({
  time_s: timeS().optional(),
  ev: ev().optional(),
  spots: list(
    record({
      label: text().optional(),
      ev: ev(),
      /** Where this spot is to fall, against middle grey; of one spot at the most. */
      place_stops: quantity('stops', { min: -15, max: 15 }).optional(),
    }),
    50,
  ).optional(),
  f_number: fNumber().optional(),
  iso: iso().optional(),
  /** It has seen bellows and converters already. */
  through_lens: yesOrNo().optional(),
});

export const CLOCK = /^([01]\d|2[0-3]):[0-5]\d$/;
const clock = () => text(5).regex(CLOCK, { error: 'must be a time of day: 06:30 or 18:05' });

export const exposureSchema = record({
  iso: iso().optional(),
  meter: meterSchema.optional(),
  filters: list(
    record({
      name: text().optional(),
      stops: filterStops(),
      /** Denser in the middle: it evens out the corners by as much. */
      centre: yesOrNo().optional(),
      ...origin,
    }),
    12,
  ).optional(),
  compensation_stops: stopsOf().optional(),
  reciprocity: reciprocitySchema.optional(),
  film: record({ name: text().optional(), ...filmShape, ...origin }).optional(),
  /** The film’s development, by its name. */
  development: text().optional(),
  brackets: record({
    frames: quantity('', { min: 1, max: 99, whole: true }),
    step_stops: quantity('stops', { min: 0, max: 20 }),
  }).optional(),
  scene_range_stops: rangeStops().optional(),
  medium_range_stops: rangeStops().optional(),
  shutter: record({
    kind: oneOf(['leaf', 'focal_plane', 'electronic']),
    fastest_s: timeS().optional(),
    slowest_s: timeS().optional(),
    steps: oneOf(['full', 'half', 'third']).optional(),
    /** From its first line to its last. */
    readout_s: timeS().optional(),
    /** Shortest time with flash. */
    sync_s: timeS().optional(),
  }).optional(),
  flash: yesOrNo().optional(),
  /** Shares of full power. */
  flash_power: record({
    metered: quantity('', { min: 0.0001, max: 1 }).optional(),
    least: quantity('', { min: 0.0001, max: 1 }).optional(),
  }).optional(),
  /** Something in front moves. */
  moving: yesOrNo().optional(),
  /** A thing that crosses the frame. */
  crossing: record({
    speed_m_s: quantity('m/s', { min: 0, max: 10_000 }),
    /** From the sensor; not given: where the lens is focused. */
    distance_m: distanceM().optional(),
  }).optional(),
  /** Time of day the shutter is to open, and by when it has to be closed: light and tide do not wait. */
  starts_at: clock().optional(),
  ends_by: clock().optional(),
});
