import {
  backCentre,
  bedReading,
  circleOfConfusionMm,
  coneHalfAngleRad,
  ENGRAVED,
  focusedAtDistance,
  focusedAtMagnification,
  imageDistanceFromMagnification,
  imageDistanceOnBed,
  lensFromMark,
  magnificationAt,
  movementWays,
  placingAt,
  type CircleAtStop,
  type Cone,
  type Criterion,
  type Focused,
  type Frame,
  type Mechanism,
  type Placing,
  type Point,
  type Pupil,
  type SetMovement,
  type Stance,
  type Vec3,
} from '@gangway/optics';
import type { Crop, Lens, MovementLimits, Station } from '../document/station.js';
import { leanedOf, stanceOfStation } from '../document/standards.js';
import { rigFacts, type RigFacts } from './facts.js';
import { sharpRadiusMm } from './measured.js';

/**
 * A station in the terms the physics works in. A multiplier between lens and movements makes one
 * lens of the two; with one behind the movements everything here is that of the lens without it
 * before a back 1/factor the size, and `factor` leads back to the real one.
 */
export interface Setup {
  /** The station it was made of. Where a setup is carried to another stop, that is in the setup alone. */
  readonly station: Station;
  readonly facts: RigFacts;
  /** As it acts at the focus set: a breathing lens is shorter up close. */
  readonly focalLengthMm: number;
  /** As it acts at infinity, where circles are quoted. */
  readonly engravedMm: number;
  readonly fNumber: number;
  readonly pupilRatio: number;
  /** Where light to the sensor comes from at the focus set. */
  readonly pupil: Pupil;
  /** Factor of the multipliers before the movements; part of the focal lengths and f-number here. */
  readonly combined: number;
  /** Magnification here over that of the lens that is focused: `combined`, or 1 where a draw behind it focuses. */
  readonly ahead: number;
  /** Factor of those behind the movements. */
  readonly factor: number;
  /** Circle at infinity at the movements, after clipping by a converter. */
  readonly circleMm: number;
  readonly axis: Vec3;
  /** How lens and back stand on the bed. */
  readonly stance: Stance;
  readonly imageDistanceMm: number;
  /** What the bed reads: where the lens stands along it with the lens straight. */
  readonly bedMm: number;
  /** The lens centre from the sensor mark, in the sensor's axes. */
  readonly lensCentre: Vec3;
  readonly cone: Cone;
  readonly core: Cone;
  /** The part of the back that is kept, with the movements as they act. */
  readonly frame: Frame;
  /** The whole back, its centre where the movements put it. */
  readonly whole: Frame;
  /** How far the middle of the kept part lies from that of the back. */
  readonly slide: Point;
  /** Where rise and shift as set put the middle of the kept part, the image distance held. */
  readonly placing: Placing;
  readonly set: SetMovement;
  readonly mechanism: Mechanism;
  readonly pixelPitchMm: number | null;
  readonly cocMm: number;
}

export const DEFAULT_SHARP_FRACTION = 0.8;

export const sharpFraction = (lens: Lens): number => lens.sharp_fraction ?? DEFAULT_SHARP_FRACTION;

/**
 * Diameter of the circle that is sharp at a stop, mm at infinity as the movements see it: to where the
 * lens's own patch was measured to be no larger than the circle of confusion, else a part of the circle.
 */
export function coreMmAt(
  lens: Lens,
  fNumber: number,
  { circleMm, cocMm, combined }: Pick<Setup, 'circleMm' | 'cocMm' | 'combined'>,
): number {
  const usual = circleMm * sharpFraction(lens);
  const found = sharpRadiusMm(lens, fNumber, cocMm / combined);
  if (!found) return usual;
  const measured = 2 * found.radiusMm * combined;
  return Math.min(circleMm, found.beyond ? Math.max(usual, measured) : measured);
}

/** Whether a lens's circle is given at a stop or on both sides of it; else it is only held at an end. */
export function circleGiven(circles: readonly CircleAtStop[], fNumber: number): boolean {
  const [first, last] = [circles[0]!.fNumber, circles.at(-1)!.fNumber];
  return fNumber >= first * (1 - ENGRAVED) && fNumber <= last * (1 + ENGRAVED);
}

