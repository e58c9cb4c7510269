import {
  frameCovered,
  isSpent,
  spend,
  toPicture,
  type Point,
  type Size,
  type Effort,
} from '@gangway/optics';
import { MOST_PLACES } from '../../document/most.js';
import type { FrameStop } from '../carrier.js';
import { overlapOf } from '../layout.js';
import { leastCover, type CoverAnswer } from './cover-solver.js';
import type { Room } from './room.js';
import { isEnough, leastSize, type Want } from './want.js';

/** Columns and rows of a back that stops at places of its own. */
export interface StopBlock {
  readonly count: number;
  /** How far the list of blocks is gone through, from 0 to 1. */
  readonly share: number;
  /** Its places, row by row from the top; null where one of them is no stop. */
  readonly centres: () => Point[] | null;
}

/** Stops at which an upright frame is lit whole. */
export function litStops({ layout, carrier, cone }: Room, stops: readonly FrameStop[]): Point[] {
  return stops
    .filter(({ rotationDeg }) => rotationDeg === 0)
    .map((stop) => toPicture(carrier.placing, stop))
    .filter(({ x, y }) => frameCovered(cone, { ...layout.frame, shiftMm: x, riseMm: y }));
}

const HAIR_MM = 1e-6;

const distinct = (values: readonly number[]): number[] =>
  [...values]
    .sort((a, b) => a - b)
    .filter((value, i, all) => i === 0 || value - all[i - 1]! > HAIR_MM);

/** The fewest of a line's places from one of them to another, none further apart than a step. */
function fewest(
  line: readonly number[],
  step: number,
  [from, to]: readonly [number, number],
): number[] | null {
  const chosen = [line[from]!];
  for (let i = from + 1; i <= to; i++) {
    const last = chosen.at(-1)!;
    const next = i < to ? line[i + 1] : undefined;
    const place = line[i]!;
    if (place - last > step + HAIR_MM) return null;
    if (next === undefined || next - last > step + HAIR_MM) chosen.push(place);
  }
  return chosen;
}

/** Every stretch of a line, by its first place and its last. */
function* spans(count: number): Generator<readonly [number, number]> {
  for (let from = 0; from < count; from++) {
    for (let to = from; to < count; to++) yield [from, to];
  }
}

/** The fewest places of every stretch of a line that has them. */
function linesOf(line: readonly number[], step: number, effort: Effort): number[][] {
  const found: number[][] = [];
  for (const span of spans(line.length)) {
    if (!spend(effort, PLACE_STEPS * (span[1] - span[0] + 1))) break;
    const chosen = fewest(line, step, span);
    if (chosen) found.push(chosen);
  }
  return found;
}

/** What looking at one place, or at one block, costs in steps of the budget. */
const [PLACE_STEPS, BLOCK_STEPS] = [5, 30];

/**
 * Blocks of columns and rows that are enough for a wish, each with the fewest frames for its size:
 * those with the fewest first, of as many the largest. No more are listed than one asks for.
 * @param overMm2 the area that one must have more of, asked before those of a number are listed
 */
