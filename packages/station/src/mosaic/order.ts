import type { Station } from '../document/station.js';
import { layoutOf } from './layout.js';

/** Way of the gear through places in an order, each line begun with a run past its end, mm. */
function wayMm(places: readonly { readonly x: number; readonly y: number }[]): number {
  return places.slice(1).reduce((sum, { x, y }, i) => {
    const before = places[i]!;
    return sum + Math.hypot(x - before.x, y - before.y);
  }, 0);
}

/** Places within this of a line belong to it, as a share of the frame's side. */
const LINE = 0.25;

/**
 * Free places put in the order that comes to every one from the left and the top: line by line, by
 * rows or by columns, whichever is the shorter way.
 */
export function inOrder(station: Station): Station {
  const { mosaic } = station;
  if (mosaic?.pattern !== 'free' || !mosaic.places) return station;
  const { frame } = layoutOf(station);
  type Place = (typeof mosaic.places)[number];
  const lines = (
    line: (p: Place) => number,
    along: (p: Place) => number,
    side: number,
  ): Place[] => {
    const rest = [...mosaic.places!].sort((a, b) => line(a) - line(b));
    const ordered: Place[] = [];
    while (rest.length > 0) {
      const first = line(rest[0]!);
      const count = rest.findIndex((p) => line(p) > first + LINE * side);
      const own = rest.splice(0, count < 0 ? rest.length : count);
      for (const each of own.sort((a, b) => along(a) - along(b))) ordered.push(each);
    }
    return ordered;
  };
  const byRows = lines(
    (p) => -p.y_mm,
    (p) => p.x_mm,
    frame.heightMm,
  );
  const byColumns = lines(
    (p) => p.x_mm,
    (p) => -p.y_mm,
    frame.widthMm,
  );
  const way = (places: readonly Place[]): number =>
    wayMm(places.map(({ x_mm: x, y_mm: y }) => ({ x, y })));
  const places = way(byColumns) < way(byRows) - 1e-6 ? byColumns : byRows;
  return { ...station, mosaic: { ...mosaic, places } };
}
