import {
  degrees,
  distanceAt,
  engravedStops,
  radians,
  UPRIGHT,
  type Leaned,
  mostOf,
} from '@gangway/optics';
import { stopsOnScale } from '../optical/dots.js';
import { lockedLean } from '../optical/turning.js';
import { fixed, fStop, type Units } from '../words/format.js';
import type { Station } from '../document/station.js';
import { circleTable } from '../optical/measured.js';
import { bareFocus, leanLengthDeg, leanTurns, setupOf, shiftLengthMm } from '../optical/setup.js';
import { hasSecondStandard, leanedOf, stanceOfStation } from '../document/standards.js';
import type { Movement } from '../document/movements.js';
import { heldStop } from '../document/stop.js';
import { rounded } from '../words/rounded.js';
import { rigFacts } from '../optical/facts.js';
import { focusEnds } from '../optical/reach.js';
import {
  parseAngleDeg,
  parseDistanceM,
  parseFNumber,
  parseLengthMm,
  type Parsed,
} from '../words/figures.js';

/** The six scales of the barrel. One definition each; nothing else knows how they differ. */
export const CONTROL_IDS = ['rise', 'shift', 'aperture', 'tilt', 'swing', 'distance'] as const;
export type ControlId = (typeof CONTROL_IDS)[number];

export type Spacing = 'linear' | 'log';

export interface Control {
  readonly id: ControlId;
  readonly label: string;
  readonly key: string;
  /** JSON pointer of what it sets, for problems found there. */
  readonly pointer: string;
  readonly spacing: Spacing;
  readonly read: (station: Station) => number;
  /** May give a station that does not parse; the caller checks. */
  readonly write: (station: Station, value: number) => Station;
  readonly parse: (text: string, units: Units) => Parsed;
  /** Ends of the engraved scale; they depend on the rig only, so that scales stand still. */
  readonly domain: (station: Station) => readonly [number, number];
  /** What the mechanism allows. */
  readonly mechanism: (station: Station) => readonly [number, number];
  /** The value `size` detents further on; 0.1 is a tenth of one. */
  readonly step: (station: Station, direction: 1 | -1, size: number) => number;
  readonly zero: (station: Station) => number;
}

export const significant = (value: number, digits: number): number =>
  Number.isFinite(value) ? Number(value.toPrecision(digits)) : value;

/** The next of 1, 1.5, 2, 3, 5, 7 times a power of ten. */
function niceAbove(value: number): number {
  const power = 10 ** Math.floor(Math.log10(value));
  const lead = [1, 1.5, 2, 3, 5, 7, 10].find((n) => n * power >= value * (1 - 1e-9)) ?? 10;
  return rounded(lead * power, 6);
}

const UNBOUNDED = [-Infinity, Infinity] as const;

const FREE_TILT_DEG = 15;

const OTHER_OF: Record<Movement, Movement> = {
  rise_mm: 'shift_mm',
  shift_mm: 'rise_mm',
  tilt_deg: 'swing_deg',
  swing_deg: 'tilt_deg',
};

