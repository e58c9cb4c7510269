import { measureEdge, type EdgeMeasured } from '../src/lens/edge.js';
import type { Plane } from '../src/planes/plane.js';
import { edgePicture, transfer, type EdgeLook } from './helpers/edges.js';

/** The method: ISO 12233. What it should find is known: Gaussian, square pixel and stop multiply. */

function mtf50(of: (f: number) => number): number {
  let [low, high] = [0, 1];
  for (let i = 0; i < 50; i++) {
    const middle = (low + high) / 2;
    if (of(middle) > 0.5) low = middle;
    else high = middle;
  }
  return low;
}

const cases: [string, EdgeLook][] = [3, 5, 10, 20, 30, 40].flatMap((angleDeg, i) =>
  [0.5, 0.9, 1.6].flatMap((gaussianPx, k): [string, EdgeLook][] => {
    const lying = (i + k) % 2 === 1;
    const sign = k === 1 ? -1 : 1;
    return [
      [`${sign * angleDeg}° ${lying ? 'lying' : 'upright'}, Gaussian ${gaussianPx} px`, { angleDeg: sign * angleDeg, gaussianPx, lying, flipped: i % 2 === 0, noise: 0.006, seed: 10 * i + k }], // prettier-ignore
    ];
  }),
);
const stops: [string, EdgeLook][] = [1.2, 2.5, 4].map((airyPx, i) => [
  `a stop without faults, ${airyPx} px`,
  { angleDeg: [4, 12, 33][i]!, airyPx, noise: 0.004, width: 160, height: 160 },
]);

it.each([...cases, ...stops])('%s: half contrast within 2 %%, the curve within 0.02', (_, look) => {
  const wanted = transfer(look);
  const found = measureEdge(edgePicture(look));
  expect(found.problems).toEqual([]);
  expect(Math.abs(found.angleDeg! - Math.abs(look.angleDeg))).toBeLessThan(0.1);
  const { mtf50CyPx, mtf } = found.figures!;
  expect(Math.abs(mtf50CyPx / mtf50(wanted) - 1)).toBeLessThan(0.02);
  const off = mtf.filter(([f]) => f <= 0.5).map(([f, contrast]) => Math.abs(contrast - wanted(f)));
  expect(Math.max(...off)).toBeLessThan(0.02);
});

it('rises over 2.56 deviations of a Gaussian from a tenth to nine', () => {
  // 2 × 1.2816 deviations, from any table of the normal distribution; the pixel adds its own.
  const { figures } = measureEdge(edgePicture({ angleDeg: 7, gaussianPx: 3 }));
  expect(figures!.rise1090Px / Math.sqrt(9 + 1 / 12)).toBeCloseTo(2.563, 1);
});

it('finds the same in a part of a picture as in the part alone', () => {
  const whole = edgePicture({ angleDeg: 8, gaussianPx: 0.9, width: 200, height: 160 });
  const area = { x: 40, y: 20, width: 120, height: 120 };
  const { figures } = measureEdge(whole, area);
  expect(figures!.mtf50CyPx).toBeCloseTo(mtf50(transfer({ angleDeg: 8, gaussianPx: 0.9 })), 2);
});

const PLAIN: EdgeLook = { angleDeg: 7, gaussianPx: 0.9, noise: 0.004 };

/** More contrast for what differs from its surroundings, as cameras add. */
function sharpened(plane: Plane, amount: number): Plane {
  const { width, height, data } = plane;
  const out = data.slice();
  for (let y = 1; y < height - 1; y++) {
    for (let x = 1; x < width - 1; x++) {
      let sum = 0;
      for (let j = -1; j <= 1; j++) for (let i = -1; i <= 1; i++) sum += data[(y + j) * width + x + i]!; // prettier-ignore
      out[y * width + x] = data[y * width + x]! + amount * (data[y * width + x]! - sum / 9);
    }
  }
  return { width, height, data: out };
}

function clippedAt(plane: Plane, most: number): Plane {
  const data = plane.data.map((light) => Math.min(most, light));
  return { ...plane, data, clipped: Uint8Array.from(data, (light) => (light >= most ? 1 : 0)) };
}

const nothing = ({ figures }: EdgeMeasured): boolean => figures === null;

describe('what spoils an edge is named', () => {
  it('sharpened in the camera: figures, and a warning', () => {
    const found = measureEdge(sharpened(edgePicture(PLAIN), 1.2));
    expect(found.problems).toEqual(['sharpened']);
    expect(found.figures!.mtf50CyPx).toBeGreaterThan(1.2 * measureEdge(edgePicture(PLAIN)).figures!.mtf50CyPx); // prettier-ignore
  });

  it.each([
    ['blown out', 'clipped', () => clippedAt(edgePicture({ ...PLAIN, light: 1.1 }), 1)],
    ['curved', 'curved', () => edgePicture({ ...PLAIN, bowPx: 4 })],
    ['too short', 'short', () => edgePicture({ ...PLAIN, width: 60, height: 14 })],
    ['with no room beside it', 'short', () => edgePicture({ ...PLAIN, width: 14, height: 90 })],
    ['too nearly upright', 'angle', () => edgePicture({ ...PLAIN, angleDeg: 0.8 })],
    ['too steep', 'angle', () => edgePicture({ ...PLAIN, angleDeg: 44.2 })],
    ['faint', 'faint', () => edgePicture({ ...PLAIN, dark: 0.5, light: 0.505 })],
  ])('%s: a problem, and no figures', (_, problem, picture) => {
    const found = measureEdge(picture());
    expect(found.problems).toContain(problem);
    expect(nothing(found)).toBe(true);
  });

  it('a grey card has none', () => {
    const data = new Float32Array(120 * 120).fill(0.4);
    const found = measureEdge({ width: 120, height: 120, data });
    expect(found.problems.length).toBeGreaterThan(0);
    expect(nothing(found)).toBe(true);
  });

  it('a few clipped pixels are left out and counted', () => {
    const plane = edgePicture(PLAIN);
    const clipped = new Uint8Array(plane.data.length);
    for (let i = 0; i < 40; i++) {
      plane.data[i * 300] = 1;
      clipped[i * 300] = 1;
    }
    const found = measureEdge({ ...plane, clipped });
    expect([found.clipped, found.problems]).toEqual([40, []]);
    expect(found.figures!.mtf50CyPx).toBeCloseTo(mtf50(transfer(PLAIN)), 2);
  });
});
