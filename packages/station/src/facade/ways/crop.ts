import { fixed } from '../../words/format.js';
import type { Crop, Station } from '../../document/station.js';
import { setupOf } from '../../optical/setup.js';
import { movedToFrame } from '../place.js';
import type { Draft } from '../../ways/way.js';
import type { FramingKind } from './kind.js';

const SHAPES = [
  [2, 1],
  [3, 2],
  [4, 3],
  [5, 4],
  [1, 1],
  [4, 5],
  [3, 4],
  [2, 3],
] as const;

/** The part of the picture the circle still covers, by the shape that keeps most of it. */
export const crop: FramingKind = ({ station }) => {
  if (station.crop) return [];
  let best: Draft<Station> | undefined;
  for (const [across, up] of SHAPES) {
    for (const slide of [0, 1, -1]) {
      const shape: Crop = { across, up, ...(slide === 0 ? {} : { slide }) };
      const after = movedToFrame({ ...station, crop: shape });
      if (!after) continue;
      const { frame, whole } = setupOf(after);
      const kept = (frame.widthMm * frame.heightMm) / (whole.widthMm * whole.heightMm);
      // The whole back already is this shape.
      if (kept > 0.999) continue;
      const end =
        slide === 0
          ? ''
          : frame.widthMm < whole.widthMm
            ? slide > 0
              ? ', from the right'
              : ', from the left'
            : slide > 0
              ? ', from the top'
              : ', from the foot';
      const cost = 1 + 5 * (1 - kept);
      if (best && best.cost <= cost) continue;
      best = {
        id: 'frame-crop',
        says: ['/crop'],
        title: `Crop to ${across}:${up}${end}`,
        price: `keeps ${fixed(100 * kept, 0)} % of the picture`,
        cost,
        after,
      };
    }
  }
  return best ? [best] : [];
};
