import { degrees as deg, mm } from '../words/format.js';
import { distance, fixed, fStop, stops, trimmed, type Units } from '../words/format.js';
import { factorSaid } from '../words/times.js';
import { standardOf, standardSaid, moveSaid } from '../words/hands.js';
import { partTitle } from '../words/names.js';
import { mechanicsOf, turningOf, turningWords } from '../optical/turning.js';
import { leanWords } from '../focus/instructions.js';
import { shootingOrder } from '../mosaic/order.js';
import { ratioSaid } from '../exposure/draw.js';
import { bracketsSaid, isoOf, powerSaid, timeToSet } from '../exposure/verdict.js';
import type { ExposureReport } from '../exposure/report.js';
import type { Rests } from '../report/assumed.js';
import type { Station } from '../document/station.js';
import type { Looked } from './settle.js';
import { tapesOf } from './stand.js';

/** In the order things are done. */
export type CardPart =
  'stand' | 'rig' | 'level' | 'meter' | 'move' | 'focus' | 'stop' | 'expose' | 'frames' | 'look';

/** One thing to do, its figure large. */
export interface CardStep {
  readonly id: string;
  readonly part: CardPart;
  /** What is done, in the imperative. */
  readonly says: string;
  /** What is set, where it is a figure. */
  readonly figure?: string;
  readonly detail?: string;
  /** The frame of a mosaic it belongs to, counted from 0. */
  readonly frame?: number;
  /** What it rests on, where that may be assumed. */
  readonly rests?: readonly Rests[];
}

/** What the steps are written from. */
export interface Told {
  /** As the card has it carried out. */
  readonly station: Station;
  readonly report: Looked;
  /** As it was planned: what is exposed does not rest on how figures are printed. */
  readonly exposure: ExposureReport | null;
  readonly planned: Station;
  readonly units: Units;
}

export function standSteps({ station, units }: Told): CardStep[] {
  const { camera, stand } = station;
  const tapes = tapesOf(station);
  return [
    ...tapes.map(({ to, m }, i) => ({
      id: `stand ${i}`,
      part: 'stand' as const,
      says: `Tripod to ${to}`,
      figure: distance(m, units),
    })),
    {
      id: 'height',
      part: 'stand',
      says: 'Height of the sensor mark',
      figure: distance(camera.height_m, units),
    },
    ...(tapes.length === 0 && !stand?.note
      ? [
          {
            id: 'place',
            part: 'stand' as const,
            says: 'Nothing round it is measured: mark where the feet stand',
          },
        ]
      : []),
    ...(stand?.note
      ? [{ id: 'place', part: 'stand' as const, says: 'To find it again', detail: stand.note }]
      : []),
  ];
}

export function rigSteps({ station }: Told): CardStep[] {
  const { lens, chain, back } = station;
  const parts = [
    lens.name ?? `${trimmed(lens.focal_length_mm, 1)} mm`,
    ...chain.map(partTitle),
    back.name ?? `${trimmed(back.width_mm, 1)} × ${trimmed(back.height_mm, 1)} mm`,
  ];
  const ring = lens.filter?.name;
  const film = station.exposure?.film?.name;
  return [
    {
      id: 'rig',
      part: 'rig',
      says: parts.join(' + '),
      ...(ring ? { detail: `With ${ring}.` } : {}),
    },
    ...(film ? [{ id: 'film', part: 'rig' as const, says: `Film: ${film}` }] : []),
    {
      id: 'back',
      part: 'rig',
      says: 'Turn the back',
      figure: back.orientation === 'portrait' ? 'upright' : 'level',
    },
  ];
}

/** Less than this is level, or straight ahead. */
const SEEN = 0.05;

export function levelSteps({ station: { camera } }: Told): CardStep[] {
  const { pitch_deg: pitch, yaw_deg: yaw, level_offset_deg: off } = camera;
  const shows =
    off !== undefined && Math.abs(off) >= SEEN
      ? `Your level shows ${fixed(off, 1)}° when it stands true.`
      : undefined;
  return [
    ...(Math.abs(yaw) >= SEEN
      ? [
          {
            id: 'yaw',
            part: 'level' as const,
            says: `Turn the camera ${yaw > 0 ? 'right' : 'left'} of straight ahead`,
            figure: deg(Math.abs(yaw)),
          },
        ]
      : []),
    {
      id: 'level',
      part: 'level',
      says:
        Math.abs(pitch) < SEEN
          ? 'Level it on both axes'
          : `Level it from side to side, then tip it ${pitch > 0 ? 'up' : 'down'}`,
      figure: Math.abs(pitch) < SEEN ? '0°' : deg(Math.abs(pitch)),
      ...(shows ? { detail: shows } : {}),
      rests: ['level'],
    },
  ];
}

