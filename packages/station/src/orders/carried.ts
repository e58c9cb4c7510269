import { meantFNumber, tiltSwingOf, turnedAxis, turnedTiltOf } from '@gangway/optics';
import { parseStation } from '../document/parse.js';
import { REAR_MOVEMENTS } from '../document/movements.js';
import type { Station } from '../document/station.js';
import { stationShot } from '../optical/held.js';
import { setupOf } from '../optical/setup.js';
import { movementsAt, turningOf } from '../optical/turning.js';
import { distance, fStop, type Units } from '../words/format.js';
import { rounded } from '../words/rounded.js';
import { parseDistanceM } from '../words/figures.js';
import { focusAtReadings, printedReading, readingsOf, type FocusReading } from './focusing.js';

/**
 * What a hand sets when it does what it is told: every figure as it is printed. Orders are written
 * from this, so that what they tell hangs together.
 */

/** A tenth of a millimetre and of a degree are what scales can be set to. */
export const DECIMALS = 1;

const tenth = (value: number): number => rounded(value, DECIMALS);

/** A distance as it is printed in these units, m. */
export function printedM(value: number, units: Units): number {
  const read = parseDistanceM(distance(value, units), 'm');
  return read.ok ? read.value : value;
}

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

interface CarriedOut {
  readonly station: Station;
  /** What focuses, as it reads and is printed; empty for a lens in the hand. */
  readonly readings: readonly FocusReading[];
}

const known = new WeakMap<Station, Partial<Record<Units, CarriedOut>>>();

/** Worked out once for a station: its orders, its text and its tag all begin with it. */
function carriedOut(station: Station, units: Units): CarriedOut {
  const before = known.get(station)?.[units];
  if (before) return before;
  const made = carriedAnew(station, units);
  known.set(station, { ...known.get(station), [units]: made });
  return made;
}

/** A station as it is carried out; figures that do not allow it stay as they are. */
export const carried = (station: Station, units: Units = 'metric'): Station =>
  carriedOut(station, units).station;

/** What ring, bed and adapters read where it is carried out, as it is printed. */
export const carriedReadings = (station: Station, units: Units): readonly FocusReading[] =>
  carriedOut(station, units).readings;

/** A lens in the hand: the gap, and both turns of the body, as they are printed. */
function handOf({ held_off: hand }: Station): Partial<Station> {
  if (!hand) return {};
  const lean = tiltSwingOf(turnedAxis({ leanDeg: hand.lean_deg, turnDeg: hand.turn_deg ?? 0 }));
  const { leanDeg, turnDeg } = turnedTiltOf({
    tiltDeg: tenth(lean.tiltDeg),
    swingDeg: tenth(lean.swingDeg),
  });
  return {
    held_off: { ...hand, gap_mm: tenth(hand.gap_mm), lean_deg: leanDeg, turn_deg: turnDeg },
  };
}

function carriedAnew(planned: Station, units: Units): CarriedOut {
  const station = stationShot(planned);
  const { camera } = station;
  const set: Station = {
    ...station,
    ...handOf(station),
    // Held off, the lens opens as wide as it goes, whatever its figure.
    aperture: station.held_off ? station.aperture : printedStop(station),
    movements: movementsOf(station),
    camera: {
      ...camera,
      height_m: printedM(camera.height_m, units),
      pitch_deg: tenth(camera.pitch_deg),
      yaw_deg: tenth(camera.yaw_deg),
    },
  };
  if (station.held_off) return { station: set, readings: [] };
  // What is read is the plan’s: the lens leaned as it was reckoned, for a tenth of a degree of
  // rounding is no reason to set the ring elsewhere.
  const s = setupOf(station);
  const plan = readingsOf(s);
  const nudged = (by: number): CarriedOut => {
    const readings = plan.map((each) => printedReading(each, units, by));
    return { station: { ...set, focus: focusAtReadings(s, readings, set) }, readings };
  };
  for (let by = 0; by < NUDGES; by++) {
    const there = nudged(by);
    if (parseStation(there.station).ok) return there;
  }
  return nudged(NUDGES);
}
