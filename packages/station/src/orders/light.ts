import type { ExposureReport } from '../exposure/report.js';
import { hasMiddle, isoOf, powerSaid, timesSaid, timeToSet } from '../exposure/verdict.js';
import { USUAL_STEPS } from '../exposure/worked.js';
import type { Exposure, Station } from '../document/station.js';
import { cutText } from '../document/text.js';
import { fixed, stops, trimmed } from '../words/format.js';
import { dialSaid, factorSaid, timeSaid } from '../words/times.js';
import type { Rests } from '../words/assumptions.js';
import type { Order, Ordering, Setting } from './order.js';
import { releaseOrders } from './release.js';

/** What is put before the lens, what is set at the shutter or the flash, and how it is released. */

const EXPOSED: readonly Rests[] = ['meter', 'dial', 'exposure'];

export function lightOrders(told: Ordering): Order[] {
  const { planned, exposure } = told;
  const set = planned.exposure;
  if (!set || !exposure) return [];
  return [
    ...filterOrders(set),
    ...(exposure.flash ? flashOrders(planned, exposure) : timeOrders(planned, exposure)),
    ...releaseOrders(planned, exposure.flash ? [] : timesSet(planned, exposure)),
  ];
}

const filterOrders = ({ filters = [] }: Exposure): Order[] =>
  filters.map(({ name, stops: takes }, i) => ({
    id: `filter ${i}`,
    part: 'expose',
    says: `Put on: ${name || `filter ${i + 1}`}`,
    detail: `Takes ${stops(takes)}, ${factorSaid(takes)} the time; it is in the time below.`,
    short: `filter ${[cutText(name ?? '', 30), stops(takes)].filter(Boolean).join(' ')}`,
    sets: [{ control: { kind: 'filter', index: i }, to: takes, said: stops(takes), way: '' }],
  }));

const isoSetting = (iso: number): Setting => ({
  control: { kind: 'iso' },
  to: iso,
  said: `ISO ${trimmed(iso, 1)}`,
  way: '',
});

const isoSettings = (planned: Station): Setting[] => {
  const iso = isoOf(planned);
  return iso === null ? [] : [isoSetting(iso)];
};

/** The shutter with flash: its time adds nothing, but it has to be open for all of it. */
function syncOrder({ exposure }: Station): Order[] {
  const { shutter } = exposure!;
  if (!shutter) return [];
  const { sync_s: sync, kind, fastest_s: fastest, steps = USUAL_STEPS } = shutter;
  const shortest = sync ?? (kind === 'leaf' ? fastest : undefined);
  if (shortest === undefined) {
    return [
      {
        id: 'sync',
        part: 'expose',
        says: 'Set the shutter to its flash time',
        detail: 'The shortest time it takes with flash is not given: look at its own mark.',
        short: 'shutter at its flash time',
        sets: [],
      },
    ];
  }
  const said = dialSaid(shortest, steps);
  return [
    {
      id: 'sync',
      part: 'expose',
      says: 'Set the shutter to',
      figure: said,
      detail:
        'The shortest it takes with flash; a longer one lets in more of the room’s own light.',
      short: `shutter ${said}`,
      sets: [{ control: { kind: 'shutter' }, to: shortest, said, way: '' }],
    },
  ];
}

function flashOrders(planned: Station, exposure: ExposureReport): Order[] {
  const { pops, power } = exposure.flash!;
  const iso = isoSettings(planned);
  const figure = powerSaid(power);
  const short = pops > 1 ? `${pops} pops at ${figure}` : `flash ${figure}`;
  const open: Order[] =
    pops > 1
      ? [
          {
            id: 'sync',
            part: 'expose',
            says: 'In the dark hold the shutter open (B or T)',
            short: 'shutter open',
            sets: [],
          },
        ]
      : syncOrder(planned);
  return [
    ...open,
    {
      id: 'flash',
      part: 'expose',
      says: pops > 1 ? `Fire the flash ${pops} times in the dark, each at` : 'Set the flash to',
      figure,
      ...(iso.length > 0 ? { detail: `${iso[0]!.said}.` } : {}),
      short: [short, ...iso.map(({ said }) => said)].join(' '),
      rests: EXPOSED,
      sets: [
        ...Array.from({ length: pops }, (): Setting => ({
          control: { kind: 'flash' },
          to: power,
          said: figure,
          way: '',
        })),
        ...iso,
      ],
    },
  ];
}

/** Shorter than this nobody looks at a clock. */
const WORTH_S = 10;

/** Each exposure as it is set: by a step of the shutter, else by the clock. */
function timesSet(
  planned: Station,
  { brackets_s: times, brackets_dial_s: dials }: ExposureReport,
): Setting[] {
  const steps = planned.exposure?.shutter?.steps ?? USUAL_STEPS;
  return times.flatMap((time, i): Setting[] => {
    if (time === null) return [];
    const dial = dials[i] ?? null;
    return [
      {
        control: { kind: 'shutter' },
        to: dial ?? time,
        said: dial === null ? timeSaid(time) : dialSaid(dial, steps),
        way: '',
      },
    ];
  });
}

function timeOrders(planned: Station, exposure: ExposureReport): Order[] {
  if (timeToSet(planned, exposure) === null) return [];
  const { brackets_s: times, brackets_dial_s: dials, off_stops: off } = exposure;
  const set = planned.exposure!;
  const iso = isoSettings(planned);
  const byClock = times.some((time, i) => time !== null && dials[i] === null);
  const notes = [
    ...iso.map(({ said }) => said),
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
  const sets = timesSet(planned, exposure);
  const figure = timesSaid(planned, exposure);
  return [
    {
      id: 'time',
      part: 'expose',
      says:
        sets.length > 1
          ? `Expose ${sets.length} times, ${stops(set.brackets?.step_stops ?? 0)} apart`
          : 'Expose',
      figure,
      detail: `${notes.join('. ')}${notes.length > 0 ? '.' : ''}`,
      short: [`time ${figure}`, ...iso.map(({ said }) => said)].join(' '),
      rests: EXPOSED,
      sets: [...sets, ...iso],
    },
  ];
}
