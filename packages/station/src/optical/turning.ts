import {
  degrees as toDegrees,
  radians,
  tiltSwingOf,
  turnedAxis,
  turnedTiltOf,
} from '@gangway/optics';
import type { Station } from '../document/station.js';
import { degrees, mm, trimmed } from '../words/format.js';
import { standardOf } from '../words/hands.js';
import { rounded } from '../words/rounded.js';
import { leanLengthDeg, leanTurns, shiftLengthMm } from './setup.js';
import { movementCarrier } from '../document/focusing.js';

/**
 * A lens or adapter that turns: what to set on it for the movements of a station. Angles are
 * clockwise as seen from behind; at 0 a shift goes up and a lean forward. Locked in line, shift and
 * lean share the angle; locked crossed, the lean lies a quarter turn further on.
 */
export interface Turning {
  readonly angleDeg: number;
  /** Where shift and tilt turn apart: the angle of the lean. */
  readonly tiltAngleDeg: number | null;
  /** Along the angle; negative: the other way. */
  readonly shiftMm: number;
  readonly tiltDeg: number;
  /** Rise, shift, tilt and swing are had to a tenth of a millimetre and of a degree. */
  readonly reached: boolean;
  /** By how much they are missed. */
  readonly offMm: number;
  readonly offDeg: number;
}

/** What turns, and how it is built. */
export interface Mechanics {
  readonly shift: boolean;
  readonly tilt: boolean;
  /** Angle of the lean beyond that of the shift; null where they turn apart. */
  readonly apartDeg: number | null;
  readonly stops: readonly number[];
  readonly mostMm: number;
  readonly leastDeg: number;
  readonly mostDeg: number;
}

/** Null where nothing turns. */
export function mechanicsOf(station: Station): Mechanics | null {
  const { movement_limits: limits } = station;
  const stops = limits.turn_stops_deg ?? [];
  const lock = limits.shift_tilt;
  const locked = lock === 'in_line' || lock === 'crossed';
  const radial = limits.radial_shift_mm !== undefined;
  const leans = leanTurns(limits);
  if (!locked && lock === undefined && !radial && !leans && stops.length === 0) return null;
  // Nothing says which of the two turns: both do.
  const both = locked || (!radial && !leans);
  const mostDeg = leanLengthDeg(limits);
  return {
    shift: both || radial,
    tilt: both || leans,
    apartDeg: locked ? (lock === 'in_line' ? 0 : 90) : null,
    stops,
    mostMm: shiftLengthMm(station),
    leastDeg: limits.one_way_tilt ? 0 : -mostDeg,
    mostDeg,
  };
}

const round360 = (deg: number): number => {
  const turned = ((deg % 360) + 360) % 360;
  return turned > 360 - 1e-9 ? 0 : turned;
};

const held = (value: number, least: number, most: number): number =>
  Math.min(most, Math.max(least, value));

/** What is had along one angle of what is wanted. */
interface Had {
  readonly along: number;
  readonly off: number;
}

function shiftAlong({ mostMm }: Mechanics, [x, y]: readonly [number, number], deg: number): Had {
  const [dx, dy] = [Math.sin(radians(deg)), Math.cos(radians(deg))];
  const along = held(x * dx + y * dy, -mostMm, mostMm);
  return { along, off: Math.hypot(x - along * dx, y - along * dy) };
}

function leanAlong(
  { leastDeg, mostDeg }: Mechanics,
  wanted: { readonly leanDeg: number; readonly turnDeg: number },
  deg: number,
): Had {
  const lean = toDegrees(
    Math.atan(Math.tan(radians(wanted.leanDeg)) * Math.cos(radians(wanted.turnDeg - deg))),
  );
  const along = held(lean, leastDeg, mostDeg);
  const [a, b] = [turnedAxis(wanted), turnedAxis({ leanDeg: along, turnDeg: deg })];
  const apart = Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]);
  return { along, off: toDegrees(2 * Math.asin(Math.min(1, apart / 2))) };
}

const TENTH = 0.1 + 1e-9;

const NO_PART: Had = { along: 0, off: 0 };

