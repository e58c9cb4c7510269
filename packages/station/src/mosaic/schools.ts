import { radians } from '@gangway/optics';
import type { Mosaic, Station } from '../document/station.js';
import { fixed } from '../words/format.js';
import { depthsOf } from './depths.js';
import { layoutOf, type Layout } from './layout.js';
import { cornersPast, pictureFalloffStops } from './light.js';
import { baseOf } from './offers/judged.js';
import { noneServesSaid } from '../words/wish.js';
import { offersOf } from './offers/index.js';
import { parallaxOf, pupilWithinMm } from './parallax.js';
import { mosaicPicture, type MosaicPicture } from './picture.js';
import { turnHindrance } from './turn-hindrance.js';
import { workOf } from './work.js';

/** One way to the same field, by what it costs. */
export interface School {
  readonly after: Station;
  readonly frames: number;
  readonly horizontalDeg: number;
  readonly verticalDeg: number;
  /** Real pixels in the picture, after the merge; null where pixels are not known. */
  readonly megapixels: number | null;
  /** Darkest corner of the picture against its lightest place. */
  readonly falloffStops: number | null;
  /** Frames with a corner outside the sharp core. */
  readonly soft: number;
  /** How much the merge stretches a pixel at the picture's end, to make it flat; 1 where it stays as shot. */
  readonly stretched: number;
  readonly parallaxPx: number | null;
  /** How well the pupil must stand over the axis for one pixel; null where it need not. */
  readonly pupilWithinMm: number | null;
  readonly timeS: number;
}

export interface Schools {
  readonly shift: School | null;
  readonly turn: School | null;
  /** Where a school cannot: why. */
  readonly noShift: string | null;
  readonly noTurn: string | null;
  readonly serves: 'shift' | 'turn' | null;
  readonly why: string;
}

const megapixels = ({ widthMm, heightMm }: MosaicPicture, pitch: number | null): number | null =>
  pitch === null ? null : (Math.round(widthMm / pitch) * Math.round(heightMm / pitch)) / 1e6;

function schoolOf(after: Station, layout: Layout, picture: MosaicPicture): School {
  const depths = depthsOf(after, layout);
  const { partsMm } = parallaxOf(layout, depths);
  const pitch = layout.pixelPitchMm;
  const { turn } = layout;
  // Flat, a pixel at the end of a turn is stretched as its angle says against where it was shot.
  const end = radians(picture.horizontalDeg / 2);
  const own = turn ? radians(turn.frameDeg / 2) : 0;
  return {
    after,
    frames: layout.frames.length,
    horizontalDeg: picture.horizontalDeg,
    verticalDeg: picture.verticalDeg,
    megapixels: megapixels(picture, pitch),
    falloffStops: pictureFalloffStops(layout, picture),
    soft: layout.frames.filter((frame) => cornersPast(layout.core, frame).length > 0).length,
    stretched:
      turn && end < Math.PI / 2 ? (Math.cos(own) / Math.cos(end)) ** 2 : turn ? Infinity : 1,
    parallaxPx: partsMm === 0 ? 0 : partsMm === null || pitch === null ? null : partsMm / pitch,
    pupilWithinMm: pupilWithinMm(after, layout),
    timeS: workOf(after, layout).timeS,
  };
}

/** A turn loses a little of its height at its ends; so much of it counts as the same field. */
const HIGH_ENOUGH = 0.93;

/** As few frames as see this far, turned on a level camera. */
function turnFor(station: Station, horizontalDeg: number, verticalDeg: number): School | string {
  const hindrance = turnHindrance(station);
  if (hindrance) return hindrance;
  for (const orientation of ['landscape', 'portrait'] as const) {
    const back = { ...station.back, orientation } as Station['back'];
    for (let columns = 1; columns <= 60; columns++) {
      const mosaic: Mosaic = {
        ...baseOf(station),
        pattern: 'turn',
        moves: 'camera',
        columns,
      };
      const after: Station = { ...station, back, mosaic };
      const layout = layoutOf(after);
      const picture = mosaicPicture(layout);
      if (!picture || picture.verticalDeg < HIGH_ENOUGH * verticalDeg) break;
      if (picture.horizontalDeg < horizontalDeg - 1e-6) continue;
      if (layout.frames.some((frame) => cornersPast(layout.cone, frame).length > 0)) break;
      return schoolOf(after, layout, picture);
    }
  }
  return `One row of frames is not ${fixed(verticalDeg, 1)}° high all along; it would take several rows, or a shorter lens.`;
}

