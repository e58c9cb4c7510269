import { useState } from 'react';
import type { Bounds } from '@gangway/station';
import { useSize } from './use-size.js';

export interface SiteSheet {
  /** Pixels for each metre. */
  readonly scale: number;
  readonly x: (m: number) => number;
  readonly y: (m: number) => number;
}

/** Bounds laid into a box of pixels, the same scale both ways. */
function siteSheet(
  { left, right, bottom, top }: Bounds,
  width: number,
  height: number,
  pad: number,
): SiteSheet {
  const scale = Math.max(
    1e-3,
    Math.min((width - 2 * pad) / (right - left), (height - 2 * pad) / (top - bottom)),
  );
  const x0 = (width - scale * (right - left)) / 2;
  const y0 = (height + scale * (top - bottom)) / 2;
  return { scale, x: (m) => x0 + (m - left) * scale, y: (m) => y0 - (m - bottom) * scale };
}

/** Room round the drawing, px. */
const PAD = 16;

/**
 * The sheet a drawing of the site lies on: fitted to its box, standing still while something on
 * it is held, so that it does not slide away under the hand.
 */
export function useSiteSheet(now: Bounds) {
  const [box, { width, height }] = useSize<HTMLDivElement>();
  const [held, setHeld] = useState<Bounds | null>(null);
  const sheet = siteSheet(held ?? now, width, height, PAD);
  const onHold = (hold: boolean): void => setHeld(hold ? now : null);
  return {
    box,
    width,
    height,
    sheet,
    /** Where a place lies, as SVG writes it. */
    at: ({ x, y }: { x: number; y: number }): string => `${sheet.x(x)},${sheet.y(y)}`,
    /** What every handle on the sheet is given. */
    shared: { scale: sheet.scale, onHold },
  };
}

/** Marks to the tenth of a millimetre: finer than a hand places things, also on a beetle. */
export const placed = (m: number): number => Math.round(m * 1e4) / 1e4 + 0;

/** One press of an arrow key on a mark so far away, m. */
export const keyStepM = (distanceM: number): number =>
  distanceM < 0.5 ? 0.0005 : distanceM < 3 ? 0.005 : 0.1;

/** To the centimetre: finer than a hand places buildings on a sheet. */
export const cm = (m: number): number => Math.round(m * 100) / 100 + 0;
