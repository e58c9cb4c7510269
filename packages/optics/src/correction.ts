import { radians } from './vector.js';
import type { Point } from './coverage.js';

/**
 * Correcting converging verticals afterwards: the pitched picture is stretched until it is what a
 * level sensor would have drawn at the same image distance.
 */

/**
 * Stretch that correction asks for at a height of the pitched picture: across, and its square up
 * and down. Infinity at and past the place where the verticals meet.
 * @param yMm height in the pitched picture, from the principal point
 */
export function correctionStretch(
  imageDistanceMm: number,
  pitchDeg: number,
  yMm: number,
): { across: number; up: number } {
  const v = imageDistanceMm;
  const pitch = radians(pitchDeg);
  const left = v * Math.cos(pitch) - yMm * Math.sin(pitch);
  if (left <= 0) return { across: Infinity, up: Infinity };
  const across = v / left;
  return { across, up: across * across };
}

/** A direction as a level sensor pictures it, turned to where a sensor pitched up pictures it. */
export function toPitched(point: Point, imageDistanceMm: number, pitchDeg: number): Point | null {
  const p = radians(pitchDeg);
  const v = imageDistanceMm;
  const z = v * Math.cos(p) + point.y * Math.sin(p);
  if (z <= 0) return null;
  return {
    x: (v * point.x) / z,
    y: (v * (point.y * Math.cos(p) - v * Math.sin(p))) / z,
  };
}

/** The other way round: from the pitched picture to the level one. */
export const toLevel = (point: Point, imageDistanceMm: number, pitchDeg: number): Point | null =>
  toPitched(point, imageDistanceMm, -pitchDeg);
