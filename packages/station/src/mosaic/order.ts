import type { Station } from '../document/station.js';
import { turningWords } from '../optical/turning.js';
import { degrees, mm, trimmed } from '../words/format.js';
import { moveSaid, standardSaid } from '../words/hands.js';
import type { Carrier } from './carrier.js';
import { movingOf } from './edits.js';
import { atLaidFrame, layoutOf, type LaidFrame, type Layout } from './layout.js';

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
}

/** Less of a movement than this nobody sets, mm. */
const SEEN_MM = 0.05;

const clicksSaid = ({ detentMm }: Carrier, value: number): string => {
  if (detentMm === null) return '';
  const clicks = Math.round(Math.abs(value) / detentMm);
  return ` (${clicks} ${clicks === 1 ? 'click' : 'clicks'})`;
};

/** Rise and shift of one frame, as the hand sets them on the scales. */
function movedWords(station: Station, carrier: Carrier, { set }: LaidFrame): string[] {
  const what = standardSaid(station, carrier.standard);
  const part = ([movement, value]: readonly ['rise' | 'shift', number]): string => {
    if (Math.abs(value) >= SEEN_MM) {
      return `${moveSaid(station, carrier.standard, movement, value)}${clicksSaid(carrier, value)}`;
    }
    return movement === 'rise' ? `Set the rise of ${what} to 0` : `Shift ${what} to 0`;
  };
  const still = ([low, high]: readonly [number, number]): boolean => low === 0 && high === 0;
  return [
    ...(still(carrier.shift) ? [] : [['shift', set.shiftMm] as const]),
    ...(still(carrier.rise) ? [] : [['rise', set.riseMm] as const]),
  ].map(part);
}

/** The stop of a sliding or turning back that a frame stands at, by its number. */
function stopWords(station: Station, { stops }: Carrier, frame: LaidFrame): string | null {
  const given = station.movement_limits.frame_stops;
  if (!stops || !given) return null;
  const index = stops.findIndex(
    (stop) =>
      Math.hypot(stop.riseMm - frame.set.riseMm, stop.shiftMm - frame.set.shiftMm) < 0.01 &&
      Math.abs(stop.rotationDeg - frame.rotationDeg) < 0.1,
  );
  if (index < 0) return null;
  if ('turns' in given) return `Turn the adapter to its stop ${index + 1} of ${given.turns}`;
  if ('columns' in given) {
    const [column, row] = [index % given.columns, Math.floor(index / given.columns)];
    return `Slide the back to column ${column + 1}, row ${row + 1} of the picture`;
  }
  return `Slide the back to its stop ${index + 1}`;
}

const turnedSaid = (yawDeg: number): string =>
  Math.abs(yawDeg) < 0.05
    ? 'Point the camera straight at the middle'
    : `Turn the camera ${degrees(Math.abs(yawDeg))} ${yawDeg > 0 ? 'right' : 'left'} of the middle`;

const rotatedSaid = (deg: number): string =>
  deg === 0
    ? 'Turn the back as it stood first.'
    : `Turn the back ${trimmed(deg, 1)}° clockwise from how it stood first.`;

/** What to do for one frame; what stays as it was for the frame before is left out. */
function says(station: Station, layout: Layout, index: number, before: number | null): string[] {
  const frame = layout.frames[index]!;
  if (frame.yawDeg !== undefined) return [`${turnedSaid(frame.yawDeg)}.`];
  const carrier = movingOf(station, layout);
  const stop = stopWords(station, carrier, frame);
  if (stop) return [`${stop}.`];
  if (layout.mosaic.pattern === 'pinwheel') {
    return [
      `Turn the adapter to ${trimmed(frame.rotationDeg, 1)}°, clockwise from its first stop.`,
    ];
  }
  const turned = carrier.turns ? turningWords(atLaidFrame(station, layout, index)) : '';
  if (carrier.turns) {
    const there =
      turned || `Bring the ${carrier.standard === 'back' ? 'back' : 'lens'} to the middle.`;
    return [there, ...followSaid(layout, frame)];
  }
  const words = movedWords(station, carrier, frame);
  const last = before === null ? null : movedWords(station, carrier, layout.frames[before]!);
  const changed = words.filter((word, i) => word !== last?.[i]);
  const rotated = frame.rotationDeg !== (before === null ? 0 : layout.frames[before]!.rotationDeg);
  return [
    ...(rotated ? [rotatedSaid(frame.rotationDeg)] : []),
    ...(changed.length === 0 ? ['Leave all as it is.'] : changed.map((word) => `${word}.`)),
    ...followSaid(layout, frame),
  ];
}

