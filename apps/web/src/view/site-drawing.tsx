import type { ReactNode } from 'react';
import type { Bounds, Point } from '@gangway/station';
import type { Sheet } from '../drawing/sheet.js';
import { Drawn } from '../drawing/drawn.js';
import { useSiteSheet } from '../drawing/site-sheet.js';

interface Props {
  label: string;
  bounds: Bounds;
  /** Where the camera stands in the drawing, and how far its picture's edges reach. */
  eye: Point;
  rays: readonly [Point, Point];
  /** What lies under what the camera sees. */
  under?: (sheet: Sheet, width: number) => ReactNode;
  children: (
    sheet: Sheet,
    shared: { scale: number; onHold: (held: boolean) => void },
    width: number,
  ) => ReactNode;
}

/** The site on a sheet, true to scale, with what the camera sees of it. */
export function SiteDrawing({ label, bounds, eye, rays, under, children }: Props) {
  const { box, size, sheet, shared } = useSiteSheet(bounds);
  const [a, b] = rays;
  return (
    <Drawn {...{ box, size, label }} role="group" className="min-h-56 flex-1 lg:min-h-0">
      {under?.(sheet, size.width)}
      <polygon
        points={`${sheet.at(eye)} ${sheet.at(a)} ${sheet.at(b)}`}
        className="fill-within/12"
      />
      <path
        d={`M${sheet.at(a)}L${sheet.at(eye)}L${sheet.at(b)}`}
        fill="none"
        className="stroke-within"
        strokeWidth={1.5}
      />
      {children(sheet, shared, size.width)}
    </Drawn>
  );
}
