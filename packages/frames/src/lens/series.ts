import { robustFit } from '../numbers/least-squares.js';
import { mean, median } from '../numbers/statistics.js';
import type { FrameFile } from '../planes/source.js';
import type { Work } from '../numbers/work.js';
import { sharpestAt, type Setting } from './sharpest.js';
import { stackOf, type Stack, type StackTile } from './stack.js';
import { mostOf } from '../numbers/extremes.js';

/** The same picture at every stop: where detail is best, in the middle, at the edges and in the corners. */

export const ZONES = ['centre', 'edge', 'corner'] as const;
export type Zone = (typeof ZONES)[number];

/** Ends of the zones, as part of the half diagonal. */
const ZONE_ENDS = [0.35, 0.75, Infinity] as const;

export interface SeriesFile {
  readonly file: FrameFile;
  readonly fNumber: number;
  /** How far this picture was focused beyond the others, mm behind the lens; 0 unless told. */
  readonly focusMm?: number;
}

/** What lies where, seen in the picture. */
export type Place =
  'left' | 'right' | 'top' | 'bottom' | 'top_left' | 'top_right' | 'bottom_left' | 'bottom_right';

export interface Lag {
  readonly place: Place;
  /** Detail there against the opposite side, or against the other corners, at the stops up to the best. */
  readonly kept: number;
  /** `leaned` and `decentred` need several focus settings; without them it may be either, or depth. */
  readonly why: 'leaned' | 'decentred' | 'unknown';
}

export type SeriesProblem =
  'few_stops' | 'foreign' | 'moved' | 'clipped' | 'too_little' | 'best_at_end';

export interface SeriesTile {
  readonly x: number;
  readonly y: number;
  readonly zone: Zone;
  /** Of its own best, by stop; null where a picture does not show it. */
  readonly kept: readonly (number | null)[];
  /** Null where stops differ too little to tell. */
  readonly bestFNumber: number | null;
  /** Why it is left out: nothing fine to see, or out of the depth of field. */
  readonly out: 'plain' | 'depth' | null;
}

export interface SeriesMeasured {
  readonly stops: readonly {
    readonly fNumber: number;
    readonly zones: readonly { readonly zone: Zone; readonly kept: number }[];
  }[];
  readonly best: Readonly<Record<Zone, number | null>>;
  /** First stop past the best of the middle at which diffraction takes plainly more than it gives. */
  readonly diffractionFrom: number | null;
  readonly lags: readonly Lag[];
  /** How far the plane of sharp focus leans against the sensor; null without several focus settings. */
  readonly leanDeg: number | null;
  /** The side whose sharp image lies nearer to the lens; null where the lean may be none. */
  readonly leanTowards: Place | null;
  readonly leftOut: number;
  readonly tiles: readonly SeriesTile[];
  readonly clipped: number;
  readonly problems: readonly SeriesProblem[];
}

export interface SeriesAsked {
  /** mm of a pixel; needed for the lean. */
  readonly pitchMm?: number;
  /** Middle of the circle from the picture's, pixels, y up. */
  readonly middle?: { readonly x: number; readonly y: number };
  /** Image distance over focal length less one. */
  readonly magnification?: number;
}

/** Detail must stand out of its doubt by this for a tile to tell anything. */
const TELLS_SIGMAS = 6;
/** The best must stand out of the next by so many deviations of what noise does. */
const BEST_SIGMAS = 3;
/** A tile that is best so many stops later than its zone has something else to it. */
const LATE_STOPS = 1.5;
/** And has kept no more than this at the first stop. */
const DEPTH_KEPT = 0.6;
/** A side lags when it keeps so much less. */
const LAG_SHARE = 0.1;
/** Diffraction takes plainly from the first stop that keeps less than this. */
const DIFFRACTION_KEPT = 0.95;
const LEAN_SURE = 3;
const LEAST_LEAN_DEG = 0.03;

interface Looked {
  readonly tile: StackTile;
  readonly zone: Zone;
  readonly kept: (number | null)[];
  /** Where detail is most, and null where the next is as good. */
  readonly top: number;
  readonly best: number | null;
  readonly tells: boolean;
}

