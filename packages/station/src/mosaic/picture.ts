import {
  clip,
  coneOutline,
  degrees,
  largestWithin,
  onCylinder,
  ontoFlat,
  type Point,
} from '@gangway/optics';
import type { Layout } from './layout.js';

/** The picture that comes out, picture coordinates, mm on the real back. */
export interface MosaicPicture {
  readonly centre: Point;
  readonly widthMm: number;
  readonly heightMm: number;
  readonly horizontalDeg: number;
  readonly verticalDeg: number;
}

const angleDeg = (middle: number, size: number, away: number): number =>
  degrees(Math.atan((middle + size / 2) / away) - Math.atan((middle - size / 2) / away));

/** Its field where it is flat. */
const seen = (
  centre: Point,
  size: { widthMm: number; heightMm: number },
  away: number,
): MosaicPicture => ({
  centre,
  widthMm: size.widthMm,
  heightMm: size.heightMm,
  horizontalDeg: angleDeg(centre.x, size.widthMm, away),
  verticalDeg: angleDeg(centre.y, size.heightMm, away),
});

/** A flat picture of a turned camera ends well before the sides run away to infinity. */
export const FLAT_ENDS_DEG = 180;

/** The part of a frame that the circle reaches, as a polygon. */
function litCorners({ frame, cone, middle }: Layout): Point[] {
  const reach = 4 * Math.hypot(frame.widthMm, frame.heightMm) + Math.hypot(middle.x, middle.y);
  const [left, right] = [middle.x - frame.widthMm / 2, middle.x + frame.widthMm / 2];
  const [foot, top] = [middle.y - frame.heightMm / 2, middle.y + frame.heightMm / 2];
  const sides = [
    [1, 0, right],
    [-1, 0, -left],
    [0, 1, top],
    [0, -1, -foot],
  ] as const;
  const lit = sides.reduce((kept, [a, b, c]) => clip(kept, a, b, c), [...coneOutline(cone, reach)]);
  const twice = lit.reduce((sum, p, i) => {
    const q = lit[(i + 1) % lit.length]!;
    return sum + p.x * q.y - q.x * p.y;
  }, 0);
  return twice < 0 ? lit.reverse() : lit;
}

function turnedPicture(layout: Layout): MosaicPicture | null {
  const { turn, frame, middle, cone, imageDistanceMm: v, mosaic } = layout;
  if (!turn || mosaic.pattern !== 'turn') return null;
  if (mosaic.projection !== 'flat') {
    const found = onCylinder({ ...frame, shiftMm: middle.x, riseMm: middle.y }, cone, v, turn);
    return (
      found && {
        ...found,
        horizontalDeg: turn.horizontalDeg,
        verticalDeg: angleDeg(found.centre.y, found.heightMm, v),
      }
    );
  }
  if (turn.horizontalDeg >= FLAT_ENDS_DEG) return null;
  const covered = layout.frames[0]!.corners;
  const lit = litCorners(layout);
  // Where the circle holds the whole frame its own corners are exact.
  const shape = lit.length > 4 ? lit : covered;
  const laid = turn.yawsDeg.map((yaw) => shape.map((place) => ontoFlat(place, yaw, v)));
  const size = largestWithin(laid, null, middle, mosaic.output);
  return size && seen(middle, size, v);
}

/**
 * The largest upright rectangle about the layout's middle, inside all frames together and the
 * circle; null where there is none.
 */
export function mosaicPicture(layout: Layout): MosaicPicture | null {
  const found = pictureOf(layout);
  // At a right angle to where the camera points a flat side never ends.
  return found && Number.isFinite(found.widthMm) && Number.isFinite(found.heightMm) ? found : null;
}

function pictureOf(layout: Layout): MosaicPicture | null {
  const { frames, cone, middle, mosaic, imageDistanceMm } = layout;
  if (frames.length === 0) return null;
  if (mosaic.pattern === 'turn') return turnedPicture(layout);
  const size = largestWithin(
    frames.map(({ corners }) => corners),
    cone,
    middle,
    mosaic.output,
  );
  return size && seen(middle, size, imageDistanceMm);
}
