import {
  airyDiameterUm,
  combinedSpot,
  effectiveFNumber,
  engravedStops,
  magnificationAt,
} from '@gangway/optics';
import { fixed, fStop } from '../words/format.js';
import { patchesLonger, reportMarks } from './marks.js';
import type { Station } from '../document/station.js';
import { keptPart, setup, turnedBack } from '../optical/setup.js';
import { opticalState, type State } from '../optical/state.js';

export type Diffraction = 'hidden' | 'begins' | 'plain';

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
}

export interface StopTable {
  readonly lines: readonly StopLine[];
  readonly sharpMarks: number;
  /** Where blur and diffraction together are least, with all corners in the sharp core if they can be. */
  readonly best: StopLine | null;
  /** The widest that holds every mark; null when none does. */
  readonly widestHolding: StopLine | null;
  readonly beginsAt: number | null;
  readonly plainAt: number | null;
  readonly why: string;
}

/**
 * When diffraction shows. On pixels of 3.76 µm f/16 is comfortable, f/22 begins to soften, f/32 is
 * plainly soft (common practice, no source): Airy discs of 6, 8 and 11 pixels. On film, and where
 * pixels are not told, the circle of confusion stands in.
 */
const BEGINS_PX = 6.5;
const PLAIN_PX = 10;
const PLAIN_COCS = 1.5;

function diffractionOf(airyUm: number, pitchUm: number | null, cocUm: number): Diffraction {
  const [begins, plain] =
    pitchUm === null ? [cocUm, PLAIN_COCS * cocUm] : [BEGINS_PX * pitchUm, PLAIN_PX * pitchUm];
  return airyUm > plain ? 'plain' : airyUm > begins ? 'begins' : 'hidden';
}

/** Every third of a stop the lens has, at the focus and lean as they are set. */
export function stopTable(station: Station): StopTable {
  const { f_min, f_max } = station.lens;
  const engraved = engravedStops(f_min, f_max, 'third');
  const stops = [...new Set([f_min, ...engraved, f_max])].sort((a, b) => a - b);
  const lines = stops.map((fNumber) => lineAt(station, fNumber));
  const sharpMarks = (station.marks ?? []).filter(({ must }) => must === 'sharp').length;
  const covered = lines.filter(({ state }) => state !== 'outside' && state !== 'ring');
  const crisp = covered.filter(({ state }) => state === 'sharp');
  const usable = crisp.length > 0 ? crisp : covered.length > 0 ? covered : lines;
  const best =
    sharpMarks === 0
      ? null
      : usable.reduce<StopLine | null>(
          (found, line) =>
            line.spotUm !== null && (!found || line.spotUm < found.spotUm! - 1e-9) ? line : found,
          null,
        );
  const widestHolding = lines.find(({ holds }) => holds === sharpMarks) ?? null;
  return {
    lines,
    sharpMarks,
    best,
    widestHolding: sharpMarks === 0 ? null : widestHolding,
    beginsAt: lines.find(({ diffraction }) => diffraction !== 'hidden')?.fNumber ?? null,
    plainAt: lines.find(({ diffraction }) => diffraction === 'plain')?.fNumber ?? null,
    why: whyBest(best, widestHolding, usable.length < lines.length),
  };
}

function lineAt(given: Station, fNumber: number): StopLine {
  const station = { ...given, aperture: fNumber };
  const s = setup(station);
  const m = magnificationAt(s.focalLengthMm, s.axis[2], s.imageDistanceMm);
  const effective = effectiveFNumber(s.fNumber, m, s.pupilRatio) * s.factor;
  const airyUm = airyDiameterUm(effective);
  const sharp = reportMarks(station, s)
    .map((mark, index) => ({ ...mark, index }))
    .filter(({ index }) => station.marks![index]!.must === 'sharp');
  let worst: { label: string; blurUm: number; index: number } | null = null;
  for (const { label, blur_um, index } of sharp) {
    const blurUm = blur_um ?? Infinity;
    if (!worst || blurUm > worst.blurUm) worst = { label, blurUm, index };
  }
  const blurUm = worst?.blurUm ?? 0;
  const spotUm = Number.isFinite(blurUm) ? combinedSpot(blurUm, airyUm) : null;
  const pitchUm = s.pixelPitchMm === null ? null : s.pixelPitchMm * 1000;
  const { criterion } = station;
  const print = criterion.print_width_mm !== undefined ? criterion.print_width_mm : null;
  const across = keptPart(turnedBack(station.back), station.crop).widthMm;
  return {
    fNumber,
    holds: sharp.filter(({ holds }) => holds).length,
    worstBlurUm: worst && Number.isFinite(blurUm) ? blurUm : worst ? null : 0,
    worst: worst?.label ?? null,
    worstLonger: worst ? patchesLonger(station, s)[worst.index]! : 0,
    airyUm,
    spotUm,
    spotPixels: spotUm === null || pitchUm === null ? null : spotUm / pitchUm,
    spotOnPrintMm: spotUm === null || print === null ? null : (spotUm / 1000) * (print / across),
    effective,
    state: opticalState(station, s),
    diffraction: diffractionOf(airyUm, pitchUm, s.cocMm * s.factor * 1000),
  };
}

function whyBest(best: StopLine | null, holding: StopLine | null, byCircle: boolean): string {
  if (!best) return 'Add marks that must be sharp: then the best stop can be told.';
  const at = `${fStop(best.fNumber)} makes the smallest spot of the worst mark, ${fixed(best.spotUm!, 0)} µm: ${fixed(best.worstBlurUm!, 0)} µm of blur${best.worst ? ` at ${best.worst}` : ''} and an Airy disc of ${fixed(best.airyUm, 0)} µm.`;
  const circle = byCircle ? ' Wider stops leave a corner past the sharp core.' : '';
  if (!holding) return `${at} No stop of this lens holds every mark.${circle}`;
  return holding.fNumber > best.fNumber * 1.01
    ? `${at} Your standard of sharpness asks for ${fStop(holding.fNumber)}; from there on diffraction costs more than it holds.${circle}`
    : `${at} Every mark holds from ${fStop(holding.fNumber)}.${circle}`;
}

/** The Airy disc of a stop, with the stop that acts where that is another. */
export const airyWords = ({ fNumber, effective }: StopLine): string =>
  `Airy disc, ${fStop(fNumber)}${Math.abs(effective / fNumber - 1) > 0.02 ? ` acting as f/${fixed(effective, effective < 10 ? 1 : 0)}` : ''}`;
