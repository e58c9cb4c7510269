import { robustFit } from '../numbers/least-squares.js';
import { quantile } from '../numbers/statistics.js';
import { noiseOf, rooted } from '../planes/filter.js';
import type { Plane } from '../planes/plane.js';
import type { FrameFile, LoadedFrame } from '../planes/source.js';
import { matchTile } from '../prove/tile.js';
import { breathe, type Work } from '../numbers/work.js';
import { bandTerms, commonRings, DETAIL_PX, detailOf, own, ownRings, ringsOfBand, type Detail } from './detail.js'; // prettier-ignore

/**
 * The same picture several times: laid over each other tile by tile, and the detail of each tile in
 * each picture, noise taken off.
 */

export interface StackTile {
  /** Of its middle from the picture's, pixels, y up. */
  readonly x: number;
  readonly y: number;
  /** Detail in each picture, as contrast² against light²; null where a picture does not show it. */
  readonly detail: readonly (number | null)[];
  /** What noise makes uncertain of each, one deviation. */
  readonly sigma: readonly number[];
  /** Detail ring by ring of frequencies, and its deviation. */
  readonly rings: readonly (readonly RingDetail[] | null)[];
}

export interface RingDetail {
  readonly power: number;
  readonly sigma: number;
}

export interface Stack {
  readonly tiles: readonly StackTile[];
  readonly widthPx: number;
  readonly heightPx: number;
  /** Pictures that did not lie still, by more than a few pixels. */
  readonly moved: readonly number[];
  /** Pictures that show something else. */
  readonly foreign: readonly number[];
  readonly clipped: number;
}

const LEAST_ALIGNED = 6;
const MOVED_PX = 3;
/** Tiles with more than this clipped are not looked at. */
const CLIPPED_SHARE = 0.01;
const MOST_ACROSS = 16;

interface Grid {
  readonly xs: readonly number[];
  readonly ys: readonly number[];
}

/** Left and top edges of tiles, evenly over the picture. */
function gridOf(widthPx: number, heightPx: number): Grid {
  const along = (side: number): number[] => {
    const room = side - DETAIL_PX - 16;
    const count = Math.max(1, Math.min(MOST_ACROSS, Math.floor(room / DETAIL_PX) + 1));
    return Array.from({ length: count }, (_, i) => 8 + Math.round(count === 1 ? room / 2 : (room * i) / (count - 1))); // prettier-ignore
  };
  return { xs: along(widthPx), ys: along(heightPx) };
}

/** How a picture lies on the first: shift, and growth with the distance from the middle. */
interface Lies {
  readonly dx: number;
  readonly dy: number;
  readonly scale: number;
}

interface Read {
  readonly details: (Detail | null)[];
  /** What is left of each tile's shift after whole pixels, pixels. */
  readonly rest: (readonly [number, number])[];
  readonly lies: Lies | null;
}

const tileAt = (
  loaded: LoadedFrame,
  x: number,
  y: number,
  { widthPx, heightPx }: FrameFile,
): Plane | null =>
  x < 0 || y < 0 || x + DETAIL_PX > widthPx || y + DETAIL_PX > heightPx
    ? null
    : loaded.piece({ x, y, width: DETAIL_PX, height: DETAIL_PX });

/** Fits shift and scale to the tiles that match. */
function liesOn(
  first: readonly Plane[],
  places: readonly (readonly [number, number])[],
  file: FrameFile,
  loaded: LoadedFrame,
): Lies | null {
  const rows: number[][] = [];
  const wanted: number[] = [];
  const noise = quantile(first.map((plane) => noiseOf(rooted(plane))), 0.15); // prettier-ignore
  places.forEach(([x, y], i) => {
    const plane = tileAt(loaded, x, y, file);
    if (!plane) return;
    const match = matchTile(first[i]!, plane, noise);
    if (match.state !== 'matched') return;
    const [u, v] = [x + DETAIL_PX / 2 - file.widthPx / 2, y + DETAIL_PX / 2 - file.heightPx / 2];
    rows.push([1, 0, u], [0, 1, v]);
    wanted.push(match.dx, match.dy);
  });
  if (rows.length < 2 * LEAST_ALIGNED) return null;
  const fit = robustFit(rows, wanted, 0.05);
  return fit && { dx: fit.x[0]!, dy: fit.x[1]!, scale: fit.x[2]! };
}

