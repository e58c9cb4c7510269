import { areaOf, sharedPart, type Size } from '@gangway/optics';
import type { Mosaic } from '../document/station.js';
import { overlapOf, type LaidFrame, type Neighbours } from './frame.js';

/** What frames share: which lie beside each other, and how much of themselves they have in common. */

/** Frames that share more than this are neighbours, where no pattern says which are. */
const NEIGHBOURLY = 0.05;

/** Pairs that lie beside each other by their pattern; null: those that share enough. */
function pairsOf(mosaic: Mosaic, count: number): readonly (readonly [number, number])[] | null {
  const indices = Array.from({ length: count }, (_, i) => i);
  switch (mosaic.pattern) {
    case 'grid': {
      const { columns = 1 } = mosaic;
      return indices.flatMap((i) => [
        ...((i + 1) % columns === 0 || i + 1 >= count ? [] : [[i, i + 1] as const]),
        ...(i + columns < count ? [[i, i + columns] as const] : []),
      ]);
    }
    case 'ring': {
      const first = mosaic.middle ? 1 : 0;
      const around = indices.slice(first);
      const next = around.length < 2 ? [] : around.slice(around.length === 2 ? 1 : 0);
      return [
        ...(mosaic.middle ? around.map((i) => [0, i] as const) : []),
        ...next.map((i) => {
          const before = i === first ? around.at(-1)! : i - 1;
          return [Math.min(before, i), Math.max(before, i)] as const;
        }),
      ];
    }
    case 'turn':
      return indices.slice(1).map((i) => [i - 1, i] as const);
    default:
      return null;
  }
}

/**
 * Every pair that shares something, by the area shared over a frame’s area; of a grid those that lie
 * beside each other, for no other pair shares more than they do.
 */
export function sharesOf(mosaic: Mosaic, frames: readonly LaidFrame[], frame: Size): Neighbours[] {
  if (mosaic.pattern === 'turn') {
    return frames.slice(1).map((_, i) => ({ a: i, b: i + 1, share: overlapOf(mosaic) }));
  }
  const shareOf = (a: number, b: number): number => sharedShare(frames[a]!, frames[b]!, frame);
  if (mosaic.pattern === 'pinwheel') return roundShares(frames.length, shareOf);
  const pairs =
    mosaic.pattern === 'grid' ? pairsOf(mosaic, frames.length)! : nearPairs(frames, frame);
  return pairs.flatMap(([a, b]) => {
    const share = shareOf(a, b);
    return share > 0 ? [{ a, b, share }] : [];
  });
}

/** Frames turned by equal steps about one middle: what two share hangs on the steps between them. */
function roundShares(count: number, shareOf: (a: number, b: number) => number): Neighbours[] {
  const bySteps = Array.from({ length: Math.floor(count / 2) + 1 }, (_, steps) =>
    steps === 0 ? 0 : shareOf(0, steps),
  );
  const found: Neighbours[] = [];
  for (let a = 0; a < count; a++) {
    for (let b = a + 1; b < count; b++) {
      const share = bySteps[Math.min(b - a, count - b + a)]!;
      if (share > 0) found.push({ a, b, share });
    }
  }
  return found;
}

/** So few are looked through quicker than they are put in order. */
const FEW = 24;

/** Pairs near enough to share anything, found along x. */
function nearPairs(
  frames: readonly LaidFrame[],
  { widthMm, heightMm }: Size,
): (readonly [number, number])[] {
  const far = Math.hypot(widthMm, heightMm);
  if (frames.length <= FEW) {
    return frames.flatMap((one, i) =>
      frames.flatMap((other, j) =>
        j > i &&
        Math.abs(one.centre.x - other.centre.x) < far &&
        Math.abs(one.centre.y - other.centre.y) < far
          ? [[i, j] as const]
          : [],
      ),
    );
  }
  const order = frames.map((_, i) => i).sort((a, b) => frames[a]!.centre.x - frames[b]!.centre.x);
  const found: (readonly [number, number])[] = [];
  order.forEach((i, place) => {
    const { x, y } = frames[i]!.centre;
    for (let next = place + 1; next < order.length; next++) {
      const j = order[next]!;
      const { centre } = frames[j]!;
      if (centre.x - x >= far) break;
      if (Math.abs(centre.y - y) < far) found.push(i < j ? [i, j] : [j, i]);
    }
  });
  return found.sort((p, q) => p[0] - q[0] || p[1] - q[1]);
}

function sharedShare(one: LaidFrame, other: LaidFrame, { widthMm, heightMm }: Size): number {
  const area = widthMm * heightMm;
  if (!isUpright(one) || !isUpright(other)) return sharedArea(one, other) / area;
  const dx = Math.abs(one.centre.x - other.centre.x);
  const dy = Math.abs(one.centre.y - other.centre.y);
  return (Math.max(0, widthMm - dx) * Math.max(0, heightMm - dy)) / area;
}

const isUpright = ({ rotationDeg }: LaidFrame): boolean => rotationDeg === 0;

function sharedArea(one: LaidFrame, other: LaidFrame): number {
  const part = sharedPart(one.corners, other.corners);
  return part.length < 3 ? 0 : areaOf(part);
}

export function neighboursOf(
  mosaic: Mosaic,
  count: number,
  shares: readonly Neighbours[],
): Neighbours[] {
  const pairs = pairsOf(mosaic, count);
  if (!pairs) return shares.filter(({ share }) => share > NEIGHBOURLY);
  const key = (a: number, b: number): number => a * count + b;
  const known = new Map(shares.map(({ a, b, share }) => [key(a, b), share]));
  return pairs.map(([a, b]) => ({ a, b, share: known.get(key(a, b)) ?? 0 }));
}