/** @param at places in the stack of the pictures that are compared, widest stop first */
function looked(tile: StackTile, at: readonly number[], zone: Zone): Looked {
  const detail = at.map((i) => tile.detail[i]!);
  const sigma = at.map((i) => tile.sigma[i]!);
  const seen = detail.flatMap((each, i) => (each === null ? [] : [i]));
  let best = -1;
  for (const i of seen) if (best < 0 || detail[i]! > detail[best]!) best = i;
  const most = best < 0 ? 0 : detail[best]!;
  const tells = best >= 0 && most > TELLS_SIGMAS * sigma[best]!;
  const kept = detail.map((each) => (each === null || !tells ? null : Math.sqrt(each / most)));
  const clear = seen.every(
    (i) => i === best || most - detail[i]! > BEST_SIGMAS * Math.hypot(sigma[i]!, sigma[best]!),
  );
  return {
    tile,
    zone,
    kept,
    top: best,
    best: tells && clear && seen.length > 1 ? best : null,
    tells,
  };
}

/** Kept less by no more than this is no loss: noise of what has next to nothing. */
const NO_LOSS = 0.03;

/** Gains with every stop up to its best, from little. */
function gainsSteadily({ kept, top, tells }: Looked): boolean {
  if (!tells || kept[0] === null || kept[0]! > DEPTH_KEPT) return false;
  for (let i = 1; i <= top; i++) if ((kept[i] ?? 1) < (kept[i - 1] ?? 0) - NO_LOSS) return false;
  return true;
}

/** The middle value of what tiles keep, stop by stop, of the best of them all. */
function keptBy(tiles: readonly Looked[], stops: number): (number | null)[] {
  const middle = Array.from({ length: stops }, (_, i) => {
    const values = tiles.flatMap(({ kept }) => (kept[i] === null ? [] : [kept[i]!]));
    return values.length > 0 ? median(values) : null;
  });
  const most = mostOf(middle.map((each) => each ?? 0));
  return middle.map((each) => (each === null || most === 0 ? null : each / most));
}

type Inside = (x: number, y: number) => boolean;
type Mirrored = (x: number, y: number) => readonly [number, number];

const acrossX: Mirrored = (x, y) => [-x, y];
const acrossY: Mirrored = (x, y) => [x, -y];

/** A side, what belongs to it, and where the same lies on the opposite side. */
const SIDES: readonly (readonly [Place, Inside, Mirrored])[] = [
  ['left', (x, y) => -x > Math.abs(y), acrossX],
  ['right', (x, y) => x > Math.abs(y), acrossX],
  ['top', (x, y) => y > Math.abs(x), acrossY],
  ['bottom', (x, y) => -y > Math.abs(x), acrossY],
];

/** Tiles that lie opposite each other to this, pixels. */
const NEAR_PX = 8;
const LEAST_PAIRS = 2;
/** Of the pairs of a side that lags, so many do. */
const MOST_PAIRS = 0.75;

/** What a tile keeps over the stops up to the best of the middle. */
const wideOpen = ({ kept }: Looked, upTo: number): number | null => {
  const values = kept.slice(0, Math.max(1, upTo)).filter((each) => each !== null);
  return values.length > 0 ? mean(values) : null;
};

interface Half {
  readonly widthPx: number;
  readonly heightPx: number;
}

/**
 * @param tiles of which sides are compared: none that lie out of depth
 * @param all also those: a corner that is soft cannot be told from one that is near
 */
function lagsOf(
  tiles: readonly Looked[],
  all: readonly Looked[],
  upTo: number,
  { widthPx, heightPx }: Half,
): Omit<Lag, 'why'>[] {
  const outer = tiles.filter(({ zone, tells }) => tells && zone !== 'centre');
  const open = new Map(outer.map((each) => [each, wideOpen(each, upTo)]));
  const found: Omit<Lag, 'why'>[] = [];
  for (const [place, inside, mirrored] of SIDES) {
    const pairs = outer.flatMap((each) => {
      const { x, y } = each.tile;
      if (!inside(x / widthPx, y / heightPx)) return [];
      const [mx, my] = mirrored(x, y);
      const other = outer.find(({ tile }) => Math.hypot(tile.x - mx, tile.y - my) < NEAR_PX);
      const [a, b] = [open.get(each) ?? null, (other && open.get(other)) ?? null];
      return a === null || b === null ? [] : [{ a, less: b - a }];
    });
    if (pairs.length < LEAST_PAIRS) continue;
    const less = median(pairs.map((each) => each.less));
    const most = pairs.filter((each) => each.less > LAG_SHARE / 2).length;
    if (less < LAG_SHARE || most < MOST_PAIRS * pairs.length) continue;
    const own = median(pairs.map(({ a }) => a));
    found.push({ place, kept: own / (own + less) });
  }
  if (found.length > 0) return found;
  const corners = (
    [
      [-1, 1, 'top_left'],
      [1, 1, 'top_right'],
      [-1, -1, 'bottom_left'],
      [1, -1, 'bottom_right'],
    ] as const
  ).map(([sx, sy, place]) => ({
    // prettier-ignore
    place,
    values: all.flatMap((each) => {
      const value = each.zone === 'corner' && each.tells ? wideOpen(each, upTo) : null;
      return value !== null && sx * each.tile.x > 0 && sy * each.tile.y > 0 ? [value] : [];
    }),
  }));
  for (const { place, values } of corners) {
    const others = corners.filter((each) => each.place !== place && each.values.length > 0);
    if (values.length === 0 || others.length < 2) continue;
    const [a, b] = [median(values), median(others.map((each) => median(each.values)))];
    if (b - a > 1.5 * LAG_SHARE) found.push({ place, kept: a / b });
  }
  return found;
}