function movement(
  id: 'rise' | 'shift' | 'tilt' | 'swing',
  label: string,
  key: string,
  field: Movement,
  radial: 'radial_shift_mm' | 'radial_tilt_deg',
): Control {
  const linear = radial === 'radial_shift_mm';
  const read = (station: Station): number => station.movements[field];
  /** A turning mechanism has one length for both directions: what one uses, the other cannot. */
  const lengthLeft = (station: Station): number => {
    const { movement_limits: limits, movements } = station;
    const length = linear
      ? shiftLengthMm(station)
      : leanTurns(limits)
        ? leanLengthDeg(limits)
        : Infinity;
    if (length === Infinity) return Infinity;
    const other = movements[OTHER_OF[field]];
    const left = linear
      ? Math.sqrt(Math.max(0, length ** 2 - other ** 2))
      : degrees(Math.acos(Math.min(1, Math.cos(radians(length)) / Math.cos(radians(other)))));
    return Math.floor(left * 1e3) / 1e3;
  };
  return {
    id,
    label,
    key,
    pointer: `/movements/${field}`,
    spacing: 'linear',
    read,
    write: (station, value) => {
      const movements = { ...station.movements };
      movements[field] = settable(value);
      return { ...station, movements };
    },
    parse: linear ? (text) => parseLengthMm(text, 'mm') : (text) => parseAngleDeg(text),
    domain: (station) => {
      const { [field]: range, [radial]: length } = station.movement_limits;
      const largest = mostOf(circleTable(station.lens).map(({ diameterMm }) => diameterMm));
      const free = linear ? niceAbove(largest / 3) : FREE_TILT_DEG;
      const ends = [...(range ?? []), ...(length === undefined ? [] : [length])].map(Math.abs);
      // A movement the rig does not have still shows a scale, all of it past the mechanism.
      const longest = Math.max(0, ...ends);
      const end = longest > 0 ? niceAbove(longest * 1.2) : free;
      // A file may set more than the scale would show.
      const set = Math.abs(read(station));
      const shown = set > end ? niceAbove(set) : end;
      return [-shown, shown];
    },
    mechanism: (station) => {
      // The range of a lean that is turned runs along its own line, not along tilt or swing.
      const turns = !linear && leanTurns(station.movement_limits);
      const [least, most] = (turns ? undefined : station.movement_limits[field]) ?? UNBOUNDED;
      const left = lengthLeft(station);
      // Set against the lock by a file, it may still be taken back.
      if (lockedLean(station) === field && read(station) === 0) return [0, 0];
      return [Math.max(least, -left), Math.min(most, left)];
    },
    step: (station, direction, size) => {
      const dots = linear ? stopsOnScale(station, id as 'rise' | 'shift') : [];
      if (dots.length > 0) {
        const now = read(station);
        const next =
          direction > 0
            ? dots.find((mm) => mm > now + 1e-3)
            : dots.findLast((mm) => mm < now - 1e-3);
        return next ?? now;
      }
      const { detent_mm, detent_deg } = station.movement_limits;
      const detent = (linear ? detent_mm : detent_deg) ?? 0;
      return rounded(read(station) + direction * size * (detent > 0 ? detent : 0.5), 3);
    },
    zero: () => 0,
  };
}

/** What a rise, a shift, a tilt or a swing can be set to: to thousandths. */
export const settable = (value: number): number => rounded(value, 3);

/** What a stop can be set to. */
export const settableStop = (fNumber: number): number => rounded(fNumber, 2);

const aperture: Control = {
  id: 'aperture',
  label: 'Aperture',
  key: 'A',
  pointer: '/aperture',
  spacing: 'log',
  read: (station) => station.aperture,
  write: (station, value) => ({ ...station, aperture: settableStop(value) }),
  parse: (text) => parseFNumber(text),
  domain: ({ lens }) => [lens.f_min, lens.f_max > lens.f_min ? lens.f_max : lens.f_min * 1.1],
  mechanism: ({ lens }) => [lens.f_min, lens.f_max],
  step: ({ lens, aperture: now }, direction, size) => {
    const clamp = (n: number): number => heldStop(lens, n);
    if (size < 1) return clamp(rounded(now * 2 ** ((direction * size) / 6), 2));
    const detents = engravedStops(lens.f_min, lens.f_max, size > 1 ? 'whole' : 'third');
    const next =
      direction > 0
        ? detents.find((n) => n > now * 1.001)
        : detents.findLast((n) => n < now / 1.001);
    return next ?? clamp(direction > 0 ? lens.f_max : lens.f_min);
  },
  // A stop has no zero; wide open is where focusing is done.
  zero: ({ lens }) => lens.f_min,
};

/** Past this the distance scale ends in infinity, m. */
export const farEndM = (station: Station): number =>
  niceAbove(Math.max(50, station.lens.focal_length_mm / 2));

