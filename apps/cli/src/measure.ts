import { blocksOfPicture, measureEdge, measureFlat, measureSeries, type EdgeMeasured, type FlatMeasured, type FlatShot, type SeriesMeasured } from '@gangway/frames'; // prettier-ignore
import { EDGE_PROBLEMS, FLAT_PROBLEMS, frameAt, SERIES_PROBLEMS, withWords, type Station } from '@gangway/station'; // prettier-ignore
import type { MeasureAsked } from './measure-asked.js';
import { openPicture, openPictures, type Opened } from './pictures.js';
import type { Streams } from './streams.js';

/** `gangway measure`: one line of JSON. */

type Told = Pick<Streams, 'out' | 'err'>;
type Of<What extends string> = Extract<MeasureAsked, { what: What }>;

const print = ({ out }: Told, value: unknown): number => {
  out(`${JSON.stringify(value)}\n`);
  return 0;
};

export const edgeJson = ({ figures, angleDeg, clipped, problems }: EdgeMeasured) => ({
  mtf50_cy_px: figures?.mtf50CyPx ?? null,
  mtf10_cy_px: figures?.mtf10CyPx ?? null,
  angle_deg: angleDeg,
  mtf: figures?.mtf ?? null,
  rise_10_90_px: figures?.rise1090Px ?? null,
  clipped,
  problems: withWords(problems, EDGE_PROBLEMS),
});

async function edge({ file, area }: Of<'edge'>, told: Told): Promise<number> {
  const opening = await openPicture(file);
  const fail = (why: string): number => {
    told.err(`${file}: ${why}\n`);
    return 2;
  };
  if (!opening.ok) return fail(opening.why);
  const { widthPx, heightPx, load } = opening.opened.file;
  const whole = { x: 0, y: 0, width: widthPx, height: heightPx };
  const asked = area ?? whole;
  if (asked.x + asked.width > widthPx || asked.y + asked.height > heightPx) return fail(`--area reaches beyond the picture, which has ${widthPx} × ${heightPx} pixels`); // prettier-ignore
  if (asked.width * asked.height > MOST_EDGE_PX) return fail('the picture is large: say where the edge is, --area=x,y,w,h'); // prettier-ignore
  try {
    const loaded = await load();
    return print(told, edgeJson(measureEdge(loaded.piece(asked))));
  } catch (error) {
    return fail((error as Error).message);
  }
}

/** More than this holds more than an edge. */
const MOST_EDGE_PX = 60_000_000;

/** Names what is left out on standard error; the rest goes on. */
async function openedOf(files: readonly string[], { err }: Told): Promise<readonly Opened[]> {
  const { opened, aside } = await openPictures(files);
  for (const { file, why } of aside) err(`${file}: set aside: ${why}\n`);
  return opened;
}

/** The file's own, else what was asked; a lens without contacts leaves none. */
const stopOf = ({ facts, index }: Opened, asked: readonly number[]): number | null =>
  facts.fNumber ?? (asked.length > 1 ? asked[index]! : (asked[0] ?? null));

export const flatJson = (fNumber: number, found: FlatMeasured) => ({
  f_number: fNumber,
  centre: found.centreMm,
  centre_sigma_mm: found.centreSigmaMm,
  points: found.points.map(({ radiusMm, stops }) => ({ radius_mm: radiusMm, stops })),
  radius_mm_at: found.radiusMmAt,
  circle_mm: found.circleMm,
  slope_stops: found.slopeStops,
  clipped: found.clipped,
  problems: withWords(found.problems, FLAT_PROBLEMS),
});

async function flat(
  station: Station,
  { files, at, fNumbers }: Of<'flat'>,
  told: Told,
): Promise<number> {
  const byStop = new Map<number, FlatShot[]>();
  const opened = await openedOf(files, told);
  for (const each of opened) {
    const { file } = each;
    const own = at[each.index];
    const frame = frameAt(station, own);
    const wide = frame.widthMm >= frame.heightMm;
    if (frame.widthMm !== frame.heightMm && file.widthPx >= file.heightPx !== wide) {
      told.err(`${file.name}: set aside: it is turned otherwise than the station's back\n`);
      continue;
    }
    try {
      const loaded = await file.load();
      const shot = { ...blocksOfPicture(file, loaded), ...frame };
      loaded.close();
      const stop = stopOf(each, fNumbers) ?? station.aperture;
      byStop.set(stop, [...(byStop.get(stop) ?? []), shot]);
    } catch (error) {
      told.err(`${file.name}: set aside: ${(error as Error).message}\n`);
    }
  }
  if (byStop.size === 0) {
    told.err('measure flat: none of the files can be read\n');
    return 2;
  }
  const stops = [...byStop].sort(([a], [b]) => a - b);
  return print(
    told,
    stops.map(([stop, shots]) => flatJson(stop, measureFlat(shots))),
  );
}

export const seriesJson = (found: SeriesMeasured) => ({
  stops: found.stops.map(({ fNumber, zones }) => ({ f_number: fNumber, zones })),
  best: found.best,
  diffraction_from: found.diffractionFrom,
  lags: found.lags,
  ...(found.leanDeg === null ? {} : { lean_deg: found.leanDeg, lean_towards: found.leanTowards }),
  left_out: found.leftOut,
  clipped: found.clipped,
  problems: withWords(found.problems, SERIES_PROBLEMS),
});

async function series(
  { files, fNumbers, focusMm, widthMm }: Of<'series'>,
  told: Told,
): Promise<number> {
  const opened = await openedOf(files, told);
  const shots = opened.map((each) => ({ each, fNumber: stopOf(each, fNumbers) }));
  const blank = shots.find(({ fNumber }) => fNumber === null);
  if (blank) {
    told.err(
      `${blank.each.file.name}: it does not tell its f-number: give --f=N once for each file\n`,
    );
    return 2;
  }
  const sizes = new Set(opened.map(({ file }) => `${file.widthPx} × ${file.heightPx}`));
  if (opened.length < 2 || sizes.size > 1) {
    told.err(opened.length < 2 ? 'measure series: give two pictures or more\n' : `measure series: the pictures differ in size: ${[...sizes].join(', ')}\n`); // prettier-ignore
    return 2;
  }
  const found = await measureSeries(
    shots.map(({ each: { file, index }, fNumber }) => ({
      file,
      fNumber: fNumber!,
      focusMm: (focusMm.length > 1 ? focusMm[index] : focusMm[0]) ?? 0,
    })),
    widthMm === null ? {} : { pitchMm: widthMm / opened[0]!.file.widthPx },
  );
  return print(told, seriesJson(found));
}

/** @param station read already, where one is asked for */
export function measure(
  asked: Exclude<MeasureAsked, { wrong: string }>,
  station: Station | null,
  told: Told,
): Promise<number> {
  if (asked.what === 'edge') return edge(asked, told);
  if (asked.what === 'flat') return flat(station!, asked, told);
  return series(asked, told);
}
