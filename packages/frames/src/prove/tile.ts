import { Matrix, solve } from 'ml-matrix';
import { phaseCorrelated } from '../numbers/fourier.js';
import { movedBy, rooted, smoothed } from '../planes/filter.js';
import { reduced, type Plane } from '../planes/plane.js';

/**
 * One tile of two frames laid on each other to a small part of a pixel: first by phase correlation,
 * then by least squares on the light itself. Larger tiles are looked for at a quarter of the size and
 * laid at half, which leaves the place open by a few hundredths of a pixel. Sources: Kuglin and Hines (1975); the peak between pixels after
 * Foroosh et al. (2002), from memory; Lucas and Kanade (1981).
 */
export interface TileMatch {
  /** `poor`: too little to see. `lost`: there is something to see, and it is not in both. */
  readonly state: 'matched' | 'poor' | 'lost';
  /** What a shows at p, b shows at p + d; pixels, y down. */
  readonly dx: number;
  readonly dy: number;
  /** How alike they are once laid on each other, −1 to 1. */
  readonly alike: number;
  /** How well the place is known, one standard deviation, pixels. */
  readonly sigmaPx: number;
  /** How much brighter b is, stops; null where nothing unclipped is left. */
  readonly stops: number | null;
}

/** Where the likeness of two tiles has its peak. */
export interface Peak {
  readonly dx: number;
  readonly dy: number;
}

/** Place between three values of an even peak, −0.5 to 0.5. */
function between(before: number, top: number, after: number): number {
  const bend = before - 2 * top + after;
  return bend < 0 ? Math.max(-0.5, Math.min(0.5, (before - after) / (2 * bend))) : 0;
}

const hanns = new Map<number, Float64Array>();
function hann(size: number): Float64Array {
  let made = hanns.get(size);
  if (!made) {
    made = Float64Array.from(
      { length: size },
      (_, i) => Math.sin((Math.PI * (i + 0.5)) / size) ** 2,
    );
    hanns.set(size, made);
  }
  return made;
}

const meanOf = (data: Float32Array): number => {
  let sum = 0;
  for (let i = 0; i < data.length; i++) sum += data[i]!;
  return sum / data.length;
};

/** Phase correlation of two tiles of one size, each side a power of two. */
export function peakOf(a: Plane, b: Plane): Peak {
  const { width, height } = a;
  const field = new Float64Array(2 * width * height);
  const [ma, mb] = [meanOf(a.data), meanOf(b.data)];
  const [across, up] = [hann(width), hann(height)];
  for (let y = 0, i = 0; y < height; y++) {
    for (let x = 0; x < width; x++, i++) {
      const w = across[x]! * up[y]!;
      field[2 * i] = w * (a.data[i]! - ma);
      field[2 * i + 1] = w * (b.data[i]! - mb);
    }
  }
  phaseCorrelated(field, width, height);
  let best = 0;
  for (let i = 1; i < width * height; i++) if (field[2 * i]! > field[2 * best]!) best = i;
  const [px, py] = [best % width, Math.floor(best / width)];
  const at = (x: number, y: number): number =>
    field[2 * (((y + height) % height) * width + ((x + width) % width))]!;
  const x = px + between(at(px - 1, py), at(px, py), at(px + 1, py));
  const y = py + between(at(px, py - 1), at(px, py), at(px, py + 1));
  return {
    dx: x > width / 2 ? width - x : -x,
    dy: y > height / 2 ? height - y : -y,
  };
}

interface Fitted {
  readonly dx: number;
  readonly dy: number;
  readonly sigmaPx: number;
  readonly alike: number;
}

/** Fewer pixels than this on both tiles tell nothing. */
const LEAST_SHARED = 12;

/**
 * Rounds of least squares for shift, gain and offset from a start that is near.
 * @returns null where the tiles share too little or the rounds run away
 */
