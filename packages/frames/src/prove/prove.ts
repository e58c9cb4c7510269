import { quantile } from '../numbers/statistics.js';
import { noiseOf, rooted } from '../planes/filter.js';
import type { Plane } from '../planes/plane.js';
import { reducedBy, reducedWhole, type FrameFile } from '../planes/source.js';
import { breathe, type Work } from '../numbers/work.js';
import { arrange, type Arranged, type Placed, type Small } from './arrange.js';
import { pairFound, type PairFound, type Told } from './pair.js';
import { settled, tied } from './places.js';
import type { Plan, Xy } from './plan.js';
import type { Proof, ProvedFrame, ProvedOverlap, SetAside } from './result.js';
import { matchTile } from './tile.js';
import { tilesOver, type Tiling } from './tiles.js';
import { astray, overall, verdictOf, type Verdict } from './verdict.js';
import { tileOf, viewOf, type View } from './view.js';
import { leastOf, mostOf } from '../numbers/extremes.js';

/**
 * Where the frames of a mosaic really lay, and whether lens, body and light stood still. Each file is
 * read twice, one at a time: small for the order, then in tiles where frames overlap.
 */

/** Longest side of a frame made small, pixels. */
const SMALL_PX = 256;
/** Smaller pictures are looked at as they are. */
const HALVED_FROM_PX = 192;

interface Side {
  readonly plane: Plane;
  /** Its middle from the frame's, pixels, y down. */
  readonly x: number;
  readonly y: number;
}

/** An overlap with the tiles of its two frames, as far as they are read. */
interface Pending {
  readonly a: number;
  readonly b: number;
  readonly tiling: Tiling;
  sidesA: readonly (Side | null)[] | null;
  sidesB: readonly (Side | null)[] | null;
  told: Told[];
}

const up = ({ x, y }: Xy): Xy => ({ x, y: -y });
const minus = (a: Xy, b: Xy): Xy => ({ x: a.x - b.x, y: a.y - b.y });

/** Pictures of which most are not of one size are no frames of one back. */
function ofOneSize(files: readonly FrameFile[]): { kept: FrameFile[]; aside: SetAside[] } {
  const sizeOf = ({ widthPx, heightPx }: FrameFile): string =>
    `${Math.max(widthPx, heightPx)} × ${Math.min(widthPx, heightPx)}`;
  const counts = new Map<string, number>();
  for (const file of files) counts.set(sizeOf(file), (counts.get(sizeOf(file)) ?? 0) + 1);
  const [usual] = [...counts].sort(([, a], [, b]) => b - a)[0] ?? [''];
  return {
    kept: files.filter((file) => sizeOf(file) === usual),
    aside: files
      .filter((file) => sizeOf(file) !== usual)
      .map((file) => ({
        file: file.name,
        why: `it has ${file.widthPx} × ${file.heightPx} pixels, the others ${usual}`,
      })),
  };
}

/** By the camera's clock where all tell it, then by name, numbers in them as numbers. */
export function inShootingOrder<T extends Pick<FrameFile, 'name' | 'takenS'>>(
  files: readonly T[],
): T[] {
  const timed = files.every(({ takenS }) => takenS !== null);
  const byName = new Intl.Collator('en', { numeric: true });
  return [...files].sort(
    (p, q) => (timed ? p.takenS! - q.takenS! : 0) || byName.compare(p.name, q.name),
  );
}

/** Tiles that noise is taken from; of those the ones with least texture tell it. */
const NOISE_TILES = 12;

function noiseOfSides(sides: readonly (Side | null)[]): number {
  const all = sides.filter((side) => side !== null);
  const every = Math.max(1, Math.floor(all.length / NOISE_TILES));
  const looked = all.filter((_, i) => i % every === 0);
  return quantile(looked.map(({ plane }) => noiseOf(rooted(plane))), 0.15) || 0; // prettier-ignore
}

