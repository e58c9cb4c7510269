import { clipToRectangle } from '@gangway/station';
import type { SheetShape } from './sheet.js';

/** A room on a sheet: nothing drawn into it leaves it. */
export interface Box {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

type At = readonly [number, number];

/** The part of a stretch that lies in a box; null when none does. Source: Liang and Barsky (1984). */
function stretchIn({ x, y, width, height }: Box, [ax, ay]: At, [bx, by]: At): [At, At] | null {
  const [dx, dy] = [bx - ax, by - ay];
  let [from, to] = [0, 1];
  for (const [p, q] of [
    [-dx, ax - x],
    [dx, x + width - ax],
    [-dy, ay - y],
    [dy, y + height - ay],
  ] as const) {
    if (p === 0) {
      if (q < 0) return null;
      continue;
    }
    const t = q / p;
    if (p < 0) from = Math.max(from, t);
    else to = Math.min(to, t);
    if (from > to) return null;
  }
  return [
    [ax + from * dx, ay + from * dy],
    [ax + to * dx, ay + to * dy],
  ];
}

/** A shape cut to a box: a surface as a surface, its edge and lines only where they lie in it. */
export function cutTo(box: Box, shape: SheetShape): SheetShape[] {
  const { points, closed, fill, strokeMm, ...look } = shape;
  const cut: SheetShape[] = [];
  if (fill !== undefined) {
    const kept = clipToRectangle(
      points.map(([x, y]) => ({ x, y })),
      { left: box.x, right: box.x + box.width, bottom: box.y, top: box.y + box.height },
    );
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
    const inside = stretchIn(box, stretches[i]!, stretches[i + 1]!);
    if (!inside) {
      end();
      continue;
    }
    const [a, b] = inside;
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
