import { airyDiameterUm, type Diffraction } from '@gangway/optics';
import type { Station } from '../document/station.js';
import { measuredOf } from '../optical/measured.js';
import { keptPart, setupOf, type Setup } from '../optical/setup.js';
import { opticalState, type State } from '../optical/state.js';
import { actingFNumber, atStop, diffractionAt, stopsOf } from '../optical/stops.js';
import { DIFFRACTION_WORDS } from '../words/diffraction.js';
import { finite } from '../words/finite.js';
import { fixed, fStop } from '../words/format.js';
import { bestStop, spotUm } from './best-stop.js';
import { marksAt, patchesLonger, readMarks, type MarkReading } from './marks.js';
import { turnedBack } from '../optical/facts.js';

/** One stop of the lens, and what the marks that must be sharp look like at it. */
export interface StopLine {
  /** As engraved. */
  readonly fNumber: number;
  readonly holds: number;
  /** Of the worst mark; null where a mark comes to no focus. */
  readonly worstBlurUm: number | null;
  readonly worst: string | null;
  /** How much longer its patch is along one direction, a share; 0 in front of a straight lens. */
  readonly worstLonger: number;
  readonly airyUm: number;
  /** Blur and Airy disc of the worst mark together. */
  readonly spotUm: number | null;
  readonly spotPixels: number | null;
  /** The same on the print that the standard of sharpness names, mm. */
  readonly spotOnPrintMm: number | null;
  readonly effective: number;
  readonly state: Exclude<State, 'beyond'>;
  readonly diffraction: Diffraction;
  /** Holds every mark, and leaves no corner outside circle and ring. */
  readonly serves: boolean;
}

export interface StopTable {
  readonly lines: readonly StopLine[];
  readonly sharpMarks: number;
  /** Of those that hold and cover, where blur and diffraction together are least. */
  readonly best: StopLine | null;
  /** Least and greatest that hold and cover without diffraction plain. */
  readonly serves: readonly [number, number] | null;
  /** The stop that is set, as it is. */
  readonly set: StopLine;
  /** The widest that holds every mark; null when none does. */
  readonly widestHolding: StopLine | null;
  readonly why: string;
}

/** Every third of a stop the lens has, at the focus and lean as they are set. */
export function stopTable(station: Station): StopTable {
  const s = setupOf(station);
  const marks = readMarks(s);
  const lines = stopsOf(station).map((fNumber) => lineAt(s, marks, fNumber));
  const set = lineAt(s, marks, station.aperture);
  const sharpMarks = marks.filter(({ mark }) => mark.must === 'sharp').length;
  const found = bestStop(s);
  const best = lines.find(({ fNumber }) => fNumber === found?.fNumber) ?? null;
  const widestHolding =
    sharpMarks === 0 ? null : (lines.find(({ holds }) => holds === sharpMarks) ?? null);
  return {
    lines,
    sharpMarks,
    best,
    serves: found?.serves ?? null,
    set,
    widestHolding,
    why: whyBest({ lines, sharpMarks, best, widestHolding, set }, station),
  };
}

function lineAt(from: Setup, marks: readonly MarkReading[], fNumber: number): StopLine {
  const { station } = from;
  const s = atStop(from, fNumber);
  const effective = actingFNumber(s);
  const read = marksAt(s, marks);
  const sharp = marks.flatMap(({ mark }, i) => (mark.must === 'sharp' ? [i] : []));
  const worst = sharp.reduce<number | null>(
    (found, i) => (found === null || read[i]!.blurUm > read[found]!.blurUm ? i : found),
    null,
  );
  const spot = spotUm(s, marks);
  const pitchUm = s.pixelPitchMm === null ? null : s.pixelPitchMm * 1000;
  const { criterion } = station;
  const print = criterion.print_width_mm !== undefined ? criterion.print_width_mm : null;
  const across = keptPart(turnedBack(station.back), station.crop).widthMm;
  const state = opticalState(s);
  return {
    fNumber,
    holds: sharp.filter((i) => read[i]!.holds).length,
    worstBlurUm: worst === null ? 0 : finite(read[worst]!.blurUm),
    worst: worst === null ? null : marks[worst]!.mark.label,
    worstLonger: worst === null ? 0 : patchesLonger(s)[worst]!,
    airyUm: airyDiameterUm(effective),
    spotUm: spot,
    spotPixels: spot === null || pitchUm === null ? null : spot / pitchUm,
    spotOnPrintMm: spot === null || print === null ? null : (spot / 1000) * (print / across),
    effective,
    state,
    diffraction: diffractionAt(s),
    serves: read.every(({ holds }) => holds) && state !== 'outside' && state !== 'ring',
  };
}

