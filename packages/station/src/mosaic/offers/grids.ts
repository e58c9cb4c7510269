import { isSpent, spend, toSet, type Point, type SetMovement, type Size } from '@gangway/optics';
import type { StepTooLong } from '../../words/wish.js';
import { findable } from '../carrier.js';
import { overlapOf } from '../layout.js';
import { centreFor, middlesFor, middlesOnDetents, type Room } from './room.js';
import { isEnough, leastSize, type Want } from './want.js';

/** Frames in columns and rows, by where they lie from its middle, on the real back, mm. */
export interface Block {
  readonly middle: Point;
  readonly xs: readonly number[];
  readonly ys: readonly number[];
}

/** More frames than this nobody takes for one picture. */
export const MOST_FRAMES = 64;

const GOLDEN = (Math.sqrt(5) - 1) / 2;

/** The largest second side that still lies somewhere, beside a first. */
function longest(room: Room, most: number, size: (side: number) => Size): number {
  if (centreFor(room, size(most))) return most;
  let [low, high] = [0, most];
  for (let i = 0; i < 40; i++) {
    const middle = (low + high) / 2;
    if (centreFor(room, size(middle))) low = middle;
    else high = middle;
  }
  return low;
}

/** Of all sizes up to a largest one: that of the largest area that lies somewhere. */
function largest(room: Room, most: Size, least: Size, shape: Want['shape']): Size | null {
  if (shape) {
    const ratio = shape.across / shape.up;
    const wide = Math.min(most.widthMm, most.heightMm * ratio);
    const of = (widthMm: number): Size => ({ widthMm, heightMm: widthMm / ratio });
    const found = of(longest(room, wide, of));
    return found.widthMm > 0 ? found : null;
  }
  if (centreFor(room, most)) return most;
  const height = (widthMm: number): number =>
    longest(room, most.heightMm, (heightMm) => ({ widthMm, heightMm }));
  const area = (widthMm: number): number => widthMm * height(widthMm);
  let [a, b] = [Math.min(least.widthMm, most.widthMm), most.widthMm];
  for (let i = 0; i < 24; i++) {
    const [c, d] = [b - GOLDEN * (b - a), a + GOLDEN * (b - a)];
    if (area(c) >= area(d)) b = d;
    else a = c;
  }
  const widthMm = (a + b) / 2;
  const found = { widthMm, heightMm: height(widthMm) };
  return found.heightMm > 0 ? found : null;
}

/** More heights, or widths, in clicks than this are not tried one by one. */
const MOST_TOTALS = 300;
/** What looking at one of them costs, in steps of the budget. */
const TRY_STEPS = 30;

/** Even places, the outer frames ending with the picture. */
const evenPlaces = (side: number, frame: number, count: number): number[] =>
  Array.from({ length: count }, (_, i) =>
    count === 1 ? 0 : (i / (count - 1) - 0.5) * (side - frame),
  );

/** Sizes with so many columns and rows that might serve, the best first; continuous movements. */
function anywhere(room: Room, want: Want, columns: number, rows: number): Block[] {
  const { frame, mosaic } = room.layout;
  const step = 1 - overlapOf(mosaic);
  const most = {
    widthMm: frame.widthMm * (1 + (columns - 1) * step),
    heightMm: frame.heightMm * (1 + (rows - 1) * step),
  };
  const sizes: (Size | null)[] = [most];
  if (!centreFor(room, most)) {
    const floors = floorsOf(room, want);
    // One overlap both ways first: a plain grid.
    const even = evenly(room, columns, rows, step);
    const serves = (size: Size): boolean =>
      middlesFor(room, size).some((middle) => isEnough(want, room.layout, size, middle));
    if (even && !want.fill && serves(even)) sizes.push(even);
    sizes.push(...floors.map((floor) => largest(room, most, floor, want.shape)), ...floors);
  }
  return sizes.flatMap((size) => {
    if (!size) return [];
    const held = {
      widthMm: columns === 1 ? frame.widthMm : Math.max(frame.widthMm, size.widthMm),
      heightMm: rows === 1 ? frame.heightMm : Math.max(frame.heightMm, size.heightMm),
    };
    if (held.widthMm > most.widthMm + 1e-9 || held.heightMm > most.heightMm + 1e-9) return [];
    return middlesFor(room, held).map((middle) => ({
      middle,
      xs: evenPlaces(held.widthMm, frame.widthMm, columns),
      ys: evenPlaces(held.heightMm, frame.heightMm, rows),
    }));
  });
}

/** The least size that serves about the present middle, and about the best lit; no less than a frame. */
function floorsOf(room: Room, want: Want): Size[] {
  const { layout } = room;
  const floor = (middle: Point): Size => {
    const least = leastSize(want, layout, middle);
    return {
      widthMm: Math.max(layout.frame.widthMm, least.widthMm),
      heightMm: Math.max(layout.frame.heightMm, least.heightMm),
    };
  };
  const here = floor(room.here);
  const [, best] = middlesFor(room, floor({ x: 0, y: 0 }));
  return best ? [here, floor(best)] : [here];
}