/** What the plan was metered from. */
function meteredSaid(planned: Station): string {
  const { meter, flash } = planned.exposure!;
  const iso = isoOf(planned);
  const at = [
    (flash || meter?.time_s !== undefined) && meter?.f_number !== undefined
      ? fStop(meter.f_number)
      : '',
    iso === null ? '' : `ISO ${trimmed(iso, 1)}`,
  ].filter(Boolean);
  const what = flash ? 'a flash reading' : meter?.spots ? 'spots' : 'a reading';
  return `Planned from ${what}${at.length > 0 ? ` at ${at.join(', ')}` : ''}.`;
}

export function meterSteps({ planned, exposure }: Told): CardStep[] {
  if (!planned.exposure?.meter || !exposure) return [];
  const { through_lens: lens } = planned.exposure.meter;
  return [
    {
      id: 'meter',
      part: 'meter',
      says: lens
        ? 'Meter now, lens straight and at zero: shifted, the meter reads wrong'
        : 'Meter again, in the light as it is now',
      detail: meteredSaid(planned),
    },
  ];
}

const part = (says: string): { says: string; figure?: string } => {
  const found = /^(.*?) (\d[\d.]*(?: mm|°))((?: \w+)?(?: \(\d+ clicks?\))?)\.?$/.exec(says);
  return found
    ? { says: `${found[1]!}${found[3]!}`, figure: found[2]! }
    : { says: says.replace(/\.$/, '') };
};

/** Angle, shift and lean of what turns, in the order they are set. */
function turnedFigure(station: Station): string {
  const { angleDeg, tiltAngleDeg, shiftMm, tiltDeg } = turningOf(station)!;
  const parts = [
    `${trimmed(angleDeg, 1)}°`,
    Math.abs(shiftMm) >= SEEN ? mm(Math.abs(shiftMm)) : '',
    tiltAngleDeg !== null && Math.abs(tiltDeg) >= SEEN
      ? `tilt at ${trimmed(tiltAngleDeg, 1)}°`
      : '',
    Math.abs(tiltDeg) >= SEEN ? deg(Math.abs(tiltDeg)) : '',
  ];
  return parts.filter(Boolean).join(' · ');
}

/** Rises, shifts and leans, each as the hand does it. */
export function moveSteps({ station }: Told): CardStep[] {
  if (station.held_off) return [];
  const step = (id: string, text: string): CardStep => ({ id, part: 'move', ...part(text) });
  const { movements: set } = station;
  const turns = turningWords(station);
  const made = mechanicsOf(station);
  const own = standardOf(station);
  const all = [
    [own, 'rise', made?.shift && turns ? 0 : set.rise_mm],
    [own, 'shift', made?.shift && turns ? 0 : set.shift_mm],
    ['back', 'rise', set.rear_rise_mm ?? 0],
    ['back', 'shift', set.rear_shift_mm ?? 0],
  ] as const;
  const shifted = station.mosaic
    ? []
    : all
        .filter(([, , value]) => Math.abs(value) >= SEEN)
        .map(([standard, way, value], i) =>
          step(`move ${i}`, moveSaid(station, standard, way, value)),
        );
  const turned: CardStep[] =
    turns === '' || (station.mosaic && made?.tilt !== true)
      ? []
      : [
          {
            id: 'turn',
            part: 'move',
            says: turns.replace(/\.$/, ''),
            figure: turnedFigure(station),
          },
        ];
  const leans = leanWords(station)
    .filter((each) => each !== turns && !each.startsWith('Leave'))
    .map((each, i) => step(`lean ${i}`, each));
  const none = [...shifted, ...turned, ...leans].length === 0 && !station.mosaic;
  return [
    ...shifted,
    ...turned,
    ...leans,
    ...(none
      ? [
          {
            id: 'straight',
            part: 'move' as const,
            says: `Leave ${standardSaid(station, 'front')} straight and at zero`,
          },
        ]
      : []),
  ];
}

/** The mark that falls crispest, which is what to focus on. */
function crispest({ station, report }: Told): number | null {
  const marks = report.marks ?? [];
  let best: number | null = null;
  marks.forEach(({ blur_um: blur }, i) => {
    if (station.marks![i]!.must !== 'sharp' || blur === null) return;
    if (best === null || blur < marks[best]!.blur_um! - 1e-6) best = i;
  });
  return best;
}

export function focusSteps(told: Told): CardStep[] {
  const { station, units, report } = told;
  const { focus, held_off: hand } = station;
  if (hand) {
    return [
      {
        id: 'gap',
        part: 'focus',
        says: 'Hold the lens off the body by',
        figure: mm(hand.gap_mm),
        detail: `Lean it ${deg(Math.abs(hand.lean_deg))}; shoot a burst.`,
      },
    ];
  }
  const figure =
    focus.magnification !== undefined
      ? `${String(focus.magnification)} ×`
      : focus.image_distance_mm !== undefined
        ? mm(focus.image_distance_mm)
        : distance(focus.distance_m ?? null, units);
  const says =
    focus.magnification !== undefined
      ? `Set the magnification (${ratioSaid(focus.magnification)})`
      : focus.image_distance_mm !== undefined
        ? 'Rack the bed to'
        : 'Focus at, from the film or sensor';
  const on = crispest(told);
  const mark = on === null ? null : station.marks![on]!;
  const name = on === null ? '' : mark!.label || `mark ${on + 1}`;
  return [
    {
      id: 'focus',
      part: 'focus',
      says,
      figure,
      ...(mark
        ? { detail: `${name} comes crispest there: look at it with the lens wide open.` }
        : {}),
      rests: ['sharpness'],
    },
    ...checkSteps(told, report, on),
  ];
}