function tell({ tiling, sidesA, sidesB }: Pending, wayPlanned: Xy): Told[] {
  const noise = Math.max(noiseOfSides(sidesA!), noiseOfSides(sidesB!));
  return tiling.places.flatMap(({ column, row }, i): Told[] => {
    const [p, q] = [sidesA![i], sidesB![i]];
    if (!p || !q) return [];
    const { state, dx, dy, sigmaPx, stops } = matchTile(p.plane, q.plane, noise);
    const inA = up(p);
    const inB = up({ x: q.x + dx, y: q.y + dy });
    // On a and on b it is the same place of the picture: ca + oa + pa = cb + ob + pb.
    const off = minus(minus(inA, inB), wayPlanned);
    return [{ state, sigmaPx, stops, inA, inB: up(q), column, row, off }];
  });
}

const distanceOf = ({ x, y }: Xy): number => Math.hypot(x, y);

interface Scene {
  readonly plan: Plan;
  readonly arranged: Arranged;
  readonly views: readonly View[];
  readonly pitchMm: number;
}

/** b's middle from a's as planned, pixels, y up. */
const wayOf = ({ arranged, pitchMm }: Scene, { a, b }: { a: number; b: number }): Xy => {
  const [p, q] = [arranged.placed[a]!.planned, arranged.placed[b]!.planned];
  return { x: (q.xMm - p.xMm) / pitchMm, y: (q.yMm - p.yMm) / pitchMm };
};

const unit = (way: Xy): Xy => {
  const size = distanceOf(way);
  return size > 0 ? { x: way.x / size, y: way.y / size } : { x: 1, y: 0 };
};

/** Off the plan by more than any depth from far to near explains, pixels. */
function slipOf(off: Xy, along: Xy, farPx: number, partsPx: number): number {
  const [u, w] = [off.x * along.x + off.y * along.y, off.y * along.x - off.x * along.y];
  const beyond = u < farPx ? u - farPx : u > farPx + partsPx ? u - farPx - partsPx : 0;
  return Math.hypot(beyond, w);
}

/** What a turn moves at the corners of a frame, pixels. */
const turnPx = (turnRad: number, { widthPx, heightPx }: View): number =>
  (Math.abs(turnRad) * Math.hypot(widthPx, heightPx)) / 2;

function overlapOf(scene: Scene, pending: Pending, found: PairFound): ProvedOverlap {
  const { plan, arranged, pitchMm, views } = scene;
  const [p, q] = [arranged.placed[pending.a]!, arranged.placed[pending.b]!];
  const planned = plan.pairs.find(({ a, b }) => a === p.index && b === q.index)!;
  const [partsPx, farPx] = [planned.partsMm / pitchMm, planned.farMm / pitchMm];
  const along = unit(wayOf(scene, pending));
  const slipPx = Math.max(
    slipOf(found.off, along, farPx, partsPx),
    turnPx(found.turnRad, views[pending.b]!),
  );
  const verdict = verdictOf({
    found,
    tiles: pending.tiling.places.length,
    slipPx,
    pitchMm,
    lensTravels: plan.lensTravels,
    expectedPx: planned.partsMm > 0 ? partsPx : null,
  });
  const moved =
    found.region.length > 0
      ? found.region
      : found.left.flatMap((each, i) => (astray(each) ? [i] : []));
  const odd = new Set(verdict === 'moving' ? moved : []);
  return {
    a: p.planned.order,
    b: q.planned.order,
    residualPx: found.residualPx,
    parallaxPx: found.partsPx,
    exposureStops: found.stops,
    matched: pending.tiling.places.length > 0 ? found.matched / pending.tiling.places.length : 0,
    verdict,
    offPx: found.off,
    slipPx,
    turnDeg: found.turnRad === 0 ? 0 : (-found.turnRad * 180) / Math.PI,
    tiles: pending.told.map(({ inA, state }, i) => ({
      atMm: { x: p.planned.xMm + inA.x * pitchMm, y: p.planned.yMm + inA.y * pitchMm },
      state,
      leftPx: found.left[i] ?? null,
      odd: odd.has(i),
    })),
  };
}

/** Overlaps that say where a frame lies. */
const TELLING: ReadonlySet<Verdict> = new Set(['moving', 'parallax', 'slipped', 'light', 'still']);

