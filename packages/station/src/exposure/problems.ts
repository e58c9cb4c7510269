import { STEPS_PER_STOP } from '@gangway/optics';
import type { Exposure, Station } from '../document/station.js';
import { fixed, fStop, stops, trimmed } from '../words/format.js';
import { timeSaid } from '../words/times.js';
import { untilS } from './clock.js';
import { rangeHeld } from './range.js';
import { USUAL_STEPS, type Worked } from './worked.js';

export interface ExposureProblem {
  code:
    | 'past_table'
    | 'bracket_past_table'
    | 'too_short'
    | 'bracket_too_short'
    | 'by_clock'
    | 'film_unknown'
    | 'range'
    | 'range_gaps'
    | 'sync'
    | 'flash_reading'
    | 'flash_over'
    | 'pops_moving'
    | 'brackets_moving'
    | 'skew'
    | 'skew_unknown'
    | 'ends_late'
    | 'off_step'
    | 'held';
  severity: 'stop' | 'warn';
  message: string;
}

interface Looked {
  readonly station: Station;
  readonly exposure: Exposure;
  readonly report: Worked;
}

type Look = (looked: Looked) => ExposureProblem[];

const stop = (code: ExposureProblem['code'], message: string): ExposureProblem[] => [
  { code, severity: 'stop', message },
];
const warn = (code: ExposureProblem['code'], message: string): ExposureProblem[] => [
  { code, severity: 'warn', message },
];

const pastTable: Look = ({ exposure: { reciprocity }, report }) => {
  const end = reciprocity?.table?.at(-1)?.metered_s;
  if (end === undefined || report.time_s === null) return [];
  if (report.given_s === null) {
    return stop(
      'past_table',
      `The film’s table ends at ${timeSaid(end)} metered; ${timeSaid(report.time_s)} is past it, and nobody measured that. Open up, take a faster film, or test it and add the entry.`,
    );
  }
  const past = report.brackets_s.filter((each) => each === null).length;
  return past === 0
    ? []
    : warn(
        'bracket_past_table',
        `${past === 1 ? 'The longest bracket is' : `The ${past} longest brackets are`} past the end of the film’s table, ${timeSaid(end)} metered.`,
      );
};

const tooShort: Look = ({ station, exposure: { shutter }, report }) => {
  const fastest = shutter?.fastest_s;
  if (fastest === undefined || report.given_s === null) return [];
  // No more than a shutter’s nearest step is off by itself.
  const slack = 0.5 / STEPS_PER_STOP[shutter?.steps ?? USUAL_STEPS];
  const over = (time: number): number => Math.log2(fastest / time);
  if (over(report.given_s) > slack) {
    const stopsOver = over(report.given_s);
    const to = station.aperture * 2 ** (stopsOver / 2);
    const cure =
      to <= station.lens.f_max * 1.02
        ? `stop down to ${fStop(to)}, or put a filter of ${stops(stopsOver)} on`
        : `put a filter of ${stops(stopsOver)} on`;
    return stop(
      'too_short',
      `${timeSaid(report.given_s)} is shorter than the shutter’s fastest, ${timeSaid(fastest)}: ${cure}.`,
    );
  }
  const short = report.brackets_s.filter((each) => each !== null && over(each) > slack).length;
  return short === 0
    ? []
    : stop(
        'bracket_too_short',
        `${short === 1 ? 'The shortest bracket is' : `The ${short} shortest brackets are`} shorter than the shutter’s fastest, ${timeSaid(fastest)}.`,
      );
};

const byClock: Look = ({ exposure: { shutter }, report }) => {
  const { given_s: given, dial_s: dial, brackets_s: times, brackets_dial_s: dials } = report;
  const end = (): string => timeSaid(shutter!.slowest_s!);
  if (times.length < 2) {
    if (given === null || dial !== null) return [];
    return warn(
      'by_clock',
      `${timeSaid(given)} is past the shutter’s last step, ${end()}: hold it open by the clock.`,
    );
  }
  const past = times.filter((time, i) => time !== null && dials[i] === null).length;
  return past === 0
    ? []
    : warn(
        'by_clock',
        `${past === 1 ? 'The longest bracket is' : `The ${past} longest brackets are`} past the shutter’s last step, ${end()}: hold ${past === 1 ? 'it' : 'them'} open by the clock.`,
      );
};

/** From here on films answer less and less; common practice, no source. */
const FILM_FROM_S = 1;

const filmUnknown: Look = ({ station: { back }, exposure: { reciprocity }, report }) => {
  const longest = Math.max(0, ...report.brackets_s.map((each) => each ?? 0));
  return back.medium === 'film' && !reciprocity && longest > FILM_FROM_S * 1.001
    ? warn(
        'film_unknown',
        'Film answers less to times past about a second. How this one does is not given: choose the film, or type its exponent or table.',
      )
    : [];
};

