import { fixed } from '../../words/format.js';
import { stepHindrance } from './grids.js';
import type { Station } from '../../document/station.js';
import type { Judged } from './judged.js';
import { areaOf, framesOf, ranked, type Offered } from './ranked.js';
import { shifted } from './shifted.js';
import { roomsOf, type Stand } from './stand.js';
import { rounds } from './turned.js';
import type { Want } from './want.js';
import { leastOf } from '@gangway/optics';

/** Where nothing serves: why, and the nearest that can be had. */
export interface Nearest {
  readonly why: string;
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

const UNSURE = 'Not every layout was tried.';

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
    for (const room of rooms) tried.push(...(yield* shifted(open, room)).found);
    for (const each of rounds(open, rooms)) tried.push(each);
  }
  const want = all[0]!.want;
  const best = tried.sort(
    (a, b) => measure(b, want) - measure(a, want) || framesOf(a) - framesOf(b),
  )[0];
  const step = roomsOf(all[0]!)
    .map(stepHindrance)
    .find((said) => said !== null);
  if (!best) {
    const none =
      step ??
      `No layout was found on this rig with every frame in the ${want.sharp ? 'sharp core' : 'circle'}.`;
    return { nearest: null, why: proven ? none : `${none} ${UNSURE}` };
  }
  const [offered] = ranked(station, [best], { ...want, fill: false }, false);
  const { limit } = offered!;
  const { widthMm, heightMm, horizontalDeg, verticalDeg } = best.picture;
  const pitch = best.layout.pixelPitchMm;
  const had =
    want.leastHorizontalDeg > 0
      ? `${fixed(horizontalDeg, 1)}° × ${fixed(verticalDeg, 1)}°`
      : pitch === null
        ? `${fixed(widthMm, 1)} × ${fixed(heightMm, 1)} mm`
        : want.leastWidthPx > 0
          ? `${Math.round(widthMm / pitch)} px across`
          : `${fixed((Math.round(widthMm / pitch) * Math.round(heightMm / pitch)) / 1e6, 0)} MP`;
  const count = framesOf(best);
  return {
    why: [
      step,
      `The nearest by shift is ${had}, from ${count} ${count === 1 ? 'frame' : 'frames'}${limit ? `, limited by ${limit}` : ''}.`,
      proven ? null : UNSURE,
    ]
      .filter(Boolean)
      .join(' '),
    nearest: offered!,
  };
}