/** Least that an overlap's place is off, and its exposure, before it is held down. */
const PLACE_FLOOR_PX = 0.15;
const TURN_FLOOR_RAD = 2e-5;
const STOPS_FLOOR = 0.01;

interface Found {
  readonly a: number;
  readonly b: number;
  readonly found: PairFound;
  /** Whether it says where its frames lie. */
  readonly telling: boolean;
}

function framesOf(scene: Scene, founds: readonly Found[]): ProvedFrame[] {
  const { arranged, pitchMm, views } = scene;
  const count = arranged.placed.length;
  const telling = founds.filter((each) => each.telling);
  const held = (value: (each: Found) => number, floor: number, of = telling): number[] =>
    settled(
      count,
      of.map((each) => ({
        a: each.a,
        b: each.b,
        value: value(each),
        weight: Math.sqrt(each.found.matched),
      })),
      floor,
    );
  const turns = held(({ found }) => found.turnRad, TURN_FLOOR_RAD);
  // A place found against a turned neighbour is turned with it.
  const x = held(
    (each) => each.found.off.x - turns[each.a]! * wayOf(scene, each).y,
    PLACE_FLOOR_PX,
  );
  const y = held(
    (each) => each.found.off.y + turns[each.a]! * wayOf(scene, each).x,
    PLACE_FLOOR_PX,
  );
  const lit = telling.filter(({ found }) => found.stops !== null);
  const stops = held(({ found }) => found.stops!, STOPS_FLOOR, lit);
  const group = (pairs: readonly { a: number; b: number }[]): ReadonlySet<number> =>
    new Set(tied(count, pairs).find((each) => each.includes(0)));
  const [placed, light] = [group(telling), group(lit)];
  return arranged.placed.map(({ small, planned, rotationDeg, turnedDeg }, i) => {
    const off = placed.has(i) ? { x: x[i]!, y: y[i]! } : { x: 0, y: 0 };
    return {
      file: small.file.name,
      order: planned.order,
      xMm: planned.xMm + off.x * pitchMm,
      yMm: planned.yMm + off.y * pitchMm,
      rotationDeg: rotationDeg - (placed.has(i) ? (turns[i]! * 180) / Math.PI : 0),
      turnedDeg,
      offPx: off,
      exposureStops: light.has(i) ? stops[i]! : null,
      widthPx: views[i]!.widthPx,
      heightPx: views[i]!.heightPx,
      tied: placed.has(i) && count > 1,
    };
  });
}

/** Reads files small, one at a time; those that fail when read are set aside. */
async function smallsOf(files: readonly FrameFile[], k: number, work: Work, step: () => void) {
  const smalls: Small[] = [];
  const aside: SetAside[] = [];
  for (const file of files) {
    await breathe(work);
    try {
      const loaded = await file.load();
      try {
        smalls.push({ file, plane: reducedWhole(file, loaded, k) });
      } finally {
        loaded.close();
      }
    } catch (error) {
      aside.push({ file: file.name, why: whyOf(error) });
    }
    step();
  }
  return { smalls, aside };
}

const whyOf = (error: unknown): string => (error instanceof Error ? error.message : String(error));

/** Overlaps whose tiles are all read are told, and their tiles let go. */
async function readTiles(
  scene: Scene,
  pendings: readonly Pending[],
  work: Work,
  step: () => void,
): Promise<void> {
  for (const [i, { small }] of scene.arranged.placed.entries()) {
    await breathe(work);
    // Gone since it was read small: its overlaps then say nothing.
    const loaded = await small.file.load().catch(() => null);
    if (!loaded) {
      step();
      continue;
    }
    try {
      const sides = (places: readonly Xy[], size: number): (Side | null)[] =>
        places.map(({ x, y }) => tileOf(scene.views[i]!, loaded, x, y, size));
      for (const each of pendings) {
        const { places, sizePx } = each.tiling;
        if (each.a === i) each.sidesA = sides(places.map(({ inA }) => inA), sizePx); // prettier-ignore
        if (each.b === i) each.sidesB = sides(places.map(({ inB }) => inB), sizePx); // prettier-ignore
      }
    } finally {
      loaded.close();
    }
    for (const each of pendings) {
      if (!each.sidesA || !each.sidesB) continue;
      await breathe(work);
      each.told = tell(each, wayOf(scene, each));
      each.sidesA = null;
      each.sidesB = null;
    }
    step();
  }
}

