import { setupOf } from '../optical/setup.js';
import {
  radians,
  toPicture,
  toSet,
  type Placing,
  type Point,
  type SetMovement,
} from '@gangway/optics';
import { hasSecondStandard } from '../document/standards.js';
import type { Mosaic, Station } from '../document/station.js';
import { dotsOf } from '../optical/dots.js';
import { mechanicsOf } from '../optical/turning.js';
import { mechanism, UNBOUNDED, type Setup } from '../optical/setup.js';

type Range = readonly [number, number];

/** A place at which a sliding or turning back stops by itself, in movements to set. */
export interface FrameStop extends SetMovement {
  readonly rotationDeg: number;
}

/** What takes the frames from one place to the next, and what it can do; lengths as set on it. */
export interface Carrier {
  readonly standard: 'front' | 'back';
  /** Where its movements stand in the document. */
  readonly fields: readonly ['rise_mm' | 'rear_rise_mm', 'shift_mm' | 'rear_shift_mm'];
  readonly rise: Range;
  readonly shift: Range;
  /** Greatest length of rise and shift together. */
  readonly radialMm: number;
  readonly detentMm: number | null;
  /** Whether it is turned to move another way, and at which angles it stops; none listed: at any. */
  readonly turns: boolean;
  readonly turnStopsDeg: readonly number[];
  /** Of a sliding or turning back; it reaches them, and nothing else. */
  readonly stops: readonly FrameStop[] | null;
  /** Where what is set puts the middle of the whole back, mm on it. */
  readonly placing: Placing;
  readonly set: SetMovement;
}

const scaled = ({ x, y }: Point, by: number): Point => ({ x: x * by, y: y * by });

/** The whole back's placing, on the real back. */
function placingOf(s: Setup): Placing {
  const { base, shift, rise } = s.placing;
  return {
    base: scaled({ x: base.x - s.slide.x, y: base.y - s.slide.y }, s.factor),
    shift: scaled(shift, s.factor),
    rise: scaled(rise, s.factor),
  };
}

/** The stops of a sliding or turning back as movements. */
function stopsOf(
  { movement_limits: { frame_stops: given } }: Pick<Station, 'movement_limits'>,
  placing: Placing,
): FrameStop[] | null {
  if (!given) return null;
  if (!('turns' in given)) {
    return dotsOf({ frame_stops: given }).map((dot) => ({ ...dot, rotationDeg: 0 }));
  }
  return pinwheelPlaces(given.turns, given.offset_mm).map(({ centre, rotationDeg }) => ({
    ...toSet(placing, centre),
    rotationDeg,
  }));
}

/** Places of a frame that is off the middle and turned about it, clockwise by equal steps. */
export const pinwheelPlaces = (
  turns: number,
  [x, y]: readonly [number, number],
): { readonly centre: Point; readonly rotationDeg: number }[] =>
  Array.from({ length: turns }, (_, k) => {
    const rotationDeg = (k * 360) / turns;
    const [c, s] = [Math.cos(radians(rotationDeg)), Math.sin(radians(rotationDeg))];
    return { centre: { x: c * x + s * y, y: c * y - s * x }, rotationDeg };
  });

/** As near to a stop or a detent as a hand tells, mm. */
const CLICK_MM = 0.01;

/** Where stops say it all, ranges say nothing. */
const ANYWHERE = { rise: UNBOUNDED, shift: UNBOUNDED, radialMm: Infinity };

const reachOf = (station: Station): Pick<Carrier, 'rise' | 'shift' | 'radialMm'> => {
  const { rise, shift, radialMm } = mechanism(station);
  return { rise, shift, radialMm };
};

/**
 * What carries the frames where the back or the lens is asked to; null where that stands still.
 * The movements are those of the station's own standard or, where the lens moves too, of the back.
 */
