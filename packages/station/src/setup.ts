import {
  axisFromSensor,
  circleDiameterMm,
  circleOfConfusionMm,
  coneHalfAngleRad,
  focusedAtDistance,
  focusedAtMagnification,
  imageDistanceFromMagnification,
  lensAxis,
  magnificationAt,
  pivotTravel,
  type CircleAtStop,
  type Cone,
  type Criterion,
  type Focused,
  type Frame,
  type Mechanism,
  type Point,
  type Vec3,
} from '@gangway/optics';
import { focusingLensOf, multiplied } from './rig/stack.js';
import type { Crop, Lens, Station } from './schema.js';

/**
 * A station in the terms the physics works in. A multiplier between lens and movements makes one
 * lens of the two; with one behind the movements everything here is that of the lens without it
 * before a back 1/factor the size, and `factor` leads back to the real one.
 */
export interface Setup {
  /** As it acts at the focus set: a breathing lens is shorter up close. */
  readonly focalLengthMm: number;
  /** As it acts at infinity, where circles are quoted. */
  readonly engravedMm: number;
  readonly fNumber: number;
  readonly pupilRatio: number;
  /** Factor of the multipliers before the movements; part of the focal lengths and f-number here. */
  readonly combined: number;
  /** Factor of those behind the movements. */
  readonly factor: number;
  /** Circle at infinity at the movements, after clipping by a converter. */
  readonly circleMm: number;
  readonly axis: Vec3;
  readonly imageDistanceMm: number;
  readonly cone: Cone;
  readonly core: Cone;
  /** The part of the back that is kept, with the movements as they act. */
  readonly frame: Frame;
  /** The whole back; its centre is where the movements put it: set plus what a pivoted tilt adds. */
  readonly whole: Frame;
  readonly pivot: Point;
  /** From the movements as set to the centre of the kept part: pivot and the slide of a crop. */
  readonly offset: Point;
  readonly mechanism: Mechanism;
  readonly pixelPitchMm: number | null;
  readonly cocMm: number;
}

export const DEFAULT_SHARP_FRACTION = 0.8;

export const sharpFraction = (lens: Lens): number => lens.sharp_fraction ?? DEFAULT_SHARP_FRACTION;

/** Width and height of the back as it is turned, mm. */
export function turnedBack(back: Station['back']): { widthMm: number; heightMm: number } {
  return back.orientation === 'portrait'
    ? { widthMm: back.height_mm, heightMm: back.width_mm }
    : { widthMm: back.width_mm, heightMm: back.height_mm };
}

export const circleTable = (lens: Lens): CircleAtStop[] =>
  lens.circle.map((entry) => ({ fNumber: entry.f_number, diameterMm: entry.diameter_mm }));

export function criterion(station: Station): Criterion {
  const given = station.criterion;
  if ('coc_mm' in given) return { kind: 'coc', cocMm: given.coc_mm };
  if ('diagonal_divisor' in given) return { kind: 'diagonal', divisor: given.diagonal_divisor };
  if ('pixels' in given) return { kind: 'pixels', pixels: given.pixels };
  return {
    kind: 'print',
    printWidthMm: given.print_width_mm,
    viewingDistanceMm: given.viewing_distance_mm,
  };
}

const UNBOUNDED: readonly [number, number] = [-Infinity, Infinity];

export function mechanism(station: Station): Mechanism {
  const limits = station.movement_limits;
  return {
    rise: limits.rise_mm ?? UNBOUNDED,
    shift: limits.shift_mm ?? UNBOUNDED,
    radialMm: shiftLengthMm(station),
  };
}

/** Greatest length of the shift at the stop in use. */
export function shiftLengthMm({ movement_limits: limits, aperture }: Station): number {
  const at = (limits.reduced ?? []).filter(
    ({ f_from, f_to }) => aperture >= f_from * (1 - 1e-9) && aperture <= f_to * (1 + 1e-9),
  );
  return Math.min(limits.radial_shift_mm ?? Infinity, ...at.map(({ shift_mm }) => shift_mm));
}

export function lensAxisOf(station: Station): Vec3 {
  const { movements } = station;
  return axisFromSensor(
    { tiltDeg: movements.tilt_deg, swingDeg: movements.swing_deg },
    { tiltDeg: movements.rear_tilt_deg ?? 0, swingDeg: movements.rear_swing_deg ?? 0 },
  );
}