/** Where the body goes after the lens, so that the lens stays where it was. */
function followSaid({ mosaic }: Layout, { set }: LaidFrame): string[] {
  if (!('body_follows' in mosaic) || !mosaic.body_follows || mosaic.moves !== 'lens') return [];
  const ways = [
    [set.shiftMm, 'left', 'right'],
    [set.riseMm, 'down', 'up'],
  ] as const;
  const moves = ways
    .filter(([value]) => Math.abs(value) >= SEEN_MM)
    .map(([value, plus, minus]) => `${mm(Math.abs(value))} ${value > 0 ? plus : minus}`);
  return moves.length === 0
    ? ['Body on its own middle.']
    : [`Move the body ${moves.join(' and ')} of its middle.`];
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
  const left = here.centre.x < last.centre.x - SEEN_MM;
  const up = here.centre.y > last.centre.y + SEEN_MM;
  return left || up ? PAST : null;
}

/** Frames in the order they are taken, each with what to set, and the first once more at the end. */
export function shootingOrder(station: Station): FrameStep[] {
  const layout = layoutOf(station);
  const steps = layout.frames.map((_, index): FrameStep => {
    const before = index === 0 ? null : index - 1;
    return {
      index,
      says: says(station, layout, index, before),
      runUp: runUp(layout, index, before),
      again: false,
    };
  });
  if (steps.length < 2) return steps;
  const last = layout.frames.length - 1;
  return [
    ...steps,
    {
      index: 0,
      says: says(station, layout, 0, last),
      runUp: runUp(layout, 0, last),
      again: true,
    },
  ];
}

/** Way of the gear through places in an order, each line begun with a run past its end, mm. */
function wayMm(places: readonly { readonly x: number; readonly y: number }[]): number {
  return places.slice(1).reduce((sum, { x, y }, i) => {
    const before = places[i]!;
    return sum + Math.hypot(x - before.x, y - before.y);
  }, 0);
}

/** Places within this of a line belong to it, as a share of the frame's side. */
const LINE = 0.25;

/**
 * Free places put in the order that comes to every one from the left and the top: line by line, by
 * rows or by columns, whichever is the shorter way.
 */
export function inOrder(station: Station): Station {
  const { mosaic } = station;
  if (mosaic?.pattern !== 'free' || !mosaic.places) return station;
  const { frame } = layoutOf(station);
  type Place = (typeof mosaic.places)[number];
  const lines = (
    line: (p: Place) => number,
    along: (p: Place) => number,
    side: number,
  ): Place[] => {
    const rest = [...mosaic.places!].sort((a, b) => line(a) - line(b));
    const ordered: Place[] = [];
    while (rest.length > 0) {
      const first = line(rest[0]!);
      const count = rest.findIndex((p) => line(p) > first + LINE * side);
      const own = rest.splice(0, count < 0 ? rest.length : count);
      for (const each of own.sort((a, b) => along(a) - along(b))) ordered.push(each);
    }
    return ordered;
  };
  const byRows = lines(
    (p) => -p.y_mm,
    (p) => p.x_mm,
    frame.heightMm,
  );
  const byColumns = lines(
    (p) => p.x_mm,
    (p) => -p.y_mm,
    frame.widthMm,
  );
  const way = (places: readonly Place[]): number =>
    wayMm(places.map(({ x_mm: x, y_mm: y }) => ({ x, y })));
  const places = way(byColumns) < way(byRows) - 1e-6 ? byColumns : byRows;
  return { ...station, mosaic: { ...mosaic, places } };
}
