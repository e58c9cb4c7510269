import { robustFit } from '../numbers/least-squares.js';
import { quantile, rms, spread } from '../numbers/statistics.js';
import type { Xy } from './plan.js';
import type { TileMatch } from './tile.js';

/** A tile of an overlap and what it says. Pixels, y up. */
export interface Told extends Pick<TileMatch, 'state' | 'sigmaPx' | 'stops'> {
  /** Its middle in frame a and in frame b, from their middles as the pair was laid before. */
  readonly inA: Xy;
  readonly inB: Xy;
  /** Column and row of the tiles over the overlap. */
  readonly column: number;
  readonly row: number;
  /** How far frame b lies off from where a and the plan put it. */
  readonly off: Xy;
}

/** What the tiles of one overlap say together. */
export interface PairFound {
  /** How far b lies from where a and the plan put it, pixels, y up. */
  readonly off: Xy;
  /** How far b is turned against a, radians anticlockwise; 0 where nothing shows it. */
  readonly turnRad: number;
  /** Brighter b is positive; null where nothing says. */
  readonly stops: number | null;
  /** Tiles that match, of those with something to see. */
  readonly matched: number;
  /** Tiles with something to see. */
  readonly seen: number;
  /** By how much tiles part along the travel, pixels. */
  readonly partsPx: number;
  /** What each tile is off from the pair as a whole; null where it did not match. */
  readonly left: readonly (Xy | null)[];
  /** Tiles of one region that disagree with the rest. */
  readonly region: readonly number[];
  readonly residualPx: number;
}

/** A tile's place is known no better than this, pixels: light falls between pixels. */
const LEAST_SIGMA_PX = 0.06;
/** A turn counts when it stands out so many deviations, and moves the overlap's ends by this, pixels. */
const TURN_SURE = 6;
const LEAST_TURN_PX = 0.4;
/** Off by more than this, and by so many deviations, a tile disagrees. */
const DISAGREES_PX = 1;
const DISAGREES_SIGMAS = 6;
/** Near and far part by this, pixels. */
export const PARALLAX_PX = 2;
/** A region is at least so many tiles side by side. */
const LEAST_REGION = 2;

/** Along and across the travel. */
interface Axes {
  readonly along: Xy;
  readonly across: Xy;
}

const dot = (a: Xy, b: Xy): number => a.x * b.x + a.y * b.y;

/** The relative turn of two frames from what tiles are off across the travel, which no depth changes. */
function turned(
  tiles: readonly Told[],
  { along, across }: Axes,
): { turnRad: number; off: number; sigma: number } | null {
  const u = tiles.map(({ inB }) => dot(inB, along));
  const middle = quantile(u, 0.5);
  const wanted = tiles.map(({ off }) => dot(off, across));
  const weights = tiles.map(({ sigmaPx }) => 1 / Math.max(LEAST_SIGMA_PX, sigmaPx) ** 2);
  const plain = robustFit(
    tiles.map(() => [1]),
    wanted,
    LEAST_SIGMA_PX,
    weights,
  );
  if (!plain) return null;
  const straight = { turnRad: 0, off: plain.x[0]!, sigma: plain.sigma };
  if (tiles.length < 6) return straight;
  const bent = robustFit(
    u.map((each) => [1, each - middle]),
    wanted,
    LEAST_SIGMA_PX,
    weights,
  );
  if (!bent) return straight;
  const reach = Math.sqrt(u.reduce((sum, each) => sum + (each - middle) ** 2, 0));
  const slope = bent.x[1]!;
  const ends = Math.abs(slope) * (quantile(u, 0.95) - quantile(u, 0.05));
  if (Math.abs(slope) * reach < TURN_SURE * bent.sigma || ends < LEAST_TURN_PX) return straight;
  return { turnRad: slope, off: bent.x[0]! - slope * middle, sigma: bent.sigma };
}

/** The largest set of tiles side by side among those that are asked for. */
export function largestRegion(tiles: readonly Told[], of: readonly number[]): number[] {
  const waiting = new Set(of);
  let largest: number[] = [];
  for (const start of of) {
    if (!waiting.delete(start)) continue;
    const region = [start];
    for (const i of region) {
      for (const j of waiting) {
        const [p, q] = [tiles[i]!, tiles[j]!];
        if (Math.abs(p.column - q.column) > 1 || Math.abs(p.row - q.row) > 1) continue;
        waiting.delete(j);
        region.push(j);
      }
    }
    if (region.length > largest.length) largest = region;
  }
  return largest;
}