function fitted(a: Plane, b: Plane, start: Peak, rounds: number): Fitted | null {
  const { width, height } = a;
  let { dx, dy } = start;
  let found: Fitted | null = null;
  const room = new Float32Array(b.data.length);
  for (let round = 0; round < rounds; round++) {
    const moved = movedBy(b, dx, dy, room);
    const [left, right] = [Math.ceil(Math.max(0, -dx)) + 2, width - Math.ceil(Math.max(0, dx)) - 2];
    const [top, foot] = [Math.ceil(Math.max(0, -dy)) + 2, height - Math.ceil(Math.max(0, dy)) - 2];
    if (right - left < LEAST_SHARED || foot - top < LEAST_SHARED) return null;
    const step = stepOf(a, moved, { left, right, top, foot });
    if (!step) return null;
    // A step of more than a pixel is not to be trusted whole.
    const held = Math.max(1, Math.hypot(step.dx, step.dy));
    dx += step.dx / held;
    dy += step.dy / held;
    found = { dx, dy, sigmaPx: step.sigmaPx, alike: step.alike };
    if (Math.hypot(step.dx, step.dy) < AT_REST_PX) break;
    if (Math.hypot(dx - start.dx, dy - start.dy) > STRAY) return null;
  }
  return found;
}

/** After a step of less than this the next changes nothing that counts: steps shrink by their square. */
const AT_REST_PX = 0.03;
/** Least squares only makes the peak of the correlation finer, pixels. */
const STRAY = 4;

interface Edges {
  readonly left: number;
  readonly right: number;
  readonly top: number;
  readonly foot: number;
}

function stepOf(a: Plane, b: Plane, { left, right, top, foot }: Edges) {
  const { width } = a;
  const [A, B] = [a.data, b.data];
  let [n, sx, sy, sb, sa, sxx, sxy, syy, sxb, syb, sbb, sxa, sya, sba, saa] = [0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0]; // prettier-ignore
  for (let y = top; y < foot; y++) {
    for (let i = y * width + left, end = y * width + right; i < end; i++) {
      const v = B[i]!;
      const u = A[i]!;
      const gx = (B[i + 1]! - B[i - 1]!) / 2;
      const gy = (B[i + width]! - B[i - width]!) / 2;
      sx += gx; sy += gy; sb += v; sa += u;
      sxx += gx * gx; sxy += gx * gy; syy += gy * gy;
      sxb += gx * v; syb += gy * v; sbb += v * v;
      sxa += gx * u; sya += gy * u; sba += v * u; saa += u * u;
    } // prettier-ignore
  }
  n = (right - left) * (foot - top);
  const [va, vb] = [saa - (sa * sa) / n, sbb - (sb * sb) / n];
  if (!(va > 0) || !(vb > 0)) return null;
  const alike = (sba - (sa * sb) / n) / Math.sqrt(va * vb);
  const normal = new Matrix([
    [sxx, sxy, sxb, sx],
    [sxy, syy, syb, sy],
    [sxb, syb, sbb, sb],
    [sx, sy, sb, n],
  ]);
  try {
    const [px = 0, py = 0, gain = 0, offset = 0] = solve(normal, Matrix.columnVector([sxa, sya, sba, sa])).to1DArray(); // prettier-ignore
    if (!(gain > 0)) return { dx: 0, dy: 0, sigmaPx: Infinity, alike };
    const left2 = saa - px * sxa - py * sya - gain * sba - offset * sa;
    const det = sxx * syy - sxy * sxy;
    const variance = Math.max(0, left2) / n / (gain * gain);
    // Smoothed neighbours say the same twice: counted as one in four.
    const sigmaPx = det > 0 ? Math.sqrt((4 * variance * Math.max(sxx, syy)) / det) : Infinity;
    return { dx: px / gain, dy: py / gain, sigmaPx, alike };
  } catch {
    return null;
  }
}

/** Of larger tiles some of the pixels tell the light as well. */
const SPARED_PX = 64;

/** How much brighter b is than a where both are unclipped, stops. */
function brighter(a: Plane, b: Plane, dx: number, dy: number): number | null {
  const [ix, iy] = [Math.round(dx), Math.round(dy)];
  let [sumA, sumB, count] = [0, 0, 0];
  const every = Math.max(1, Math.floor(a.width / SPARED_PX));
  for (let y = Math.max(0, -iy); y < a.height - Math.max(0, iy); y += every) {
    for (let x = Math.max(0, -ix); x < a.width - Math.max(0, ix); x += every) {
      const i = y * a.width + x;
      const j = (y + iy) * a.width + x + ix;
      if (a.clipped?.[i] || b.clipped?.[j]) continue;
      sumA += a.data[i]!;
      sumB += b.data[j]!;
      count++;
    }
  }
  return count * every * every > a.data.length / 8 && sumA > 0 && sumB > 0
    ? Math.log2(sumB / sumA)
    : null;
}

