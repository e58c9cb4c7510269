import { blocksOfPicture } from '../src/lens/blocks.js';
import { measureFlat, type FlatShot } from '../src/lens/flat.js';
import { cut } from '../src/planes/plane.js';
import { normal, random } from './helpers/random.js';

/** Natural falloff is cos⁴ (Ray, Applied Photographic Optics, 2002); the barrel takes the rest. */

interface White {
  readonly focalMm: number;
  /** Where the barrel begins to cut, and over how much, mm of radius. */
  readonly cutsMm: number;
  readonly overMm: number;
  readonly centre: readonly [number, number];
  /** Stops from edge to edge. */
  readonly slope: readonly [number, number];
  readonly noise: number;
  readonly seed: number;
  readonly at: readonly (readonly [shift: number, rise: number])[];
  readonly light?: number;
}

const SIZE = { widthMm: 36, heightMm: 24, widthPx: 324, heightPx: 216 };

const fallOf =
  ({ focalMm, cutsMm, overMm }: White) =>
  (r: number): number => {
    const natural = 4 * Math.log2(Math.hypot(1, r / focalMm));
    const t = Math.max(0, (r - cutsMm) / overMm);
    return natural + 3 * t * t;
  };

function shotsOf(white: White): FlatShot[] {
  const { centre, slope, noise, seed, at, light = 0.6 } = white;
  const draw = random(seed);
  const next = normal(draw);
  const fall = fallOf(white);
  return at.map(([shift, rise]) => {
    const { widthMm, heightMm, widthPx, heightPx } = SIZE;
    const exposure = light * 2 ** (0.4 * draw() - 0.2);
    const data = new Float32Array(widthPx * heightPx);
    const clipped = new Uint8Array(data.length);
    for (let y = 0; y < heightPx; y++) {
      for (let x = 0; x < widthPx; x++) {
        const [u, v] = [(x + 0.5) / widthPx - 0.5, 0.5 - (y + 0.5) / heightPx];
        const [px, py] = [shift + u * widthMm, rise + v * heightMm];
        const stops =
          -fall(Math.hypot(px - centre[0], py - centre[1])) + slope[0] * u + slope[1] * v;
        const value = exposure * 2 ** stops + noise * next();
        data[y * widthPx + x] = Math.max(0, Math.min(1, value));
        if (value >= 1) clipped[y * widthPx + x] = 1;
      }
    }
    const plane = { width: widthPx, height: heightPx, data, clipped };
    const blocks = blocksOfPicture({ widthPx, heightPx }, { piece: (area) => cut(plane, area), close: () => undefined }); // prettier-ignore
    return { ...blocks, xMm: shift, yMm: rise, widthMm, heightMm };
  });
}

const FIVE = [
  [0, 0],
  [11, 0],
  [-11, 0],
  [0, 11],
  [0, -11],
] as const;

/** Diameter where light has fallen four stops. */
function endOf(white: White): number {
  const fall = fallOf(white);
  let [low, high] = [0, 100];
  for (let i = 0; i < 60; i++) {
    const middle = (low + high) / 2;
    if (fall(middle) < 4) low = middle;
    else high = middle;
  }
  return 2 * low;
}

it('finds the middle to 0.1 mm, the fall to 0.03 stops, the circle to 0.3 mm, under tilted light', () => {
  const draw = random(8);
  for (let i = 0; i < 8; i++) {
    const white: White = {
      focalMm: 17 + 33 * draw(),
      cutsMm: 18 + 6 * draw(),
      overMm: 5 + 4 * draw(),
      centre: [6 * draw() - 3, 6 * draw() - 3],
      slope: [0.6 * draw() - 0.3, 0.6 * draw() - 0.3],
      noise: 0.008 * draw(),
      seed: 20 + i,
      at: FIVE,
    };
    const found = measureFlat(shotsOf(white));
    const [x, y] = found.centreMm!;
    expect([i, Math.hypot(x - white.centre[0], y - white.centre[1]) < 0.1]).toEqual([i, true]);
    const fall = fallOf(white);
    for (const { radiusMm, stops } of found.points) {
      expect(Math.abs(stops - fall(radiusMm))).toBeLessThan(0.03);
    }
    expect(found.points.at(-1)!.radiusMm).toBeGreaterThan(20);
    const end = endOf(white);
    if (end < 58) expect(Math.abs(found.circleMm! - end)).toBeLessThan(0.3);
    expect(found.slopeStops!).toBeCloseTo(Math.hypot(...white.slope), 1);
  }
});