/** What makes the best stop best, and what another one that is set would cost. */
function whyBest(
  { lines, sharpMarks, best, widestHolding, set }: Omit<StopTable, 'why' | 'serves'>,
  station: Station,
): string {
  if (sharpMarks === 0) return 'Add marks that must be sharp: then the best stop can be told.';
  if (!best) {
    const least = lines.reduce<StopLine | null>(
      (a, line) => (line.spotUm !== null && (!a || line.spotUm < a.spotUm!) ? line : a),
      null,
    );
    const spot = least
      ? ` The worst mark is least spoilt at ${fStop(least.fNumber)}, by a spot of ${fixed(least.spotUm!, 0)} µm.`
      : '';
    return widestHolding
      ? `The stops that hold every mark leave a corner without light.${spot}`
      : `No stop of this lens holds every mark as it is set.${spot}`;
  }
  const sharp = measuredOf(station.lens)?.sharpness !== undefined;
  const own = sharp
    ? 'what the lens was measured to add'
    : `an Airy disc of ${fixed(best.airyUm, 0)} µm`;
  const at = `${fStop(best.fNumber)} makes the smallest spot of the worst mark, ${fixed(best.spotUm!, 0)} µm: ${fixed(best.worstBlurUm!, 0)} µm of blur${best.worst ? ` at ${best.worst}` : ''} and ${own}.`;
  const wider =
    !sharp && Math.abs(best.fNumber / station.lens.f_min / 2 - 1) < 0.05
      ? ' Wider stops are left out for the lens’s own faults.'
      : '';
  return `${at}${wider} ${judged(set, best)}`.trim();
}

/** A stop told beside another is another one from here on. */
const SAME_STOP = 0.04;

/** The stop that is set, beside the best; empty where it is that. */
export function judged(set: StopLine, best: StopLine): string {
  if (Math.abs(set.fNumber / best.fNumber - 1) < SAME_STOP) return '';
  const now = fStop(set.fNumber);
  if (!set.serves) return `${now}, as set, does not hold every mark, or leaves a corner dark.`;
  const spot = set.spotUm === null ? '' : `, with a spot of ${fixed(set.spotUm, 0)} µm`;
  const more =
    set.diffraction === 'none' ? '' : `; diffraction ${DIFFRACTION_WORDS[set.diffraction]}`;
  return `${now}, as set, holds too${spot}${more}.`;
}

/** Runs of stops at which diffraction does alike, from wide to small. */
export const diffractionRuns = (
  lines: readonly StopLine[],
): { readonly kind: Diffraction; readonly from: number; readonly to: number }[] =>
  (['none', 'begins', 'visible', 'plain'] as const).flatMap((kind) => {
    const run = lines.filter(({ diffraction }) => diffraction === kind);
    return run.length === 0 ? [] : [{ kind, from: run[0]!.fNumber, to: run.at(-1)!.fNumber }];
  });

/** The Airy disc of a stop, with the stop that acts where that is another. */
export const airyWords = ({ fNumber, effective }: StopLine): string =>
  `Airy disc, ${fStop(fNumber)}${Math.abs(effective / fNumber - 1) > 0.02 ? ` acting as f/${fixed(effective, effective < 10 ? 1 : 0)}` : ''}`;
