import { clipToRectangle, stretchWithin } from '@gangway/station';
import type { SheetShape } from './sheet.js';

/** A room on a sheet: nothing drawn into it leaves it. */
export interface Box {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

type At = readonly [number, number];

/** A shape cut to a box: a surface as a surface, its edge and lines only where they lie in it. */
export function cutTo(box: Box, shape: SheetShape): SheetShape[] {
  const { points, closed, fill, strokeMm, ...look } = shape;
  const cut: SheetShape[] = [];
  const room = { left: box.x, right: box.x + box.width, bottom: box.y, top: box.y + box.height };
  const point = ([x, y]: At) => ({ x, y });
  if (fill !== undefined) {
    const kept = clipToRectangle(points.map(point), room);
    if (kept.length > 2) cut.push({ points: kept.map(({ x, y }) => [x, y]), closed: true, fill });
  }
  if (strokeMm === undefined) return cut;
  const stretches = closed && points.length > 2 ? [...points, points[0]!] : points;
  let run: At[] = [];
  const end = (): void => {
    if (run.length > 1) cut.push({ points: run, strokeMm, ...look });
    run = [];
  };
  for (let i = 0; i + 1 < stretches.length; i++) {
    const inside = stretchWithin(room, point(stretches[i]!), point(stretches[i + 1]!));
    if (!inside) {
      end();
      continue;
    }
    const [a, b] = inside.map(({ x, y }): At => [x, y]) as [At, At];
    const last = run.at(-1);
    if (!last || Math.hypot(last[0] - a[0], last[1] - a[1]) > 1e-9) {
      end();
      run = [a];
    }
    run.push(b);
  }
  end();
  return cut;
}