/** Reads the pictures one at a time. @throws Stopped */
export async function stackOf(
  files: readonly FrameFile[],
  reference: number,
  work: Work = {},
): Promise<Stack> {
  const lead = files[reference]!;
  const { widthPx, heightPx } = lead;
  const { xs, ys } = gridOf(widthPx, heightPx);
  const places = ys.flatMap((y) => xs.map((x) => [x, y] as const));
  let first: Plane[] = [];
  const reads: Read[] = [];
  const order = [reference, ...files.map((_, i) => i).filter((i) => i !== reference)];
  let clipped = 0;
  let done = 0;
  for (const i of order) {
    await breathe(work);
    const file = files[i]!;
    const loaded = await file.load();
    try {
      if (i === reference) first = places.map(([x, y]) => tileAt(loaded, x, y, file)!);
      const lies =
        i === reference ? { dx: 0, dy: 0, scale: 0 } : liesOn(first, places, file, loaded);
      const rest: (readonly [number, number])[] = [];
      const details = places.map(([x, y]) => {
        const [u, v] = [x + DETAIL_PX / 2 - widthPx / 2, y + DETAIL_PX / 2 - heightPx / 2];
        const [dx, dy] = lies ? [lies.dx + lies.scale * u, lies.dy + lies.scale * v] : [0, 0];
        rest.push([dx - Math.round(dx), dy - Math.round(dy)]);
        const plane = lies && tileAt(loaded, x + Math.round(dx), y + Math.round(dy), file);
        if (!plane) return null;
        const detail = detailOf(plane);
        if (detail.clipped > 0) clipped += Math.round(detail.clipped * DETAIL_PX ** 2);
        return detail.clipped > CLIPPED_SHARE ? null : detail;
      });
      reads[i] = { details, rest, lies };
    } finally {
      loaded.close();
    }
    work.progress?.(++done, files.length);
  }
  const noises = noisesOf(reads, places.length);
  const terms = bandTerms();
  const ofRings = ringsOfBand();
  return {
    widthPx,
    heightPx,
    clipped,
    foreign: files.flatMap((_, i) => (reads[i]!.lies === null ? [i] : [])),
    moved: files.flatMap((_, i) => {
      const { lies } = reads[i]!;
      return lies && Math.hypot(lies.dx, lies.dy) > MOVED_PX ? [i] : [];
    }),
    tiles: places.map(([x, y], t) => {
      const detail = reads.map(({ details }, i) => {
        const each = details[t];
        return each ? Math.max(0, own(each) - noises[i]! / each.light) : null;
      });
      const rings = reads.map(({ details }, i) => {
        const each = details[t];
        if (!each) return null;
        const noise = noises[i]! / each.light;
        const powers = ownRings(each);
        return ofRings.map(({ share, terms: count }, k): RingDetail => {
          const power = Math.max(0, powers[k]! - noise * share);
          return { power, sigma: doubtOf(power, noise * share, count) };
        });
      });
      return {
        x: x + DETAIL_PX / 2 - widthPx / 2,
        y: heightPx / 2 - y - DETAIL_PX / 2,
        detail,
        sigma: detail.map((each, i) => {
          const noise = noises[i]! / (reads[i]!.details[t]?.light ?? 1);
          return doubtOf(each ?? 0, noise, terms);
        }),
        rings,
      };
    }),
  };
}

/** A sum of squares of detail and noise is off by twice their product and by noise squared. */
const doubtOf = (power: number, noise: number, terms: number): number =>
  Math.sqrt((4 * power * noise + 2 * noise * noise) / terms);

/** Neighbours have enough in common in a ring to tell what a third shares with them. */
const IN_COMMON = 0.3;
/** The emptiest places of a picture, and how empty they are beside the usual ones when only noise is there. */
const EMPTIEST = 0.06;
const EMPTY_BESIDE = 0.08;

/**
 * Noise of each picture, times light. Where some places have next to nothing fine, it is what they have.
 * Elsewhere it is what a tile has and two other pictures do not: within a ring of frequencies blur only
 * makes everything less, so that what i has of the scene is what it shares with j times what it shares
 * with k over what those two share.
 */
function noisesOf(reads: readonly Read[], tiles: number): number[] {
  const ofRings = ringsOfBand();
  const apart = (i: number, j: number, t: number): Float64Array => {
    const [p, q] = [reads[i]!, reads[j]!];
    const [from, to] = [p.rest[t]!, q.rest[t]!];
    return commonRings(p.details[t]!, q.details[t]!, to[0] - from[0], to[1] - from[1]);
  };
  return reads.map(({ details, lies }, i) => {
    if (!lies) return 0;
    const near = reads
      .map((_, j) => j)
      .filter((j) => j !== i && reads[j]!.lies)
      .sort((p, q) => Math.abs(p - i) - Math.abs(q - i));
    const [j, k = near[0]] = near;
    if (j === undefined || k === undefined) return 0;
    const all = details.flatMap((each) =>
      each ? [...ownRings(each)].map((power, r) => (power * each.light) / ofRings[r]!.share) : [],
    );
    const floor = quantile(all, EMPTIEST);
    if (floor < EMPTY_BESIDE * quantile(all, 0.5)) return floor;
    const found: number[] = [];
    for (let t = 0; t < tiles; t++) {
      const [mine, one, other] = [details[t], reads[j]!.details[t], reads[k]!.details[t]];
      if (!mine || !one || !other) continue;
      const [has, hasOne, hasOther] = [ownRings(mine), ownRings(one), ownRings(other)];
      const [withOne, withOther] = [apart(i, j, t), apart(i, k, t)];
      const between = j === k ? hasOne : apart(j, k, t);
      ofRings.forEach(({ share }, ring) => {
        if (between[ring]! < IN_COMMON * Math.sqrt(hasOne[ring]! * hasOther[ring]!)) return;
        const shared = Math.max(0, (withOne[ring]! * withOther[ring]!) / between[ring]!);
        found.push(((has[ring]! - shared) * mine.light) / share);
      });
    }
    return found.length > 0 ? Math.max(0, Math.min(floor, quantile(found, 0.5))) : 0;
  });
}
