import type { Point } from '@gangway/optics';
import type { Station } from '../../document/station.js';
import { setupOf } from '../../optical/setup.js';
import { uncropped } from '../layout.js';
import type { Limit } from '../../words/wish.js';
import { limitOf, type Judged } from './judged.js';
import type { Want } from './want.js';

/** A layout that serves the wish, as it would be taken. */
export interface Offered extends Judged {
  /** Of a fill: the share of the largest picture there is. */
  readonly share: number;
  /** What keeps it from being larger; null where nothing does. */
  readonly limit: Limit | null;
  /** For certain no fewer frames serve, moved the same way: across, or the camera turned. */
  readonly least: boolean;
  /** How far its middle lies from that of the single frame as it is set, mm. */
  readonly moved: Point;
}

export const areaOf = ({ picture }: Judged): number => picture.widthMm * picture.heightMm;
export const framesOf = ({ layout }: Judged): number => layout.frames.length;

/** Moved across before turned round, and the lens left where it is before it moves: less to go wrong. */
const trouble = ({ layout: { mosaic } }: Judged): number =>
  mosaic.moves === 'camera' ? 2 : mosaic.moves === 'lens' ? 1 : 0;

/** Fewest frames first; of as many the least trouble, then the larger picture. */
export const better = (a: Judged, b: Judged): number =>
  framesOf(a) - framesOf(b) || trouble(a) - trouble(b) || areaOf(b) - areaOf(a);

/** As much of the largest picture counts as all of it. */
export const FULL = 0.99;

/** More offers than this nobody reads. */
const MOST_OFFERS = 6;

const kindOf = ({ layout, after }: Judged): string =>
  `${layout.mosaic.pattern === 'free' ? 'grid' : layout.mosaic.pattern} ${layout.mosaic.moves} ${after.back.orientation}`;

/** Rings and pinwheels are tried as they are; whether others with fewer frames serve is not known. */
const classOf = ({ layout: { mosaic } }: Judged): 'across' | 'turned' | null =>
  mosaic.pattern === 'turn'
    ? 'turned'
    : mosaic.pattern === 'grid' || mosaic.pattern === 'free'
      ? 'across'
      : null;

/** Where the single frame lies as the station is set. */
const presentMiddle = (station: Station): Point => {
  const { whole, factor } = setupOf(uncropped(station));
  return { x: whole.shiftMm * factor, y: whole.riseMm * factor };
};

/**
 * The best of each kind; of a fill also what a part of it takes.
 * @param proven whether the fewest frames across are there among them, for certain
 */
export function ranked(
  station: Station,
  all: readonly Judged[],
  want: Want,
  proven: boolean,
): Offered[] {
  const here = presentMiddle(station);
  const full = Math.max(0, ...all.map(areaOf));
  /** Fewest of a class that give as much as what is wanted, or as all but a hundredth of a fill. */
  const fewestOf = (kind: 'across' | 'turned'): number =>
    Math.min(
      Infinity,
      ...all
        .filter((each) => classOf(each) === kind)
        .filter((each) => !want.fill || areaOf(each) >= FULL * FULL * full)
        .map(framesOf),
    );
  const isLeast = (each: Judged): boolean => {
    const kind = classOf(each);
    const alone = framesOf(each) === 1;
    if (kind === null || (kind === 'across' && !proven && !alone)) return false;
    return framesOf(each) <= fewestOf(kind) && (!want.fill || areaOf(each) >= FULL * full);
  };
  const offered = (each: Judged): Offered => ({
    ...each,
    share: full > 0 ? areaOf(each) / full : 1,
    limit: limitOf(each.after, each.layout, want.sharp),
    least: isLeast(each),
    moved: { x: each.layout.middle.x - here.x, y: each.layout.middle.y - here.y },
  });
  const sorted = [...all].sort(better);
  if (!want.fill) {
    const seen = new Set<string>();
    return sorted
      .filter((each) => !seen.has(kindOf(each)) && seen.add(kindOf(each)))
      .slice(0, MOST_OFFERS)
      .map(offered);
  }
  const filling = sorted.filter((each) => areaOf(each) >= FULL * full);
  const fewest = filling[0];
  if (!fewest) return [];
  // Fewer frames, each more giving clearly more.
  const parts: Judged[] = [];
  for (const each of sorted) {
    if (framesOf(each) >= framesOf(fewest)) break;
    if (areaOf(each) > 1.05 * (parts.length === 0 ? 0 : areaOf(parts.at(-1)!))) parts.push(each);
  }
  return [fewest, ...parts.reverse()].slice(0, MOST_OFFERS).map(offered);
}
