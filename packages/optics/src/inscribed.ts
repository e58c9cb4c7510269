import { slice, type Cone, type Point } from './coverage.js';
import { insidePolygon, unionEdges } from './union.js';

/**
 * The largest upright rectangle about a given middle that lies in what several convex frames cover
 * together and in the circle. With every edge folded into one quadrant about the middle, each says
 * how high the rectangle may be at a half width; between the ends of the edges that is the least of
 * straight lines and of the circle's edge, and half width times it has one summit.
 */
export interface Size {
  readonly widthMm: number;
  readonly heightMm: number;
}

/** An edge folded into the first quadrant, left end first. */
interface Folded {
  readonly x0: number;
  readonly y0: number;
  readonly x1: number;
  readonly y1: number;
}

/** An edge in the quadrant: cut where it crosses an axis, its parts laid over each other. */
function folded(from: Point, to: Point): Folded[] {
  const cuts = [0, 1];
  for (const axis of ['x', 'y'] as const) {
    const t = from[axis] / (from[axis] - to[axis]);
    if (t > 0 && t < 1) cuts.push(t);
  }
  cuts.sort((a, b) => a - b);
  const place = (t: number): Point => ({
    x: Math.abs(from.x + t * (to.x - from.x)),
    y: Math.abs(from.y + t * (to.y - from.y)),
  });
  return cuts.slice(1).map((t, i) => {
    const [a, b] = [place(cuts[i]!), place(t)];
    const [left, right] = a.x <= b.x ? [a, b] : [b, a];
    return { x0: left.x, y0: left.y, x1: right.x, y1: right.y };
  });
}

/** How high above and below the middle the cone reaches, half a width to either side. */
function coneHalfHeight(cone: Cone, { x, y }: Point, halfWidth: number): number {
  const sides = [x - halfWidth, x + halfWidth].map((at) =>
    slice(cone, { x: at, y }, { x: 0, y: 1 }),
  );
  return Math.min(...sides.flatMap(({ low, high }) => [high, -low]));
}

/** Falls from the left end to the right one: its line bounds the height between them. */
const falls = ({ x0, x1, y0, y1 }: Folded): boolean => y1 < y0 && x1 > x0;

const lineAt = ({ x0, y0, x1, y1 }: Folded, x: number): number =>
  y0 + ((x - x0) / (x1 - x0)) * (y1 - y0);

const GOLDEN = (Math.sqrt(5) - 1) / 2;
/** Golden sections leave 10⁻¹³ of a span. */
const SECTIONS = 64;

/** Where between two ends a function with one summit is greatest. */
function summit(low: number, high: number, of: (x: number) => number): number {
  let [a, b] = [low, high];
  let [c, d] = [b - GOLDEN * (b - a), a + GOLDEN * (b - a)];
  let [fc, fd] = [of(c), of(d)];
  for (let i = 0; i < SECTIONS; i++) {
    if (fc >= fd) {
      [b, d, fd] = [d, c, fc];
      c = b - GOLDEN * (b - a);
      fc = of(c);
    } else {
      [a, c, fc] = [c, d, fd];
      d = a + GOLDEN * (b - a);
      fd = of(d);
    }
  }
  return [low, high, (a + b) / 2].reduce((best, x) => (of(x) > of(best) ? x : best));
}

function largestArea(edges: readonly Folded[], coneAt: (halfWidth: number) => number): Size | null {
  const ends = [...new Set(edges.flatMap(({ x0, x1 }) => [x0, x1]))].sort((a, b) => a - b);
  if (ends[0]! > 0) ends.unshift(0);
  let best: { area: number; x: number; y: number } | null = null;
  const step = (x: number): number =>
    edges.reduce((least, e) => {
      const met = falls(e) ? e.x1 : e.x0;
      return met <= x ? Math.min(least, e.y0, e.y1) : least;
    }, Infinity);
  for (let i = 1; i < ends.length; i++) {
    const [low, high] = [ends[i - 1]!, ends[i]!];
    const flat = step(low);
    if (flat <= 0) break;
    const lines = edges.filter((e) => falls(e) && e.x0 <= low && e.x1 >= high);
    const height = (x: number): number =>
      lines.reduce((least, e) => Math.min(least, lineAt(e, x)), Math.min(flat, coneAt(x)));
    const most = Math.min(height(low), flat);
    if (best && high * most <= best.area) continue;
    const x =
      lines.length === 0 && coneAt(high) >= flat
        ? high
        : summit(low, high, (at) => at * Math.max(0, height(at)));
    const y = height(x);
    if (y > 0 && (!best || x * y > best.area)) best = { area: x * y, x, y };
  }
  return best && { widthMm: 2 * best.x, heightMm: 2 * best.y };
}

/** How large a rectangle of a shape may grow before it meets an edge: the least of max(x/a, y/u). */
function growth({ x0, y0, x1, y1 }: Folded, across: number, up: number): number {
  const size = (t: number): number =>
    Math.max((x0 + t * (x1 - x0)) / across, (y0 + t * (y1 - y0)) / up);
  const [start, turn] = [x0 / across - y0 / up, (x1 - x0) / across - (y1 - y0) / up];
  const t = turn === 0 ? 0 : Math.min(1, Math.max(0, -start / turn));
  return Math.min(size(0), size(1), size(t));
}

function largestOfShape(
  edges: readonly Folded[],
  cone: Cone | null,
  middle: Point,
  { across, up }: { readonly across: number; readonly up: number },
): Size | null {
  let size = Math.min(...edges.map((edge) => growth(edge, across, up)));
  if (cone) {
    for (const direction of [
      { x: across, y: up },
      { x: across, y: -up },
    ]) {
      const { low, high } = slice(cone, middle, direction);
      size = Math.min(size, high, -low);
    }
  }
  return size > 0 ? { widthMm: 2 * size * across, heightMm: 2 * size * up } : null;
}

/**
 * The largest upright rectangle about a middle inside all frames together and the cone of light.
 * @param frames convex, anticlockwise, mm on the sensor
 * @param cone null: the light is not asked
 * @param shape width to height; without it the rectangle of the largest area
 * @returns null where the middle itself is in no frame or gets no light
 */
export function largestWithin(
  frames: readonly (readonly Point[])[],
  cone: Cone | null,
  middle: Point,
  shape?: { readonly across: number; readonly up: number },
): Size | null {
  if (!frames.some((frame) => insidePolygon(middle, frame))) return null;
  const edges = unionEdges(frames).flatMap(({ from, to }) =>
    folded(
      { x: from.x - middle.x, y: from.y - middle.y },
      { x: to.x - middle.x, y: to.y - middle.y },
    ),
  );
  if (shape) return largestOfShape(edges, cone, middle, shape);
  return largestArea(edges, (half) => (cone ? coneHalfHeight(cone, middle, half) : Infinity));
}
