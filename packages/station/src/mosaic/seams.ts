import {
  clip,
  covers,
  newBudget,
  project,
  sharedPart,
  spend,
  type Budget,
  type Point,
} from '@gangway/optics';
import type { Mark, Station } from '../document/station.js';
import { markPlace } from '../optical/places.js';
import { findable, withinCarrier } from './carrier.js';
import { framesSaid } from '../words/mosaic-problems.js';
import { layoutOf, type LaidFrame, type Layout, type Neighbours } from './layout.js';
import { withLayoutMoved } from './edits.js';

/** Where two neighbouring frames meet: what both see, and the line halfway between them. */
export interface Seam extends Neighbours {
  readonly shared: readonly Point[];
  /** Null where frames that are turned against each other meet: their seam is the merge's to choose. */
  readonly from: Point | null;
  readonly to: Point | null;
}

/** What two frames both see; of two upright ones a rectangle, which needs no clipping. */
function sharedOf(one: LaidFrame, other: LaidFrame): Point[] {
  if (one.rotationDeg !== 0 || other.rotationDeg !== 0)
    return sharedPart(one.corners, other.corners);
  const [a, , b] = one.corners as [Point, Point, Point, Point];
  const [c, , d] = other.corners as [Point, Point, Point, Point];
  const [left, foot] = [Math.max(a.x, c.x), Math.max(a.y, c.y)];
  const [right, top] = [Math.min(b.x, d.x), Math.min(b.y, d.y)];
  if (left >= right || foot >= top) return [];
  return [
    { x: left, y: foot },
    { x: right, y: foot },
    { x: right, y: top },
    { x: left, y: top },
  ];
}

/** The seams of frames that lie on one flat picture; a turned camera's are not drawn on it. */
export function seamsOf(layout: Layout): Seam[] {
  if (layout.turn) return [];
  return layout.neighbours.flatMap((pair): Seam[] => {
    const [one, other] = [layout.frames[pair.a]!, layout.frames[pair.b]!];
    const shared = sharedOf(one, other);
    if (shared.length < 3) return [];
    if (Math.abs(one.rotationDeg - other.rotationDeg) % 180 > 0.1) {
      return [{ ...pair, shared, from: null, to: null }];
    }
    // Halfway between the two middles: the line as far from one as from the other.
    const [nx, ny] = [other.centre.x - one.centre.x, other.centre.y - one.centre.y];
    const length = Math.hypot(nx, ny);
    if (length === 0) return [];
    const half = (nx * (one.centre.x + other.centre.x) + ny * (one.centre.y + other.centre.y)) / 2;
    const hair = 1e-6 * length;
    const line = clip(clip(shared, nx, ny, half + hair), -nx, -ny, hair - half);
    if (line.length < 2) return [];
    const along = (p: Point): number => p.x * -ny + p.y * nx;
    const ends = [...line].sort((p, q) => along(p) - along(q));
    return [{ ...pair, shared, from: ends[0]!, to: ends.at(-1)! }];
  });
}

/** A mark that a seam would spoil. */
export interface SeamTrouble {
  readonly seam: Seam;
  readonly mark: Mark;
  readonly index: number;
  readonly at: Point;
}

/** A seam is blended over a strip: this share of the frame's shorter side to either side of it. */
const STRIP = 0.04;

function offSeam({ from, to }: Seam, p: Point): number {
  if (!from || !to) return Infinity;
  const [dx, dy] = [to.x - from.x, to.y - from.y];
  const t = ((p.x - from.x) * dx + (p.y - from.y) * dy) / (dx * dx + dy * dy || 1);
  const held = Math.max(0, Math.min(1, t));
  return Math.hypot(p.x - from.x - held * dx, p.y - from.y - held * dy);
}

const inside = (polygon: readonly Point[], { x, y }: Point): boolean =>
  polygon.every((p, i) => {
    const q = polygon[(i + 1) % polygon.length]!;
    return (q.x - p.x) * (y - p.y) - (q.y - p.y) * (x - p.x) >= -1e-9;
  });

interface Cared {
  readonly mark: Mark;
  readonly index: number;
  readonly at: Point;
}

