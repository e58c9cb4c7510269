import { degrees, DIAGONAL_24X36_MM, movementLimits } from '@gangway/optics';
import { assumptionsOf, type Assumption } from '../report/assumed.js';
import { readings } from '../report/readings.js';
import { setupOf } from '../optical/setup.js';
import { rigStation, stopOf, type WholeRig } from '../kit/rig-document.js';
import { turnedBack } from '../optical/facts.js';

/** Which side of two formats is made to see the same. */
export const MATCHED_SIDES = ['width', 'height', 'diagonal'] as const;
export type MatchedSide = (typeof MATCHED_SIDES)[number];

export interface Sides {
  readonly widthMm: number;
  readonly heightMm: number;
}

export const sideOf = ({ widthMm, heightMm }: Sides, side: MatchedSide): number =>
  side === 'width' ? widthMm : side === 'height' ? heightMm : Math.hypot(widthMm, heightMm);

export const SMALL_FORMAT: Sides = { widthMm: 36, heightMm: 24 };
export { DIAGONAL_24X36_MM };

/** What a rig sees and can do, side by side with others. `null`: not known, or no end. */
export interface RigFigures {
  readonly name: string;
  readonly focalLengthMm: number;
  readonly fNumber: number;
  readonly widestFNumber: number;
  readonly horizontalDeg: number;
  readonly verticalDeg: number;
  readonly diagonalDeg: number;
  /** On the reference format, the chosen side matched. */
  readonly equivalentMm: number;
  readonly equivalentFNumber: number;
  /** The focal length that is normal on this back: its diagonal. */
  readonly normalMm: number;
  /** Hyperfocal distance at the stop it is looked at. */
  readonly hyperfocalM: number;
  readonly circleMm: number;
  readonly riseMm: number | null;
  readonly shiftMm: number | null;
  readonly closestM: number | null;
  readonly largestMagnification: number | null;
  readonly reachesInfinity: boolean;
  readonly farthestM: number | null;
  readonly massG: number | null;
  /** False when some part gives no mass. */
  readonly massWhole: boolean;
  /** What the figures rest on that nobody gave. */
  readonly assumed: readonly Assumption[];
  readonly stops: number;
  readonly warnings: number;
}

export function figuresOf(
  rig: WholeRig,
  side: MatchedSide = 'diagonal',
  reference: Sides = SMALL_FORMAT,
): RigFigures {
  const station = rigStation(rig);
  const report = readings(station);
  const s = setupOf(station);
  const limits = movementLimits(s.cone, s.frame, s.mechanism, s.placing, s.set);
  const sides = turnedBack(rig.back);
  const crop = sideOf(reference, side) / sideOf(sides, side);
  const parts = [rig.lens, ...rig.chain, rig.back];
  const masses = parts.flatMap((part) => (part.mass_g === undefined ? [] : [part.mass_g]));
  const focalLengthMm = report.optics.focal_length_mm;
  return {
    name: rig.name,
    focalLengthMm,
    fNumber: report.optics.f_number,
    widestFNumber: (rig.lens.f_min * report.optics.f_number) / stopOf(rig),
    horizontalDeg: report.field.horizontal_deg,
    verticalDeg: report.field.vertical_deg,
    diagonalDeg:
      2 * degrees(Math.atan(Math.hypot(s.frame.widthMm, s.frame.heightMm) / 2 / s.imageDistanceMm)),
    equivalentMm: focalLengthMm * crop,
    equivalentFNumber: report.optics.f_number * crop,
    normalMm: Math.hypot(sides.widthMm, sides.heightMm),
    hyperfocalM: report.focus.hyperfocal_m,
    circleMm: report.optics.circle_diameter_mm,
    riseMm: limits.rise.mm,
    shiftMm: limits.right.mm,
    closestM: report.rig.closest_focus_m,
    largestMagnification: report.rig.largest_magnification,
    reachesInfinity: report.rig.reaches_infinity,
    farthestM: report.rig.farthest_focus_m,
    massG: masses.length === 0 ? null : masses.reduce((sum, g) => sum + g, 0),
    massWhole: masses.length === parts.length,
    assumed: assumptionsOf(station),
    stops: report.rig.problems.filter(({ severity }) => severity === 'stop').length,
    warnings: report.rig.problems.filter(({ severity }) => severity === 'warn').length,
  };
}

/** What the frames of several rigs take in of a wall at one distance, m. */
export function fieldAt(
  figures: Pick<RigFigures, 'horizontalDeg' | 'verticalDeg'>,
  distanceM: number,
) {
  const across = (deg: number): number => 2 * distanceM * Math.tan((deg * Math.PI) / 360);
  return { widthM: across(figures.horizontalDeg), heightM: across(figures.verticalDeg) };
}
