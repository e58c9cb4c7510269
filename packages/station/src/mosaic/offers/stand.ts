import type { Effort } from '@gangway/optics';
import type { Mosaic, Station } from '../../document/station.js';
import type { NoneServes } from '../../words/wish.js';
import { carrierOf } from '../carrier.js';
import { layoutOf, uncropped, type Layout } from '../layout.js';
import { baseOf } from './judged.js';
import type { Room } from './room.js';
import { wantOf, type Want } from './want.js';

/** The station with its back turned or not, and what is wanted of a grid on it. */
export interface Stand {
  readonly station: Station;
  readonly layout: Layout;
  readonly want: Want;
  /** What the whole search may still cost. */
  readonly effort: Effort;
}

/** Upright and level, as it stands first. */
export function stands(station: Station, effort: Effort): Stand[] | NoneServes {
  const other = station.back.orientation === 'landscape' ? 'portrait' : 'landscape';
  const square = station.back.width_mm === station.back.height_mm;
  const found: Stand[] = [];
  for (const orientation of square
    ? [station.back.orientation]
    : [station.back.orientation, other]) {
    const turned: Station = {
      ...station,
      back: { ...station.back, orientation } as Station['back'],
    };
    const layout = layoutOf(turned, {
      ...baseOf(station),
      pattern: 'grid',
      moves: station.movement_limits.moves === 'rear' ? 'rear' : 'lens',
    });
    const want = wantOf(turned, layout, station.mosaic!.wish!);
    if ('code' in want) return want;
    found.push({ station: turned, layout, want, effort });
  }
  return found;
}

/** What can move on this rig: the back first, which leaves the lens where it is. */
export function roomsOf({ station, layout, want, effort }: Stand): Room[] {
  return (['rear', 'lens'] as const).flatMap((moves) => {
    const carrier = carrierOf(uncropped(station), moves);
    return carrier
      ? [
          {
            layout: { ...layout, mosaic: { ...layout.mosaic, moves } as Mosaic },
            carrier,
            cone: want.sharp ? layout.core : layout.cone,
            here: layout.middle,
            effort,
          },
        ]
      : [];
  });
}
