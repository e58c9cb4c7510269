import {
  axisFromSensor,
  circleDiameterMm,
  circleOfConfusionMm,
  coneHalfAngleRad,
  imageDistanceFromDistance,
  imageDistanceFromMagnification,
  lensAxis,
  pivotTravel,
  throughMultipliers,
  type CircleAtStop,
  type Cone,
  type Criterion,
  type Frame,
  type Mechanism,
  type Multiplier,
  type Point,
  type Vec3,
} from '@gangway/optics';
import type { Lens, Station } from './schema.js';

/**
 * A station in the terms the physics works in. With a multiplier everything here is that of
 * the bare lens before a back 1/factor the size; `factor` leads back to the real one.
 */
export interface Setup {
  readonly focalLengthMm: number;
  readonly fNumber: number;
  readonly pupilRatio: number;
  readonly factor: number;
  /** Circle at infinity, after clipping by a converter, bare. */
  readonly circleMm: number;
  readonly axis: Vec3;
  readonly imageDistanceMm: number;
  readonly cone: Cone;
  readonly core: Cone;
  /** Movements as they act: set plus what a pivoted tilt adds. */
  readonly frame: Frame;
  readonly pivot: Point;
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

export function multipliers(station: Station): Multiplier[] {
  const found: Multiplier[] = [];
  for (const part of station.chain) {
    if (part.kind === 'multiplier') {
      found.push({ factor: part.factor, circleLimitMm: part.circle_limit_mm ?? null });
    }
  }
  return found;
}

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
    radialMm: limits.radial_shift_mm ?? Infinity,
  };
}

export function lensAxisOf(station: Station): Vec3 {
  const { movements } = station;
  return axisFromSensor(
    { tiltDeg: movements.tilt_deg, swingDeg: movements.swing_deg },
    { tiltDeg: movements.rear_tilt_deg ?? 0, swingDeg: movements.rear_swing_deg ?? 0 },
  );
}

function imageDistance(station: Station, axis: Vec3, pivotBackMm: number): number {
  const { focus } = station;
  const f = station.lens.focal_length_mm;
  if ('distance_m' in focus) {
    const distanceMm = focus.distance_m === null ? Infinity : focus.distance_m * 1000;
    return imageDistanceFromDistance(f, axis[2], distanceMm);
  }
  if ('magnification' in focus) {
    return imageDistanceFromMagnification(f, axis[2], focus.magnification);
  }
  // Set on the bed, where a pivoted tilt then draws the lens back.
  return focus.image_distance_mm + pivotBackMm;
}

/** Resolves a station into what the physics needs. The station must have been parsed. */
export function setup(station: Station): Setup {
  const { lens, back, movements, aperture } = station;
  const focalLengthMm = lens.focal_length_mm;
  const axis = lensAxisOf(station);
  // The lens leans on its own pivot; a leaning back does not move it.
  const pivotMm = station.movement_limits.pivot_mm ?? 0;
  const own = { tiltDeg: movements.tilt_deg, swingDeg: movements.swing_deg };
  const travel = pivotMm === 0 ? NO_TRAVEL : pivotTravel(lensAxis(own), pivotMm);
  const pivot = { x: travel.shiftMm, y: travel.riseMm };
  const { factor, bareCircleMm } = throughMultipliers(
    multipliers(station),
    circleDiameterMm(circleTable(lens), aperture),
  );
  const imageDistanceMm = imageDistance(station, axis, travel.backMm);
  const turned = turnedBack(back);
  const cone: Cone = {
    axis,
    imageDistanceMm,
    halfAngleRad: coneHalfAngleRad(bareCircleMm, focalLengthMm),
  };
  const pixelPitchMm = back.width_px === undefined ? null : back.width_mm / back.width_px;
  return {
    focalLengthMm,
    fNumber: aperture,
    pupilRatio: lens.pupil_ratio ?? 1,
    factor,
    circleMm: bareCircleMm,
    axis,
    imageDistanceMm,
    cone,
    core: {
      ...cone,
      halfAngleRad: coneHalfAngleRad(bareCircleMm * sharpFraction(lens), focalLengthMm),
    },
    frame: {
      widthMm: turned.widthMm / factor,
      heightMm: turned.heightMm / factor,
      shiftMm: movements.shift_mm + pivot.x,
      riseMm: movements.rise_mm + pivot.y,
    },
    pivot,
    mechanism: mechanism(station),
    pixelPitchMm,
    cocMm: circleOfConfusionMm(criterion(station), { ...turned, pixelPitchMm }) / factor,
  };
}

const NO_TRAVEL = { shiftMm: 0, riseMm: 0, backMm: 0 };
