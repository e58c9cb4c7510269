import { useState } from 'react';
import type { Bounds } from '@gangway/station';
import { fitted } from './sheet.js';
import { useSize } from './use-size.js';

/** Room round the drawing, px. */
const PAD = 16;

/**
 * The sheet a drawing of the site lies on: fitted to its box, standing still while something on
 * it is held, so that it does not slide away under the hand.
 */
export function useSiteSheet(now: Bounds) {
  const [box, size] = useSize<HTMLDivElement>();
  const [held, setHeld] = useState<Bounds | null>(null);
  const sheet = fitted(held ?? now, size, { pad: PAD });
  const onHold = (hold: boolean): void => setHeld(hold ? now : null);
  return {
    box,
    size,
    sheet,
    /** What every handle on the sheet is given. */
    shared: { scale: sheet.scaleX, onHold },
  };
}

/** Marks to the tenth of a millimetre: finer than a hand places things, also on a beetle. */
export const tenthMm = (m: number): number => Math.round(m * 1e4) / 1e4 + 0;

/** One press of an arrow key on a mark so far away, m. */
export const keyStepM = (distanceM: number): number =>
  distanceM < 0.5 ? 0.0005 : distanceM < 3 ? 0.005 : 0.1;

/** To the centimetre: finer than a hand places buildings on a sheet. */
export const cm = (m: number): number => Math.round(m * 100) / 100 + 0;