const NOTHING: Omit<PairFound, 'matched' | 'seen' | 'left'> = {
  off: { x: 0, y: 0 },
  turnRad: 0,
  stops: null,
  partsPx: 0,
  region: [],
  residualPx: 0,
};

/** Fewer matches than this say nothing of a pair. */
export const LEAST_MATCHED = 4;

/** @param along unit way from a to b as planned */
export function pairFound(tiles: readonly Told[], along: Xy): PairFound {
  const seen = tiles.filter(({ state }) => state !== 'poor').length;
  const matchedAt = tiles.flatMap(({ state }, i) => (state === 'matched' ? [i] : []));
  const matches = matchedAt.map((i) => tiles[i]!);
  const axes = { along, across: { x: -along.y, y: along.x } };
  const cross = matches.length >= LEAST_MATCHED ? turned(matches, axes) : null;
  if (!cross) return { ...NOTHING, matched: matches.length, seen, left: tiles.map(() => null) };
  const { turnRad, sigma } = cross;
  // Off along the travel, with what the turn does there taken away.
  const alongOff = matches.map(({ off, inB }) => dot(off, along) + turnRad * dot(inB, axes.across));
  const weights = matches.map(({ sigmaPx }) => 1 / Math.max(LEAST_SIGMA_PX, sigmaPx) ** 2);
  const straight = robustFit(
    matches.map(() => [1]),
    alongOff,
    LEAST_SIGMA_PX,
    weights,
  )!;
  const t = straight.x[0]!;
  const crossOff = matches.map(({ off, inB }) => dot(off, axes.across) - turnRad * dot(inB, along) - cross.off); // prettier-ignore
  const allowed = Math.max(DISAGREES_PX, DISAGREES_SIGMAS * sigma);
  const leftAt = new Map(matchedAt.map((i, k) => [i, { u: alongOff[k]! - t, w: crossOff[k]! }]));
  const asideAt = [...leftAt].filter(([, { w }]) => Math.abs(w) > allowed).map(([i]) => i);
  const inLine = [...leftAt.values()].filter(({ w }) => Math.abs(w) <= allowed).map(({ u }) => u);
  const most = Math.max(2 / Math.max(1, inLine.length), 0.03);
  const partsPx = inLine.length >= LEAST_MATCHED ? quantile(inLine, 1 - most) - quantile(inLine, most) : 0; // prettier-ignore
  const parted = partsPx >= PARALLAX_PX;
  const lostAt = tiles.flatMap(({ state }, i) => (state === 'lost' ? [i] : []));
  const aheadAt = [...leftAt].filter(([, { u }]) => Math.abs(u) > allowed).map(([i]) => i);
  // Where near and far part, edges between them match neither; only what goes aside moves by itself.
  const odd = parted ? asideAt : [...new Set([...asideAt, ...aheadAt, ...lostAt])];
  const region = largestRegion(tiles, odd);
  return {
    off: {
      x: t * along.x + cross.off * axes.across.x,
      y: t * along.y + cross.off * axes.across.y,
    },
    turnRad,
    stops: stopsOf(matches, along),
    matched: matches.length,
    seen,
    partsPx: Math.max(0, partsPx),
    left: tiles.map((_, i) => {
      const at = leftAt.get(i);
      if (!at) return null;
      return {
        x: at.u * along.x + at.w * axes.across.x,
        y: at.u * along.y + at.w * axes.across.y,
      };
    }),
    region: region.length >= LEAST_REGION ? region : [],
    residualPx: rms([...leftAt.values()].flatMap(({ u, w }) => [u, w])) * Math.SQRT2,
  };
}

/**
 * Exposure of b over a. Light that falls off round each frame's own middle is even about the line
 * halfway between them: whatever is odd along the travel is left out.
 */
function stopsOf(matches: readonly Told[], along: Xy): number | null {
  const lit = matches.filter(({ stops }) => stops !== null);
  if (lit.length === 0) return null;
  const wanted = lit.map(({ stops }) => stops!);
  const scale = Math.max(1, ...lit.map(({ inA, inB }) => Math.hypot(inA.x + inB.x, inA.y + inB.y)));
  const rows = lit.map(({ inA, inB }) => {
    const middle = { x: (inA.x + inB.x) / scale, y: (inA.y + inB.y) / scale };
    const u = dot(middle, along);
    return [1, u, u * dot(middle, middle)];
  });
  const wide = spread(rows.map(([, u]) => u!)) * scale;
  const enough = lit.length >= 8 && wide > 2;
  const fit = enough ? robustFit(rows, wanted, 0.005) : null;
  return (
    fit?.x[0] ??
    robustFit(
      lit.map(() => [1]),
      wanted,
      0.005,
    )!.x[0]!
  );
}
