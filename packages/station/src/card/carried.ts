import { meantFNumber } from '@gangway/optics';
import { parseStation } from '../document/parse.js';
import { REAR_MOVEMENTS } from '../document/movements.js';
import type { Focus, Station } from '../document/station.js';
import { movementsAt, turningOf } from '../optical/turning.js';
import { distance, fStop, type Units } from '../words/format.js';
import { rounded } from '../words/rounded.js';
import { parseDistanceM } from '../words/figures.js';

/**
 * What a hand sets when it does what the card says: every figure as it is printed. The card itself
 * is written from this, so that what it tells hangs together.
 */

/** A tenth of a millimetre and of a degree are what scales can be set to. */
export const DECIMALS = 1;

const tenth = (value: number): number => rounded(value, DECIMALS);

/** A distance as it is printed in these units, m. */
export function printedM(value: number, units: Units): number {
  const read = parseDistanceM(distance(value, units), 'm');
  return read.ok ? read.value : value;
}

/** A magnification is set to three figures. */
export const printedRatio = (value: number): number => Number(value.toPrecision(3));

/** A stop as it is printed, and what that stands for. */
export const printedStop = ({ aperture }: Pick<Station, 'aperture'>): number =>
  meantFNumber(Number(fStop(aperture).slice(2)));

function movementsOf(station: Station): Station['movements'] {
  const set = Object.fromEntries(
    Object.entries(station.movements).map(([name, value]) => [
      name,
      typeof value === 'number' ? tenth(value) : value,
    ]),
  ) as Station['movements'];
  const turning = turningOf(station);
  if (!turning) return set;
  const along = {
    ...turning,
    angleDeg: tenth(turning.angleDeg),
    tiltAngleDeg: turning.tiltAngleDeg === null ? null : tenth(turning.tiltAngleDeg),
    shiftMm: tenth(turning.shiftMm),
    tiltDeg: tenth(turning.tiltDeg),
  };
  const rear = Object.fromEntries(
    REAR_MOVEMENTS.flatMap((name) => (set[name] === undefined ? [] : [[name, set[name]]])),
  );
  return { ...movementsAt({ ...station, movements: set }, along), ...rear };
}

/** Outward steps that are tried where the printed figure lies a hair too near to be focused. */
const NUDGES = 12;

function focusOf({ focus }: Station, units: Units, nudge: number): Focus {
  if (focus.magnification !== undefined) {
    return { magnification: printedRatio(focus.magnification) };
  }
  if (focus.image_distance_mm !== undefined) {
    return { image_distance_mm: tenth(focus.image_distance_mm) + nudge / 10 };
  }
  if (focus.distance_m === null) return focus;
  const m = focus.distance_m;
  const step = units === 'feet' ? 0.0127 : m < 1 ? 0.001 : m < 10 ? 0.01 : m < 100 ? 0.1 : 1;
  return { distance_m: printedM(m + nudge * step, units) };
}

const known = new WeakMap<Station, Partial<Record<Units, Station>>>();

/**
 * A station as the card has it carried out; figures that do not allow it stay as they are. Worked
 * out once for a station: its steps, its text and its tag all begin with it.
 */
export function carried(station: Station, units: Units = 'metric'): Station {
  const before = known.get(station)?.[units];
  if (before) return before;
  const made = carriedAnew(station, units);
  known.set(station, { ...known.get(station), [units]: made });
  return made;
}

function carriedAnew(station: Station, units: Units): Station {
  const { camera } = station;
  const set: Station = {
    ...station,
    aperture: printedStop(station),
    movements: movementsOf(station),
    camera: {
      ...camera,
      height_m: printedM(camera.height_m, units),
      pitch_deg: tenth(camera.pitch_deg),
      yaw_deg: tenth(camera.yaw_deg),
    },
  };
  for (let nudge = 0; nudge <= NUDGES; nudge++) {
    const there = { ...set, focus: focusOf(station, units, nudge) };
    if (nudge === NUDGES || parseStation(there).ok) return there;
  }
  return set;
}