/** The bare lens as the station focuses it; null where the bed says where the lens stands. */
function focused(station: Station, axis: Vec3): Focused | null {
  const { focus } = station;
  const lens = focusingLensOf(station);
  if ('distance_m' in focus) {
    const distanceMm = focus.distance_m === null ? Infinity : focus.distance_m * 1000;
    return focusedAtDistance(lens, axis[2], distanceMm);
  }
  return 'magnification' in focus
    ? focusedAtMagnification(lens, axis[2], focus.magnification)
    : null;
}

/** Lens and what is combined with it as one lens: M f, at M times the magnification. */
function combinedFocus(station: Station, axis: Vec3, combined: number, backMm: number): Focused {
  const bare = focused(station, axis);
  if (!bare) {
    const { image_distance_mm: set } = station.focus as { image_distance_mm: number };
    return {
      focalLengthMm: station.lens.focal_length_mm * combined,
      // Set on the bed, where a pivoted tilt then draws the lens back.
      imageDistanceMm: set + backMm,
    };
  }
  if (combined === 1) return bare;
  const m = magnificationAt(bare.focalLengthMm, axis[2], bare.imageDistanceMm);
  const focalLengthMm = bare.focalLengthMm * combined;
  return {
    focalLengthMm,
    imageDistanceMm: imageDistanceFromMagnification(focalLengthMm, axis[2], m * combined),
  };
}

/** The focus as the bare lens has it, which distances and magnifications are given for. */
export function bareFocus({ focalLengthMm, imageDistanceMm, axis, combined }: Setup): Focused & {
  readonly magnification: number;
} {
  const m = magnificationAt(focalLengthMm, axis[2], imageDistanceMm) / combined;
  const bare = focalLengthMm / combined;
  return {
    focalLengthMm: bare,
    magnification: m,
    imageDistanceMm:
      combined === 1 ? imageDistanceMm : imageDistanceFromMagnification(bare, axis[2], m),
  };
}

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

/** Resolves a station into what the physics needs. The station must have been parsed. */
export function setup(station: Station): Setup {
  const { lens, back, movements, aperture } = station;
  const axis = lensAxisOf(station);
  // The lens leans on its own pivot; a leaning back does not move it.
  const pivotMm = station.movement_limits.pivot_mm ?? 0;
  const own = { tiltDeg: movements.tilt_deg, swingDeg: movements.swing_deg };
  const travel = pivotMm === 0 ? NO_TRAVEL : pivotTravel(lensAxis(own), pivotMm);
  const pivot = { x: travel.shiftMm, y: travel.riseMm };
  const { combined, behind, circleMm } = multiplied(
    station.chain,
    circleDiameterMm(circleTable(lens), aperture),
  );
  const engravedMm = lens.focal_length_mm * combined;
  const { focalLengthMm, imageDistanceMm } = combinedFocus(station, axis, combined, travel.backMm);
  const turned = turnedBack(back);
  const size = { widthMm: turned.widthMm / behind, heightMm: turned.heightMm / behind };
  const kept = keptPart(size, station.crop);
  const [shiftMm, riseMm] = [movements.shift_mm + pivot.x, movements.rise_mm + pivot.y];
  const cone: Cone = {
    axis,
    imageDistanceMm,
    halfAngleRad: coneHalfAngleRad(circleMm, engravedMm),
  };
  const pixelPitchMm = back.width_px === undefined ? null : back.width_mm / back.width_px;
  return {
    focalLengthMm,
    engravedMm,
    fNumber: aperture * combined,
    pupilRatio: lens.pupil_ratio ?? 1,
    combined,
    factor: behind,
    circleMm,
    axis,
    imageDistanceMm,
    cone,
    core: {
      ...cone,
      halfAngleRad: coneHalfAngleRad(circleMm * sharpFraction(lens), engravedMm),
    },
    frame: {
      widthMm: kept.widthMm,
      heightMm: kept.heightMm,
      shiftMm: shiftMm + kept.x,
      riseMm: riseMm + kept.y,
    },
    whole: { ...size, shiftMm, riseMm },
    pivot,
    offset: { x: pivot.x + kept.x, y: pivot.y + kept.y },
    mechanism: mechanism(station),
    pixelPitchMm,
    cocMm: circleOfConfusionMm(criterion(station), { ...turned, pixelPitchMm }) / behind,
  };
}

const NO_TRAVEL = { shiftMm: 0, riseMm: 0, backMm: 0 };

/** Circle of confusion on the back, µm. */
export const backCocUm = (station: Station): number => {
  const { cocMm, factor } = setup(station);
  return cocMm * factor * 1000;
};
