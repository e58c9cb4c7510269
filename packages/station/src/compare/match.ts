import { imageDistanceFromDistance, nearestDistanceMm } from '@gangway/optics';
import { sideOf, type MatchedSide, type Sides } from './compare.js';

/**
 * The same picture made on another back. Thin lens, straight; distances from the sensor, mm.
 * Width here stands for whichever side is matched.
 */
export interface Taken {
  readonly focalLengthMm: number;
  readonly fNumber: number;
  readonly sides: Sides;
  readonly distanceMm: number;
}

export interface MatchedPicture extends Taken {
  readonly magnification: number;
  /** From the lens to the subject. */
  readonly objectMm: number;
  /** What the frame takes in at the subject, along the matched side. */
  readonly fieldMm: number;
}

/** The figures of a picture as taken. @returns null when the lens cannot focus there */
export function pictureOf(taken: Taken, side: MatchedSide): MatchedPicture | null {
  const { focalLengthMm: f, distanceMm } = taken;
  if (distanceMm < nearestDistanceMm(f, 1)) return null;
  const v = imageDistanceFromDistance(f, 1, distanceMm);
  const objectMm = distanceMm - v;
  return {
    ...taken,
    magnification: v / objectMm,
    objectMm,
    fieldMm: (sideOf(taken.sides, side) * objectMm) / v,
  };
}

/** From the same tripod: which focal length gives the same framing on the other back. */
export function matchFocalLength(
  picture: MatchedPicture,
  sides: Sides,
  side: MatchedSide,
): MatchedPicture {
  const m = sideOf(sides, side) / picture.fieldMm;
  const v = (picture.distanceMm * m) / (1 + m);
  const objectMm = picture.distanceMm - v;
  const focalLengthMm = (v * objectMm) / picture.distanceMm;
  return {
    ...picture,
    sides,
    focalLengthMm,
    magnification: m,
    objectMm,
    // The same opening in mm gives the same blur against the frame.
    fNumber: (picture.fNumber * focalLengthMm) / picture.focalLengthMm,
  };
}

/** With a lens at hand: from how far it frames the same, and how much room is missing. */
export function matchDistance(
  picture: MatchedPicture,
  focalLengthMm: number,
  sides: Sides,
  side: MatchedSide,
): MatchedPicture {
  const m = sideOf(sides, side) / picture.fieldMm;
  return {
    ...picture,
    sides,
    focalLengthMm,
    magnification: m,
    objectMm: focalLengthMm * (1 + 1 / m),
    distanceMm: focalLengthMm * (2 + m + 1 / m),
  };
}

/** With the same lens from the same place: how large a format frames the same. */
export function matchFormat(
  picture: MatchedPicture,
  focalLengthMm: number,
  sides: Sides,
  side: MatchedSide,
): MatchedPicture {
  const v = imageDistanceFromDistance(focalLengthMm, 1, picture.distanceMm);
  const objectMm = picture.distanceMm - v;
  const magnification = v / objectMm;
  const scale = (picture.fieldMm * magnification) / sideOf(sides, side);
  return {
    ...picture,
    focalLengthMm,
    magnification,
    objectMm,
    sides: { widthMm: sides.widthMm * scale, heightMm: sides.heightMm * scale },
  };
}

/** Size in the picture of something `behindMm` behind the subject, against the subject's own scale. */
export const backgroundScale = ({ objectMm }: MatchedPicture, behindMm: number): number =>
  objectMm / (objectMm + behindMm);

/**
 * Blur of something behind the subject, as a share of the matched side of the frame. Disc on the
 * sensor: (f/N) m Z / (u + Z).
 */
export function backgroundBlur(
  picture: MatchedPicture,
  behindMm: number,
  side: MatchedSide,
): number {
  const { focalLengthMm, fNumber, magnification, objectMm } = picture;
  const depth = behindMm === Infinity ? 1 : behindMm / (objectMm + behindMm);
  return ((focalLengthMm / fNumber) * magnification * depth) / sideOf(picture.sides, side);
}
