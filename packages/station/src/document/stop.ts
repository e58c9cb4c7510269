import type { Lens } from './station.js';

/** A stop held to those the lens has. */
export const heldStop = (lens: Pick<Lens, 'f_min' | 'f_max'>, fNumber: number): number =>
  Math.min(lens.f_max, Math.max(lens.f_min, fNumber));
