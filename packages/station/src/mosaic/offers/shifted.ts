import type { Point, Size } from '@gangway/optics';
import type { FrameStop } from '../carrier.js';
import { overlapOf } from '../layout.js';
import { blocksOf, MOST_FRAMES } from './grids.js';
import { judged, type Judged } from './judged.js';
import { withBlock, withPlaces } from './laid.js';
import { areaOf, better, framesOf, FULL } from './ranked.js';
import { centreFor, type Room } from './room.js';
import type { Stand } from './stand.js';
import { fewerAmong, litStops, stopBlocks } from './stops.js';
import { leastSize, serves } from './want.js';

/** Columns and rows by their number of frames. */
const SHAPES = Array.from({ length: MOST_FRAMES }, (_, i) => i + 1)
  .flatMap((columns) =>
    Array.from({ length: Math.floor(MOST_FRAMES / columns) }, (_, j) => ({ columns, rows: j + 1 })),
  )
  .filter(({ columns, rows }) => columns <= 16 && rows <= 16)
  .sort((a, b) => a.columns * a.rows - b.columns * b.rows);

/** The largest block of one shape that can be set. */
function tryShape(
  stand: Stand,
  room: Room,
  columns: number,
  rows: number,
  good: (j: Judged) => boolean,
): Judged | null {
  const { want, station } = stand;
  const overlap = overlapOf(room.layout.mosaic);
  for (const block of blocksOf(room, want, columns, rows)) {
    const tried = judged(withBlock(station, room, block), overlap, want.sharp);
    if (tried && good(tried)) return tried;
  }
  return null;
}

/** Columns and rows beyond which the light is full at any height or width. */
function enough(room: Room): { columns: number; rows: number } {
  const { frame, mosaic } = room.layout;
  const step = 1 - overlapOf(mosaic);
  const reach = (of: (n: number) => Size): number => {
    let n = 1;
    while (n < 16 && centreFor(room, of(n))) n++;
    return n;
  };
  return {
    columns: reach((n) => ({ ...frame, widthMm: frame.widthMm * (1 + (n - 1) * step) })),
    rows: reach((n) => ({ ...frame, heightMm: frame.heightMm * (1 + (n - 1) * step) })),
  };
}

/** Every layout by blocks on a carrier that has no stops of its own. */
function* blocksThatServe(stand: Stand, room: Room): Generator<number, Judged[]> {
  const { want } = stand;
  const most = enough(room);
  const pitch = room.layout.pixelPitchMm;
  const served = (tried: Judged): boolean => serves(want, tried.picture, pitch);
  const found: Judged[] = [];
  const shapes = SHAPES.filter(({ columns, rows }) => columns <= most.columns && rows <= most.rows);
  let count = 0;
  for (const { columns, rows } of shapes) {
    yield ++count / shapes.length;
    if (!want.fill && found.length > 0 && columns * rows > framesOf(found[0]!)) break;
    // Where movements may stand anywhere, fewer frames were all tried before: this is the least.
    const tried = tryShape(stand, room, columns, rows, served);
    if (tried)
      // What is turned to shift may have layouts besides these blocks.
      found.push({ ...tried, least: !room.carrier.turns });
  }
  return found;
}

/** Stops that are few enough to be put to the solver. */
const MOST_LISTED = 100;

/** Layouts on a back that stops at places of its own. */
function* stopsThatServe(
  stand: Stand,
  room: Room,
  stops: readonly FrameStop[],
): Generator<number, Judged[]> {
  const { want, station } = stand;
  const overlap = overlapOf(room.layout.mosaic);
  const pitch = room.layout.pixelPitchMm;
  const places = litStops(room, stops);
  const least = leastSize(want, pitch);
  const area = ({ size }: { size: Size }): number => size.widthMm * size.heightMm;
  const blocks = stopBlocks(room, places)
    .filter(
      (block) =>
        block.size.widthMm >= least.widthMm - 1e-6 &&
        block.size.heightMm >= least.heightMm - 1e-6 &&
        area(block) >= least.areaMm2 * (1 - 1e-6),
    )
    .sort((a, b) => a.centres.length - b.centres.length || area(b) - area(a));
  const found: Judged[] = [];
  for (const [i, block] of blocks.entries()) {
    const last = found.at(-1);
    // One of each number of frames, the largest; to a fill more frames must bring more.
    if (last && framesOf(last) === block.centres.length) continue;
    if (last && !want.fill) break;
    if (last && area(block) <= areaOf(last) * 1.01) continue;
    const tried = judged(withPlaces(station, room, block.centres), overlap, want.sharp);
    if (tried && serves(want, tried.picture, pitch)) found.push(tried);
    if (i % 20 === 0) yield i / blocks.length / 2;
  }
  return found;
}

/** Proves the fewest of a list, or finds fewer. */
function* certain(
  stand: Stand,
  room: Room,
  places: readonly Point[],
  known: Judged,
  areaMm2: number,
): Generator<number, Judged> {
  const { want, station } = stand;
  const search = fewerAmong(room, places, want, areaMm2, framesOf(known));
  for (;;) {
    const { done, value } = search.next();
    if (!done) {
      yield 0.5 + (value as number) / 2;
      continue;
    }
    const { centres, certain: sure } = value as {
      centres: readonly Point[] | null;
      certain: boolean;
    };
    if (!centres) return { ...known, least: sure };
    const sorted = [...centres].sort((a, b) => b.y - a.y || a.x - b.x);
    const tried = judged(
      withPlaces(station, room, sorted),
      overlapOf(room.layout.mosaic),
      want.sharp,
    );
    const good =
      tried &&
      serves(want, tried.picture, room.layout.pixelPitchMm) &&
      areaOf(tried) >= areaMm2 * (1 - 1e-6);
    // A cover whose box is not where the picture was put serves only where it is judged to.
    return good ? { ...tried, least: sure } : { ...known, least: false };
  }
}

/** Layouts by back or lens moved across, of one stand. */
export function* shifted(stand: Stand, room: Room): Generator<number, Judged[]> {
  const { carrier } = room;
  const stops = carrier.stops;
  if (stops?.some(({ rotationDeg }) => rotationDeg !== 0)) return [];
  const found = stops
    ? yield* stopsThatServe(stand, room, stops)
    : yield* blocksThatServe(stand, room);
  const full = Math.max(0, ...found.map(areaOf));
  const area = stand.want.fill ? FULL * full : 0;
  const known = [...found].filter((each) => areaOf(each) >= area).sort(better)[0];
  if (!known || known.least || !stops) return found;
  const proven =
    framesOf(known) === 1
      ? { ...known, least: true }
      : stops.length <= MOST_LISTED
        ? yield* certain(stand, room, litStops(room, stops), known, area)
        : known;
  return [proven, ...found.filter((each) => each !== known)];
}