const range: Look = ({ station, exposure: { brackets, medium_range_stops: medium }, report }) => {
  const held = rangeHeld(station, report);
  const { darks, lights } = held?.past ?? { darks: 0, lights: 0 };
  const lost = [
    darks > 0 ? `${stops(darks)} of the darks` : '',
    lights > 0 ? `${stops(lights)} of the lights` : '',
  ].filter(Boolean);
  // As much at either end goes without saying.
  const where = Math.abs(darks - lights) < 0.05 ? '' : ` Lost: ${lost.join(' and ')}.`;
  const { span_stops: span, scene_range_stops: scene } = report;
  return [
    ...(lost.length > 0
      ? warn(
          'range',
          `The scene spans ${stops(scene!)}; ${(brackets?.frames ?? 1) > 1 ? 'the bracket holds' : 'one exposure holds'} ${stops(span!)}.${where}`,
        )
      : []),
    ...(held?.gaps
      ? warn(
          'range_gaps',
          `The exposures stand ${stops(brackets!.step_stops)} apart and one holds ${stops(medium!)}: what lies between is held by none.`,
        )
      : []),
  ];
};

const sync: Look = ({ exposure: { flash, shutter } }) => {
  if (!flash || !shutter) return [];
  const { kind, sync_s: shortest, readout_s: reads } = shutter;
  if (kind === 'electronic') {
    return warn(
      'sync',
      `A shutter that reads line by line shows a flash only where all lines are open at once: ${reads === undefined ? 'use a slow time' : `longer than ${timeSaid(reads)}`}, or the mechanical shutter.`,
    );
  }
  if (kind === 'focal_plane') {
    return warn(
      'sync',
      shortest === undefined
        ? 'A focal-plane shutter is fully open only down to its flash speed, which is not given; shorter, a part of the frame stays dark.'
        : `Set ${timeSaid(shortest)} or longer: shorter, a part of the frame stays dark.`,
    );
  }
  return [];
};

const flashReading: Look = ({ exposure: { flash, meter }, report }) =>
  flash && report.flash === null
    ? warn(
        'flash_reading',
        meter?.time_s === undefined
          ? 'A flash meter reads an f-number: type it as the reading.'
          : 'With flash the answer is in aperture, power and pops: type the f-number the flash meter reads.',
      )
    : [];

const flashOver: Look = ({ exposure: { flash_power: power }, report }) =>
  report.flash && report.flash.over_stops > 1 / 6
    ? stop(
        'flash_over',
        `Even at its least power, 1/${trimmed(1 / power!.least!, 0)}, the flash gives ${stops(report.flash.over_stops)} too much: stop down, move it back, or put a filter on.`,
      )
    : [];

const moving: Look = ({ station: { mosaic }, exposure: { moving: moves, brackets }, report }) => {
  if (!moves) return [];
  const pops = report.flash?.pops ?? 1;
  return [
    ...(pops > 1 ? warn('pops_moving', `What moves shows ${pops} times, once for each pop.`) : []),
    ...((brackets?.frames ?? 1) > 1 || mosaic
      ? warn(
          'brackets_moving',
          `What moves stands elsewhere in each ${mosaic ? 'frame' : 'exposure'}: wait for it, or merge by hand.`,
        )
      : []),
  ];
};

/** Less of it than this nobody sees. */
const SEEN_PX = 1;

const skew: Look = ({ exposure: { moving: moves, crossing, shutter }, report }) => {
  if (report.skew_px !== null && report.skew_px >= SEEN_PX) {
    return warn(
      'skew',
      `What crosses leans by ${fixed(report.skew_px, 0)} px from the first line to the last: ${shutter?.kind === 'electronic' ? 'use the mechanical shutter' : 'a leaf shutter would not do that'}.`,
    );
  }
  return shutter?.kind === 'electronic' && shutter.readout_s === undefined && (moves || crossing)
    ? warn(
        'skew_unknown',
        'An electronic shutter reads line by line and skews what moves; how long it reads is not given.',
      )
    : [];
};

const HALF_DAY_S = 12 * 3600;

const endsLate: Look = ({ exposure: { starts_at: from, ends_by: by }, report }) => {
  if (from === undefined || by === undefined || report.total_s === null) return [];
  const left = untilS(from, by);
  // Past half a day it is yesterday’s light that was meant.
  const over = report.total_s - (left > HALF_DAY_S ? left - 2 * HALF_DAY_S : left);
  return over <= 0
    ? []
    : warn(
        'ends_late',
        `It ends at ${report.ends_at}, ${timeSaid(over)} after ${by}: begin earlier.`,
      );
};

/** The nearest step is off by more than anyone would leave. */
const offStep: Look = ({ exposure: { shutter }, report }) =>
  shutter?.steps === 'full' && report.off_stops !== null && Math.abs(report.off_stops) > 1 / 3
    ? warn(
        'off_step',
        `The shutter’s nearest step gives ${stops(Math.abs(report.off_stops))} too ${report.off_stops > 0 ? 'much' : 'little'}: take it up with the aperture.`,
      )
    : [];

const held: Look = ({ station: { held_off: hand }, exposure: { meter, flash } }) =>
  hand && meter && !meter.through_lens && !flash
    ? warn(
        'held',
        'Held off the body, extension and leaks of light change from shot to shot: meter through the lens.',
      )
    : [];

/** Every fault that an exposure may have. To add one: write it above and list it here. */
const LOOKS: readonly Look[] = [
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

export const problemsOf = (
  station: Station,
  exposure: Exposure,
  report: Worked,
): ExposureProblem[] => LOOKS.flatMap((look) => look({ station, exposure, report }));
