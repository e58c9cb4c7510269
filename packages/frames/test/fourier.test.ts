import { forward, phaseCorrelated } from '../src/numbers/fourier.js';
import { random } from './helpers/random.js';

/** The sum that a transform is, term by term. */
function bySum(field: Float64Array, width: number, height: number): Float64Array {
  const out = new Float64Array(field.length);
  for (let v = 0; v < height; v++) {
    for (let u = 0; u < width; u++) {
      let [re, im] = [0, 0];
      for (let y = 0; y < height; y++) {
        for (let x = 0; x < width; x++) {
          const a = -2 * Math.PI * ((u * x) / width + (v * y) / height);
          const [c, s] = [Math.cos(a), Math.sin(a)];
          const i = 2 * (y * width + x);
          re += field[i]! * c - field[i + 1]! * s;
          im += field[i]! * s + field[i + 1]! * c;
        }
      }
      out[2 * (v * width + u)] = re;
      out[2 * (v * width + u) + 1] = im;
    }
  }
  return out;
}

describe('transforms', () => {
  it('are the sums they stand for, on sides of different length', () => {
    const draw = random(1);
    const field = Float64Array.from({ length: 2 * 16 * 8 }, () => draw() - 0.5);
    const wanted = bySum(field, 16, 8);
    forward(field, 16, 8);
    field.forEach((value, i) => expect(value).toBeCloseTo(wanted[i]!, 9));
  });

  it.each([
    [0, 0],
    [5, 3],
    [30, 15],
    [17, 1],
  ])('find a picture that was moved round by %i across and %i down', (dx, dy) => {
    const [w, h] = [32, 16];
    const draw = random(2);
    const a = Float64Array.from({ length: w * h }, draw);
    const field = new Float64Array(2 * w * h);
    for (let y = 0; y < h; y++) {
      for (let x = 0; x < w; x++) {
        field[2 * (y * w + x)] = a[y * w + x]!;
        // What a shows at p, b shows at p + d.
        field[2 * (((y + dy) % h) * w + ((x + dx) % w)) + 1] = a[y * w + x]!;
      }
    }
    phaseCorrelated(field, w, h);
    let best = 0;
    for (let i = 0; i < w * h; i++) if (field[2 * i]! > field[2 * best]!) best = i;
    expect([(w - (best % w)) % w, (h - Math.floor(best / w)) % h]).toEqual([dx, dy]);
  });
});