const LENS: White = { focalMm: 24, cutsMm: 20, overMm: 6, centre: [0.5, -0.3], slope: [0, 0], noise: 0.003, seed: 3, at: FIVE }; // prettier-ignore

it('says where light has fallen by one, two and three stops', () => {
  const { radiusMmAt } = measureFlat(shotsOf(LENS));
  const fall = fallOf(LENS);
  for (const stops of [1, 2, 3] as const) expect(fall(radiusMmAt[stops]!)).toBeCloseTo(stops, 1);
});

it('one picture alone does not reach the end of a larger circle, and says so by null', () => {
  const found = measureFlat(shotsOf({ ...LENS, cutsMm: 40, at: [[0, 0]] }));
  expect(found.circleMm).toBeNull();
  expect(found.radiusMmAt[3]).toBeNull();
  expect(found.points.at(-1)!.radiusMm).toBeLessThan(22.5);
});

it.each([
  ['clipped', { light: 2.5 }],
  ['dark', { light: 0.03 }],
  ['uneven', { slope: [1, 0] as const }],
  ['middle_unseen', { at: [[30, 0]] as const }],
] as const)('a white that is not one is named: %s', (problem, odd) => {
  expect(measureFlat(shotsOf({ ...LENS, ...odd })).problems).toContain(problem);
});

it('nothing odd, nothing said', () => {
  expect(measureFlat(shotsOf(LENS)).problems).toEqual([]);
});

it('a black picture tells nothing', () => {
  const [shot] = shotsOf(LENS);
  const black = { ...shot!, light: shot!.light.map(() => 0) };
  expect(measureFlat([black])).toMatchObject({ centreMm: null, problems: ['dark', 'too_little'] });
});

it('a shadow on the white does not move the middle', () => {
  const shots = shotsOf(LENS).map((shot) => {
    const light = shot.light.slice();
    for (let j = 10; j < 22; j++) for (let i = 10; i < 30; i++) light[j * shot.columns + i]! *= 0.8;
    return { ...shot, light };
  });
  const [x, y] = measureFlat(shots).centreMm!;
  expect(Math.hypot(x - 0.5, y + 0.3)).toBeLessThan(0.15);
});

it('sixteen pictures of one stop are more blocks than a call takes arguments', () => {
  // As a page lays them: 120 × 80 blocks each.
  const [columns, rows] = [120, 80];
  const shots = Array.from({ length: 16 }, (_, i): FlatShot => {
    const [xMm, yMm] = [(i % 4) * 4 - 6, Math.floor(i / 4) * 4 - 6];
    const light = Float32Array.from({ length: columns * rows }, (_block, k) => {
      const x = xMm + 36 * (((k % columns) + 0.5) / columns - 0.5);
      const y = yMm + 24 * (0.5 - (Math.floor(k / columns) + 0.5) / rows);
      return 0.6 * 2 ** -fallOf(LENS)(Math.hypot(x - LENS.centre[0], y - LENS.centre[1]));
    });
    return {
      xMm,
      yMm,
      widthMm: 36,
      heightMm: 24,
      columns,
      rows,
      light,
      clipped: 0,
      pixels: light.length,
    };
  });
  const [x, y] = measureFlat(shots).centreMm!;
  expect(Math.hypot(x - LENS.centre[0], y - LENS.centre[1])).toBeLessThan(0.1);
});