export function* stopBlocks(
  room: Room,
  want: Want,
  places: readonly Point[],
  overMm2: () => number,
): Generator<StopBlock> {
  const { effort } = room;
  const { frame, mosaic } = room.layout;
  const step = 1 - overlapOf(mosaic);
  const key = (x: number, y: number): string => `${Math.round(x * 1e4)} ${Math.round(y * 1e4)}`;
  const there = new Set(places.map(({ x, y }) => key(x, y)));
  const lines = (axis: 'x' | 'y', side: number): number[][] =>
    linesOf(distinct(places.map((p) => p[axis])), side * step, effort);
  // What is too short along one side is in no block, however long the other.
  const least = { ...want, shape: null };
  const xs = lines('x', frame.widthMm).filter((line) => {
    const { middle, side } = extentOf(line, frame.widthMm);
    return isEnough(least, room.layout, { widthMm: side, heightMm: Infinity }, { x: middle, y: 0 });
  });
  const ys = lines('y', frame.heightMm).filter((line) => {
    const { middle, side } = extentOf(line, frame.heightMm);
    return isEnough(least, room.layout, { widthMm: Infinity, heightMm: side }, { x: 0, y: middle });
  });
  const ysOf = byLength(ys);
  const centres = (across: readonly number[], up: readonly number[]): Point[] | null => {
    const stands = up.every(
      (y) =>
        spend(effort, 4 * PLACE_STEPS * across.length) && across.every((x) => there.has(key(x, y))),
    );
    return stands ? [...up].reverse().flatMap((y) => across.map((x) => ({ x, y }))) : null;
  };
  const counts = countsOf([...byLength(xs).keys()], [...ysOf.keys()]);
  for (const [i, count] of counts.entries()) {
    const blocks: { areaMm2: number; across: readonly number[]; up: readonly number[] }[] = [];
    const over = overMm2();
    for (const across of xs) {
      const { middle: x, side: widthMm } = extentOf(across, frame.widthMm);
      for (const up of ysOf.get(count / across.length) ?? []) {
        if (!spend(effort, BLOCK_STEPS)) return;
        const { middle: y, side: heightMm } = extentOf(up, frame.heightMm);
        const areaMm2 = widthMm * heightMm;
        if (areaMm2 <= over) continue;
        if (!isEnough(want, room.layout, { widthMm, heightMm }, { x, y })) continue;
        blocks.push({ areaMm2, across, up });
      }
    }
    blocks.sort((a, b) => b.areaMm2 - a.areaMm2);
    for (const { across, up } of blocks) {
      yield { count, share: i / counts.length, centres: () => centres(across, up) };
    }
  }
}

/** What frames at the places of a line take up together, and its middle. */
const extentOf = (line: readonly number[], side: number): { middle: number; side: number } => {
  const [first, last] = [line[0]!, line.at(-1)!];
  return { middle: (first + last) / 2, side: last - first + side };
};

function byLength(lines: readonly number[][]): ReadonlyMap<number, readonly number[][]> {
  const sorted = new Map<number, number[][]>();
  for (const line of lines) {
    const same = sorted.get(line.length);
    if (same) same.push(line);
    else sorted.set(line.length, [line]);
  }
  return sorted;
}

/** How many frames blocks may have, fewest first; a station holds no more places than so many. */
const countsOf = (columns: readonly number[], rows: readonly number[]): number[] =>
  distinct(columns.flatMap((across) => rows.map((up) => across * up))).filter(
    (count) => count <= MOST_PLACES,
  );

/** Fewest places along one line that reach from one side of a picture to the other. */
function fewestAlong(
  line: readonly number[],
  low: number,
  high: number,
  side: number,
  step: number,
): number {
  const half = side / 2;
  let reached = -Infinity;
  let count = 0;
  let at = line.findLast((p) => p <= low + half + HAIR_MM);
  while (at !== undefined) {
    count += 1;
    reached = at + half;
    if (reached >= high - HAIR_MM) return count;
    const next = line.findLast((p) => p <= at! + step * side + HAIR_MM);
    at = next !== undefined && next > at + HAIR_MM ? next : undefined;
  }
  return Infinity;
}

/** Pictures about the middles of boxes of places that would serve, none larger than it must be. */
function* targets(room: Room, places: readonly Point[], want: Want, areaMm2: number) {
  const { frame } = room.layout;
  const [xs, ys] = [distinct(places.map(({ x }) => x)), distinct(places.map(({ y }) => y))];
  for (const [fromX, toX] of spans(xs.length)) {
    const across = xs.slice(fromX, toX + 1);
    for (const [fromY, toY] of spans(ys.length)) {
      if (!spend(room.effort, PLACE_STEPS * places.length)) return;
      const up = ys.slice(fromY, toY + 1);
      const [left, right] = [across[0]!, across.at(-1)!];
      const [foot, top] = [up[0]!, up.at(-1)!];
      const centre = { x: (left + right) / 2, y: (foot + top) / 2 };
      const box = { widthMm: right - left + frame.widthMm, heightMm: top - foot + frame.heightMm };
      const inside = places.filter(
        ({ x, y }) =>
          x >= left - HAIR_MM && x <= right + HAIR_MM && y >= foot - HAIR_MM && y <= top + HAIR_MM,
      );
      const wanted = leastSize(want, room.layout, centre);
      const least = { ...wanted, areaMm2: Math.max(wanted.areaMm2, areaMm2) };
      for (const size of sizesFor(inside, centre, box, frame, want, least)) {
        const lit = frameCovered(room.cone, { ...size, shiftMm: centre.x, riseMm: centre.y });
        if (lit) yield { inside, target: { ...size, centre }, across, up };
      }
    }
  }
}

