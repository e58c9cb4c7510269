import { stepHindrance } from './grids.js';
import type { Station } from '../../document/station.js';
import type { Judged } from './judged.js';
import { areaOf, framesOf, ranked, type Offered } from './ranked.js';
import { shifted } from './shifted.js';
import { roomsOf, type Stand } from './stand.js';
import { rounds } from './turned.js';
import type { Want } from './want.js';
import { noneServes, type Had, type NoneServes } from '../../words/wish.js';
import { leastOf } from '@gangway/optics';

/** Where nothing serves: why, and the nearest that can be had. */
export interface Nearest {
  readonly why: NoneServes;
  readonly nearest: Offered | null;
}

/** How much of what is wanted a layout gives: pixels, width or angle over the wish. */
function measure({ picture, layout }: Judged, want: Want): number {
  const pitch = layout.pixelPitchMm ?? 1;
  const parts = [
    want.leastPixels > 0 ? areaOf({ picture } as Judged) / (want.leastPixels * pitch * pitch) : 1,
    want.leastWidthPx > 0 ? picture.widthMm / (want.leastWidthPx * pitch) : 1,
    want.leastHorizontalDeg > 0 ? picture.horizontalDeg / want.leastHorizontalDeg : 1,
    want.leastVerticalDeg > 0 ? picture.verticalDeg / want.leastVerticalDeg : 1,
  ];
  return leastOf(parts);
}

/**
 * The nearest that can be had, and what keeps it from more.
 * @param proven for certain none serves by shift
 */
export function* nearest(
  station: Station,
  all: readonly Stand[],
  proven: boolean,
): Generator<number, Nearest> {
  const tried: Judged[] = [];
  for (const stand of all) {
    const open: Stand = {
      ...stand,
      want: {
        ...stand.want,
        fill: true,
        leastPixels: 0,
        leastWidthPx: 0,
        leastHorizontalDeg: 0,
        leastVerticalDeg: 0,
      },
    };
    const rooms = roomsOf(open);
    for (const room of rooms) {
      for (const each of (yield* shifted(open, room)).found) tried.push(each);
    }
    for (const each of rounds(open, rooms)) tried.push(each);
  }
  const want = all[0]!.want;
  const best = tried.sort(
    (a, b) => measure(b, want) - measure(a, want) || framesOf(a) - framesOf(b),
  )[0];
  const step =
    roomsOf(all[0]!)
      .map(stepHindrance)
      .find((each) => each !== null) ?? null;
  if (!best) return { nearest: null, why: noneServes('none', { step, sharp: want.sharp, proven }) };
  const [offered] = ranked(station, [best], { ...want, fill: false }, false);
  const { limit } = offered!;
  return {
    why: noneServes('nearest', {
      step,
      had: hadOf(best, want),
      frames: framesOf(best),
      limit,
      proven,
    }),
    nearest: offered!,
  };
}

/** A picture by what was wished for. */
function hadOf({ picture, layout }: Judged, want: Want): Had {
  const { widthMm, heightMm, horizontalDeg, verticalDeg } = picture;
  const { pixelPitchMm: pitch } = layout;
  if (want.leastHorizontalDeg > 0) return { in: 'degrees', across: horizontalDeg, up: verticalDeg };
  if (pitch === null) return { in: 'mm', across: widthMm, up: heightMm };
  const across = Math.round(widthMm / pitch);
  return want.leastWidthPx > 0
    ? { in: 'px_across', across }
    : { in: 'px', across, up: Math.round(heightMm / pitch) };
}
