import type { Point, Span } from './coverage.js';

/** From one end to the other; what is covered lies to its left. */
export interface Edge {
  readonly from: Point;
  readonly to: Point;
}

/** A gap or an overlap thinner than this is none: a tenth of a nanometre. */
const HAIR_MM = 1e-7;

type Polygon = readonly Point[];

const at = ({ from, to }: Edge, t: number): Point => ({
  x: from.x + t * (to.x - from.x),
  y: from.y + t * (to.y - from.y),
});

const edgesOf = (polygon: Polygon): Edge[] =>
  polygon.map((from, i) => ({ from, to: polygon[(i + 1) % polygon.length]! }));

/** The edge moved to its right, out of its own polygon. */
function movedOut({ from, to }: Edge, by: number): Edge {
  const length = Math.hypot(to.x - from.x, to.y - from.y) || 1;
  const [x, y] = [((to.y - from.y) / length) * by, ((from.x - to.x) / length) * by];
  return { from: { x: from.x + x, y: from.y + y }, to: { x: to.x + x, y: to.y + y } };
}

/** The stretch of an edge inside a convex polygon, from 0 to 1 along it. */
function insideSpan({ from, to }: Edge, polygon: Polygon): Span {
  let [low, high] = [0, 1];
  for (let i = 0; i < polygon.length; i++) {
    const [a, b] = [polygon[i]!, polygon[(i + 1) % polygon.length]!];
    const [dx, dy] = [b.x - a.x, b.y - a.y];
    const start = dx * (from.y - a.y) - dy * (from.x - a.x);
    const climb = dx * (to.y - from.y) - dy * (to.x - from.x);
    if (climb === 0) {
      if (start < 0) return { low: 1, high: 0 };
    } else if (climb > 0) low = Math.max(low, -start / climb);
    else high = Math.min(high, -start / climb);
    if (low >= high) return { low: 1, high: 0 };
  }
  return { low, high };
}

/** What a span takes from others. */
function without(spans: readonly Span[], { low, high }: Span): Span[] {
  if (low >= high) return spans as Span[];
  const left: Span[] = [];
  for (const span of spans) {
    if (high <= span.low || low >= span.high) left.push(span);
    else {
      if (low > span.low) left.push({ low: span.low, high: low });
      if (high < span.high) left.push({ low: high, high: span.high });
    }
  }
  return left;
}

interface Box {
  readonly left: number;
  readonly right: number;
  readonly foot: number;
  readonly top: number;
}

function boxOf(points: Polygon): Box {
  let [left, right, foot, top] = [Infinity, -Infinity, Infinity, -Infinity];
  for (const { x, y } of points) {
    if (x < left) left = x;
    if (x > right) right = x;
    if (y < foot) foot = y;
    if (y > top) top = y;
  }
  return { left, right, foot, top };
}

/** Whether two boxes lie apart by more than a hair. */
const apart = (a: Box, b: Box): boolean =>
  a.left > b.right + 2 * HAIR_MM ||
  b.left > a.right + 2 * HAIR_MM ||
  a.foot > b.top + 2 * HAIR_MM ||
  b.foot > a.top + 2 * HAIR_MM;

/** So few are looked through quicker than they are put in order. */
const FEW = 24;

/** Finds the boxes that may meet one, without looking at all of them: in order from left to right. */
class Boxes {
  /** Where there are few. */
  private readonly all: readonly number[] | null;
  private readonly order: readonly number[];
  private readonly lefts: readonly number[];
  private readonly widest: number;

  constructor(boxes: readonly Box[]) {
    const indices = boxes.map((_, i) => i);
    this.all = boxes.length <= FEW ? indices : null;
    this.order = this.all ?? indices.sort((a, b) => boxes[a]!.left - boxes[b]!.left);
    this.lefts = this.all ? [] : this.order.map((i) => boxes[i]!.left);
    this.widest = this.all
      ? 0
      : boxes.reduce((most, { left, right }) => Math.max(most, right - left), 0);
  }

  /** Indices of those that may not be apart from a box, in their own order. */
  near(box: Box): readonly number[] {
    if (this.all) return this.all;
    const found: number[] = [];
    let [low, high] = [0, this.lefts.length];
    const from = box.left - this.widest - 2 * HAIR_MM;
    while (low < high) {
      const middle = (low + high) >> 1;
      if (this.lefts[middle]! < from) low = middle + 1;
      else high = middle;
    }
    for (let i = low; i < this.order.length; i++) {
      if (this.lefts[i]! > box.right + 2 * HAIR_MM) break;
      found.push(this.order[i]!);
    }
    return found.sort((a, b) => a - b);
  }
}

/**
 * The boundary of what convex polygons cover together, outer edges and those of holes, each once.
 * @param polygons each anticlockwise
 */
export function unionEdges(polygons: readonly Polygon[]): Edge[] {
  const all = polygons.map(boxOf);
  const boxes = new Boxes(all);
  const found: Edge[] = [];
  polygons.forEach((polygon, i) => {
    for (const edge of edgesOf(polygon)) {
      const near = boxOf([edge.from, edge.to]);
      const [out, within] = [movedOut(edge, HAIR_MM), movedOut(edge, -HAIR_MM)];
      let left: Span[] = [{ low: 0, high: 1 }];
      for (const j of boxes.near(near)) {
        if (i === j || apart(near, all[j]!)) continue;
        if (left.length === 0) break;
        left = without(left, insideSpan(out, polygons[j]!));
        // Two polygons that end on one line share that edge: the first keeps it.
        if (j < i) left = without(left, insideSpan(within, polygons[j]!));
      }
      for (const { low, high } of left) found.push({ from: at(edge, low), to: at(edge, high) });
    }
  });
  return found;
}

/** Area within a boundary, holes left out (Green's theorem). */
export const areaWithin = (edges: readonly Edge[]): number =>
  edges.reduce((sum, { from, to }) => sum + from.x * to.y - to.x * from.y, 0) / 2;

/** Whether a place lies in a convex polygon, its edge included. */
export const insidePolygon = ({ x, y }: Point, polygon: Polygon): boolean =>
  edgesOf(polygon).every(
    ({ from, to }) => (to.x - from.x) * (y - from.y) - (to.y - from.y) * (x - from.x) >= -HAIR_MM,
  );