function criterion(station: Station): Criterion {
  const given = station.criterion;
  if (given.coc_mm !== undefined) return { kind: 'coc', cocMm: given.coc_mm };
  if (given.diagonal_divisor !== undefined)
    return { kind: 'diagonal', divisor: given.diagonal_divisor };
  if (given.pixels !== undefined) return { kind: 'pixels', pixels: given.pixels };
  return {
    kind: 'print',
    printWidthMm: given.print_width_mm,
    viewingDistanceMm: given.viewing_distance_mm,
  };
}

export const UNBOUNDED: readonly [number, number] = [-Infinity, Infinity];

export function mechanism(station: Pick<Station, 'movement_limits' | 'aperture'>): Mechanism {
  const limits = station.movement_limits;
  return {
    rise: limits.rise_mm ?? UNBOUNDED,
    shift: limits.shift_mm ?? UNBOUNDED,
    radialMm: shiftLengthMm(station),
  };
}

/** Greatest length of the shift at the stop in use. */
export function shiftLengthMm({
  movement_limits: limits,
  aperture,
}: Pick<Station, 'movement_limits' | 'aperture'>): number {
  const at = (limits.reduced ?? []).filter(
    ({ f_from, f_to }) => aperture >= f_from * (1 - 1e-9) && aperture <= f_to * (1 + 1e-9),
  );
  return Math.min(limits.radial_shift_mm ?? Infinity, ...at.map(({ shift_mm }) => shift_mm));
}

/** Leans past this no lens makes. */
const MOST_LEAN_DEG = 80;

/** Whether a lens leans along one line of its own and is turned to lean another way. */
export const leanTurns = ({ radial_tilt_deg, one_way_tilt }: MovementLimits): boolean =>
  radial_tilt_deg !== undefined || one_way_tilt === true;

/** How far the lens leans along whatever direction it is turned to. */
export const leanLengthDeg = ({
  radial_tilt_deg: radial,
  tilt_deg,
  swing_deg,
}: MovementLimits): number =>
  radial ??
  (Math.max(0, ...[...(tilt_deg ?? []), ...(swing_deg ?? [])].map(Math.abs)) || MOST_LEAN_DEG);

/** Lens and what is combined with it as the station focuses them. */
export function focused(
  { engravedMm, focusing: lens, ahead }: RigFacts,
  { focus }: Pick<Station, 'focus'>,
  stance: Stance,
): Focused {
  if (focus.image_distance_mm !== undefined) {
    return {
      focalLengthMm: engravedMm,
      imageDistanceMm: imageDistanceOnBed(stance, focus.image_distance_mm),
    };
  }
  const leaned = leanedOf(stance);
  const own =
    focus.distance_m !== undefined
      ? focusedAtDistance(
          lens,
          leaned,
          focus.distance_m === null ? Infinity : focus.distance_m * 1000,
        )
      : focusedAtMagnification(lens, leaned, focus.magnification);
  if (ahead === 1) return own;
  // M f, at M times the magnification.
  const m = magnificationAt(own.focalLengthMm, leaned.axisZ, own.imageDistanceMm);
  const focalLengthMm = own.focalLengthMm * ahead;
  return {
    focalLengthMm,
    imageDistanceMm: imageDistanceFromMagnification(focalLengthMm, leaned.axisZ, m * ahead),
  };
}

/** The focus as the lens that is focused has it, which distances and magnifications are given for. */
export function bareFocus({ focalLengthMm, imageDistanceMm, axis, ahead }: Setup): Focused & {
  readonly magnification: number;
} {
  const m = magnificationAt(focalLengthMm, axis[2], imageDistanceMm) / ahead;
  const bare = focalLengthMm / ahead;
  return {
    focalLengthMm: bare,
    magnification: m,
    imageDistanceMm:
      ahead === 1 ? imageDistanceMm : imageDistanceFromMagnification(bare, axis[2], m),
  };
}

/** Where the lens stands, as the magnification the lens that is focused would have there straight. */
export const settingOf = ({ bedMm, focalLengthMm, ahead }: Setup): number =>
  (bedMm / focalLengthMm - 1) / ahead;

/** The largest part of a back that has the crop's shape, and how far its middle is slid. */
export function keptPart(
  { widthMm, heightMm }: { widthMm: number; heightMm: number },
  crop: Crop | undefined,
): { widthMm: number; heightMm: number; x: number; y: number } {
  if (!crop) return { widthMm, heightMm, x: 0, y: 0 };
  const ratio = crop.across / crop.up;
  const slide = (crop.slide ?? 0) / 2;
  return widthMm / heightMm > ratio
    ? { widthMm: heightMm * ratio, heightMm, x: slide * (widthMm - heightMm * ratio), y: 0 }
    : { widthMm, heightMm: widthMm / ratio, x: 0, y: slide * (heightMm - widthMm / ratio) };
}

