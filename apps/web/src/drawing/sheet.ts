import type { Bounds, Point } from '@gangway/station';

/** How a drawing lies on the screen: from its own lengths to pixels and back. */
export interface Sheet {
  /** Pixels for each length of the drawing, along and up. */
  readonly scaleX: number;
  readonly scaleY: number;
  readonly x: (length: number) => number;
  readonly y: (length: number) => number;
  /** Where a place lies, as SVG writes it. */
  readonly at: (place: Point) => string;
  /** Back from the screen to a place of the drawing. */
  readonly back: (x: number, y: number) => Point;
}

interface Box {
  readonly width: number;
  readonly height: number;
}

interface Fit {
  /** Room kept round the drawing, px. */
  readonly pad: number;
  /** Flatter drawings than this have their heights enlarged to fill the box; else true to scale. */
  readonly flat?: number;
}

/** A sheet from its scales and where the drawing's origin lies; a scale below zero turns it round. */
export function sheetAt(x0: number, y0: number, scaleX: number, scaleY = scaleX): Sheet {
  const x = (length: number): number => x0 + length * scaleX;
  const y = (length: number): number => y0 - length * scaleY;
  return {
    scaleX,
    scaleY,
    x,
    y,
    at: (place) => `${x(place.x)},${y(place.y)}`,
    back: (px, py) => ({ x: (px - x0) / scaleX, y: (y0 - py) / scaleY }),
  };
}

/** Bounds laid into the middle of a box. */
export function fitted(
  { left, right, bottom, top }: Bounds,
  { width, height }: Box,
  { pad, flat = Infinity }: Fit,
): Sheet {
  const [across, up] = [right - left, top - bottom];
  const [fitX, fitY] = [room(width, pad) / across, room(height, pad) / up];
  const enlarged = fitY > flat * fitX;
  const scaleX = Math.max(LEAST_SCALE, enlarged ? fitX : Math.min(fitX, fitY));
  const scaleY = enlarged ? fitY : scaleX;
  return sheetAt(
    (width - across * scaleX) / 2 - left * scaleX,
    (height - up * scaleY) / 2 + top * scaleY,
    scaleX,
    scaleY,
  );
}

const room = (size: number, pad: number): number => Math.max(1, size - 2 * pad);

/** A box that is not laid out yet has no size; its scale must not be zero. */
const LEAST_SCALE = 1e-3;