/** Marks that care about seams, where they are pictured. */
function caredFor(station: Station, { s }: Layout): Cared[] {
  const place = markPlace(s);
  return (station.marks ?? []).flatMap((mark, index) => {
    if (mark.at_seams === undefined) return [];
    const p = place(mark);
    if (!(p[2] > 0)) return [];
    const at = project(p, s.imageDistanceMm);
    return [{ mark, index, at: { x: at.x * s.factor, y: at.y * s.factor } }];
  });
}

/** Fine detail on the strip of a seam; what moves anywhere that two frames see. */
function troubles(
  layout: Layout,
  cared: readonly Cared[],
  seams: readonly Seam[] = seamsOf(layout),
): SeamTrouble[] {
  if (cared.length === 0) return [];
  const strip = STRIP * Math.min(layout.frame.widthMm, layout.frame.heightMm);
  return seams.flatMap((seam) =>
    cared
      .filter(({ mark, at }) =>
        mark.at_seams === 'moving' ? inside(seam.shared, at) : offSeam(seam, at) <= strip,
      )
      .map((each) => ({ seam, ...each })),
  );
}

export const seamTroubles = (
  station: Station,
  layout: Layout = layoutOf(station),
  seams: readonly Seam[] = seamsOf(layout),
): SeamTrouble[] => troubles(layout, caredFor(station, layout), seams);

export const troubleSaid = ({ seam, mark, index }: SeamTrouble): string => {
  const name = mark.label || `mark ${index + 1}`;
  const frames = framesSaid([seam.a, seam.b]);
  return mark.at_seams === 'moving'
    ? `${name} moves, and ${frames} both see it.`
    : `The seam of ${frames} runs through ${name}.`;
};

/** A move of the whole layout that spares what a seam would spoil. */
export interface SparingMove {
  readonly after: Station;
  readonly dx: number;
  readonly dy: number;
}

/** What was found; whether every move was looked at. */
export interface Spared {
  readonly move: SparingMove | null;
  readonly all: boolean;
}

const NO_MOVE: Spared = { move: null, all: true };

/** Moves looked at, as shares of the frame's side. */
const REACH = 0.5;
const STEPS = 60;

/** What a try costs for each frame, and for each mark at its seams. */
const [FRAME_STEPS, SEAM_STEPS] = [500, 20];

/** The least move of all frames together after which no seam spoils anything and all is as well lit. */
export function sparingMove(station: Station, budget: Budget = newBudget()): Spared {
  const layout = layoutOf(station);
  const cared = caredFor(station, layout);
  const before = troubles(layout, cared).length;
  // A ring and a pinwheel go round straight ahead, wherever seams fall.
  const { pattern } = layout.mosaic;
  if (before === 0 || (pattern !== 'grid' && pattern !== 'free')) return NO_MOVE;
  const { widthMm, heightMm } = layout.frame;
  const lost = lostCorners(layout);
  const tries: { dx: number; dy: number }[] = [];
  for (let i = 1; i <= STEPS; i++) {
    const t = (i / STEPS) * REACH;
    tries.push(
      { dx: t * widthMm, dy: 0 },
      { dx: -t * widthMm, dy: 0 },
      { dx: 0, dy: t * heightMm },
      { dx: 0, dy: -t * heightMm },
    );
  }
  tries.sort((a, b) => Math.hypot(a.dx, a.dy) - Math.hypot(b.dx, b.dy));
  const middle = layout.middle;
  const steps = layout.frames.length * (FRAME_STEPS + SEAM_STEPS * cared.length);
  for (const { dx, dy } of tries) {
    if (!spend(budget, steps)) return { move: null, all: false };
    const after = withLayoutMoved(station, dx, dy);
    const there = layoutOf(after);
    const moved = { x: there.middle.x - middle.x, y: there.middle.y - middle.y };
    if (Math.hypot(moved.x, moved.y) < 1e-6) continue;
    if (troubles(there, cared).length > 0 || lostCorners(there) > lost) continue;
    if (!settable(there)) continue;
    return { move: { after, dx: moved.x, dy: moved.y }, all: true };
  }
  return NO_MOVE;
}

const lostCorners = ({ frames, cone }: Layout): number =>
  frames.flatMap(({ corners }) => corners.filter((corner) => !covers(cone, corner))).length;

const settable = ({ carrier, frames }: Layout): boolean =>
  carrier !== null &&
  frames.every(
    ({ set, rotationDeg }) => withinCarrier(carrier, set) && findable(carrier, set, rotationDeg),
  );
