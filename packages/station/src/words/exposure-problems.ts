import { fStop, fixed, stops, trimmed } from './format.js';
import type { Found } from './findings.js';
import { NO_IMAGE } from './no-image.js';
import { timeSaid } from './times.js';

/** What is said of an exposure's problems. */
export const EXPOSURE_SAYS = {
  no_image: (_: null) => NO_IMAGE,
  past_table: ({ endS, timeS }: { endS: number; timeS: number }) =>
    `The film’s table ends at ${timeSaid(endS)} metered; ${timeSaid(timeS)} is past it, and nobody measured that. Open up, take a faster film, or test it and add the entry.`,
  bracket_past_table: ({ count, endS }: { count: number; endS: number }) =>
    `${count === 1 ? 'The longest bracket is' : `The ${count} longest brackets are`} past the end of the film’s table, ${timeSaid(endS)} metered.`,
  too_short: ({
    timeS,
    fastestS,
    overStops,
    downTo,
  }: {
    timeS: number;
    fastestS: number;
    overStops: number;
    /** The stop that cures it; null where the lens has none. */
    downTo: number | null;
  }) => {
    const filter = `put a filter of ${stops(overStops)} on`;
    const cure = downTo === null ? filter : `stop down to ${fStop(downTo)}, or ${filter}`;
    return `${timeSaid(timeS)} is shorter than the shutter’s fastest, ${timeSaid(fastestS)}: ${cure}.`;
  },
  bracket_too_short: ({ count, fastestS }: { count: number; fastestS: number }) =>
    `${count === 1 ? 'The shortest bracket is' : `The ${count} shortest brackets are`} shorter than the shutter’s fastest, ${timeSaid(fastestS)}.`,
  /** One time, or so many of a bracket. */
  by_clock: (values: { timeS: number; endS: number } | { count: number; endS: number }) => {
    const past = `past the shutter’s last step, ${timeSaid(values.endS)}: hold`;
    if ('timeS' in values) return `${timeSaid(values.timeS)} is ${past} it open by the clock.`;
    return values.count === 1
      ? `The longest bracket is ${past} it open by the clock.`
      : `The ${values.count} longest brackets are ${past} them open by the clock.`;
  },
  film_unknown: (_: null) =>
    'Film answers less to times past about a second. How this one does is not given: choose the film, or type its exponent or table.',
  range: ({
    sceneStops,
    spanStops,
    bracketed,
    darksStops,
    lightsStops,
  }: {
    sceneStops: number;
    spanStops: number;
    bracketed: boolean;
    darksStops: number;
    lightsStops: number;
  }) => {
    const lost = [
      darksStops > 0 ? `${stops(darksStops)} of the darks` : '',
      lightsStops > 0 ? `${stops(lightsStops)} of the lights` : '',
    ].filter(Boolean);
    // As much at either end goes without saying.
    const where = Math.abs(darksStops - lightsStops) < 0.05 ? '' : ` Lost: ${lost.join(' and ')}.`;
    return `The scene spans ${stops(sceneStops)}; ${bracketed ? 'the bracket holds' : 'one exposure holds'} ${stops(spanStops)}.${where}`;
  },
  range_gaps: ({ stepStops, mediumStops }: { stepStops: number; mediumStops: number }) =>
    `The exposures stand ${stops(stepStops)} apart and one holds ${stops(mediumStops)}: what lies between is held by none.`,
  /** The shortest time that shows the whole frame lit; null where it is not given. */
  sync: ({ byLines, leastS }: { byLines: boolean; leastS: number | null }) => {
    if (byLines) {
      return `A shutter that reads line by line shows a flash only where all lines are open at once: ${leastS === null ? 'use a slow time' : `longer than ${timeSaid(leastS)}`}, or the mechanical shutter.`;
    }
    return leastS === null
      ? 'A focal-plane shutter is fully open only down to its flash speed, which is not given; shorter, a part of the frame stays dark.'
      : `Set ${timeSaid(leastS)} or longer: shorter, a part of the frame stays dark.`;
  },
  flash_reading: ({ timed }: { timed: boolean }) =>
    timed
      ? 'With flash the answer is in aperture, power and pops: type the f-number the flash meter reads.'
      : 'A flash meter reads an f-number: type it as the reading.',
  flash_over: ({ leastPower, overStops }: { leastPower: number; overStops: number }) =>
    `Even at its least power, 1/${trimmed(1 / leastPower, 0)}, the flash gives ${stops(overStops)} too much: stop down, move it back, or put a filter on.`,
  pops_moving: ({ pops }: { pops: number }) => `What moves shows ${pops} times, once for each pop.`,
  brackets_moving: ({ frames }: { frames: boolean }) =>
    `What moves stands elsewhere in each ${frames ? 'frame' : 'exposure'}: wait for it, or merge by hand.`,
  skew: ({ px, electronic }: { px: number; electronic: boolean }) =>
    `What crosses leans by ${fixed(px, 0)} px from the first line to the last: ${electronic ? 'use the mechanical shutter' : 'a leaf shutter would not do that'}.`,
  skew_unknown: (_: null) =>
    'An electronic shutter reads line by line and skews what moves; how long it reads is not given.',
  ends_late: ({ endsAt, overS, by }: { endsAt: string; overS: number; by: string }) =>
    `It ends at ${endsAt}, ${timeSaid(overS)} after ${by}: begin earlier.`,
  off_step: ({ offStops }: { offStops: number }) =>
    `The shutter’s nearest step gives ${stops(Math.abs(offStops))} too ${offStops > 0 ? 'much' : 'little'}: take it up with the aperture.`,
  held: (_: null) =>
    'Held off the body, extension and leaks of light change from shot to shot: meter through the lens.',
};

export type ExposureFinding = Found<typeof EXPOSURE_SAYS>;
export type ExposureProblemCode = keyof typeof EXPOSURE_SAYS;
