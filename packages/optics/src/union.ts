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
  for (const side of edgesOf(polygon)) {
    const [dx, dy] = [side.to.x - side.from.x, side.to.y - side.from.y];
    const start = dx * (from.y - side.from.y) - dy * (from.x - side.from.x);
    const climb = dx * (to.y - from.y) - dy * (to.x - from.x);
    if (climb === 0) {
      if (start < 0) return { low: 1, high: 0 };
    } else if (climb > 0) low = Math.max(low, -start / climb);
    else high = Math.min(high, -start / climb);
    if (low >= high) return { low: 1, high: 0 };
  }
  return { low, high };
}

/** What of 0 to 1 the spans leave. */
function leftBy(spans: Span[]): Span[] {
  const left: Span[] = [];
  let reached = 0;
  for (const { low, high } of spans.sort((a, b) => a.low - b.low)) {
    if (low > reached) left.push({ low: reached, high: low });
    reached = Math.max(reached, high);
  }
  return reached < 1 ? [...left, { low: reached, high: 1 }] : left;
}

/**
 * The boundary of what convex polygons cover together, outer edges and those of holes, each once.
 * @param polygons each anticlockwise
 */
export function unionEdges(polygons: readonly Polygon[]): Edge[] {
  return polygons.flatMap((polygon, i) =>
    edgesOf(polygon).flatMap((edge) => {
      const out = movedOut(edge, HAIR_MM);
      const within = movedOut(edge, -HAIR_MM);
      const hidden = polygons.flatMap((other, j) => {
        if (i === j) return [];
        // Two polygons that end on one line share that edge: the first keeps it.
        const spans = [insideSpan(out, other), ...(j < i ? [insideSpan(within, other)] : [])];
        return spans.filter(({ low, high }) => low < high);
      });
      return leftBy(hidden).map(({ low, high }) => ({ from: at(edge, low), to: at(edge, high) }));
    }),
  );
}

/** Area within a boundary, holes left out (Green's theorem). */
export const areaWithin = (edges: readonly Edge[]): number =>
  edges.reduce((sum, { from, to }) => sum + from.x * to.y - to.x * from.y, 0) / 2;

/** Whether a place lies in a convex polygon, its edge included. */
export const insidePolygon = ({ x, y }: Point, polygon: Polygon): boolean =>
  edgesOf(polygon).every(
    ({ from, to }) => (to.x - from.x) * (y - from.y) - (to.y - from.y) * (x - from.x) >= -HAIR_MM,
  );
