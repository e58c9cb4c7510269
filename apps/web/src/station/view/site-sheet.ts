import { useState } from 'react';
import type { Bounds } from '@gangway/station';

export interface SiteSheet {
  /** Pixels for each metre. */
  readonly scale: number;
  readonly x: (m: number) => number;
  readonly y: (m: number) => number;
}

/** Bounds laid into a box of pixels, the same scale both ways. */
export function siteSheet(
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

/** Bounds that stand still while something is held, so that the sheet does not slide away. */
export function useHeldBounds(now: Bounds): [Bounds, (held: boolean) => void] {
  const [held, setHeld] = useState<Bounds | null>(null);
  return [held ?? now, (hold) => setHeld(hold ? now : null)];
}