const endsM = (station: Station, leaned: Leaned): [number, number] => {
  const { nearMm, farMm } = focusEnds(rigFacts(station), leaned);
  return [nearMm / 1000, farMm / 1000];
};

export function focusDistanceM(station: Station): number {
  if (station.focus.distance_m !== undefined) return station.focus.distance_m ?? Infinity;
  const s = setupOf(station);
  const { focalLengthMm, imageDistanceMm } = bareFocus(s);
  return distanceAt(focalLengthMm, s.axis[2], imageDistanceMm) / 1000;
}

const distance: Control = {
  id: 'distance',
  label: 'Distance',
  key: 'D',
  pointer: '/focus/distance_m',
  spacing: 'log',
  read: focusDistanceM,
  write: (station, value) => ({
    ...station,
    focus: { distance_m: Number.isFinite(value) ? value : null },
  }),
  parse: (text, units) => parseDistanceM(text, units === 'feet' ? 'ft' : 'm'),
  domain: (station) => [endsM(station, UPRIGHT)[0], Infinity],
  mechanism: (station) => endsM(station, leanedOf(stanceOfStation(station))),
  step: (station, direction, size) => {
    const now = focusDistanceM(station);
    const far = farEndM(station);
    const [least, most] = endsM(station, leanedOf(stanceOfStation(station)));
    if (direction > 0 && now >= most) return now;
    if (now === Infinity) return far;
    const next = significant(now * 1.02 ** (direction * size), size < 1 ? 5 : 3);
    if (next > most) return Math.floor(most * 1e4) / 1e4;
    if (next > far) return direction > 0 ? Infinity : far;
    return Math.max(next, Math.ceil(least * 1e4) / 1e4);
  },
  zero: () => Infinity,
};

export const CONTROLS: Record<ControlId, Control> = {
  rise: movement('rise', 'Rise', 'R', 'rise_mm', 'radial_shift_mm'),
  shift: movement('shift', 'Shift', 'S', 'shift_mm', 'radial_shift_mm'),
  aperture,
  tilt: movement('tilt', 'Tilt', 'T', 'tilt_deg', 'radial_tilt_deg'),
  swing: movement('swing', 'Swing', 'W', 'swing_deg', 'radial_tilt_deg'),
  distance,
};

/** Why a value cannot be set, or null. The mechanism is asked first, in its own words. */
export function refusal(control: Control, station: Station, value: number): string | null {
  const [least, most] = control.mechanism(station);
  const slack = 1e-9 * Math.max(1, Math.abs(value));
  if (value >= least - slack && value <= most + slack) return null;
  if (control.id === 'aperture') return `This lens opens from ${fStop(least)} to ${fStop(most)}.`;
  if (control.id === 'distance') {
    const far = Number.isFinite(most) ? `${significant(most, 4)} m on this rig` : 'infinity';
    return `This lens focuses from ${significant(least, 4)} m to ${far}; for nearer give the magnification.`;
  }
  if (control.pointer === `/movements/${lockedLean(station)}` && least === most) {
    return `Shift and tilt are locked to each other on this lens: as it is shifted, ${control.label.toLowerCase()} stays at 0.`;
  }
  const unit = control.id === 'rise' || control.id === 'shift' ? ' mm' : '°';
  return `${control.label} goes from ${fixed(least, 1)} to ${fixed(most, 1)}${unit} on this rig.`;
}

/**
 * Which standard a scale moves: told where the camera moves its back too, or instead. Null where
 * nobody would ask.
 */
export function standardMoved(station: Station, id: ControlId): 'front' | 'back' | null {
  const { movement_limits: limits } = station;
  if (id === 'rise' || id === 'shift') {
    if (limits.moves === 'rear') return 'back';
    return hasSecondStandard(station) ? 'front' : null;
  }
  if (id === 'tilt' || id === 'swing') {
    const rear = id === 'tilt' ? limits.rear_tilt_deg : limits.rear_swing_deg;
    return rear === undefined ? null : 'front';
  }
  return null;
}
