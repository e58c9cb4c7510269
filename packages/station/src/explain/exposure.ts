import type { Station } from '../document/station.js';
import { measuredOf } from '../optical/measured.js';
import { lightOf, meteredFNumber, reciprocityOf } from '../exposure/light.js';
import { exposureReport } from '../exposure/report.js';
import { bracketsSaid, powerSaid, timeToSet } from '../exposure/verdict.js';
import type { Exposure } from '../document/station.js';
import { fixed, fStop, stops, trimmed } from '../words/format.js';
import { timeSaid } from '../words/times.js';
import type { Asked, Why } from './why.js';

/** Why each figure of an exposure is what it is. */

const number = (symbol: string, meaning: string, value: string) => ({ symbol, meaning, value });
const said = (value: number | null, how: (value: number) => string): string =>
  value === null ? '—' : how(value);
const two = (value: number): string => `${fixed(value, 2)} stops`;

const exposureOf = ({ station }: Asked): Exposure => station.exposure ?? {};

function time(asked: Asked): Why {
  const { station } = asked;
  const exposure = exposureOf(asked);
  const light = lightOf(station, exposure);
  const report = exposureReport(station, exposure);
  return {
    title: 'From the meter to the shutter',
    result: timeToSet(station, report) ?? 'no time',
    words:
      'The metered time, taken to this aperture and sensitivity, and doubled for each stop that is added. A meter that looks through the lens has seen bellows and converters already; one in the hand has not. Filters count for both, unless you metered through them: then leave them out here.',
    formula: 't = t₀ · (N / N₀)² · (S₀ / S) · 2^added',
    numbers: [
      number('t₀', 'metered', said(light.meteredS, timeSaid)),
      number(
        'N₀, N',
        'metered and set',
        `${fStop(meteredFNumber(station))}, ${fStop(station.aperture)}`,
      ),
      number('S₀ / S', 'sensitivity', two(light.isoStops)),
      number('', 'filters', two(light.filterStops)),
      number(
        '2 log₂(1 + m/p)',
        'bellows',
        light.bellowsStops === null ? '–' : two(light.bellowsStops),
      ),
      number('2 log₂ M', 'converter or reducer', two(light.multiplierStops)),
      number('added', 'of these, added', two(light.addedStops)),
      number('', 'compensation', two(light.compensationStops)),
      number('t', 'before the film’s answer', said(report.time_s, timeSaid)),
      number('', 'nearest step off by', said(report.off_stops, two)),
    ],
    source: 'Ray, Applied Photographic Optics, 3rd ed. (2002); EV by ISO 2720.',
    rests: ['meter', 'dial', 'exposure'],
  };
}

function film(asked: Asked): Why {
  const exposure = exposureOf(asked);
  const report = exposureReport(asked.station, exposure);
  const known = reciprocityOf(exposure);
  const byTable = known !== undefined && 'table' in known;
  return {
    title: 'What the film makes of it',
    result: said(report.given_s, timeSaid),
    words: byTable
      ? 'The table as it was given; between its entries straight in logarithms, before the first as metered. Past its end nobody knows, and nothing is told.'
      : known
        ? 'As metered up to a time; past it the film answers less and less, by a power.'
        : 'Nothing is said of how the film answers to long times; the time is given as metered.',
    formula: byTable ? 'log t′ straight between entries' : 't′ = t₁ · (t / t₁)^p',
    numbers: [
      number('t', 'before', said(report.time_s, timeSaid)),
      ...(known && 'exponent' in known
        ? [
            number('p', 'exponent', trimmed(known.exponent, 3)),
            number('t₁', 'past', timeSaid(known.from_s)),
          ]
        : []),
      ...(byTable ? [number('', 'table ends at', timeSaid(known.table.at(-1)!.metered_s))] : []),
      number('t′', 'to give', said(report.given_s, timeSaid)),
    ],
    source: 'The power law in use since Schwarzschild (1900); exponent and table as you gave them.',
    rests: [],
  };
}

function brackets(asked: Asked): Why {
  const exposure = exposureOf(asked);
  const report = exposureReport(asked.station, exposure);
  const { frames = 1, step_stops: step = 0 } = exposure.brackets ?? {};
  return {
    title: 'What the bracket holds',
    result: said(report.span_stops, stops),
    words:
      'The range that one exposure holds, and one step more for each further one. Each is reckoned from the metered time and has the film’s answer of its own.',
    formula: 'range + (n − 1) · step',
    numbers: [
      number('', 'one exposure holds', said(exposure.medium_range_stops ?? null, stops)),
      number('n', 'exposures', String(frames)),
      number('', 'step', stops(step)),
      number('', 'the scene', said(report.scene_range_stops, stops)),
      number(
        '',
        'times',
        report.brackets_s.length === 0 ? '—' : bracketsSaid(asked.station, report),
      ),
    ],
    source: 'Counted; a stop and two thirds apart is common practice, no source.',
    rests: [],
  };
}

/** What light falls off by; natural falloff no stop cures. */
const fallSaid = ({ lens }: Station): string =>
  measuredOf(lens)?.falloff ? 'Measured falloff' : 'Natural falloff, which no stop cures,';

function corner(asked: Asked): Why {
  const report = exposureReport(asked.station, exposureOf(asked));
  return {
    title: 'Light lost in the darkest corner',
    result: said(report.corner_stops, two),
    words: `${fallSaid(asked.station)} where the frame stands now. It is not added to the time: a centre filter evens it out, or a longer exposure merged in at the corner.`,
    formula: 'log₂ of cos β · cos³ γ',
    numbers: [],
    source:
      'Ray, Applied Photographic Optics, 3rd ed. (2002); the leaned form by summing over the stop.',
    rests: ['exposure', 'light'],
  };
}

function flash(asked: Asked): Why {
  const exposure = exposureOf(asked);
  const report = exposureReport(asked.station, exposure);
  const light = lightOf(asked.station, exposure);
  return {
    title: 'What the flash has to give',
    result: report.flash ? `${report.flash.pops} × ${powerSaid(report.flash.power)}` : '—',
    words:
      'A flash is over before the shutter closes: time does nothing to it. Light is made up by aperture, by power, or by firing it several times in the dark.',
    formula: 'power = metered power · (N / N₀)² · (S₀ / S) · 2^added;  pops = power, rounded up',
    numbers: [
      number(
        'N₀, N',
        'read and set',
        `${fStop(meteredFNumber(asked.station))}, ${fStop(asked.station.aperture)}`,
      ),
      number('added', 'filters, bellows, converter', two(light.addedStops)),
      number(
        '',
        'stop for one pop as metered',
        said(report.flash?.f_number ?? null, (n) => `f/${trimmed(n, 1)}`),
      ),
    ],
    source: 'Ray, Applied Photographic Optics, 3rd ed. (2002).',
    rests: ['meter', 'exposure'],
  };
}

export const EXPOSURE_REASONS = {
  exposureTime: time,
  exposureFilm: film,
  exposureBrackets: brackets,
  exposureCorner: corner,
  exposureFlash: flash,
};
