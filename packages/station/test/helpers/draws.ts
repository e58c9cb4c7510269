import fc from 'fast-check';
import type { Station } from '../../src/index.js';
import { everything } from './worlds.js';

/** Documents drawn wide: everything a station may have, numbers at the ends of their ranges, frames without number. */

export type Json = Record<string, unknown> | unknown[];

export const isJson = (value: unknown): value is Json =>
  typeof value === 'object' && value !== null;

/** A small generator, so that a seed gives the same documents everywhere (mulberry32). */
export function randomOf(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 2 ** 32;
  };
}

/** Stations with everything a station may have, drawn; the same for the same seed. */
export const drawnStations = (count: number, seed: number): Station[] =>
  fc.sample(everything, { numRuns: count, seed });

const WISHES = [
  { fill: 'covered' },
  { fill: 'sharp' },
  { megapixels: 300 },
  { horizontal_deg: 120, vertical_deg: 80 },
  { focal_length_mm: 20, width_mm: 36, height_mm: 24 },
  { print_width_mm: 3000, dpi: 300 },
];

/** Layouts with as many frames as there may be, and wishes beside them. */
function withFrames(document: Record<string, unknown>, random: () => number): void {
  const below = (most: number): number => 1 + Math.floor(random() ** 2 * most);
  const moves = random() < 0.5 ? 'rear' : 'lens';
  const laid = [
    { pattern: 'grid', columns: below(50), rows: below(50), moves },
    { pattern: 'grid', columns: below(2500), rows: 1, moves },
    { pattern: 'pinwheel', frames: below(400), moves },
    { pattern: 'ring', frames: below(400), radius_mm: random() * 30, moves },
    { pattern: 'turn', columns: below(400), moves: 'camera' },
    {
      pattern: 'free',
      moves,
      places: Array.from({ length: below(400) }, () => ({
        x_mm: random() * 100 - 50,
        y_mm: random() * 100 - 50,
        ...(random() < 0.3 ? { rotation_deg: random() * 360 } : {}),
      })),
    },
  ][Math.floor(random() * 6)]!;
  document.mosaic = {
    ...laid,
    overlap: random() * 0.95,
    ...(random() < 0.5 ? { wish: WISHES[Math.floor(random() * WISHES.length)] } : {}),
  };
}

/** Each number, with a chance of one in twenty, far past an end of its range: it is brought back to one. */
function widened(value: unknown, random: () => number): void {
  if (!isJson(value)) return;
  const holder = value as Record<string, unknown>;
  for (const key of Object.keys(holder)) {
    if (typeof holder[key] === 'number') {
      if (random() < 0.05) holder[key] = random() < 0.5 ? 1e30 : -1e30;
    } else widened(holder[key], random);
  }
}

/** A document that is sound but for numbers at the ends of their ranges. */
export function wide(from: unknown, random: () => number): unknown {
  const document = structuredClone(from) as Record<string, unknown>;
  // Many frames take many times as long as few: one in thirty is enough of them.
  if (document.format === 'gangway.station' && random() < 0.03) withFrames(document, random);
  widened(document, random);
  return document;
}