function proofOf(scene: Scene, pendings: readonly Pending[], aside: readonly SetAside[]): Proof {
  const { plan, arranged, pitchMm, views } = scene;
  const judged = pendings.map((pending) => {
    const found = pairFound(pending.told, unit(wayOf(scene, pending)));
    return { pending, found, overlap: overlapOf(scene, pending, found) };
  });
  const founds = judged.map(({ pending: { a, b }, found, overlap }) => ({
    a,
    b,
    found,
    telling: TELLING.has(overlap.verdict),
  }));
  const frames = framesOf(scene, founds);
  const overlaps = judged.map(({ overlap }) => overlap);
  const shown = new Set(arranged.placed.map(({ index }) => index));
  const missing = plan.frames.filter((_, i) => !shown.has(i)).map(({ order }) => order);
  const loose = frames.some(({ tied: held }) => !held) || missing.length > 0;
  const edges = frames.map(({ xMm, yMm }, i) => {
    const [w, h] = [views[i]!.widthPx * pitchMm, views[i]!.heightPx * pitchMm];
    return { left: xMm - w / 2, right: xMm + w / 2, foot: yMm - h / 2, top: yMm + h / 2 };
  });
  const span = (from: number[], to: number[]): number =>
    from.length > 0 ? Math.round((mostOf(to) - leastOf(from)) / pitchMm) : 0;
  return {
    frames,
    overlaps,
    widthPx: span(edges.map(({ left }) => left), edges.map(({ right }) => right)), // prettier-ignore
    heightPx: span(edges.map(({ foot }) => foot), edges.map(({ top }) => top)), // prettier-ignore
    pitchMm,
    verdict: overall(overlaps.map(({ verdict }) => verdict), loose), // prettier-ignore
    setAside: [...arranged.aside, ...aside],
    missing,
    orderBy: arranged.orderBy,
  };
}

/**
 * Proves a mosaic.
 * @param files that can be opened; those that cannot are set aside by who opens them
 * @throws Stopped
 */
export async function prove(
  files: readonly FrameFile[],
  plan: Plan,
  work: Work = {},
): Promise<Proof> {
  const { kept, aside: otherSize } = ofOneSize(files);
  const ordered = inShootingOrder(kept);
  let done = 0;
  const of = Math.max(1, 2 * ordered.length);
  const step = (): void => work.progress?.(++done, of);
  const longest = Math.max(
    1,
    ...ordered.map(({ widthPx, heightPx }) => Math.max(widthPx, heightPx)),
  );
  const k = reducedBy(Math.max(longest < HALVED_FROM_PX ? 1 : 2, Math.ceil(longest / SMALL_PX)));
  const { smalls, aside: broken } = await smallsOf(ordered, k, work, step);
  const aside = [...otherSize, ...broken];
  const pitchMm = Math.max(plan.widthMm, plan.heightMm) / longest;
  const cylinderPx = plan.cylinderMm === null ? null : plan.cylinderMm / pitchMm;
  const arranged: Arranged =
    smalls.length > 0
      ? await arrange(smalls, plan, { k, pitchMm }, work)
      : { placed: [], rough: [], aside: [], orderBy: 'name' };
  const views = arranged.placed.map(({ small, rotationDeg }: Placed) => viewOf(small.file, rotationDeg, cylinderPx)); // prettier-ignore
  const scene: Scene = { plan, arranged, views, pitchMm };
  const pendings = arranged.rough.map(({ a, b, way, partOff }): Pending => ({
    a,
    b,
    tiling: tilesOver(views[a]!, views[b]!, way, partOff),
    sidesA: null,
    sidesB: null,
    told: [],
  }));
  await readTiles(scene, pendings, work, step);
  return proofOf(scene, pendings, aside);
}
