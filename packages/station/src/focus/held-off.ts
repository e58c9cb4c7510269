import { setupOf } from '../optical/setup.js';
import { hingeDistanceMm, travelPerBlur } from '@gangway/optics';
import { fixed } from '../words/format.js';
import type { Station } from '../document/station.js';
import { beyondMm, heldPlane, heldSetup, type HeldOffInput } from '../optical/held.js';

/** A lens held by hand ahead of the body: what it gives, and how steady the hand must be. */
export interface HeldOff {
  /** From the sensor, straight ahead; null at infinity and past it. */
  readonly planeM: number | null;
  readonly pastInfinity: boolean;
  readonly magnification: number;
  readonly hingeMm: number | null;
  /** Whether any gap ≥ 0 reaches infinity at this lean; null when a register is not known. */
  readonly infinityPossible: boolean | null;
  /** The gap at which infinity is sharp; negative where it cannot be. */
  readonly infinityGapMm: number | null;
  /** The least gap at the middle that the lean needs. */
  readonly clearanceMm: number;
  readonly fits: boolean;
  /** How wide the flanges gape on the open side. */
  readonly gapeMm: number;
  /** Of the gap, and of the lean at the edge of the frame, for one circle of confusion. */
  readonly mmPerBlur: number;
  readonly degPerBlur: number;
  readonly notes: readonly string[];
}

/** Where a station begins: its own registers, a small gap, held straight. */
export const startHeldOff = ({ lens, back }: Station): HeldOffInput => ({
  ...(lens.register_mm === undefined ? {} : { lens_register_mm: lens.register_mm }),
  ...(back.register_mm === undefined ? {} : { body_register_mm: back.register_mm }),
  ...(back.throat_mm === undefined ? {} : { throat_mm: back.throat_mm }),
  gap_mm: 2,
  lean_deg: 0,
});

/** Whether the back of the lens goes into the throat. */
const goesInside = ({ flange_diameter_mm: flange, throat_mm: throat }: HeldOffInput): boolean =>
  flange !== undefined && throat !== undefined && flange < throat;

/** The least gap at the middle at which a lean leaves the flanges apart, mm. */
export function clearanceAt(held: HeldOffInput, leanDeg: number): number {
  if (goesInside(held)) return 0;
  const radius = (held.flange_diameter_mm ?? held.throat_mm ?? 0) / 2;
  return radius * Math.sin((Math.abs(leanDeg) * Math.PI) / 180);
}

/**
 * Lens at its infinity mark, widest stop. Registers left out are taken to be equal: the gap is
 * then all there is.
 */
export function heldOff(station: Station, held: HeldOffInput): HeldOff {
  const s = heldSetup(setupOf(station), held);
  const { focalLengthMm: f, imageDistanceMm: v, axis } = s;
  const known = held.lens_register_mm !== undefined && held.body_register_mm !== undefined;
  const beyond = beyondMm(held);
  const lean = Math.abs(held.lean_deg);
  const sine = Math.sin((lean * Math.PI) / 180);
  const radius = (held.flange_diameter_mm ?? held.throat_mm ?? 0) / 2;
  const inside = goesInside(held);
  const clearanceMm = clearanceAt(held, lean);
  // A leaning lens reaches infinity straight ahead at v = f / a_z, a little further out.
  const infinityGapMm = known ? f / axis[2] - f - beyond : null;
  const { planeM, pastInfinity } = heldPlane(s);
  const blur = s.fNumber * s.cocMm * travelPerBlur(s.pupil, v);
  const halfFrame = Math.max(s.frame.heightMm, s.frame.widthMm) / 2;
  const hinge = hingeDistanceMm(f, axis);
  const fits = held.gap_mm >= clearanceMm - 1e-9;
  return {
    planeM,
    pastInfinity,
    magnification: (v * axis[2]) / f - 1,
    hingeMm: Number.isFinite(hinge) ? hinge : null,
    infinityPossible: infinityGapMm === null ? null : infinityGapMm >= clearanceMm - 1e-9,
    infinityGapMm,
    clearanceMm,
    fits,
    gapeMm: held.gap_mm + radius * sine,
    mmPerBlur: blur,
    degPerBlur: (Math.asin(Math.min(1, blur / halfFrame)) * 180) / Math.PI,
    notes: notesOf(held, { pastInfinity, fits, clearanceMm, inside, infinityGapMm }),
  };
}

function notesOf(
  held: HeldOffInput,
  read: {
    pastInfinity: boolean;
    fits: boolean;
    clearanceMm: number;
    inside: boolean;
    infinityGapMm: number | null;
  },
): string[] {
  const notes: string[] = [];
  if (!read.fits) {
    notes.push(
      `At ${fixed(Math.abs(held.lean_deg), 1)}° the flanges touch: hold them ${fixed(read.clearanceMm, 1)} mm apart, or lean less.`,
    );
  }
  if (read.infinityGapMm !== null && read.infinityGapMm < 0) {
    notes.push(
      'The lens’s register is no longer than the body’s: infinity cannot be reached, near things only.',
    );
  }
  if (read.pastInfinity)
    notes.push('So close to the body it focuses past infinity: nothing straight ahead is sharp.');
  if (read.inside)
    notes.push('The lens’s back goes into the throat: it can come nearer to infinity.');
  notes.push(
    'Light gets in at the gap: shade it with a hand or a cloth, and expect a veil on the open side.',
    'Shoot bursts, and move through the place you want.',
  );
  return notes;
}

/** Said wherever a lens comes off the body. */
export const HELD_OFF_CARE =
  'Hold the lens by its barrel with a strap or a hand under it: it can fall. Keep dust and rain away from the open body, and never let the sun fall through a loose lens onto sensor, shutter, skin or eye.';
