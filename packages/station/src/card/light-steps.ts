import { fixed, fStop, stops, trimmed } from '../words/format.js';
import { factorSaid, timeSaid } from '../words/times.js';
import { hasMiddle, isoOf, powerSaid, timesSaid, timeToSet } from '../exposure/verdict.js';
import type { ExposureReport } from '../exposure/report.js';
import type { Rests } from '../report/assumed.js';
import type { Station } from '../document/station.js';
import type { CardStep, Told } from './step.js';

/** What is metered and what is given. */

/** What the plan was metered from. */
function meteredSaid(planned: Station): string {
  const { meter, flash } = planned.exposure!;
  const iso = isoOf(planned);
  const fNumber = flash || meter?.time_s !== undefined ? meter?.f_number : undefined;
  const at = [
    fNumber === undefined ? '' : fStop(fNumber),
    iso === null ? '' : `ISO ${trimmed(iso, 1)}`,
  ].filter(Boolean);
  const what = flash ? 'a flash reading' : meter?.spots ? 'spots' : 'a reading';
  return `Planned from ${what}${at.length > 0 ? ` at ${at.join(', ')}` : ''}.`;
}

export function meterSteps({ planned, exposure }: Told): CardStep[] {
  if (!planned.exposure?.meter || !exposure) return [];
  if (planned.exposure.flash && !exposure.flash) return [];
  const { through_lens: lens } = planned.exposure.meter;
  return [
    {
      id: 'meter',
      part: 'meter',
      says: lens
        ? 'Meter now, lens straight and at zero: shifted, the meter reads wrong'
        : 'Meter again, in the light as it is now',
      detail: `${meteredSaid(planned)} If it reads otherwise, the ${planned.exposure.flash ? 'power' : 'time'} changes with it.`,
    },
  ];
}

const EXPOSED: readonly Rests[] = ['meter', 'dial', 'exposure'];

export function exposeSteps({ planned, exposure }: Told): CardStep[] {
  const set = planned.exposure;
  if (!set || !exposure) return [];
  const filters: CardStep[] = (set.filters ?? []).map(({ name, stops: takes }, i) => ({
    id: `filter ${i}`,
    part: 'expose',
    says: `Put on: ${name || `filter ${i + 1}`}`,
    detail: `Takes ${stops(takes)}, ${factorSaid(takes)} the time; it is in the time below.`,
  }));
  const iso = isoOf(planned);
  const at = iso === null ? '' : `ISO ${trimmed(iso, 1)}`;
  if (exposure.flash) {
    const { pops, power } = exposure.flash;
    return [
      ...filters,
      {
        id: 'flash',
        part: 'expose',
        says: pops > 1 ? `Fire the flash ${pops} times in the dark, each at` : 'Set the flash to',
        figure: powerSaid(power),
        ...(at ? { detail: `${at}.` } : {}),
        rests: EXPOSED,
      },
    ];
  }
  return [...filters, ...timeSteps(planned, exposure, at)];
}

/** Shorter than this nobody looks at a clock. */
const WORTH_S = 10;

function timeSteps(planned: Station, exposure: ExposureReport, at: string): CardStep[] {
  if (timeToSet(planned, exposure) === null) return [];
  const { brackets_s: times, brackets_dial_s: dials, off_stops: off } = exposure;
  const set = planned.exposure!;
  const byClock = times.some((time, i) => time !== null && dials[i] === null);
  const notes = [
    at,
    byClock
      ? `Past ${timeSaid(set.shutter!.slowest_s!)}, the shutter’s last step, by the clock`
      : '',
    off !== null && hasMiddle(times) && Math.abs(off) > 0.1
      ? `${fixed(Math.abs(off), 1)} stop ${off > 0 ? 'over' : 'under'}`
      : '',
    set.development ? `Develop ${set.development}` : '',
    set.starts_at && exposure.ends_at && (exposure.total_s ?? 0) >= WORTH_S
      ? `Opened at ${set.starts_at}, all is over at ${exposure.ends_at}`
      : '',
  ].filter(Boolean);
  const given = times.filter((time) => time !== null).length;
  return [
    {
      id: 'time',
      part: 'expose',
      says:
        given > 1
          ? `Expose ${given} times, ${stops(set.brackets?.step_stops ?? 0)} apart`
          : 'Expose',
      figure: timesSaid(planned, exposure),
      detail: `${notes.join('. ')}${notes.length > 0 ? '.' : ''}`,
      rests: EXPOSED,
    },
  ];
}
