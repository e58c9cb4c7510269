import { stretchWithin, type Point } from '@gangway/station';
import type { SVGProps } from 'react';
import type { Sheet } from './sheet.js';

/** Beyond the edge a line still shows half its own width. */
const MARGIN_PX = 4;

/** A straight line, dashed only where it lies on the sheet: dashes beyond it cost as much as those seen. */
export function Dashes({
  sheet,
  room: { width, height },
  from,
  to,
  ...look
}: {
  sheet: Sheet;
  /** The sheet's, px. */
  room: { width: number; height: number };
  from: Point;
  to: Point;
} & Omit<SVGProps<SVGLineElement>, 'from' | 'to' | 'x1' | 'x2' | 'y1' | 'y2'>) {
  const place = ({ x, y }: Point): Point => ({ x: sheet.x(x), y: sheet.y(y) });
  const edges = {
    left: -MARGIN_PX,
    right: width + MARGIN_PX,
    bottom: -MARGIN_PX,
    top: height + MARGIN_PX,
  };
  const seen = stretchWithin(edges, place(from), place(to));
  return seen && <line x1={seen[0].x} y1={seen[0].y} x2={seen[1].x} y2={seen[1].y} {...look} />;
}