/** How well a tile could place itself against noise of `noise` on each side, pixels of the tile. */
export function couldPlace({ width, height, data }: Plane, noise: number): number {
  let [sxx, sxy, syy] = [0, 0, 0];
  for (let y = 1; y < height - 1; y++) {
    for (let i = y * width + 1, end = y * width + width - 1; i < end; i++) {
      const gx = (data[i + 1]! - data[i - 1]!) / 2;
      const gy = (data[i + width]! - data[i - width]!) / 2;
      sxx += gx * gx;
      sxy += gx * gy;
      syy += gy * gy;
    }
  }
  // Noise has slopes too: half its variance each way.
  const own = ((width - 2) * (height - 2) * noise * noise) / 2;
  const weaker = (sxx + syy) / 2 - Math.hypot((sxx - syy) / 2, sxy) - own;
  return weaker > own * NOISE_DOUBT ? (Math.SQRT2 * noise) / Math.sqrt(weaker) : Infinity;
}

/** Slopes must stand out from those of noise by this share of them. */
const NOISE_DOUBT = 0.2;
/** A tile that could not place itself this well is poor; pixels of the half-size tile. */
const POOR_PX = 0.12;
/** Less alike than this, half-size, is not the same thing. */
const ALIKE = 0.6;
const SURE_PX = 0.2;

const POOR: TileMatch = { state: 'poor', dx: 0, dy: 0, alike: 0, sigmaPx: Infinity, stops: null };

/** From these sizes on the light is laid at half the size, and the place looked for at a quarter. */
const HALVED_FROM = 96;
const QUARTERED_FROM = 192;

/**
 * Lays tile b on tile a; both of one size, a power of two.
 * @param noise of the root of light, one standard deviation
 */
export function matchTile(a: Plane, b: Plane, noise: number): TileMatch {
  const side = Math.min(a.width, a.height);
  const k = side >= HALVED_FROM ? 2 : 1;
  const rooting = ({ width, height, data }: Plane): Plane => {
    const small = reduced({ width, height, data }, k);
    if (k === 1) return rooted(small);
    // It is nobody else's: rooted where it lies.
    for (let i = 0; i < small.data.length; i++) small.data[i] = Math.sqrt(Math.max(0, small.data[i]!)); // prettier-ignore
    return small;
  };
  const [smallA, smallB] = [rooting(a), rooting(b)];
  const least = Math.max(noise, LEAST_NOISE) / k;
  const [couldA, couldB] = [couldPlace(smallA, least), couldPlace(smallB, least)];
  if (Math.max(couldA, couldB) > POOR_PX) {
    // Something to see in one and nothing in the other is no sign: mist, or a hand before the lens.
    return Math.min(couldA, couldB) > POOR_PX / 4 ? POOR : { ...POOR, state: 'lost' };
  }
  const found = laid(smallA, smallB, side >= QUARTERED_FROM ? 2 : 1);
  if (!found || found.alike < ALIKE) return { ...POOR, state: 'lost', alike: found?.alike ?? 0 };
  if (found.sigmaPx * k > SURE_PX) return POOR;
  const { alike } = found;
  const [dx, dy, sigmaPx] = [found.dx * k, found.dy * k, found.sigmaPx * k];
  return { state: 'matched', dx, dy, alike, sigmaPx, stops: brighter(a, b, dx, dy) };
}

/** @param q how many times as small the place is looked for first */
function laid(a: Plane, b: Plane, q: number): Fitted | null {
  const [tinyA, tinyB] = [reduced(a, q), reduced(b, q)];
  const first = fitted(smoothed(tinyA), smoothed(tinyB), peakOf(tinyA, tinyB), ROUNDS);
  if (q === 1 || !first) return first;
  return fitted(smoothed(a), smoothed(b), { dx: first.dx * q, dy: first.dy * q }, FINE_ROUNDS);
}

/** Steps of least squares; fewer when they come to rest. */
const ROUNDS = 5;
const FINE_ROUNDS = 2;

/** A file's own steps are noise too: a quarter of a step of 8 bits. */
const LEAST_NOISE = 0.001;