interface Lean {
  readonly deg: number;
  readonly towards: Place;
  readonly sure: boolean;
}

/** The plane through the tiles' best focus; a bowl about the middle is the lens's own field. */
function leanOf(
  tiles: readonly Looked[],
  at: readonly Setting[],
  { pitchMm = 0, magnification = 0 }: SeriesAsked,
): Lean | null {
  if (pitchMm <= 0 || new Set(at.map((each) => each.at)).size < 3) return null;
  const told = tiles.flatMap(({ tile, tells }) => {
    const focus = tells ? sharpestAt(tile, at) : null;
    return focus === null ? [] : [{ x: tile.x * pitchMm, y: tile.y * pitchMm, focus }];
  });
  if (told.length < 9) return null;
  const rows = told.map(({ x, y }) => [1, x, y, x * x + y * y]);
  const fit = robustFit(rows, told.map(({ focus }) => focus), 1e-4); // prettier-ignore
  if (!fit) return null;
  const [, sx = 0, sy = 0] = fit.x;
  const slope = Math.hypot(sx, sy);
  const reach = Math.sqrt(
    mean(told.map(({ x, y }) => ((sx * x + sy * y) / (slope || 1)) ** 2)) * told.length,
  );
  const deg = (Math.atan(slope / (1 + magnification)) * 180) / Math.PI;
  const across = Math.abs(sx) >= Math.abs(sy);
  return {
    deg,
    towards: across ? (sx < 0 ? 'right' : 'left') : sy < 0 ? 'top' : 'bottom',
    sure: slope * reach > LEAN_SURE * fit.sigma && deg > LEAST_LEAN_DEG,
  };
}

function zoneOf(
  { x, y }: StackTile,
  { widthPx, heightPx }: Stack,
  middle: { x: number; y: number },
): Zone {
  const far = Math.hypot(x - middle.x, y - middle.y) / (Math.hypot(widthPx, heightPx) / 2);
  return ZONES[ZONE_ENDS.findIndex((end) => far < end)]!;
}

/** For each stop the picture that stands for it: with several focus settings the sharpest in the middle. */
function oneForEach(asked: readonly SeriesFile[], stack: Stack): number[] {
  const shown = asked.map((_, i) => i).filter((i) => !stack.foreign.includes(i));
  const stops = [...new Set(shown.map((i) => asked[i]!.fNumber))].sort((a, b) => a - b);
  const middle = stack.tiles.filter(({ x, y }) => Math.hypot(x, y) < 0.35 * Math.hypot(stack.widthPx, stack.heightPx) / 2); // prettier-ignore
  const sharp = (i: number): number =>
    middle.reduce((sum, { detail }) => sum + (detail[i] ?? 0), 0);
  return stops.map((stop) => {
    const own = shown.filter((i) => asked[i]!.fNumber === stop);
    return own.reduce((most, i) => (sharp(i) > sharp(most) ? i : most));
  });
}

function problemsOf(
  stack: Stack,
  fNumbers: readonly number[],
  used: number,
  best: number | null,
): SeriesProblem[] {
  const atEnd = best !== null && (best === fNumbers[0] || best === fNumbers.at(-1));
  const found: [SeriesProblem, boolean][] = [
    ['few_stops', fNumbers.length < 3],
    ['foreign', stack.foreign.length > 0],
    ['moved', stack.moved.length > 0],
    ['clipped', stack.clipped > CLIPPED_SHARE * stack.widthPx * stack.heightPx],
    ['too_little', used < LEAST_USED],
    ['best_at_end', fNumbers.length > 1 && atEnd],
  ];
  return found.flatMap(([problem, is]) => (is ? [problem] : []));
}

