import {
  ENGRAVED,
  frameCovered,
  airyDiameterUm,
  combinedSpot,
  engravedFNumber,
  type Diffraction,
} from '@gangway/optics';
import { keptAt, ownPatchMm } from '../optical/measured.js';
import type { Setup } from '../optical/setup.js';
import { actingFNumber, atStop, diffractionAt, stopsOn } from '../optical/stops.js';
import { filterClear } from '../optical/filter-ring.js';
import { heldAt, marksAt, readMarks, type MarkReading } from './marks.js';

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
function serves(at: Setup, marks: readonly MarkReading[]): boolean {
  return heldAt(at, marks) && frameCovered(at.cone, at.frame) && filterClear(at);
}

/** Radius at infinity that a mark's angle stands for, on the bare lens, mm. */
const radiusOf = ({ facts, pupilRatio }: Setup, { tanAxis }: MarkReading): number =>
  tanAxis * pupilRatio * facts.lens.focal_length_mm;

/**
 * What lens and diffraction make of a point at a mark, µm on the back: as it was measured there, else
 * the Airy disc. What was measured at infinity grows with the extension as the Airy disc does.
 */
function ownSpotUm(at: Setup, mark: MarkReading): number {
  const { station } = at;
  const acting = actingFNumber(at);
  const bare = at.fNumber / at.combined;
  const patch = ownPatchMm(station.lens, bare, radiusOf(at, mark));
  return patch === null ? airyDiameterUm(acting) : (1000 * patch * acting) / bare;
}

/**
 * Blur of the worst mark that must be sharp together with what lens and diffraction add, µm; null
 * where one comes to no focus.
 */
export function spotUm(at: Setup, marks: readonly MarkReading[]): number | null {
  const read = marksAt(at, marks);
  const spots = marks.flatMap((mark, i) =>
    mark.mark.must === 'sharp' ? [combinedSpot(read[i]!.blurUm, ownSpotUm(at, mark))] : [],
  );
  const worst = Math.max(airyDiameterUm(actingFNumber(at)), ...spots);
  return Number.isFinite(worst) ? worst : null;
}

/** A stop that keeps so much of the best detail is as good as the best to the eye. */
const NEAR_BEST = 0.9;

/**
 * Stops at which the lens's own faults do not show: as it was measured; where it was not, from two
 * stops down. What was measured as a spot is in the spot.
 */
function faultless(s: Setup, marks: readonly MarkReading[], fNumber: number): boolean {
  const { station } = s;
  const { lens } = station;
  const radii = marks.filter(({ mark }) => mark.must === 'sharp').map((mark) => radiusOf(s, mark)); // prettier-ignore
  if (radii.every((radius) => ownPatchMm(lens, fNumber, radius) !== null)) return true;
  const kept = radii.map((radius) => keptAt(lens, fNumber, radius));
  if (kept.every((each) => each !== null)) return kept.every((each) => each >= NEAR_BEST);
  return fNumber >= STOPPED_DOWN * lens.f_min;
}

/**
 * The best stop as lens, back and focus are set; null where none holds every mark and covers.
 * The least spot √(b² + Airy²) of the worst mark, from those at least two stops down where any serve.
 * Of a lens whose sharpness was measured, its own spot stands for the Airy disc and no stop is left out.
 */
export function bestStop(s: Setup): BestStop | null {
  const marks = readMarks(s);
  if (!marks.some(({ mark }) => mark.must === 'sharp')) return null;
  const found: Candidate[] = [];
  for (const fNumber of stopsOn(s.facts)) {
    if (!heldAt({ fNumber: fNumber * s.combined, cocMm: s.cocMm }, marks)) continue;
    const at = atStop(s, fNumber);
    if (!serves(at, marks)) continue;
    const spot = spotUm(at, marks);
    if (spot === null) continue;
    found.push({ fNumber, spotUm: spot, diffraction: diffractionAt(at) });
  }
  const clear = found.filter(({ diffraction }) => diffraction !== 'plain');
  const down = clear.filter(({ fNumber }) => faultless(s, marks, fNumber));
  const from = down.length > 0 ? down : found;
  if (from.length === 0) return null;
  const best = from.reduce((a, b) => (b.spotUm < a.spotUm - 1e-12 ? b : a));
  const named = engravedFNumber(best.fNumber);
  return {
    ...best,
    set: serves(atStop(s, named), marks) ? named : best.fNumber,
    serves: clear.length > 0 ? [clear[0]!.fNumber, clear.at(-1)!.fNumber] : null,
  };
}
