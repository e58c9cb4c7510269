import {
  ENGRAVED,
  airyDiameterUm,
  combinedSpot,
  engravedFNumber,
  type Diffraction,
} from '@gangway/optics';
import type { Station } from '../document/station.js';
import type { Setup } from '../optical/setup.js';
import { opticalState } from '../optical/state.js';
import { actingFNumber, atStop, diffractionAt, stopsOf } from '../optical/stops.js';
import { marksAt, readMarks, type MarkReading } from './marks.js';

/** The stop at which the worst mark is least spoilt, among those that serve. */
export interface BestStop {
  /** As it acts: an exact power of the sixth root of two. */
  readonly fNumber: number;
  /** The same as the ring has it, where that still holds and covers. */
  readonly set: number;
  /** Least and greatest that hold and cover without diffraction plain; null when it is plain at all. */
  readonly serves: readonly [number, number] | null;
  /** Blur and Airy disc of the worst mark together, on the back. */
  readonly spotUm: number;
  readonly diffraction: Diffraction;
}

/** A lens's own faults show wide open; from two stops down they are gone (common practice, no source). */
const STOPPED_DOWN = 2 * (1 - ENGRAVED);

interface Candidate {
  readonly fNumber: number;
  readonly spotUm: number;
  readonly diffraction: Diffraction;
}

/** Whether a stop holds every mark and leaves no corner of the frame outside circle and ring. */
function serves(station: Station, at: Setup, marks: readonly MarkReading[]): boolean {
  if (!marksAt(at, marks).every(({ holds }) => holds)) return false;
  const state = opticalState(station, at);
  return state !== 'outside' && state !== 'ring';
}

/** Blur and Airy disc of the worst mark that must be sharp, µm; null where one comes to no focus. */
export function spotUm(at: Setup, marks: readonly MarkReading[]): number | null {
  const blurs = marksAt(at, marks)
    .filter((_, i) => marks[i]!.mark.must === 'sharp')
    .map(({ blurUm }) => blurUm);
  const worst = Math.max(0, ...blurs);
  return Number.isFinite(worst) ? combinedSpot(worst, airyDiameterUm(actingFNumber(at))) : null;
}

/**
 * The best stop as lens, back and focus are set; null where none holds every mark and covers.
 * The least spot √(b² + Airy²) of the worst mark, from those at least two stops down where any serve.
 */
export function bestStop(station: Station, s: Setup): BestStop | null {
  const marks = readMarks(station, s);
  if (!marks.some(({ mark }) => mark.must === 'sharp')) return null;
  const found: Candidate[] = [];
  for (const fNumber of stopsOf(station)) {
    const at = atStop(station, s, fNumber);
    if (!serves(station, at, marks)) continue;
    const spot = spotUm(at, marks);
    if (spot === null) continue;
    found.push({ fNumber, spotUm: spot, diffraction: diffractionAt(station, at) });
  }
  const clear = found.filter(({ diffraction }) => diffraction !== 'plain');
  const down = clear.filter(({ fNumber }) => fNumber >= STOPPED_DOWN * station.lens.f_min);
  const from = down.length > 0 ? down : found;
  if (from.length === 0) return null;
  const best = from.reduce((a, b) => (b.spotUm < a.spotUm - 1e-12 ? b : a));
  const named = engravedFNumber(best.fNumber);
  return {
    ...best,
    set: serves(station, atStop(station, s, named), marks) ? named : best.fNumber,
    serves: clear.length > 0 ? [clear[0]!.fNumber, clear.at(-1)!.fNumber] : null,
  };
}
