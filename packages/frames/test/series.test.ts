import { measureSeries, type SeriesFile } from '../src/lens/series.js';
import { blurredFile, blurredPlane, type Blurred } from './helpers/blurred.js';
import { fileOf } from './helpers/mosaic.js';
import { scene, lookAt } from './helpers/scene.js';

const STOPS = [4, 5.6, 8, 11, 16, 22] as const;
const SIZE = { widthPx: 720, heightPx: 480 };

/** Deviations of aberration at f/4 and of diffraction at f/1, pixels: together best at √(a × 4 / d). */
interface Lens {
  readonly aberrationPx: (x: number, y: number) => number;
  readonly diffractionPx: number;
  /** Blur of depth at f/4. */
  readonly depthPx?: (x: number, y: number) => number;
  readonly seed?: number;
  readonly noise?: number;
  readonly plain?: Blurred['plain'];
}

const sigmaAt = ({ aberrationPx, diffractionPx, depthPx }: Lens, n: number) => (x: number, y: number): number =>
  Math.sqrt((aberrationPx(x, y) * (4 / n)) ** 2 + ((depthPx?.(x, y) ?? 0) * (4 / n)) ** 2 + (diffractionPx * n) ** 2 + 0.3 ** 2); // prettier-ignore

const series = (lens: Lens): SeriesFile[] =>
  STOPS.map((fNumber, i) => ({
    fNumber,
    file: blurredFile(`f${fNumber}.tif`, {
      ...SIZE,
      seed: lens.seed ?? 1,
      noise: lens.noise ?? 0.006,
      noiseSeed: 10 + i,
      stops: 0.2 * ((i % 3) - 1),
      dx: 0.3 * i,
      sigmaPx: sigmaAt(lens, fNumber),
      ...(lens.plain ? { plain: lens.plain } : {}),
    }),
  }));

/** Worse towards the corners. */
const GOOD: Lens = { aberrationPx: (x, y) => 0.8 + 1.6 * (x * x + y * y), diffractionPx: 0.055 };

/** The stop at which the blur is least. */
const bestAt = (lens: Lens, x: number, y: number): number =>
  STOPS.reduce((best, n) => (sigmaAt(lens, n)(x, y) < sigmaAt(lens, best)(x, y) ? n : best));

const half = Math.hypot(SIZE.widthPx, SIZE.heightPx) / 2;

it('finds the best stop of every tile that can tell, and of each zone', async () => {
  for (const [lens, name] of [
    [GOOD, 'even'],
    [{ ...GOOD, diffractionPx: 0.09, seed: 2, noise: 0.012 }, 'small pixels, noisy'],
    [
      { ...GOOD, aberrationPx: (x: number, y: number) => 1.3 + 3 * (x * x + y * y), seed: 3 },
      'soft wide open',
    ],
  ] as const) {
    const found = await measureSeries(series(lens));
    let told = 0;
    for (const { x, y, bestFNumber } of found.tiles) {
      if (bestFNumber === null) continue;
      told++;
      expect([name, x, y, bestFNumber]).toEqual([name, x, y, bestAt(lens, x / half, y / half)]);
    }
    expect(told).toBeGreaterThan(0.5 * found.tiles.length);
    expect(found.best.centre).toBe(bestAt(lens, 0.1, 0.05));
    expect(found.best.corner).toBe(bestAt(lens, 0.667, 0.389));
    expect(found.diffractionFrom!).toBeGreaterThan(found.best.centre!);
    expect([found.lags, found.problems]).toEqual([[], []]);
    for (const { zones } of found.stops)
      for (const { kept } of zones) expect(kept).toBeLessThanOrEqual(1);
  }
});

it('leaves out what has nothing to see and what lies out of depth', async () => {
  const near = (x: number, y: number): boolean => x > 0.3 && y < -0.2;
  const lens: Lens = {
    ...GOOD,
    seed: 4,
    depthPx: (x, y) => (near(x, y) ? 6 : 0),
    plain: (_, y) => y > 0.3,
  };
  const found = await measureSeries(series(lens));
  for (const { x, y, out, bestFNumber } of found.tiles) {
    const [u, v] = [x / half, y / half];
    const sky = y - 64 > 0.3 * half;
    if (sky) expect([u, v, out]).toEqual([u, v, 'plain']);
    // Tiles wholly within.
    if (near((x - 64) / half, (y + 64) / half)) expect([u, v, out]).toEqual([u, v, 'depth']);
    if (y + 64 < 0.3 * half && x + 64 < 0.3 * half && bestFNumber !== null) expect(bestFNumber).toBe(bestAt(GOOD, u, v)); // prettier-ignore
  }
  expect(found.best.centre).toBe(bestAt(GOOD, 0.1, 0.05));
  expect(found.leftOut).toBe(found.tiles.filter(({ out }) => out !== null).length);
});