/** Sizes that just serve: their sides end where a frame's does, or where the area is reached. */
function sizesFor(
  inside: readonly Point[],
  centre: Point,
  box: Size,
  frame: Size,
  { shape }: Want,
  least: Size & { areaMm2: number },
): Size[] {
  const fits = ({ widthMm, heightMm }: Size): boolean =>
    widthMm <= box.widthMm + HAIR_MM && heightMm <= box.heightMm + HAIR_MM;
  if (shape || least.areaMm2 === 0) {
    return [{ widthMm: least.widthMm, heightMm: least.heightMm }].filter(fits);
  }
  const widths = distinct(
    inside.flatMap(({ x }) =>
      [-1, 1].map((s) => 2 * Math.abs(x + (s * frame.widthMm) / 2 - centre.x)),
    ),
  );
  const heights = distinct(
    inside.flatMap(({ y }) =>
      [-1, 1].map((s) => 2 * Math.abs(y + (s * frame.heightMm) / 2 - centre.y)),
    ),
  );
  return [
    ...widths.map((widthMm) => ({ widthMm, heightMm: least.areaMm2 / widthMm })),
    ...heights.map((heightMm) => ({ widthMm: least.areaMm2 / heightMm, heightMm })),
  ]
    .map(({ widthMm, heightMm }) => ({
      widthMm: Math.max(widthMm, least.widthMm),
      heightMm: Math.max(heightMm, least.heightMm),
    }))
    .filter(fits);
}

/** Integer programmes that one search may put. */
const MOST_PROGRAMMES = 300;

export interface Fewer<Layout> {
  /** Fewer frames that serve; null: none was found. */
  readonly best: Layout | null;
  /** Every possibility was looked at. */
  readonly certain: boolean;
}

/**
 * Looks among listed places for a layout with fewer frames than one that is known. Most boxes of
 * places are ruled out by counting columns and rows; the others by an integer programme each.
 * @param judge a layout of these places, where it serves
 */
export function* fewerAmong<Layout>(
  room: Room,
  places: readonly Point[],
  want: Want,
  areaMm2: number,
  known: number,
  judge: (centres: readonly Point[]) => Layout | null,
): Generator<number, Fewer<Layout>> {
  const { frame, mosaic } = room.layout;
  const overlap = overlapOf(mosaic);
  let [fewest, best, certain, programmes]: [number, Layout | null, boolean, number] = [
    known,
    null,
    true,
    0,
  ];
  for (const { inside, target, across, up } of targets(room, places, want, areaMm2)) {
    const { centre, widthMm, heightMm } = target;
    const bound =
      fewestAlong(
        across,
        centre.x - widthMm / 2,
        centre.x + widthMm / 2,
        frame.widthMm,
        1 - overlap,
      ) *
      fewestAlong(
        up,
        centre.y - heightMm / 2,
        centre.y + heightMm / 2,
        frame.heightMm,
        1 - overlap,
      );
    if (bound >= fewest) continue;
    if (programmes >= MOST_PROGRAMMES) {
      certain = false;
      break;
    }
    programmes += 1;
    yield programmes / MOST_PROGRAMMES;
    const question = { places: inside, frame, overlap, target };
    const answer: CoverAnswer = leastCover(question, fewest, room.effort);
    if (answer.kind === 'unsure') certain = false;
    if (answer.kind !== 'found') continue;
    const judged = judge(answer.places.map((i) => inside[i]!));
    // What covers the target may come out in another shape, of the largest area, that does not serve:
    // another cover of as few frames might.
    certain &&= answer.proven && judged !== null;
    if (judged) [fewest, best] = [answer.places.length, judged];
  }
  return { best, certain: certain && !isSpent(room.effort) };
}
