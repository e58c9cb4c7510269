import { robustFit } from '../numbers/least-squares.js';
import type { FrameFile } from '../planes/source.js';
import type { Work } from '../numbers/work.js';
import { sharpestAt } from './sharpest.js';
import { stackOf, type StackTile } from './stack.js';
import { leastOf, mostOf } from '../numbers/extremes.js';

/**
 * The true zero of a lens or standard that leans, from pictures of a flat chart square before the
 * camera at small leans: where both sides are equally sharp.
 */

export interface ZeroFile {
  readonly file: FrameFile;
  /** What the scale read. */
  readonly deg: number;
}

export type ZeroProblem = 'too_few' | 'even_chart' | 'too_little' | 'outside' | 'foreign';

export interface ZeroMeasured {
  /** What the scale reads when the lens is straight; null where the pictures do not tell. */
  readonly zeroDeg: number | null;
  /** One deviation. */
  readonly sigmaDeg: number | null;
  readonly problems: readonly ZeroProblem[];
}

/** Tiles nearer to the axis than this part of the picture hardly change. */
const OFF_AXIS = 0.15;
const LEAST_TILES = 4;
/** Where a tile is sharpest is known no better than to this part of the step between leans. */
const OF_A_STEP = 1 / 16;

interface Away {
  readonly tile: StackTile;
  /** From the axis that is leaned about, part of the picture's side. */
  readonly away: number;
}

/**
 * With three pictures or more each tile has a lean at which it is sharpest: θ = zero − c / away, with c
 * from how far the middle was out of focus. So away × θ is a line in away, and its slope is the zero.
 */
function byTiles(
  tiles: readonly Away[],
  asked: readonly ZeroFile[],
  shown: readonly number[],
): ZeroMeasured {
  const settings = shown.map((i) => ({ i, at: asked[i]!.deg }));
  const told = tiles.flatMap(({ tile, away }) => {
    const deg = sharpestAt(tile, settings);
    return deg === null ? [] : [{ away, deg }];
  });
  if (told.length < LEAST_TILES) return { zeroDeg: null, sigmaDeg: null, problems: ['too_little'] };
  const fit = robustFit(told.map(({ away }) => [away, -1]), told.map(({ away, deg }) => away * deg), 1e-3); // prettier-ignore
  if (!fit) return { zeroDeg: null, sigmaDeg: null, problems: ['too_little'] };
  const reach = Math.sqrt(told.reduce((sum, { away }) => sum + away * away, 0));
  return { zeroDeg: fit.x[0]!, sigmaDeg: fit.sigma / reach, problems: [] };
}

/** With two pictures of a chart that is the same on both sides: where their detail would be equal. */
function bySides(
  tiles: readonly Away[],
  asked: readonly ZeroFile[],
  shown: readonly number[],
): ZeroMeasured {
  const ratios = shown.map((i) => {
    const side = (sign: number): number =>
      tiles.filter(({ away }) => sign * away > 0).reduce((sum, { tile }) => sum + (tile.detail[i] ?? 0), 0); // prettier-ignore
    return { deg: asked[i]!.deg, ratio: Math.log(side(1) / side(-1)) };
  });
  const [p, q] = ratios;
  if (!p || !q || !Number.isFinite(p.ratio) || !Number.isFinite(q.ratio) || p.ratio === q.ratio) {
    return { zeroDeg: null, sigmaDeg: null, problems: ['too_little'] };
  }
  const zeroDeg = p.deg - (p.ratio * (q.deg - p.deg)) / (q.ratio - p.ratio);
  return { zeroDeg, sigmaDeg: null, problems: ['even_chart'] };
}

/** From lean to lean around a place. */
function stepAt(leans: readonly number[], deg: number): number {
  const sorted = [...leans].sort((a, b) => a - b);
  const after = Math.min(
    sorted.length - 1,
    Math.max(
      1,
      sorted.findIndex((lean) => lean >= deg),
    ),
  );
  return sorted[after]! - sorted[after - 1]!;
}

/**
 * @param axis tilt leans top against bottom, swing left against right
 * @throws Stopped
 */
export async function measureZero(
  asked: readonly ZeroFile[],
  axis: 'tilt' | 'swing',
  work: Work = {},
): Promise<ZeroMeasured> {
  const leans = new Set(asked.map(({ deg }) => deg));
  if (leans.size < 2) return { zeroDeg: null, sigmaDeg: null, problems: ['too_few'] };
  const stack = await stackOf(asked.map(({ file }) => file), Math.floor(asked.length / 2), work); // prettier-ignore
  const shown = asked.map((_, i) => i).filter((i) => !stack.foreign.includes(i));
  const foreign: ZeroProblem[] = stack.foreign.length > 0 ? ['foreign'] : [];
  const tiles = stack.tiles
    .map((tile) => ({
      tile,
      away: axis === 'tilt' ? tile.y / stack.heightPx : tile.x / stack.widthPx,
    }))
    .filter(({ away }) => Math.abs(away) > OFF_AXIS);
  const left = new Set(shown.map((i) => asked[i]!.deg)).size;
  if (left < 2) return { zeroDeg: null, sigmaDeg: null, problems: ['too_few', ...foreign] };
  const found = left >= 3 ? byTiles(tiles, asked, shown) : bySides(tiles, asked, shown);
  const { zeroDeg } = found;
  const [least, most] = [leastOf(leans), mostOf(leans)];
  const outside = zeroDeg !== null && (zeroDeg < least || zeroDeg > most);
  const floor = OF_A_STEP * stepAt([...leans], zeroDeg ?? 0);
  const sigmaDeg = found.sigmaDeg === null ? null : Math.max(found.sigmaDeg, floor);
  return { ...found, sigmaDeg, problems: [...foreign, ...found.problems, ...(outside ? ['outside' as const] : [])] }; // prettier-ignore
}
