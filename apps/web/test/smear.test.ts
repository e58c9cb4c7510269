import fc from 'fast-check';
import { FINER, smear, type ToSmear } from '../src/drawing/smear.js';
import { runs } from '../../../scripts/lib/runs.mjs';

const [W, H] = [32, 24];

const raster = (blurUm: (x: number, y: number) => number): ToSmear['raster'] => {
  const [width, height] = [W / FINER, H / FINER];
  return {
    width,
    height,
    blurUm: Float32Array.from({ length: width * height }, (_, i) =>
      blurUm(i % width, Math.floor(i / width)),
    ),
  };
};

const word = (r: number, g: number, b: number): number => r | (g << 8) | (b << 16) | (255 << 24);

const picture = (at: (x: number, y: number) => number): Uint32Array =>
  Uint32Array.from({ length: W * H }, (_, i) => at(i % W, Math.floor(i / W)) >>> 0);

const smeared = (given: Partial<ToSmear>): Uint8ClampedArray => {
  const out = new Uint8ClampedArray(W * H * 4);
  smear(out, {
    width: W,
    height: H,
    steps: [picture(() => word(0, 0, 0))],
    raster: raster(() => 0),
    perMm: 10,
    sharp: null,
    ...given,
  });
  return out;
};

const at = (out: Uint8ClampedArray, x: number, y: number): number[] => [
  ...out.slice(4 * (y * W + x), 4 * (y * W + x) + 4),
];

/** A white line down a black picture. */
const LINE = picture((x) => (x === 16 ? word(255, 255, 255) : word(0, 0, 0)));

describe('the smeared picture', () => {
  it('stands as it is where nothing blurs', () => {
    const out = smeared({ steps: [LINE] });
    expect(at(out, 16, 9)).toEqual([255, 255, 255, 255]);
    expect(at(out, 15, 9)).toEqual([0, 0, 0, 255]);
  });

  it('spreads a line as wide as its disc, and no wider', () => {
    // 0.8 mm at 10 px to the millimetre: 4 px on either side.
    const out = smeared({ steps: [LINE], raster: raster(() => 800) });
    const lit = Array.from({ length: W }, (_, x) => at(out, x, 12)[0]!);
    expect(lit[16]).toBeLessThan(120);
    expect(lit[16 + 3]).toBeGreaterThan(0);
    expect(lit[16 - 3]).toBeGreaterThan(0);
    expect(lit.slice(0, 11).every((light) => light === 0)).toBe(true);
    expect(lit.slice(22).every((light) => light === 0)).toBe(true);
  });

  it('keeps the light: what a line loses its neighbours gain', () => {
    const light = (out: Uint8ClampedArray): number =>
      Array.from({ length: W }, (_, x) => at(out, x, 12)[0]!).reduce((sum, one) => sum + one, 0);
    const wide = light(smeared({ steps: [LINE], raster: raster(() => 600) }));
    // 20 places stand for the disc: as near as they can tell.
    expect(Math.abs(wide / 255 - 1)).toBeLessThan(0.35);
  });

  it('takes large discs from the softer picture', () => {
    const steps = [1, 2, 3].map((step) => picture(() => word(step * 10, 0, 0)));
    const red = (blurUm: number): number =>
      at(smeared({ steps, raster: raster(() => blurUm) }), 16, 12)[0]!;
    expect([red(200), red(1200), red(4000)]).toEqual([10, 20, 30]);
  });

  it('lays the colour only over what is sharp', () => {
    const out = smeared({
      steps: [picture(() => word(100, 100, 100))],
      raster: raster((x) => (x < 8 ? 20 : 40)),
      sharp: { tint: [0, 0, 255], cocUm: 30 },
    });
    const [r, g, b] = at(out, 2, 2);
    expect(b).toBeGreaterThan(120);
    expect(r).toBeLessThan(80);
    expect(g).toBe(r);
    expect(at(out, 30, 2)).toEqual([100, 100, 100, 255]);
  });

  it('leaves one colour alone, however it blurs', () => {
    fc.assert(
      fc.property(
        fc.tuple(fc.nat(255), fc.nat(255), fc.nat(255)),
        fc.array(fc.double({ min: 0, max: 1e5, noNaN: true }), { minLength: 4, maxLength: 40 }),
        ([r, g, b], blurs) => {
          const out = smeared({
            steps: [picture(() => word(r, g, b))],
            raster: raster((x, y) => blurs[(x + 7 * y) % blurs.length]!),
          });
          for (let i = 0; i < W * H; i += 37) {
            expect([...out.slice(4 * i, 4 * i + 4)]).toEqual([r, g, b, 255]);
          }
        },
      ),
      { numRuns: runs(60) },
    );
  });

  it('bears a blur without end', () => {
    const out = smeared({ steps: [LINE], raster: raster(() => Infinity) });
    expect(at(out, 3, 3)[3]).toBe(255);
  });
});
