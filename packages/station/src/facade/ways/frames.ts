import { stepToSet } from '@gangway/optics';
import { fixed } from '../../words/format.js';
import type { Station } from '../../document/station.js';
import { setupOf, type Setup } from '../../optical/setup.js';
import { allowedRise, facadeView, movementsAsked, type MovementsAsked } from '../facade.js';
import { settableIn } from '../place.js';
import { framedWell } from '../verdict.js';
import type { Draft } from '../../ways/way.js';
import type { FramingKind } from './kind.js';

const OVERLAPS = [0.3, 0.4, 0.5, 0.6, 0.7, 0.8];

/** Middle of the grid along rise or shift: what must be seen, within what every frame may reach. */
function middle(
  s: Setup,
  asks: MovementsAsked,
  columns: number,
  rows: number,
  overlap: number,
): Station | null {
  const { station } = s;
  const half = (count: number, side: number): number => ((count - 1) / 2) * side * (1 - overlap);
  const { shiftMm: kx, riseMm: ky } = stepToSet(s.placing, {
    x: half(columns, s.whole.widthMm),
    y: half(rows, s.whole.heightMm),
  });
  const allowed = allowedRise(s);
  const rise = settableIn(
    {
      low: Math.max(asks.top - ky, allowed.low + ky),
      high: Math.min(asks.foot + ky, allowed.high - ky),
    },
    station.movements.rise_mm,
  );
  const shift = settableIn(
    { low: asks.right - kx, high: asks.left + kx },
    station.movements.shift_mm,
  );
  if (rise === null || shift === null) return null;
  return {
    ...station,
    movements: { ...station.movements, rise_mm: rise, shift_mm: shift },
    mosaic: {
      pattern: 'grid',
      columns,
      rows,
      overlap,
      moves: station.movement_limits.moves === 'rear' ? 'rear' : 'lens',
    },
  };
}

/** Two or three shifted frames, above each other or side by side. */
export const frames: FramingKind = ({ station }) => {
  const { crop: _, mosaic: __, ...plain } = station;
  const shapes = [
    [1, 2],
    [1, 3],
    [2, 1],
    [3, 1],
  ] as const;
  const s = setupOf(plain);
  const asks = movementsAsked(facadeView(s, station.facade!));
  if (!asks) return [];
  return shapes.flatMap(([columns, rows]): Draft<Station>[] => {
    for (const overlap of OVERLAPS) {
      const after = middle(s, asks, columns, rows, overlap);
      if (!after || !framedWell(after)) continue;
      const count = columns * rows;
      const side = rows > 1 ? setupOf(after).whole.heightMm : setupOf(after).whole.widthMm;
      const apart = side * (1 - overlap);
      const parts = after.mosaic!.moves === 'lens';
      return [
        {
          says: ['/mosaic'],
          id: `frame-mosaic-${columns}x${rows}`,
          title: `Take ${count === 2 ? 'two' : 'three'} frames ${rows > 1 ? 'above each other' : 'side by side'}, ${fixed(apart, 1)} mm apart`,
          price: `${fixed(100 * overlap, 0)} % overlap, nothing may move meanwhile${parts ? '; the lens moves, so near and far part a little' : ''}`,
          cost: 2.5 + count / 2 + (parts ? 0.5 : 0),
          after,
        },
      ];
    }
    return [];
  });
};