/** The largest size whose steps are one share of the frame both ways. */
function evenly({ ...room }: Room, columns: number, rows: number, step: number): Size | null {
  const { frame } = room.layout;
  const of = (share: number): Size => ({
    widthMm: frame.widthMm * (1 + (columns - 1) * share),
    heightMm: frame.heightMm * (1 + (rows - 1) * share),
  });
  if (!centreFor(room, of(0.05))) return null;
  return of(longest(room, step, of));
}

/** A way split into steps of whole clicks, as even as they go, the longer ones first. */
function inClicks(total: number, count: number): number[] {
  const places = [0];
  for (let i = 1; i < count; i++) places.push(Math.round((total * i) / (count - 1)));
  return places;
}

/**
 * The same where movements click, larger areas first. Whatever frames cover a picture, its sides can
 * be moved out to where frames on the clicks end, and rows and columns from corner to corner then
 * cover it with no more frames, all of them lit: to try every width and height in clicks is enough.
 */
function onDetents(
  room: Room,
  want: Want,
  columns: number,
  rows: number,
  detentMm: number,
): Block[] {
  const { carrier, effort } = room;
  const { frame, mosaic } = room.layout;
  const { shift, rise } = carrier.placing;
  const share = 1 - overlapOf(mosaic) + 1e-9;
  const [perX, perY] = [Math.abs(shift.x) * detentMm, Math.abs(rise.y) * detentMm];
  const totals = (count: number, side: number, per: number): number[] => {
    if (count === 1) return [0];
    const most = Math.floor((side * share) / per) * (count - 1);
    const all = Math.max(0, most - count + 2);
    // On very fine detents not every total is tried, the largest first and evenly from there.
    const stride = Math.max(1, Math.ceil(all / MOST_TOTALS));
    if (stride > 1) effort.cut = true;
    return Array.from({ length: Math.ceil(all / stride) }, (_, i) => most - i * stride);
  };
  const sizeOf = (i: number, j: number): Size => ({
    widthMm: frame.widthMm + i * perX,
    heightMm: frame.heightMm + j * perY,
  });
  // Straight ahead an angle takes the least: what is too small there is so anywhere.
  const ahead = { x: 0, y: 0 };
  const down = totals(rows, frame.heightMm, perY);
  const across = totals(columns, frame.widthMm, perX);
  if (!spend(effort, TRY_STEPS * across.length * down.length)) return [];
  const tries = across.flatMap((i) =>
    down.flatMap((j) => {
      const size = sizeOf(i, j);
      return isEnough(want, room.layout, size, ahead)
        ? [{ i, j, area: size.widthMm * size.heightMm }]
        : [];
    }),
  );
  tries.sort((a, b) => b.area - a.area);
  for (const { i, j } of tries) {
    if (isSpent(effort)) return [];
    const size = sizeOf(i, j);
    const xs = inClicks(i, columns).map((click) => (click - i / 2) * perX);
    const ys = inClicks(j, rows).map((click) => (click - j / 2) * perY);
    // What slides stops on every detent; what turns, only along its own angles.
    const settable = ({ x, y }: Point): boolean =>
      !carrier.turns ||
      xs.every((dx) =>
        ys.every((dy) => findable(carrier, toSet(carrier.placing, { x: x + dx, y: y + dy }))),
      );
    const half = { x: i % 2 === 1, y: j % 2 === 1 };
    const middle = middlesOnDetents(room, size, detentMm, half, settable).find((at) =>
      isEnough(want, room.layout, size, at),
    );
    if (middle) return [{ middle, xs, ys }];
  }
  return [];
}

/** Frames of a block, row by row, left to right, the top one first. */
export const blockCentres = ({ xs, ys, middle }: Block): Point[] =>
  [...ys].reverse().flatMap((y) => xs.map((x) => ({ x: middle.x + x, y: middle.y + y })));

/** Every block of so many columns and rows that a carrier without stops of its own may try. */
export const blocksOf = (room: Room, want: Want, columns: number, rows: number): Block[] =>
  room.carrier.detentMm === null
    ? anywhere(room, want, columns, rows)
    : onDetents(room, want, columns, rows, room.carrier.detentMm);

/** As it is set: to a thousandth, which no hand tells. */
export const setAt = (room: Room, middle: Point): SetMovement => {
  const { shiftMm, riseMm } = toSet(room.carrier.placing, middle);
  const told = (value: number): number => Math.round(value * 1000) / 1000 + 0;
  return { shiftMm: told(shiftMm), riseMm: told(riseMm) };
};

/** Why a step as long as the overlap allows is not to be had on a carrier's detents; null: it is. */
export function stepHindrance({ layout, carrier }: Room): StepTooLong | null {
  const { detentMm, placing } = carrier;
  if (detentMm === null || carrier.stops) return null;
  const overlap = overlapOf(layout.mosaic);
  const { widthMm, heightMm } = layout.frame;
  const longestStep = Math.max(
    ((1 - overlap) * widthMm) / Math.abs(placing.shift.x || 1),
    ((1 - overlap) * heightMm) / Math.abs(placing.rise.y || 1),
  );
  if (longestStep >= detentMm - 1e-9) return null;
  const mostOverlap = 1 - (detentMm * Math.abs(placing.shift.x || 1)) / widthMm;
  return { overlap, mostOverlap, longestStepMm: longestStep, detentMm };
}
