import { measureZero, type ZeroFile } from '../src/lens/zero.js';
import { blurredFile } from './helpers/blurred.js';
import { fileOf } from './helpers/mosaic.js';
import { lookAt, scene } from './helpers/scene.js';

const SIZE = { widthPx: 560, heightPx: 560 };

/** Pictures of a flat chart at leans, the true zero at `zero`, out of focus in the middle by `off`. */
const chart = (
  leans: readonly number[],
  zero: number,
  off: number,
  axis: 'tilt' | 'swing',
): ZeroFile[] =>
  leans.map((deg, i) => ({
    deg,
    file: blurredFile(`${deg}.tif`, {
      ...SIZE,
      seed: 3,
      noise: 0.005,
      noiseSeed: i,
      sigmaPx: (x, y) => Math.hypot(0.7, 6 * (deg - zero) * (axis === 'tilt' ? y : x) + off),
    }),
  }));

it.each([
  ['tilt', 0.22, 0],
  ['tilt', -0.13, 0.6],
  ['swing', 0.08, -0.5],
] as const)('%s: finds the zero at %f°, the middle out of focus by %f', async (axis, zero, off) => {
  const found = await measureZero(chart([-0.6, -0.2, 0.2, 0.6], zero, off, axis), axis);
  expect(found.problems).toEqual([]);
  expect(Math.abs(found.zeroDeg! - zero)).toBeLessThan(0.05);
  expect(found.sigmaDeg!).toBeLessThan(0.05);
  // It never claims to be surer than it is.
  expect(Math.abs(found.zeroDeg! - zero)).toBeLessThan(2.5 * found.sigmaDeg!);
});

it('two pictures do on an even chart, and it says that it took the chart for one', async () => {
  const found = await measureZero(chart([-0.5, 0.5], 0.15, 0.8, 'tilt'), 'tilt');
  expect(found.problems).toEqual(['even_chart']);
  expect(Math.abs(found.zeroDeg! - 0.15)).toBeLessThan(0.15);
});

it('says what is missing', async () => {
  const files = chart([-0.5, 0, 0.5], 0.7, 0, 'tilt');
  expect((await measureZero(files.slice(0, 1), 'tilt')).problems).toEqual(['too_few']);
  expect((await measureZero(files, 'tilt')).problems).toContain('outside');
  const other = fileOf('other.tif', lookAt(scene(50), { width: 560, height: 560, x: 0, y: 0 }));
  const mixed = await measureZero([{ deg: 1, file: other }, ...files], 'tilt');
  expect(mixed.problems).toContain('foreign');
});
