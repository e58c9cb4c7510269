import type { Station } from '../document/station.js';
import type { Carrier } from '../mosaic/carrier.js';
import { movingOf } from '../mosaic/edits.js';
import {
  atLaidFrame,
  layoutOf,
  refocuses,
  setupAtFrame,
  type LaidFrame,
  type Layout,
} from '../mosaic/layout.js';
import { seriesTurn } from '../mosaic/series.js';
import { mechanicsOf, turningAt, turningOf, type Turning } from '../optical/turning.js';
import { degrees, mm, trimmed, type Units } from '../words/format.js';
import { moveSaid, standardSaid } from '../words/hands.js';
import { clicksSaid } from './clicks-said.js';
import { dotSaid } from './dots.js';
import { readingOrder } from './focus.js';
import { printedReading, readingsOf } from './focusing.js';
import { settingOn } from './moves.js';
import { SEEN, type Order, type Setting } from './order.js';
import { frameReleaseSaid } from './release.js';
import { figuresIn, turnedSaid, turnedSettings } from './turns.js';

/** The frames of a mosaic, in order, each with what is set for it. */

/** One frame as it is taken. */
export interface FrameStep {
  /** Counted from 0, as the layout lists them. */
  readonly index: number;
  /** What to do with the gear, in order. */
  readonly says: readonly string[];
  /** Before it: how to come to it from the side that all frames are come to from. */
  readonly runUp: string | null;
  /** The first frame once more, to see that nothing moved. */
  readonly again: boolean;
  readonly sets: readonly Setting[];
}

interface Told {
  readonly says: string;
  readonly sets: readonly Setting[];
}

/** Rise and shift of one frame, as the hand sets them on the scales. */
function movedTo(station: Station, carrier: Carrier, { set }: LaidFrame): Told[] {
  const what = standardSaid(station, carrier.standard);
  const told = (movement: 'rise' | 'shift', value: number): Told => {
    const field = carrier.fields[movement === 'rise' ? 0 : 1];
    const setting = settingOn({ field, standard: carrier.standard, movement }, station, value);
    const says =
      Math.abs(value) >= SEEN
        ? `${moveSaid(station, carrier.standard, movement, value)}${clicksSaid(carrier.detentMm ?? undefined, value).on}`
        : movement === 'rise'
          ? `Set the rise of ${what} to 0`
          : `Shift ${what} to 0`;
    return { says, sets: [setting] };
  };
  const still = ([low, high]: readonly [number, number]): boolean => low === 0 && high === 0;
  return [
    ...(still(carrier.shift) ? [] : [told('shift', set.shiftMm)]),
    ...(still(carrier.rise) ? [] : [told('rise', set.riseMm)]),
  ];
}

function turnedTo(yawDeg: number): Told {
  const seen = Math.abs(yawDeg) >= SEEN;
  const way = seen ? (yawDeg > 0 ? 'right' : 'left') : '';
  const said = degrees(Math.abs(yawDeg));
  return {
    says: seen
      ? `Turn the camera ${said} ${way} of the middle`
      : 'Point the camera straight at the middle',
    sets: [{ control: { kind: 'head', turns: 'yaw', from: 'middle' }, to: yawDeg, said, way }],
  };
}

function rotatedTo(deg: number): Told {
  return {
    says:
      deg === 0
        ? 'Turn the back as it stood first'
        : `Turn the back ${trimmed(deg, 1)}° clockwise from how it stood first`,
    sets: [{ control: { kind: 'back_angle' }, to: deg, said: `${trimmed(deg, 1)}°`, way: '' }],
  };
}

/** Where the body goes after the lens, so that the lens stays where it was. */
function followed({ mosaic }: Layout, { set }: LaidFrame): Told[] {
  if (!('body_follows' in mosaic) || !mosaic.body_follows || mosaic.moves !== 'lens') return [];
  const all = [
    ['shift', set.shiftMm, 'left', 'right'],
    ['rise', set.riseMm, 'down', 'up'],
  ] as const;
  const sets = all.map(([way, value, plus, minus]): Setting => ({
    control: { kind: 'body', way },
    to: -value + 0,
    said: mm(Math.abs(value)),
    way: Math.abs(value) < SEEN ? '' : value > 0 ? plus : minus,
  }));
  const moves = sets.filter(({ way }) => way !== '').map(({ said, way }) => `${said} ${way}`);
  return [
    {
      says:
        moves.length === 0
          ? 'Body on its own middle'
          : `Move the body ${moves.join(' and ')} of its middle`,
      sets,
    },
  ];
}

/** A back that leans goes nearer to the lens, or further off: the focus goes along. None where it stays. */
const refocused = (station: Station, layout: Layout, index: number, units: Units): Told[] =>
  refocuses(station)
    ? readingsOf(setupAtFrame(station, layout, index)).map((reading): Told => {
        const { says, figure, line, sets } = readingOrder(
          station,
          printedReading(reading, units),
          units,
          'focus',
        );
        return { says: line ?? `${says} ${figure}`, sets };
      })
    : [];

/** A frame of a series that is turned to: the angle stays where one serves all. */
function turnedFrame(station: Station, layout: Layout, index: number, held: Turning | null): Told {
  const there = atLaidFrame(station, layout, index);
  const made = mechanicsOf(there)!;
  const turning = held ? turningAt(there, held.angleDeg, held.tiltAngleDeg) : turningOf(there)!;
  const { set, rest } = turnedSettings(there, turning);
  const shift = [...set, ...rest].find(
    ({ control }) => control.kind === 'along' && control.movement === 'shift',
  )!;
  const part = standardSaid(station, movingOf(station, layout).standard);
  const { on } = clicksSaid(shift.click, shift.to ?? 0);
  if (held) {
    return shift.way === ''
      ? { says: `Shift ${part} to 0`, sets: [shift] }
      : { says: `Shift ${part} ${shift.said} ${shift.way}${on}`, sets: [shift] };
  }
  if (set.length === 0) return { says: `Bring ${part} to the middle`, sets: rest };
  return { says: figuresIn(turnedSaid(there, made, set), set), sets: [...set, ...rest] };
}