/**
 * What to set on what turns, turned to given angles: as much of the movements as they give.
 * @param tiltAngleDeg where shift and tilt turn apart, else null
 */
export function turningAt(
  station: Station,
  angleDeg: number,
  tiltAngleDeg: number | null,
): Turning {
  const made = mechanicsOf(station)!;
  const [mmHad, degHad] = hadAt(station, made, angleDeg, tiltAngleDeg);
  return {
    angleDeg: round360(angleDeg) + 0,
    tiltAngleDeg: tiltAngleDeg === null ? null : round360(tiltAngleDeg) + 0,
    shiftMm: mmHad.along + 0,
    tiltDeg: degHad.along + 0,
    reached: mmHad.off <= TENTH && degHad.off <= TENTH,
    offMm: mmHad.off,
    offDeg: degHad.off,
  };
}

/** Shift and lean that are had at given angles. */
function hadAt(
  { movements: set }: Station,
  made: Mechanics,
  angleDeg: number,
  tiltAngleDeg: number | null,
): readonly [Had, Had] {
  const lean = turnedTiltOf({ tiltDeg: set.tilt_deg, swingDeg: set.swing_deg });
  const leanAt = tiltAngleDeg ?? angleDeg + (made.apartDeg ?? 0);
  return [
    made.shift ? shiftAlong(made, [set.shift_mm, set.rise_mm], angleDeg) : NO_PART,
    made.tilt ? leanAlong(made, lean, leanAt) : NO_PART,
  ];
}

/** What to set on what turns for the movements as they are set; null where nothing turns. */
export function turningOf(station: Station): Turning | null {
  const made = mechanicsOf(station);
  if (!made) return null;
  const { movements: set } = station;
  const shift = [set.shift_mm, set.rise_mm] as const;
  const lean = turnedTiltOf({ tiltDeg: set.tilt_deg, swingDeg: set.swing_deg });
  const shiftDeg = toDegrees(Math.atan2(...shift));
  /** The angle, of those there are, at which least is missed; a movement forwards goes before one back. */
  const nearest = (
    angles: readonly number[],
    tries: (deg: number) => readonly [Had, Had],
  ): number => {
    const score = (deg: number): number => {
      const [a, b] = tries(deg);
      return Math.hypot(a.off, b.off) + (a.along < 0 ? 1e-7 : 0) + (b.along < 0 ? 1e-8 : 0);
    };
    return angles.reduce((best, deg) => (score(deg) < score(best) - 1e-9 ? deg : best));
  };
  const open = (angles: readonly number[]): readonly number[] =>
    made.stops.length > 0 ? made.stops : angles.flatMap((deg) => [deg, deg + 180]);
  const { apartDeg } = made;
  if (apartDeg === null) {
    const a = nearest(open([shiftDeg]), (deg) => [hadAt(station, made, deg, 0)[0], NO_PART]);
    const b = nearest(open([lean.turnDeg]), (deg) => [NO_PART, hadAt(station, made, 0, deg)[1]]);
    if (made.shift && made.tilt) return turningAt(station, a, b);
    return turningAt(station, made.shift ? a : b, null);
  }
  const between = principal([
    [Math.hypot(...shift), shiftDeg],
    [lean.leanDeg, lean.turnDeg - apartDeg],
  ]);
  const at = nearest(open([between, shiftDeg, lean.turnDeg - apartDeg]), (deg) =>
    hadAt(station, made, deg, null),
  );
  return turningAt(station, at, null);
}

/** The direction that lies nearest to several lines at once, each weighed by its length. */
function principal(lines: readonly (readonly [number, number])[]): number {
  const sum = (of: (deg: number) => number): number =>
    lines.reduce((all, [length, deg]) => all + length ** 2 * of(2 * radians(deg)), 0);
  return toDegrees(Math.atan2(sum(Math.sin), sum(Math.cos))) / 2;
}

