import { ENGRAVED } from '@gangway/optics';
import { degrees as deg, distance, fixed, fStop, mm, trimmed } from '../words/format.js';
import { standardOf, standardSaid, moveSaid } from '../words/hands.js';
import { mechanicsOf, turningOf, turningWords } from '../optical/turning.js';
import { heldLeanSaid } from '../focus/held-off-answer.js';
import { leanWords } from '../focus/instructions.js';
import { shootingOrder } from '../mosaic/order.js';
import { ratioSaid } from '../exposure/draw.js';
import type { Station } from '../document/station.js';
import type { Looked } from './settle.js';
import { SEEN, type CardStep, type Told } from './step.js';

/** What is moved, focused and stopped down, and the frames that are shot with it. */

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
    ...zeroSteps(station),
  ];
}

const WAYS = { tilt_deg: ['forward', 'back'], swing_deg: ['right', 'left'] } as const;
const SCALES = { tilt_deg: 'tilt', swing_deg: 'swing' } as const;

/** A reading of a scale with its way: “0.3° back”. */
const readingSaid = (value: number, [plus, minus]: readonly [string, string]): string =>
  Math.abs(value) < SEEN ? '0°' : `${deg(Math.abs(value))} ${value > 0 ? plus : minus}`;

/** A scale whose zero is off, as it was measured: what to set on it. */
function zeroSteps({ movements, movement_limits: { zero } }: Told['station']): CardStep[] {
  return (['tilt_deg', 'swing_deg'] as const).flatMap((lean): CardStep[] => {
    const off = zero?.[lean] ?? 0;
    if (Math.abs(off) < SEEN) return [];
    const [want, ways] = [movements[lean], WAYS[lean]];
    return [
      {
        id: `zero ${lean}`,
        part: 'move',
        says: `On the ${SCALES[lean]} scale this reads`,
        figure: readingSaid(want + off, ways),
        detail: `Its true zero is at ${readingSaid(off, ways)}, as measured.`,
      },
    ];
  });
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
        detail: `Ring to infinity. ${heldLeanSaid(hand.lean_deg, hand.turn_deg)} Rock a little, and shoot bursts.`,
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
        : 'Focus at, measured straight ahead from the film or sensor';
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

/** Nothing is turned where the stop is the widest there is. */
const openedWide = ({ aperture, lens }: Station): boolean =>
  aperture <= lens.f_min * (1 + ENGRAVED);

export const stopSteps = ({ station, report }: Told): CardStep[] => {
  const acts = report.focus.effective_f_number;
  const acting = acts !== null && Math.abs(acts / station.aperture - 1) > 0.1;
  const says =
    station.lens.iris === 'none'
      ? 'It has no iris'
      : openedWide(station)
        ? 'Leave it wide open'
        : 'Stop down to';
  return [
    {
      id: 'stop',
      part: 'stop',
      says,
      figure: fStop(station.aperture),
      ...(acting ? { detail: `It acts as f/${fixed(acts, acts < 9.95 ? 1 : 0)} there.` } : {}),
    },
  ];
};

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
