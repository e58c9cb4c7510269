import { type Point, type Size, isWholeSearch } from '@gangway/optics';
import type { FrameStop } from '../carrier.js';
import { overlapOf } from '../layout.js';
import { blocksOf, MOST_FRAMES } from './grids.js';
import { judged, type Asked, type Judged } from './judged.js';
import { withBlock, withPlaces } from './laid.js';
import { areaOf, better, framesOf, FULL } from './ranked.js';
import { centreFor, type Room } from './room.js';
import type { Stand } from './stand.js';
import { fewerAmong, litStops, stopBlocks } from './stops.js';
import { serves } from './want.js';

/** Columns and rows by their number of frames. */
const SHAPES = Array.from({ length: MOST_FRAMES }, (_, i) => i + 1)
  .flatMap((columns) =>
    Array.from({ length: Math.floor(MOST_FRAMES / columns) }, (_, j) => ({ columns, rows: j + 1 })),
  )
  .filter(({ columns, rows }) => columns <= 16 && rows <= 16)
  .sort((a, b) => a.columns * a.rows - b.columns * b.rows);

const askedOf = ({ want, effort }: Stand, room: Room): Asked => ({
  overlap: overlapOf(room.layout.mosaic),
  sharp: want.sharp,
  effort,
});

/** The largest block of one shape that can be set. */
function tryShape(
  stand: Stand,
  room: Room,
  columns: number,
  rows: number,
  good: (j: Judged) => boolean,
): Judged | null {
  const { want, station } = stand;
  const asked = askedOf(stand, room);
  for (const block of blocksOf(room, want, columns, rows)) {
    const tried = judged(withBlock(station, room, block), asked);
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
function* blocksThatServe(
  stand: Stand,
  room: Room,
): Generator<number, { readonly found: readonly Judged[]; readonly all: boolean }> {
  const { want } = stand;
  const most = enough(room);
  const pitch = room.layout.pixelPitchMm;
  const served = (tried: Judged): boolean => serves(want, tried.picture, pitch);
  const found: Judged[] = [];
  const shapes = SHAPES.filter(({ columns, rows }) => columns <= most.columns && rows <= most.rows);
  /** More frames than are tried would add nothing. */
  const all = most.columns * most.rows <= MOST_FRAMES;
  let count = 0;
  for (const { columns, rows } of shapes) {
    yield ++count / shapes.length;
    if (!want.fill && found.length > 0 && columns * rows > framesOf(found[0]!)) break;
    const tried = tryShape(stand, room, columns, rows, served);
    if (tried) found.push(tried);
  }
  return { found, all };
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
  const asked = askedOf(stand, room);
  const pitch = room.layout.pixelPitchMm;
  const places = litStops(room, stops);
  const found: Judged[] = [];
  // To a fill more frames must bring more.
  const over = (): number => (found.length > 0 ? areaOf(found.at(-1)!) * 1.01 : 0);
  let looked = 0;
  for (const { count, share, centres } of stopBlocks(room, want, places, over)) {
    if (++looked % 20 === 0) yield share / 2;
    const last = found.at(-1);
    if (last && !want.fill) break;
    // One of each number of frames, the largest.
    if (last && framesOf(last) === count) continue;
    const at = centres();
    const tried = at && judged(withPlaces(station, room, at), asked);
    if (tried && serves(want, tried.picture, pitch)) found.push(tried);
  }
  return found;
}

/** What was found on one carrier, and whether none with fewer frames is there, for certain. */
export interface Shifted {
  /** The fewest first. */
  readonly found: readonly Judged[];
  readonly proven: boolean;
}

/** Looks among all stops for fewer frames than a layout that is known, or for one where none is. */
function* fewest(
  stand: Stand,
  room: Room,
  places: readonly Point[],
  known: Judged | undefined,
  areaMm2: number,
): Generator<number, { readonly best: Judged | undefined; readonly proven: boolean }> {
  const { want, station } = stand;
  const asked = askedOf(stand, room);
  const judge = (centres: readonly Point[]): Judged | null => {
    const sorted = [...centres].sort((a, b) => b.y - a.y || a.x - b.x);
    const tried = judged(withPlaces(station, room, sorted), asked);
    const good =
      tried &&
      serves(want, tried.picture, room.layout.pixelPitchMm) &&
      areaOf(tried) >= areaMm2 * (1 - 1e-6);
    return good ? tried : null;
  };
  const { best, certain } = yield* mapped(
    fewerAmong(room, places, want, areaMm2, known ? framesOf(known) : Infinity, judge),
    (share) => 0.5 + share / 2,
  );
  return { best: best ?? known, proven: certain && isWholeSearch(stand.effort) };
}

/** A search whose progress is told on another scale. */
function* mapped<T>(
  search: Generator<number, T>,
  to: (share: number) => number,
): Generator<number, T> {
  for (;;) {
    const step = search.next();
    if (step.done) return step.value;
    yield to(step.value);
  }
}

/** Layouts by back or lens moved across, of one stand. */
export function* shifted(stand: Stand, room: Room): Generator<number, Shifted> {
  const { stops, turns } = room.carrier;
  // A back that turns round the middle is not shifted.
  if (stops?.some(({ rotationDeg }) => rotationDeg !== 0)) return { found: [], proven: true };
  if (!stops) {
    const { found, all } = yield* blocksThatServe(stand, room);
    // By rise and shift apart every block of fewer frames was tried before. What is turned to shift
    // may have layouts besides; a fill, or a wish that none serves, might want more frames still.
    const proven =
      isWholeSearch(stand.effort) && !turns && (all || (found.length > 0 && !stand.want.fill));
    return { found: enoughOf(found, stand), proven };
  }
  const found = yield* stopsThatServe(stand, room, stops);
  const area = stand.want.fill ? FULL * Math.max(0, ...found.map(areaOf)) : 0;
  const [known, ...others] = enoughOf(found, stand);
  if (!isWholeSearch(stand.effort)) return { found: enoughOf(found, stand), proven: false };
  if (known && framesOf(known) === 1) return { found: [known, ...others], proven: true };
  if (stops.length > MOST_LISTED) return { found: enoughOf(found, stand), proven: false };
  const { best, proven } = yield* fewest(stand, room, litStops(room, stops), known, area);
  return { found: best ? [best, ...others] : [], proven };
}

/** The fewest frames that are enough first; of a fill those that fill it. */
function enoughOf(found: readonly Judged[], { want }: Stand): Judged[] {
  const area = want.fill ? FULL * Math.max(0, ...found.map(areaOf)) : 0;
  const first = found.filter((each) => areaOf(each) >= area).sort(better)[0];
  return first ? [first, ...found.filter((each) => each !== first)] : [];
}