/** Three focus settings wide open and the other stops once. */
function focused(
  sigma: (x: number, y: number, focusMm: number, n: number) => number,
): SeriesFile[] {
  const shots = [
    ...[-0.06, -0.03, 0, 0.03, 0.06].map((focusMm) => ({ fNumber: 4, focusMm })),
    ...[8, 16].map((fNumber) => ({ fNumber, focusMm: 0 })),
  ];
  return shots.map(({ fNumber, focusMm }, i) => ({
    fNumber,
    focusMm,
    file: blurredFile(`${i}.tif`, { ...SIZE, seed: 9, noise: 0.005, noiseSeed: i, sigmaPx: (x, y) => sigma(x, y, focusMm, fNumber) }), // prettier-ignore
  }));
}

/** 0.05 mm of a pixel: a back of 36 × 24 mm. */
const PITCH_MM = 36 / SIZE.widthPx;

/** Blur of being out of focus by so much, as a deviation in pixels; on pixels as coarse as these, told large. */
const defocusPx = (offMm: number, n: number): number => (60 * Math.abs(offMm)) / n / 0.5;

it('tells a lens leaned by 0.2° from a decentred one', async () => {
  const slope = Math.tan((0.2 * Math.PI) / 180);
  const leaned = focused((x, _, focusMm, n) =>
    Math.hypot(0.5 * (4 / n), 0.05 * n, 0.3, defocusPx(focusMm - slope * x * half * PITCH_MM, n)),
  );
  const found = await measureSeries(leaned, { pitchMm: PITCH_MM });
  expect(Math.abs(found.leanDeg! - 0.2)).toBeLessThan(0.03);
  expect(found.leanTowards).toBe('left');

  const off = focused((x, _, focusMm, n) =>
    Math.hypot((0.5 + 2.2 * Math.max(0, -x)) * (4 / n), 0.05 * n, 0.3, defocusPx(focusMm, n)),
  );
  const other = await measureSeries(off, { pitchMm: PITCH_MM });
  expect(other.leanTowards).toBeNull();
  expect(other.leanDeg!).toBeLessThan(0.06);
  expect(other.lags).toMatchObject([{ place: 'left', why: 'decentred' }]);
});

it('names a side and a corner that lag, and does not guess why', async () => {
  const side = await measureSeries(series({ ...GOOD, seed: 5, aberrationPx: (x, y) => 0.8 + 1.2 * (x * x + y * y) + 2.5 * Math.max(0, x) })); // prettier-ignore
  expect(side.lags).toMatchObject([{ place: 'right', why: 'unknown' }]);
  expect(side.leanDeg).toBeNull();
  const corner = await measureSeries(series({ ...GOOD, seed: 6, aberrationPx: (x, y) => 0.8 + (x > 0.45 && y < -0.25 ? 3.5 : 0.5) })); // prettier-ignore
  expect(corner.lags).toMatchObject([{ place: 'bottom_right' }]);
});

it('names what does not belong: another scene, too few stops, a body that was moved', async () => {
  const files = series(GOOD);
  const alien = fileOf('other.tif', lookAt(scene(77), { width: 720, height: 480, x: 0, y: 0 }));
  const found = await measureSeries([...files.slice(0, 5), { fNumber: 22, file: alien }]);
  expect(found.problems).toContain('foreign');
  expect(found.stops.map(({ fNumber }) => fNumber)).toEqual([4, 5.6, 8, 11, 16]);
  const moved = blurredPlane({ ...SIZE, seed: 1, sigmaPx: () => 0.8, dx: 9 });
  const shaken = [...files.slice(0, 5), { fNumber: 22, file: fileOf('moved.tif', moved) }];
  expect((await measureSeries(shaken)).problems).toContain('moved');
  expect((await measureSeries(files.slice(1, 3))).problems).toContain('few_stops');
});
