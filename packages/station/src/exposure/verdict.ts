import type { Station } from '../document/station.js';
import { stationShot } from '../optical/held.js';
import { fStop, trimmed } from '../words/format.js';
import { dialSaid, timeSaid } from '../words/times.js';
import { NO_EXPOSURE, type ExposureVerdict } from './none.js';
import type { ExposureReport } from './report.js';
import { USUAL_STEPS } from './worked.js';

/** A share of full power as flashes have it, in thirds of a stop: full power, 1/4 power, 1/4 power + ⅓. */
export function powerSaid(power: number): string {
  const thirds = Math.round(3 * Math.log2(power));
  const whole = Math.floor(thirds / 3);
  const more = thirds - 3 * whole;
  const share = whole >= 0 ? 'full power' : `1/${2 ** -whole} power`;
  return more === 0 ? share : `${share} + ${more === 1 ? '⅓' : '⅔'}`;
}

/** The time to set: the engraved step, or by the clock what no step gives; null where there is none. */
export function timeToSet(
  { exposure }: Station,
  { dial_s: dial, given_s: given }: ExposureReport,
): string | null {
  if (dial !== null) return dialSaid(dial, exposure?.shutter?.steps ?? USUAL_STEPS);
  return given === null ? null : timeSaid(given);
}

/** Times of a bracket as they are set, shortest first: 1/15 · 1/4 · 0.8 s; those past a film’s table are left out. */
export function bracketsSaid(
  { exposure }: Station,
  { brackets_s: times, brackets_dial_s: dials }: ExposureReport,
): string {
  const steps = exposure?.shutter?.steps ?? USUAL_STEPS;
  const said = times.flatMap((time, i) => {
    const dial = dials[i];
    if (time === null) return [];
    return [dial === null || dial === undefined ? timeSaid(time) : dialSaid(dial, steps)];
  });
  const plain = said.every((each) => /^[\d./]+ s$/.test(each));
  return plain ? `${said.map((each) => each.replace(' s', '')).join(' · ')} s` : said.join(' · ');
}

/** What is set at the shutter: one time, or each of a bracket; empty where there is none. */
export const timesSaid = (station: Station, report: ExposureReport): string =>
  report.brackets_s.length > 1 ? bracketsSaid(station, report) : (timeToSet(station, report) ?? '');

/** What gives the light, as it is set: the times, or the flash; empty where nothing was worked out. */
export function lightSaid(station: Station, report: ExposureReport): string {
  const { flash } = report;
  if (!flash) return timesSaid(station, report);
  return flash.pops > 1
    ? `${flash.pops} pops at ${powerSaid(flash.power)}`
    : powerSaid(flash.power);
}

/** Whether one of the exposures is the metered one: of an even number none is. */
export const hasMiddle = (times: readonly unknown[]): boolean => times.length % 2 === 1;

/** The sensitivity that is used, as far as it is known. */
export const isoOf = ({ exposure }: Station): number | null =>
  exposure?.iso ?? exposure?.meter?.iso ?? null;

const settingsSaid = (station: Station): string => {
  const iso = isoOf(station);
  return `${fStop(station.aperture)}${iso === null ? '' : `, ISO ${trimmed(iso, 1)}`}`;
};

/** What to set, and whether anything stands against it. */
export function exposureVerdict(given: Station, report: ExposureReport): ExposureVerdict {
  const station = stationShot(given);
  const { problems, flash, brackets_s: brackets } = report;
  const stopped = problems.find(({ severity }) => severity === 'stop');
  const standing = stopped ? 'outside' : problems.length > 0 ? 'costs' : 'within';
  const first = stopped ?? problems[0];
  if (flash) {
    const words = lightSaid(station, report);
    return {
      standing,
      figure: fStop(station.aperture),
      words,
      sentence: `Flash: ${fStop(station.aperture)}, ${words}. ${first?.message ?? ''}`.trim(),
    };
  }
  const time = timeToSet(station, report);
  if (time === null) {
    if (!stopped) return NO_EXPOSURE;
    const [figure, words] =
      stopped.code === 'no_image'
        ? ['None', 'no image is formed']
        : ['No time', 'past the film’s table'];
    return { standing, figure, words, sentence: stopped.message };
  }
  const about = hasMiddle(brackets) ? '' : ' about it';
  const count = brackets.length > 1 ? `, ${brackets.length} exposures${about}` : '';
  return {
    standing,
    figure: time,
    words: count === '' ? settingsSaid(station) : `${fStop(station.aperture)}${count}`,
    sentence: `Give ${time} at ${settingsSaid(station)}${count}. ${first?.message ?? ''}`.trim(),
  };
}
