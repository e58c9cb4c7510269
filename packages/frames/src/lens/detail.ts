import { forward } from '../numbers/fourier.js';
import type { Plane } from '../planes/plane.js';

/**
 * Fine detail of a tile as the part of its spectrum that lenses, focus and diffraction change first.
 * Two pictures of the same thing have their detail in common and their noise not: what they share
 * tells one from the other.
 */

/** Cycles a pixel. */
const LOWEST = 0.08;
const HIGHEST = 0.36;

/** Side of the tiles, pixels. */
export const DETAIL_PX = 128;

/** Rings of frequencies that blur is told by: it takes more from finer ones. */
export const RINGS = 6;

interface Band {
  /** Places in the spectrum: half of the plane, the other half says the same. */
  readonly places: Int32Array;
  readonly fx: Float32Array;
  readonly fy: Float32Array;
  /** Things seen have less the finer they are: weighted so that all of the band counts. */
  readonly weights: Float32Array;
  /** Which ring of frequencies each belongs to. */
  readonly rings: Uint8Array;
}

let made: Band | null = null;

function band(): Band {
  if (made) return made;
  const found: { place: number; x: number; y: number; f: number }[] = [];
  for (let y = 0; y < DETAIL_PX; y++) {
    for (let x = 0; x <= DETAIL_PX / 2; x++) {
      const [u, v] = [x / DETAIL_PX, (y <= DETAIL_PX / 2 ? y : y - DETAIL_PX) / DETAIL_PX];
      const f = Math.hypot(u, v);
      if (f < LOWEST || f > HIGHEST || (x === 0 && v < 0)) continue;
      found.push({ place: 2 * (y * DETAIL_PX + x), x: u, y: v, f });
    }
  }
  made = {
    places: Int32Array.from(found, ({ place }) => place),
    fx: Float32Array.from(found, ({ x }) => x),
    fy: Float32Array.from(found, ({ y }) => y),
    weights: Float32Array.from(found, ({ f }) => f * f),
    rings: Uint8Array.from(found, ({ f }) => Math.min(RINGS - 1, Math.floor(((f - LOWEST) / (HIGHEST - LOWEST)) * RINGS))), // prettier-ignore
  };
  return made;
}

/** A tile's spectrum within the band, over its mean light. */
export interface Detail {
  readonly re: Float32Array;
  readonly im: Float32Array;
  readonly light: number;
  /** Part of the tile that is clipped. */
  readonly clipped: number;
}

const hann = Float64Array.from({ length: DETAIL_PX }, (_, i) => Math.sin((Math.PI * (i + 0.5)) / DETAIL_PX) ** 2); // prettier-ignore

/** @param tile of `DETAIL_PX` each way */
export function detailOf({ data, clipped }: Plane): Detail {
  const field = new Float64Array(2 * DETAIL_PX * DETAIL_PX);
  let [sum, lost] = [0, 0];
  for (let i = 0; i < data.length; i++) {
    sum += data[i]!;
    lost += clipped?.[i] ?? 0;
  }
  const light = Math.max(1e-6, sum / data.length);
  for (let y = 0, i = 0; y < DETAIL_PX; y++) {
    for (let x = 0; x < DETAIL_PX; x++, i++) field[2 * i] = (data[i]! / light - 1) * hann[x]! * hann[y]!; // prettier-ignore
  }
  forward(field, DETAIL_PX, DETAIL_PX);
  const { places, weights } = band();
  return {
    re: Float32Array.from(places, (place, k) => field[place]! * Math.sqrt(weights[k]!)),
    im: Float32Array.from(places, (place, k) => field[place + 1]! * Math.sqrt(weights[k]!)),
    light,
    clipped: lost / data.length,
  };
}

/**
 * How much two tiles have in common, ring by ring of frequencies.
 * @param dx, dy what a shows at p, b shows at p + d, pixels
 */
export function commonRings(a: Detail, b: Detail, dx: number, dy: number): Float64Array {
  const { fx, fy, rings } = band();
  const out = new Float64Array(RINGS);
  for (let k = 0; k < a.re.length; k++) {
    // b = a moved: its spectrum is turned by −2π f·d; turned back, it lies on a.
    const angle = 2 * Math.PI * (fx[k]! * dx + fy[k]! * dy);
    const [c, s] = [Math.cos(angle), Math.sin(angle)];
    const [re, im] = [b.re[k]! * c - b.im[k]! * s, b.re[k]! * s + b.im[k]! * c];
    out[rings[k]!] = out[rings[k]!]! + a.re[k]! * re + a.im[k]! * im;
  }
  return out;
}

export const own = ({ re, im }: Detail): number => {
  let sum = 0;
  for (let k = 0; k < re.length; k++) sum += re[k]! * re[k]! + im[k]! * im[k]!;
  return sum;
};

/** Independent terms that a band's sum is made of: a windowed tile says each thing to its neighbours too. */
export const bandTerms = (): number => band().places.length / 2;

/** A tile's power ring by ring. */
export function ownRings({ re, im }: Detail): Float64Array {
  const { rings } = band();
  const out = new Float64Array(RINGS);
  for (let k = 0; k < re.length; k++) out[rings[k]!] = out[rings[k]!]! + re[k]! * re[k]! + im[k]! * im[k]!; // prettier-ignore
  return out;
}

/** What is the same for every tile: each ring's part of white noise, mean frequency², and terms. */
export function ringsOfBand(): readonly {
  readonly share: number;
  readonly f2: number;
  readonly terms: number;
}[] {
  const { rings, weights } = band();
  const [sums, counts] = [new Float64Array(RINGS), new Float64Array(RINGS)];
  let total = 0;
  weights.forEach((weight, k) => {
    sums[rings[k]!] = sums[rings[k]!]! + weight;
    counts[rings[k]!] = counts[rings[k]!]! + 1;
    total += weight;
  });
  // Weights are frequency²: their mean is that of f².
  return [...sums].map((sum, i) => ({
    share: sum / total,
    f2: sum / counts[i]!,
    terms: counts[i]! / 2,
  }));
}
