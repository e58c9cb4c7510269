import {
  CORNERS,
  covers,
  falloffStops,
  throatStops,
  type Cone,
  type Corner,
  type Point,
  mostOf,
} from '@gangway/optics';
import type { Station } from '../document/station.js';
import { finite } from '../words/finite.js';
import type { LaidFrame, Layout } from './layout.js';
import type { MosaicPicture } from './picture.js';

/** A frame's own corners by name, in the order they are listed in. */
const CORNER_AT: Record<Corner, number> = {
  bottom_left: 0,
  bottom_right: 1,
  top_right: 2,
  top_left: 3,
};

export const cornerOf = ({ corners }: LaidFrame, corner: Corner): Point =>
  corners[CORNER_AT[corner]]!;

/** Corners that a cone does not reach. */
export const cornersPast = (cone: Cone, frame: LaidFrame): Corner[] =>
  CORNERS.filter((corner) => !covers(cone, cornerOf(frame, corner)));

/** What a frame's darkest corner loses against the axis, stops; null where no light comes. */
export const frameFalloffStops = ({ cone }: Layout, { corners }: LaidFrame): number | null =>
  finite(mostOf(corners.map((corner) => falloffStops(cone, corner))));

/** Places to each side of a picture at which its light is looked at first. */
const LOOKS = 8;
/** Halvings of the step from there: to a tenth of a millionth of the side. */
const HALVINGS = 24;

/** Lightest place of a rectangle: light has one summit, which a shrinking cross of steps climbs to. */
function leastFalloff(cone: Cone, { centre, widthMm, heightMm }: MosaicPicture): number {
  const at = (u: number, w: number): number =>
    falloffStops(cone, { x: centre.x + (u * widthMm) / 2, y: centre.y + (w * heightMm) / 2 });
  let best = { u: 0, w: 0, stops: at(0, 0) };
  const look = (u: number, w: number): boolean => {
    if (Math.abs(u) > 1 || Math.abs(w) > 1) return false;
    const stops = at(u, w);
    if (!(stops < best.stops)) return false;
    best = { u, w, stops };
    return true;
  };
  for (let i = -LOOKS; i <= LOOKS; i++) {
    for (let j = -LOOKS; j <= LOOKS; j++) look(i / LOOKS, j / LOOKS);
  }
  let step = 1 / LOOKS;
  for (let i = 0; i < HALVINGS;) {
    const { u, w } = best;
    const better = look(u + step, w) || look(u - step, w) || look(u, w + step) || look(u, w - step);
    if (!better) {
      step /= 2;
      i++;
    }
  }
  return best.stops;
}

/**
 * Darkest place of the picture that comes out against its lightest, stops. Light falls off away from
 * one summit, so that the darkest is a corner.
 */
export function pictureFalloffStops(
  { cone, mosaic, frames, middle, frame }: Layout,
  picture: MosaicPicture,
): number | null {
  // Every frame of a turn looks through the same part of the circle.
  const flat = mosaic.pattern !== 'turn';
  const looked = flat ? picture : { ...picture, centre: middle, ...frame };
  const corners = flat
    ? [-1, 1].flatMap((u) =>
        [-1, 1].map((w) => ({
          x: picture.centre.x + (u * picture.widthMm) / 2,
          y: picture.centre.y + (w * picture.heightMm) / 2,
        })),
      )
    : frames[0]!.corners;
  const darkest = mostOf(corners.map((corner) => falloffStops(cone, corner)));
  return finite(darkest - leastFalloff(cone, looked));
}

/** What the throat of a body that moves with its sensor takes from a frame's worst corner, stops. */
export function frameThroatStops(
  { back }: Station,
  { s, cone }: Layout,
  { centre, corners }: LaidFrame,
): number | null {
  const { throat_mm, register_mm } = back;
  if (throat_mm === undefined || register_mm === undefined) return null;
  // The throat is as large as it is: the pupil of what acts on the real back.
  const pupilRadiusMm = (s.pupilRatio * s.focalLengthMm * s.factor) / (2 * s.fNumber * s.factor);
  const throat = { radiusMm: throat_mm / 2, aheadMm: register_mm };
  return mostOf(corners.map((corner) => throatStops(cone, pupilRadiusMm, throat, centre, corner)));
}