/** What to do for one frame; what stays as it was for the frame before is left out. */
function toldFor(
  station: Station,
  layout: Layout,
  index: number,
  before: number | null,
  held: Turning | null,
  units: Units,
): Told[] {
  const frame = layout.frames[index]!;
  const last = before === null ? null : layout.frames[before]!;
  if (frame.yawDeg !== undefined) return [turnedTo(frame.yawDeg)];
  const carrier = movingOf(station, layout);
  const dot = dotSaid(station, carrier, frame);
  if (dot) return [dot];
  if (layout.mosaic.pattern === 'pinwheel') {
    const said = `${trimmed(frame.rotationDeg, 1)}°`;
    return [
      {
        says: `Turn the adapter to ${said}, clockwise from its first stop`,
        sets: [{ control: { kind: 'pinwheel' }, to: frame.rotationDeg, said, way: '' }],
      },
    ];
  }
  const rotated = frame.rotationDeg !== (last?.rotationDeg ?? 0);
  const about = rotated ? [rotatedTo(frame.rotationDeg)] : [];
  const focus = refocused(station, layout, index, units);
  const was = before === null ? [] : refocused(station, layout, before, units);
  const again = focus.filter(({ says }, i) => says !== was[i]?.says);
  if (carrier.turns) {
    const turned = turnedFrame(station, layout, index, held);
    return [...about, turned, ...again, ...followed(layout, frame)];
  }
  const words = movedTo(station, carrier, frame);
  const were = last ? movedTo(station, carrier, last) : [];
  const changed = words.filter(({ says }, i) => says !== were[i]?.says);
  const all = [...about, ...changed, ...again];
  return [
    ...(all.length === 0 ? [{ says: 'Leave all as it is', sets: [] }] : all),
    ...followed(layout, frame),
  ];
}

const PAST = 'Go a little too far, then come back to it.';

/**
 * How a frame is come to: every place from the same side, so that play in the gear is always taken
 * up one way.
 */
function runUp(layout: Layout, index: number, before: number | null): string | null {
  const { frames, mosaic, carrier } = layout;
  if (mosaic.pattern === 'pinwheel' || mosaic.pattern === 'ring' || carrier?.stops) return null;
  const [here, last] = [frames[index]!, before === null ? null : frames[before]!];
  if (mosaic.pattern === 'turn') {
    return last ? null : PAST;
  }
  if (!last) return PAST;
  const left = here.centre.x < last.centre.x - SEEN;
  const up = here.centre.y > last.centre.y + SEEN;
  return left || up ? PAST : null;
}

/** Frames in the order they are taken, each with what to set, and the first once more at the end. */
export function shootingOrder(station: Station, units: Units = 'metric'): FrameStep[] {
  const layout = layoutOf(station);
  const held = seriesTurn(station, layout);
  const step = (index: number, before: number | null, again: boolean): FrameStep => {
    const told = toldFor(station, layout, index, before, held, units);
    return {
      index,
      says: told.map(({ says }) => `${says}.`),
      runUp: runUp(layout, index, before),
      again,
      sets: told.flatMap(({ sets }) => sets),
    };
  };
  const steps = layout.frames.map((_, index) => step(index, index === 0 ? null : index - 1, false));
  return steps.length < 2 ? steps : [...steps, step(0, layout.frames.length - 1, true)];
}

/** A line and its figure at the end, where there is one: “Shift the back left”, “10.0 mm”. */
const parted = (says: string): { says: string; figure?: string; line?: string } => {
  const line = says.replace(/\.$/, '');
  const found = /^(.*?) (\d[\d.]*(?: mm|°))((?: [a-z]+)*(?: \(\d+ clicks?\))?)$/.exec(line);
  return found ? { says: `${found[1]!}${found[3]!}`, figure: found[2]!, line } : { says: line };
};

/** What turns, turned once for all frames; none where each has its own, or nothing is turned. */
export function seriesOrders(station: Station): Order[] {
  const layout = layoutOf(station);
  const held = movingOf(station, layout).turns ? seriesTurn(station, layout) : null;
  if (!held) return [];
  // The shift is told with each frame; the angle and the lean stay.
  const set = turnedSettings(station, held).set.filter(
    ({ control }) => !(control.kind === 'along' && control.movement === 'shift'),
  );
  if (set.length === 0) return [];
  const figure = set.map(({ said }) => said);
  return [
    {
      id: 'turn',
      part: 'move',
      says: `${turnedSaid(station, mechanicsOf(station)!, set)}; it stays there for all frames`,
      figure: figure.join(' · '),
      short: `turned ${figure.join(', ')}`,
      sets: set,
    },
  ];
}

/** Each frame of a mosaic, in order, with the first once more. */
export const frameOrders = (station: Station, units: Units): Order[] =>
  station.mosaic && !station.held_off
    ? shootingOrder(station, units).map(({ index, says, runUp: past, again, sets }, i) => {
        const detail = [
          again ? 'Once more, to see that nothing moved.' : '',
          past ?? '',
          frameReleaseSaid(station),
        ]
          .filter(Boolean)
          .join(' ');
        return {
          id: `frame ${i}`,
          part: 'frames' as const,
          ...(says.length === 1 ? parted(says[0]!) : { says: says.join(' ').replace(/\.$/, '') }),
          frame: index,
          ...(detail === '' ? {} : { detail }),
          sets,
        };
      })
    : [];
