import { matchTile } from '../src/prove/tile.js';
import { noiseOf, rooted } from '../src/planes/filter.js';
import { random } from './helpers/random.js';
import { lookAt, scene } from './helpers/scene.js';

const SIZE = { width: 128, height: 128 };

describe('a tile of two frames', () => {
  it('is placed to a twentieth of a pixel, whatever the gain and through noise', () => {
    const draw = random(3);
    for (let i = 0; i < 40; i++) {
      const of = scene(100 + i, { finestPx: 1 + 3 * draw() });
      const [dx, dy] = [24 * (draw() - 0.5), 24 * (draw() - 0.5)];
      const gain = 2 ** (2 * draw() - 1.5);
      const noise = 0.01 * draw();
      const a = lookAt(of, { ...SIZE, x: 0, y: 0, noise, seed: i });
      const b = lookAt(of, { ...SIZE, x: -dx, y: -dy, noise, seed: 1000 + i, gain: () => gain });
      const found = matchTile(a, b, noiseOf(rooted(a)));
      expect([i, found.state]).toEqual([i, 'matched']);
      expect(Math.abs(found.dx - dx)).toBeLessThan(0.05);
      expect(Math.abs(found.dy - dy)).toBeLessThan(0.05);
      expect(Math.abs(found.stops! - Math.log2(gain))).toBeLessThan(0.1);
    }
  });

  it('tells nothing of a sky, and knows two things that are not the same', () => {
    const sky = { at: () => 0.5 };
    for (let i = 0; i < 20; i++) {
      const a = lookAt(sky, { ...SIZE, x: 0, y: 0, noise: 0.01, seed: i });
      const b = lookAt(sky, { ...SIZE, x: 0, y: 0, noise: 0.01, seed: 100 + i });
      expect(matchTile(a, b, noiseOf(rooted(a))).state).toBe('poor');
      const one = lookAt(scene(i), { ...SIZE, x: 0, y: 0, noise: 0.01, seed: i });
      const other = lookAt(scene(200 + i), { ...SIZE, x: 0, y: 0, noise: 0.01, seed: 100 + i });
      expect(matchTile(one, other, 0.01).state).toBe('lost');
    }
  });

  it('with lines one way only does not know how far it went along them', () => {
    const stripes = { at: (x: number) => 0.4 + 0.2 * Math.sin(x / 3) + 0.1 * Math.sin(x / 7.3) };
    const a = lookAt(stripes, { ...SIZE, x: 0, y: 0, noise: 0.005, seed: 1 });
    const b = lookAt(stripes, { ...SIZE, x: 2, y: 0, noise: 0.005, seed: 2 });
    expect(matchTile(a, b, 0.005).state).toBe('poor');
  });
});