/**
 * A setting of a rig in the terms the physics works in; the one place where it is made.
 * @param facts of the station's own rig
 */
export function setup(facts: RigFacts, station: Station): Setup {
  const { movements, aperture } = station;
  const { combined, behind, engravedMm, pupilRatio, size, pixelPitchMm, lens } = facts;
  const stance = stanceOfStation(station);
  const { axis } = stance;
  const { circleMm, halfAngleRad, fall } = facts.at(aperture);
  const { focalLengthMm, imageDistanceMm } = focused(facts, station, stance);
  const kept = keptPart(size, station.crop);
  const middle = backCentre(stance, imageDistanceMm);
  const centre = { x: middle.x + kept.x, y: middle.y + kept.y };
  const set = { riseMm: movements.rise_mm, shiftMm: movements.shift_mm };
  const apexMm = (pupilRatio - 1) * focalLengthMm;
  const cocMm = cocOf(station, kept, behind, pixelPitchMm) / behind;
  const lit = (half: number): Cone =>
    fall
      ? { axis, imageDistanceMm, halfAngleRad: half, apexMm, fall }
      : { axis, imageDistanceMm, halfAngleRad: half, apexMm };
  return {
    station,
    facts,
    focalLengthMm,
    engravedMm,
    fNumber: aperture * combined,
    pupilRatio,
    pupil: { focalLengthMm, ratio: pupilRatio, axisZ: axis[2] },
    combined,
    ahead: facts.ahead,
    factor: behind,
    circleMm,
    axis,
    stance,
    imageDistanceMm,
    bedMm: bedReading(stance, imageDistanceMm),
    lensCentre: lensFromMark(stance, imageDistanceMm),
    cone: lit(halfAngleRad),
    core: lit(
      coneHalfAngleRad(
        coreMmAt(lens, aperture, { circleMm, cocMm, combined }),
        engravedMm,
        pupilRatio,
      ),
    ),
    frame: {
      widthMm: kept.widthMm,
      heightMm: kept.heightMm,
      shiftMm: centre.x,
      riseMm: centre.y,
    },
    whole: {
      widthMm: size.widthMm,
      heightMm: size.heightMm,
      shiftMm: middle.x,
      riseMm: middle.y,
    },
    slide: { x: kept.x, y: kept.y },
    placing: placingAt(movementWays(stance), centre, set),
    set,
    mechanism: mechanism(station),
    pixelPitchMm,
    cocMm,
  };
}

/** The last few stations asked for: a page asks for the same one many times. */
const RECENT: (Setup | undefined)[] = Array.from({ length: 8 });
let next = 0;

/** Whether two stations are one rig, set alike: what stands in front makes no other setup. */
const setAlike = (a: Station, b: Station): boolean =>
  a.movements === b.movements &&
  a.focus === b.focus &&
  a.aperture === b.aperture &&
  a.lens === b.lens &&
  a.back === b.back &&
  a.chain === b.chain &&
  a.movement_limits === b.movement_limits &&
  a.crop === b.crop &&
  a.criterion === b.criterion;

/** A setup for a station; that of another one, where both are set alike. */
export const setupLike = (known: Setup, station: Station): Setup =>
  setAlike(known.station, station) ? { ...known, station } : setup(rigFacts(station), station);

/** The setup of a station as it stands; the same one as long as it is the same object. */
export function setupOf(station: Station): Setup {
  let alike: Setup | undefined;
  for (let i = 0; i < RECENT.length; i++) {
    const recent = RECENT[i];
    if (recent?.station === station) return recent;
    if (recent && setAlike(recent.station, station)) alike = recent;
  }
  const made = alike ? { ...alike, station } : setup(rigFacts(station), station);
  RECENT[next] = made;
  next = (next + 1) % RECENT.length;
  return made;
}

/** The standard of sharpness is that of the part that is kept. */
const cocOf = (
  station: Station,
  kept: { widthMm: number; heightMm: number },
  behind: number,
  pixelPitchMm: number | null,
): number =>
  circleOfConfusionMm(criterion(station), {
    widthMm: kept.widthMm * behind,
    heightMm: kept.heightMm * behind,
    pixelPitchMm,
  });

/** Circle of confusion on the back, µm. */
export const backCocUm = (station: Station): number => {
  const { cocMm, factor } = setupOf(station);
  return cocMm * factor * 1000;
};