export function carrierIn(s: Setup, moves: Exclude<Mosaic['moves'], 'camera'>): Carrier | null {
  const { station } = s;
  const { movement_limits: limits, movements: set } = station;
  const placing = placingOf(s);
  const own = limits.moves === 'rear' ? 'rear' : 'lens';
  const made = mechanicsOf(station);
  const shared = {
    // Finer than a hand tells apart, they stop nothing.
    detentMm: limits.detent_mm && limits.detent_mm > 2 * CLICK_MM ? limits.detent_mm : null,
    turns: false,
    turnStopsDeg: [],
  };
  if (moves === own) {
    // A front that moves leaves the stops to the back behind it.
    const stops = own === 'rear' ? stopsOf(station, placing) : null;
    return {
      ...shared,
      standard: own === 'rear' ? 'back' : 'front',
      fields: ['rise_mm', 'shift_mm'],
      ...(stops ? ANYWHERE : reachOf(station)),
      turns: made?.shift === true,
      turnStopsDeg: made?.shift ? made.stops : [],
      stops,
      placing,
      set: s.set,
    };
  }
  if (moves !== 'rear' || !(hasSecondStandard(station) || limits.frame_stops)) return null;
  const rear = { riseMm: set.rear_rise_mm ?? 0, shiftMm: set.rear_shift_mm ?? 0 };
  // The same way in the picture, from where the front has put it.
  const here = toPicture(placing, s.set);
  const zero = toPicture(
    { ...placing, base: here },
    { riseMm: -rear.riseMm, shiftMm: -rear.shiftMm },
  );
  const second = { ...placing, base: zero };
  const stops = stopsOf(station, second);
  return {
    ...shared,
    standard: 'back',
    fields: ['rear_rise_mm', 'rear_shift_mm'],
    ...ANYWHERE,
    ...(stops
      ? {}
      : { rise: limits.rear_rise_mm ?? UNBOUNDED, shift: limits.rear_shift_mm ?? UNBOUNDED }),
    stops,
    placing: second,
    set: rear,
  };
}

/** Set values are rounded to thousandths; what rounding adds is not past the mechanism. */
const SLACK_MM = 1e-6;

/** Whether the mechanism goes as far as this, stops and detents not asked. */
export const withinCarrier = (
  { rise, shift, radialMm }: Pick<Carrier, 'rise' | 'shift' | 'radialMm'>,
  { riseMm, shiftMm }: SetMovement,
): boolean =>
  riseMm >= rise[0] - SLACK_MM &&
  riseMm <= rise[1] + SLACK_MM &&
  shiftMm >= shift[0] - SLACK_MM &&
  shiftMm <= shift[1] + SLACK_MM &&
  Math.hypot(riseMm, shiftMm) <= radialMm + SLACK_MM;

const onDetent = (value: number, detent: number): boolean =>
  Math.abs(value - Math.round(value / detent) * detent) <= CLICK_MM;

/**
 * Whether a hand finds it: at a stop of a back that has such, on a detent, at an angle at which
 * what turns stops.
 */
export function findable(carrier: Carrier, set: SetMovement, rotationDeg = 0): boolean {
  const { stops, detentMm, turns, turnStopsDeg } = carrier;
  if (stops) {
    return stops.some(
      (stop) =>
        Math.abs(stop.riseMm - set.riseMm) <= CLICK_MM &&
        Math.abs(stop.shiftMm - set.shiftMm) <= CLICK_MM &&
        Math.abs(((stop.rotationDeg - rotationDeg) % 360) + 0) < 0.1,
    );
  }
  const { riseMm, shiftMm } = set;
  const length = Math.hypot(riseMm, shiftMm);
  if (turns) {
    if (detentMm !== null && !onDetent(length, detentMm)) return false;
    if (turnStopsDeg.length === 0 || length <= CLICK_MM) return true;
    // A shift goes both ways along its angle.
    return turnStopsDeg.some((deg) => {
      const a = radians(deg);
      return Math.abs(shiftMm * Math.cos(a) - riseMm * Math.sin(a)) <= CLICK_MM;
    });
  }
  return detentMm === null || (onDetent(riseMm, detentMm) && onDetent(shiftMm, detentMm));
}

export const carrierOf = (
  station: Station,
  moves: Exclude<Mosaic['moves'], 'camera'>,
): Carrier | null => carrierIn(setupOf(station), moves);