/** By shift, for a turn's field: the layout with the fewest frames. */
function shiftFor(station: Station, horizontalDeg: number, verticalDeg: number): School | string {
  if (horizontalDeg >= 170) return 'No flat picture sees so far; only a turn does.';
  const asked: Station = {
    ...station,
    mosaic: {
      ...baseOf(station),
      pattern: 'grid',
      moves: station.movement_limits.moves === 'rear' ? 'rear' : 'lens',
      wish: { horizontal_deg: horizontalDeg, vertical_deg: verticalDeg },
    },
  };
  const { offers, why } = offersOf(asked);
  const best = offers.find(({ layout }) => layout.mosaic.moves !== 'camera');
  if (!best) return why ? noneServesSaid(why) : 'No layout by shift sees so far.';
  const { wish: _, ...kept } = best.after.mosaic!;
  const own = station.mosaic?.wish;
  const after = {
    ...best.after,
    mosaic: { ...kept, ...(own ? { wish: own } : {}) } as Mosaic,
  };
  return schoolOf(after, layoutOf(after), best.picture);
}

/** More parting than this shows at a seam, px. */
const SHOWS_PX = 2;
/** More stretch than this is seen as softness. */
const SOFT = 1.5;

function judge(shift: School | null, turn: School | null): Pick<Schools, 'serves' | 'why'> {
  if (!shift && !turn) return { serves: null, why: 'Neither serves this field on this rig.' };
  if (!shift) return { serves: 'turn', why: 'Only a turn reaches this field.' };
  if (!turn) return { serves: 'shift', why: 'Only a shift reaches this field in one go.' };
  if ((shift.parallaxPx ?? 0) > SHOWS_PX) {
    return {
      serves: 'turn',
      why: `Shifted, near and far part by ${fixed(shift.parallaxPx!, 0)} px as the lens goes across; turned about its pupil they do not.`,
    };
  }
  if (shift.soft > 0 && turn.soft === 0 && turn.stretched < SOFT) {
    return {
      serves: 'turn',
      why: 'Shifted, corners lie outside the sharp core; turned, every frame uses the middle of the lens.',
    };
  }
  if (turn.stretched >= SOFT) {
    return {
      serves: 'shift',
      why: `Laid flat, a turn stretches its ends ${fixed(turn.stretched, 1)} times; shifted, every pixel stays as it was shot and lines stay straight.`,
    };
  }
  return {
    serves: 'shift',
    why: 'Shifted, nothing is resampled, lines stay straight, and no nodal slide has to be set.',
  };
}

/** A station's layout beside the other school's for the same field; null with nothing laid out. */
export function schools(station: Station): Schools | null {
  if (!station.mosaic) return null;
  const layout = layoutOf(station);
  const picture = mosaicPicture(layout);
  if (!picture) return null;
  const own = schoolOf(station, layout, picture);
  const { horizontalDeg, verticalDeg } = picture;
  const other = layout.turn
    ? shiftFor(station, horizontalDeg, verticalDeg)
    : turnFor(station, horizontalDeg, verticalDeg);
  const [found, reason] = typeof other === 'string' ? [null, other] : [other, null];
  const [shift, turn] = layout.turn ? [found, own] : [own, found];
  return {
    shift,
    turn,
    noShift: layout.turn ? reason : null,
    noTurn: layout.turn ? null : reason,
    ...judge(shift, turn),
  };
}
