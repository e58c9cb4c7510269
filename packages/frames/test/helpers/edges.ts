import type { Plane } from '../../src/planes/plane.js';
import { normal, random } from './random.js';

/**
 * Edges whose transfer is known: a step through a lens (Gaussian, or free of faults and limited by
 * diffraction) and a square pixel. The lens is put in exactly, as its own edge spread; the pixel by
 * summing over its area.
 */

export interface EdgeLook {
  readonly width?: number;
  readonly height?: number;
  /** From the upright, clockwise; negative leans the other way. */
  readonly angleDeg: number;
  /** Edge nearer to lying. */
  readonly lying?: boolean;
  readonly gaussianPx?: number;
  /** Wavelength times f-number, in pixels. */
  readonly airyPx?: number;
  readonly noise?: number;
  readonly seed?: number;
  readonly dark?: number;
  readonly light?: number;
  readonly flipped?: boolean;
  /** Off a straight line at the ends, pixels. */
  readonly bowPx?: number;
}

/** erf to 1e-7. Source: Abramowitz and Stegun 7.1.26. */
function erf(x: number): number {
  const t = 1 / (1 + 0.3275911 * Math.abs(x));
  const y = 1 - ((((1.061405429 * t - 1.453152027) * t + 1.421413741) * t - 0.284496736) * t + 0.254829592) * t * Math.exp(-x * x); // prettier-ignore
  return x < 0 ? -y : y;
}

/** Transfer of a circular stop without faults. Source: Hecht, Optics; Goodman, from memory. */
export const diffraction = (f: number, airyPx: number): number => {
  const s = f * airyPx;
  return s >= 1 ? 0 : (2 / Math.PI) * (Math.acos(s) - s * Math.sqrt(1 - s * s));
};

/** Edge spread of a stop: the sum over frequencies of its transfer. */
function diffractionEdge(airyPx: number): (d: number) => number {
  const [count, reach, step] = [400, 400, 0.05];
  const table = Float64Array.from({ length: 2 * Math.round(reach / step) + 1 }, (_, i) => {
    const d = i * step - reach;
    let sum = 0;
    for (let k = 0; k < count; k++) {
      const f = ((k + 0.5) / count) * (1 / airyPx);
      sum += (diffraction(f, airyPx) * Math.sin(2 * Math.PI * f * d)) / (Math.PI * f);
    }
    return 0.5 + sum / (count * airyPx);
  });
  return (d) => {
    const at = Math.max(0, Math.min(table.length - 2, (d + reach) / step));
    const i = Math.floor(at);
    return table[i]! + (table[i + 1]! - table[i]!) * (at - i);
  };
}

const gaussianEdge =
  (sigma: number) =>
  (d: number): number =>
    sigma > 0 ? (1 + erf(d / (Math.SQRT2 * sigma))) / 2 : Number(d >= 0);

const sinc = (x: number): number => (x === 0 ? 1 : Math.sin(Math.PI * x) / (Math.PI * x));

/** What the edge's transfer is along its normal. */
export function transfer({
  angleDeg,
  gaussianPx = 0,
  airyPx = 0,
}: EdgeLook): (f: number) => number {
  const a = (angleDeg * Math.PI) / 180;
  return (f) =>
    Math.abs(sinc(f * Math.cos(a)) * sinc(f * Math.sin(a))) *
    Math.exp(-2 * (Math.PI * f * gaussianPx) ** 2) *
    (airyPx > 0 ? diffraction(f, airyPx) : 1);
}

/** Each pixel is summed over so many places each way. */
const PARTS = 6;

export function edgePicture(look: EdgeLook): Plane {
  const { width = 120, height = 120, angleDeg, lying = false, gaussianPx = 0, airyPx = 0, noise = 0, seed = 1, dark = 0.08, light = 0.7, flipped = false, bowPx = 0 } = look; // prettier-ignore
  const next = normal(random(seed));
  const a = (angleDeg * Math.PI) / 180;
  const [c, s] = [Math.cos(a), Math.sin(a)];
  const through = airyPx > 0 ? diffractionEdge(airyPx) : gaussianEdge(gaussianPx);
  const data = new Float32Array(width * height);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      let sum = 0;
      for (let j = 0; j < PARTS; j++) {
        for (let i = 0; i < PARTS; i++) {
          const u = x + (i + 0.5) / PARTS - width / 2;
          const v = y + (j + 0.5) / PARTS - height / 2;
          const [across, along] = lying ? [v, u] : [u, v];
          const bow = bowPx * ((2 * along) / height) ** 2;
          sum += through(across * c - along * s + bow - 0.37);
        }
      }
      const part = sum / PARTS ** 2;
      const level = dark + (light - dark) * (flipped ? 1 - part : part);
      data[y * width + x] = level + (noise > 0 ? noise * next() : 0);
    }
  }
  return { width, height, data };
}
