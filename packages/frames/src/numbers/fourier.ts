import FFT from 'fft.js';

/**
 * Two-dimensional transforms of real pictures, both of a pair at once: one is carried in the real
 * part, the other in the imaginary part, and they are told apart by their symmetry. A power of two
 * along each side.
 */

const plans = new Map<number, FFT>();

function plan(size: number): FFT {
  let made = plans.get(size);
  if (!made) plans.set(size, (made = new FFT(size)));
  return made;
}

/** Rows taken together, so that turning them over stays within the cache. */
const TOGETHER = 16;

/** Transforms each row of `from` (rows × columns, complex) and lays it into a column of `to`. */
function rowsToColumns(from: Float64Array, to: Float64Array, rows: number, columns: number): void {
  const fft = plan(columns);
  const row = new Float64Array(2 * columns);
  const out = new Float64Array(2 * columns);
  const block = new Float64Array(2 * columns * TOGETHER);
  for (let first = 0; first < rows; first += TOGETHER) {
    const count = Math.min(TOGETHER, rows - first);
    for (let y = 0; y < count; y++) {
      const at = 2 * columns * (first + y);
      for (let i = 0; i < 2 * columns; i++) row[i] = from[at + i]!;
      fft.transform(out, row);
      block.set(out, y * 2 * columns);
    }
    for (let x = 0; x < columns; x++) {
      let at = 2 * (x * rows + first);
      for (let y = 0; y < count; y++, at += 2) {
        const source = 2 * (y * columns + x);
        to[at] = block[source]!;
        to[at + 1] = block[source + 1]!;
      }
    }
  }
}

/**
 * Forward transform in place.
 * @param field width × height complex numbers, row by row
 */
export function forward(field: Float64Array, width: number, height: number): void {
  const between = new Float64Array(field.length);
  rowsToColumns(field, between, height, width);
  rowsToColumns(between, field, width, height);
}

/** Cycles a pixel from which on noise says more than the picture. */
const NOISY = 0.2;

const lowPass = (count: number): Float64Array =>
  Float64Array.from({ length: count }, (_, i) =>
    Math.exp(-((Math.min(i, count - i) / count / NOISY) ** 2)),
  );

/**
 * Where b lies against a: the picture whose peak says by how much b has to be moved to lie on a.
 * Only phases count. Source: Kuglin and Hines (1975).
 * @param field a in the real part, b in the imaginary; holds the answer (real) afterwards
 */
export function phaseCorrelated(field: Float64Array, width: number, height: number): void {
  forward(field, width, height);
  const at = (x: number, y: number): number => 2 * (y * width + x);
  const [across, up] = [lowPass(width), lowPass(height)];
  const low = (x: number, y: number): number => across[x]! * up[y]!;
  for (let y = 0; y <= height / 2; y++) {
    const my = (height - y) % height;
    for (let x = 0; x < width; x++) {
      const mx = (width - x) % width;
      if (y === my && x > mx) continue;
      const [i, j] = [at(x, y), at(mx, my)];
      const [zr, zi, wr, wi] = [field[i]!, field[i + 1]!, field[j]!, field[j + 1]!];
      // A = (z + w*) / 2, B = (z − w*) / 2i; the product A conj(B) up to a factor that phases drop.
      const [ar, ai] = [zr + wr, zi - wi];
      const [br, bi] = [zi + wi, wr - zr];
      const re = ar * br + ai * bi;
      const im = ai * br - ar * bi;
      const size = Math.sqrt(re * re + im * im);
      const kept = size > 0 ? low(x, y) / size : 0;
      const [pr, pi] = [re * kept, im * kept];
      field[i] = pr;
      field[i + 1] = pi;
      field[j] = pr;
      field[j + 1] = -pi;
    }
  }
  backwardReal(field, width, height);
}

/**
 * The likeness of two pictures at every shift, from their spectra: phases alone count.
 * @returns real numbers, each followed by a nought; its peak lies where b's first pixel lies on a
 */
export function productBack(a: Float64Array, b: Float64Array, side: number): Float64Array {
  const out = new Float64Array(a.length);
  const gain = lowPass(side);
  for (let y = 0, i = 0; y < side; y++) {
    for (let x = 0; x < side; x++, i += 2) {
      const re = a[i]! * b[i]! + a[i + 1]! * b[i + 1]!;
      const im = a[i + 1]! * b[i]! - a[i]! * b[i + 1]!;
      const size = Math.sqrt(re * re + im * im);
      const kept = size > 0 ? (gain[x]! * gain[y]!) / size : 0;
      out[i] = re * kept;
      out[i + 1] = im * kept;
    }
  }
  backwardReal(out, side, side);
  return out;
}

/**
 * Back to real numbers in place. Half the columns tell the rest, and two rows are carried as one
 * complex one: half the work.
 */
function backwardReal(field: Float64Array, width: number, height: number): void {
  const half = width / 2 + 1;
  const upright = new Float64Array(2 * half * height);
  const column = new Float64Array(2 * height);
  const columnOut = new Float64Array(2 * height);
  for (let x = 0; x < half; x++) {
    for (let y = 0, at = 2 * x; y < height; y++, at += 2 * width) {
      column[2 * y] = field[at]!;
      column[2 * y + 1] = -field[at + 1]!;
    }
    plan(height).transform(columnOut, column);
    // Left conjugate: the rows want it so.
    upright.set(columnOut, 2 * height * x);
  }
  const row = new Float64Array(2 * width);
  const out = new Float64Array(2 * width);
  const share = 1 / (width * height);
  for (let y = 0; y < height; y += 2) {
    for (let x = 0; x < half; x++) {
      const at = 2 * (height * x + y);
      const [cr, ci, dr, di] = [upright[at]!, upright[at + 1]!, upright[at + 2]!, upright[at + 3]!];
      row[2 * x] = cr - di;
      row[2 * x + 1] = ci + dr;
      if (x > 0 && x < half - 1) {
        row[2 * (width - x)] = cr + di;
        row[2 * (width - x) + 1] = dr - ci;
      }
    }
    plan(width).transform(out, row);
    for (let x = 0; x < width; x++) {
      const [first, second] = [2 * (y * width + x), 2 * ((y + 1) * width + x)];
      field[first] = out[2 * x]! * share;
      field[first + 1] = 0;
      field[second] = out[2 * x + 1]! * share;
      field[second + 1] = 0;
    }
  }
}
