import { STEPS_PER_STOP } from '@gangway/optics';
import type { Exposure, Station } from '../document/station.js';
import type { EXPOSURE_SAYS } from '../words/exposure-problems.js';
import { type ExposureFinding } from '../words/exposure-problems.js';
import { findingsOf, lookedOver, type Look as AnyLook } from '../words/findings.js';
import { untilS } from './clock.js';
import { rangeHeld } from './range.js';
import { USUAL_STEPS, type Worked } from './worked.js';

interface Looked {
  readonly station: Station;
  readonly exposure: Exposure;
  readonly report: Worked;
}

type Look = AnyLook<Looked, ExposureFinding>;

const { stop, warn } = findingsOf<typeof EXPOSURE_SAYS>();

const pastTable: Look = ({ exposure: { reciprocity }, report }) => {
  const end = reciprocity?.table?.at(-1)?.metered_s;
  if (end === undefined || report.time_s === null) return [];
  if (report.given_s === null) {
    return stop('past_table', { endS: end, timeS: report.time_s });
  }
  const past = report.brackets_s.filter((each) => each === null).length;
  return past === 0 ? [] : warn('bracket_past_table', { count: past, endS: end });
};

const noImage: Look = ({ report }) => (report.bellows_stops === null ? stop('no_image', null) : []);

const tooShort: Look = ({ station, exposure: { shutter }, report }) => {
  const fastest = shutter?.fastest_s;
  if (fastest === undefined || report.given_s === null) return [];
  // No more than a shutter’s nearest step is off by itself.
  const slack = 0.5 / STEPS_PER_STOP[shutter?.steps ?? USUAL_STEPS];
  const over = (time: number): number => Math.log2(fastest / time);
  if (over(report.given_s) > slack) {
    const stopsOver = over(report.given_s);
    const to = station.aperture * 2 ** (stopsOver / 2);
    return stop('too_short', {
      timeS: report.given_s,
      fastestS: fastest,
      overStops: stopsOver,
      downTo: to <= station.lens.f_max * 1.02 ? to : null,
    });
  }
  const short = report.brackets_s.filter((each) => each !== null && over(each) > slack).length;
  return short === 0 ? [] : stop('bracket_too_short', { count: short, fastestS: fastest });
};

const byClock: Look = ({ exposure: { shutter }, report }) => {
  const { given_s: given, dial_s: dial, brackets_s: times, brackets_dial_s: dials } = report;
  if (times.length < 2) {
    if (given === null || dial !== null) return [];
    return warn('by_clock', { timeS: given, endS: shutter!.slowest_s! });
  }
  const past = times.filter((time, i) => time !== null && dials[i] === null).length;
  return past === 0 ? [] : warn('by_clock', { count: past, endS: shutter!.slowest_s! });
};

/** From here on films answer less and less; common practice, no source. */
const FILM_FROM_S = 1;

const filmUnknown: Look = ({ station: { back }, exposure: { reciprocity }, report }) => {
  const longest = Math.max(0, ...report.brackets_s.map((each) => each ?? 0));
  return back.medium === 'film' && !reciprocity && longest > FILM_FROM_S * 1.001
    ? warn('film_unknown', null)
    : [];
};

const range: Look = ({ station, exposure: { brackets, medium_range_stops: medium }, report }) => {
  const held = rangeHeld(station, report);
  const { darks, lights } = held?.past ?? { darks: 0, lights: 0 };
  const { span_stops: span, scene_range_stops: scene } = report;
  return [
    ...(darks > 0 || lights > 0
      ? warn('range', {
          sceneStops: scene!,
          spanStops: span!,
          bracketed: (brackets?.frames ?? 1) > 1,
          darksStops: darks,
          lightsStops: lights,
        })
      : []),
    ...(held?.gaps
      ? warn('range_gaps', { stepStops: brackets!.step_stops, mediumStops: medium! })
      : []),
  ];
};

const sync: Look = ({ exposure: { flash, shutter } }) => {
  if (!flash || !shutter) return [];
  const { kind, sync_s: shortest, readout_s: reads } = shutter;
  if (kind === 'electronic') return warn('sync', { byLines: true, leastS: reads ?? null });
  return kind === 'focal_plane' ? warn('sync', { byLines: false, leastS: shortest ?? null }) : [];
};

const flashReading: Look = ({ exposure: { flash, meter }, report }) =>
  flash && report.flash === null
    ? warn('flash_reading', { timed: meter?.time_s !== undefined })
    : [];

const flashOver: Look = ({ exposure: { flash_power: power }, report }) =>
  report.flash && report.flash.over_stops > 1 / 6
    ? stop('flash_over', { leastPower: power!.least!, overStops: report.flash.over_stops })
    : [];

const moving: Look = ({ station: { mosaic }, exposure: { moving: moves, brackets }, report }) => {
  if (!moves) return [];
  const pops = report.flash?.pops ?? 1;
  return [
    ...(pops > 1 ? warn('pops_moving', { pops }) : []),
    ...((brackets?.frames ?? 1) > 1 || mosaic
      ? warn('brackets_moving', { frames: mosaic !== undefined })
      : []),
  ];
};

/** Less of it than this nobody sees. */
const SEEN_PX = 1;

const skew: Look = ({ exposure: { moving: moves, crossing, shutter }, report }) => {
  if (report.skew_px !== null && report.skew_px >= SEEN_PX) {
    return warn('skew', { px: report.skew_px, electronic: shutter?.kind === 'electronic' });
  }
  return shutter?.kind === 'electronic' && shutter.readout_s === undefined && (moves || crossing)
    ? warn('skew_unknown', null)
    : [];
};

const HALF_DAY_S = 12 * 3600;

const endsLate: Look = ({ exposure: { starts_at: from, ends_by: by }, report }) => {
  if (from === undefined || by === undefined || report.total_s === null) return [];
  const left = untilS(from, by);
  // Past half a day it is yesterday’s light that was meant.
  const over = report.total_s - (left > HALF_DAY_S ? left - 2 * HALF_DAY_S : left);
  return over <= 0 ? [] : warn('ends_late', { endsAt: `${report.ends_at}`, overS: over, by });
};

/** The nearest step is off by more than anyone would leave. */
const offStep: Look = ({ exposure: { shutter }, report }) =>
  shutter?.steps === 'full' && report.off_stops !== null && Math.abs(report.off_stops) > 1 / 3
    ? warn('off_step', { offStops: report.off_stops })
    : [];

const held: Look = ({ station: { held_off: hand }, exposure: { meter, flash } }) =>
  hand && meter && !meter.through_lens && !flash ? warn('held', null) : [];

/** Every fault that an exposure may have. To add one: write it above and list it here. */
const LOOKS: readonly Look[] = [
  noImage,
  pastTable,
  tooShort,
  flashOver,
  flashReading,
  byClock,
  filmUnknown,
  range,
  sync,
  skew,
  moving,
  endsLate,
  offStep,
  held,
];

/** What is wrong with an exposure, as it was worked out. */
export const findingsIn = (
  station: Station,
  exposure: Exposure,
  report: Worked,
): ExposureFinding[] => lookedOver(LOOKS, { station, exposure, report });
