import type { Xy } from './plan.js';
import { halfSize, type View } from './view.js';

/** Where tiles of an overlap lie in both frames, pixels from their middles, y down. */
export interface TilePlace {
  readonly inA: Xy;
  readonly inB: Xy;
  readonly column: number;
  readonly row: number;
}

export interface Tiling {
  readonly sizePx: number;
  readonly places: readonly TilePlace[];
}

const LARGEST_PX = 256;
const LEAST_PX = 32;
/** So many along the short and the long side of an overlap at most. */
const MOST_SHORT = 5;
const MOST_LONG = 9;
/** Pixels kept free at a frame's edge. */
const EDGE_PX = 2;

const powerWithin = (most: number): number => 2 ** Math.floor(Math.log2(most));

/** Middles of `count` tiles over a stretch, evenly. */
function spaced(from: number, to: number, size: number, most: number): number[] {
  const room = to - from - size;
  if (room < 0) return [];
  const count = Math.max(1, Math.min(most, Math.floor(room / (size / 2)) + 1));
  if (count === 1) return [(from + to) / 2];
  return Array.from({ length: count }, (_, i) => from + size / 2 + (room * i) / (count - 1));
}

/** Held inside the frame: a near thing may have left it. */
const within = ({ x, y }: Xy, half: Xy, size: number): Xy => {
  const hold = (value: number, most: number): number => Math.max(-most, Math.min(most, value));
  return { x: hold(x, half.x - size / 2), y: hold(y, half.y - size / 2) };
};

/**
 * Tiles over what two frames share.
 * @param way middle of b from that of a, pixels, y down
 * @param partOff how far b shows a part from where the whole would have it
 */
export function tilesOver(
  a: View,
  b: View,
  way: Xy,
  partOff: (at: Xy, sizePx: number) => Xy,
): Tiling {
  const [ha, hb] = [halfSize(a), halfSize(b)];
  const left = Math.max(-ha.x, way.x - hb.x) + EDGE_PX;
  const right = Math.min(ha.x, way.x + hb.x) - EDGE_PX;
  const top = Math.max(-ha.y, way.y - hb.y) + EDGE_PX;
  const foot = Math.min(ha.y, way.y + hb.y) - EDGE_PX;
  const [width, height] = [right - left, foot - top];
  const short = Math.min(width, height);
  if (short < LEAST_PX) return { sizePx: LEAST_PX, places: [] };
  const sizePx = Math.max(LEAST_PX, Math.min(LARGEST_PX, powerWithin(short / 2)));
  const across = spaced(left, right, sizePx, width <= height ? MOST_SHORT : MOST_LONG);
  const down = spaced(top, foot, sizePx, width <= height ? MOST_LONG : MOST_SHORT);
  const places = down.flatMap((y, row) =>
    across.map((x, column) => {
      const off = partOff({ x, y }, sizePx);
      const inB = { x: x - way.x + off.x, y: y - way.y + off.y };
      return { inA: { x, y }, inB: within(inB, hb, sizePx), column, row };
    }),
  );
  return { sizePx, places };
}