/** The movements that a turn, a shift along it and a lean along it give. */
export function movementsAt(
  station: Station,
  { angleDeg, tiltAngleDeg, shiftMm, tiltDeg }: Turning,
): Pick<Station['movements'], 'rise_mm' | 'shift_mm' | 'tilt_deg' | 'swing_deg'> {
  const made = mechanicsOf(station);
  const { rise_mm, shift_mm, tilt_deg, swing_deg } = station.movements;
  const a = radians(angleDeg);
  const lean = tiltSwingOf(
    turnedAxis({ leanDeg: tiltDeg, turnDeg: tiltAngleDeg ?? angleDeg + (made?.apartDeg ?? 0) }),
  );
  return {
    ...(made?.shift
      ? { rise_mm: rounded(shiftMm * Math.cos(a), 2), shift_mm: rounded(shiftMm * Math.sin(a), 2) }
      : { rise_mm, shift_mm }),
    ...(made?.tilt
      ? { tilt_deg: rounded(lean.tiltDeg, 3), swing_deg: rounded(lean.swingDeg, 3) }
      : { tilt_deg, swing_deg }),
  };
}

/** The same movements brought to what the lens, turned to its nearest stop, can give. */
export function ontoStop(station: Station): Station {
  const turning = turningOf(station);
  if (!turning || turning.reached) return station;
  return { ...station, movements: { ...station.movements, ...movementsAt(station, turning) } };
}

/**
 * Whether a hand can set what a change leads to: a lens that turns has it at one angle, unless it
 * did not have the movements before either.
 */
export const asSettable = (after: Station, before: Station): boolean =>
  (turningOf(after)?.reached ?? true) || !(turningOf(before)?.reached ?? true);

const compass = (deg: number, names: readonly [string, string, string, string]): string => {
  const at = Math.round(round360(deg) / 45) % 8;
  const first = names[at >> 1]!;
  if (at % 2 === 0) return first;
  // Up and down, forward and back go before the sides.
  const [a, b] = [first, names[((at >> 1) + 1) % 4]!];
  return (at >> 1) % 2 === 0 ? `${a} and ${b}` : `${b} and ${a}`;
};

const SHIFTED = ['up', 'to the right', 'down', 'to the left'] as const;
const LEANED = ['forward', 'to the left', 'back', 'to the right'] as const;

/** What turns, by the name of its kind. */
export const turningPart = (station: Station): 'the back' | 'the lens' | 'the adapter' =>
  standardOf(station) === 'back'
    ? 'the back'
    : movementCarrier(station.chain) < 0
      ? 'the lens'
      : 'the adapter';

/** Which way a shift along its angle goes, as the hand goes: the picture looks higher as the back goes down. */
export const shiftWaySaid = (station: Station, { angleDeg, shiftMm }: Turning): string =>
  compass(angleDeg + (shiftMm < 0 !== (standardOf(station) === 'back') ? 180 : 0), SHIFTED);

/** Which way a lean along its angle goes. */
export function leanWaySaid(
  station: Station,
  { angleDeg, tiltAngleDeg, tiltDeg }: Turning,
): string {
  const at = tiltAngleDeg ?? angleDeg + (mechanicsOf(station)?.apartDeg ?? 0);
  return compass(at + (tiltDeg < 0 ? 180 : 0), LEANED);
}

/** What no angle gives; empty where all is had. */
export function missedWords(
  { reached, offMm, offDeg, angleDeg }: Turning,
  made: Mechanics,
): string {
  if (reached) return '';
  const off = [offMm > TENTH && mm(offMm), offDeg > TENTH && degrees(offDeg)].filter(Boolean);
  const what = made.stops.length > 0 ? 'No stop gives' : 'No angle gives';
  return `${what} all that is set: ${trimmed(round360(angleDeg), 1)}° comes nearest, ${off.join(' and ')} off.`;
}

/** The axis a locked lens cannot lean about, given how it is shifted; none when it is free. */
export function lockedLean(station: Station): 'tilt_deg' | 'swing_deg' | null {
  const { movements: set, movement_limits: limits } = station;
  const lock = limits.shift_tilt;
  if (lock !== 'in_line' && lock !== 'crossed') return null;
  const [up, across] = [set.rise_mm !== 0, set.shift_mm !== 0];
  if (up === across) return null;
  return (lock === 'in_line') === up ? 'swing_deg' : 'tilt_deg';
}
