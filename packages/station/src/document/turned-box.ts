import type { Box } from './station.js';

/** A box's ground plan, turned about its middle: between the site's axes and its own. */
export interface TurnedBox {
  /** A direction of the site, [across, ahead], in the box's own axes. */
  readonly into: (x: number, z: number) => [number, number];
  /** A direction in the box's own axes, in those of the site. */
  readonly out: (x: number, z: number) => [number, number];
  /** How far it reaches ahead and back of its middle, m. */
  readonly reachM: number;
}

/** `turn_deg` is clockwise as seen from above. */
export function turnedBox({
  turn_deg = 0,
  width_m,
  depth_m,
}: Pick<Box, 'turn_deg' | 'width_m' | 'depth_m'>): TurnedBox {
  const turn = (turn_deg * Math.PI) / 180;
  const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
  return {
    into: (x, z) => [x * cos - z * sin, x * sin + z * cos],
    out: (x, z) => [x * cos + z * sin, z * cos - x * sin],
    reachM: (Math.abs(width_m * sin) + Math.abs(depth_m * cos)) / 2,
  };
}