/** What the other marks look like as the lens is stopped down. */
function checkSteps({ station }: Told, { marks = [] }: Looked, on: number | null): CardStep[] {
  const seen = marks.flatMap(({ f_number_needed: needed, label, holds }, i) => {
    const { must } = station.marks![i]!;
    if (i === on || must === 'free' || needed === null) return [];
    const name = label || `Mark ${i + 1}`;
    if (must === 'soft') return [`${name}: stays soft`];
    if (!holds) return [`${name}: not sharp at this stop`];
    return [
      needed <= station.lens.f_min
        ? `${name}: crisp wide open`
        : `${name}: comes in at f/${trimmed(needed, 1)}`,
    ];
  });
  return seen.length === 0
    ? []
    : [{ id: 'check', part: 'focus', says: 'Check', detail: `${seen.join('. ')}.` }];
}

export const stopSteps = ({ station, report }: Told): CardStep[] => {
  const acts = report.focus.effective_f_number;
  const acting = Math.abs(acts / station.aperture - 1) > 0.1;
  return [
    {
      id: 'stop',
      part: 'stop',
      says: station.lens.iris === 'none' ? 'It has no iris' : 'Stop down to',
      figure: fStop(station.aperture),
      ...(acting ? { detail: `It acts as f/${fixed(acts, acts < 9.95 ? 1 : 0)} there.` } : {}),
    },
  ];
};

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
  const time = timeToSet(planned, exposure);
  if (time === null) return [];
  const { brackets_s: times, off_stops: off, dial_s: dial } = exposure;
  const set = planned.exposure!;
  const notes = [
    at,
    dial === null ? 'By the clock: past the shutter’s last step' : '',
    off !== null && Math.abs(off) > 0.1
      ? `${fixed(Math.abs(off), 1)} stop ${off > 0 ? 'over' : 'under'}`
      : '',
    set.development ? `Develop ${set.development}` : '',
    set.starts_at && exposure.ends_at && (exposure.total_s ?? 0) >= WORTH_S
      ? `Opened at ${set.starts_at}, all is over at ${exposure.ends_at}`
      : '',
  ].filter(Boolean);
  return [
    {
      id: 'time',
      part: 'expose',
      says: times.length > 1 ? `Expose ${times.length} times, the middle one` : 'Expose',
      figure: time,
      detail: `${notes.join('. ')}${notes.length > 0 ? '.' : ''}`,
      rests: EXPOSED,
    },
    ...(times.length > 1
      ? [
          {
            id: 'brackets',
            part: 'expose' as const,
            says: `Bracket, ${stops(set.brackets?.step_stops ?? 0)} apart`,
            figure: bracketsSaid(planned, exposure),
          },
        ]
      : []),
  ];
}

/** Each frame of a mosaic, in order, with the first once more. */
export const frameSteps = ({ station }: Told): CardStep[] =>
  station.mosaic && !station.held_off
    ? shootingOrder(station).map(({ index, says, runUp, again }, i) => ({
        id: `frame ${i}`,
        part: 'frames' as const,
        ...(says.length === 1 ? part(says[0]!) : { says: says.join(' ') }),
        frame: index,
        detail: [again ? 'Once more, to see that nothing moved.' : '', runUp ?? '']
          .filter(Boolean)
          .join(' '),
      }))
    : [];

/** What to look at before leaving. */
export function lookSteps({ station, report }: Told): CardStep[] {
  const sharp = (station.marks ?? []).flatMap(({ must, label }, i) =>
    must === 'sharp' ? [label || `mark ${i + 1}`] : [],
  );
  const out = (report.marks ?? []).flatMap(({ in_frame: inside }, i) => (inside ? [] : [i]));
  return [
    ...(sharp.length > 0
      ? [
          {
            id: 'look',
            part: 'look' as const,
            says: 'Look at under the magnifier',
            detail: `${sharp.join(', ')}.`,
          },
        ]
      : []),
    ...(out.length > 0 && !station.mosaic
      ? [
          {
            id: 'out',
            part: 'look' as const,
            says: 'Outside the frame as planned',
            detail: `${out.map((i) => station.marks![i]!.label || `mark ${i + 1}`).join(', ')}.`,
          },
        ]
      : []),
    {
      id: 'corners',
      part: 'look',
      says: 'Look at all four corners, and at the side a window or the sun is on',
      detail: 'Shade the lens with a hand that stays out of the picture.',
    },
  ];
}