/** Fewer tiles than this say little of a lens. */
const LEAST_USED = 6;
const CLIPPED_SHARE = 0.01;

const byZoneOf = <T>(of: (zone: Zone) => T): Record<Zone, T> => ({
  centre: of('centre'),
  edge: of('edge'),
  corner: of('corner'),
});

/** @throws Stopped */
export async function measureSeries(
  asked: readonly SeriesFile[],
  how: SeriesAsked = {},
  work: Work = {},
): Promise<SeriesMeasured> {
  // The stop in the middle shows most of what the others show.
  const byStop = asked.map((_, i) => i).sort((p, q) => asked[p]!.fNumber - asked[q]!.fNumber);
  const reference = byStop[Math.floor(byStop.length / 2)]!;
  const stack = await stackOf(asked.map(({ file }) => file), reference, work); // prettier-ignore
  const at = oneForEach(asked, stack);
  const fNumbers = at.map((i) => asked[i]!.fNumber);
  const middle = how.middle ?? { x: 0, y: 0 };
  const all = stack.tiles.map((tile) => looked(tile, at, zoneOf(tile, stack, middle)));
  const telling = all.filter(({ tells }) => tells);
  const usual = byZoneOf((zone) => {
    const own = telling.filter((each) => each.zone === zone);
    return own.length > 0 ? median(own.map(({ top }) => Math.log2(fNumbers[top]!))) : null;
  });
  const deep = new Set(
    telling.filter((each) => {
      const own = usual[each.zone];
      return own !== null && gainsSteadily(each) &&
        2 * (Math.log2(fNumbers[each.top]!) - own) >= LATE_STOPS; // prettier-ignore
    }),
  );
  const used = telling.filter((each) => !deep.has(each));
  const byZone = byZoneOf((zone) => keptBy(used.filter((each) => each.zone === zone), at.length)); // prettier-ignore
  const bestOf = (zone: Zone): number | null => {
    const at1 = byZone[zone].findIndex((each) => each !== null && each >= 1 - 1e-9);
    return at1 < 0 ? null : fNumbers[at1]!;
  };
  const best = { centre: bestOf('centre'), edge: bestOf('edge'), corner: bestOf('corner') };
  const middleBest = best.centre ?? best.edge;
  const upTo = middleBest === null ? at.length : fNumbers.indexOf(middleBest) + 1;
  const shown = asked.flatMap(({ focusMm = 0, fNumber }, i) =>
    stack.foreign.includes(i) ? [] : [{ i, at: focusMm, fNumber }],
  );
  const widest = fNumbers
    .map((stop) => shown.filter(({ fNumber }) => fNumber === stop))
    .find((own) => new Set(own.map(({ at: focusMm }) => focusMm)).size >= 3);
  const lean = widest ? leanOf(telling, widest, how) : null;
  const lags = lagsOf(used, telling, upTo, stack);
  const from = byZone.centre.some((each) => each !== null) ? byZone.centre : byZone.edge;
  return {
    stops: fNumbers.map((fNumber, i) => ({
      fNumber,
      zones: ZONES.flatMap((zone) => (byZone[zone][i] === null || byZone[zone][i] === undefined ? [] : [{ zone, kept: byZone[zone][i] }])), // prettier-ignore
    })),
    best,
    diffractionFrom: middleBest === null ? null : (fNumbers.find((n, i) => n > middleBest && (from[i] ?? 1) < DIFFRACTION_KEPT) ?? null), // prettier-ignore
    lags: lags.map((lag) => ({ ...lag, why: lean ? (lean.sure ? 'leaned' : 'decentred') : 'unknown' })), // prettier-ignore
    leanDeg: lean ? lean.deg : null,
    leanTowards: lean?.sure ? lean.towards : null,
    leftOut: all.length - used.length,
    tiles: all.map((each) => ({
      x: each.tile.x,
      y: each.tile.y,
      zone: each.zone,
      kept: each.kept,
      bestFNumber: each.best === null || deep.has(each) ? null : fNumbers[each.best]!,
      out: !each.tells ? 'plain' : deep.has(each) ? 'depth' : null,
    })),
    clipped: stack.clipped,
    problems: problemsOf(stack, fNumbers, used.length, middleBest),
  };
}
