import { forward, productBack } from '../numbers/fourier.js';
import { planeOf, type Plane } from '../planes/plane.js';
import { mostOf } from '../numbers/extremes.js';

/**
 * Two whole frames, made small, against each other: roughly where one lies on the other, wherever
 * that is. What is likely by its phases is tried by how alike the shared part is.
 */

/** A small frame made ready. */
export interface Ready {
  readonly width: number;
  readonly height: number;
  /** Light less its surroundings, over how much it varies there. */
  readonly even: Plane;
  readonly side: number;
  readonly spectrum: Float64Array;
  /** Pixels that say as much as one independent one. */
  readonly grainPx: number;
}

/** Pixels each way that surroundings reach. */
const AROUND_PX = 5;
/** Variation that is noise of the reduced picture, root of light. */
const FAINT = 0.006;

/** Sums of all that lies above and to the left. */
function running({ width, height, data }: Plane, of: (value: number) => number): Float64Array {
  const out = new Float64Array((width + 1) * (height + 1));
  for (let y = 0; y < height; y++) {
    let row = 0;
    for (let x = 0; x < width; x++) {
      row += of(data[y * width + x]!);
      out[(y + 1) * (width + 1) + x + 1] = out[y * (width + 1) + x + 1]! + row;
    }
  }
  return out;
}

function evened(plane: Plane): Plane {
  const { width, height } = plane;
  const roots = planeOf(width, height, plane.data.map((light) => Math.sqrt(Math.max(0, light)))); // prettier-ignore
  const [sums, squares] = [running(roots, (v) => v), running(roots, (v) => v * v)];
  const out = new Float32Array(width * height);
  for (let y = 0; y < height; y++) {
    const [top, foot] = [Math.max(0, y - AROUND_PX), Math.min(height, y + AROUND_PX + 1)];
    for (let x = 0; x < width; x++) {
      const [left, right] = [Math.max(0, x - AROUND_PX), Math.min(width, x + AROUND_PX + 1)];
      const box = (of: Float64Array): number =>
        of[foot * (width + 1) + right]! -
        of[top * (width + 1) + right]! -
        of[foot * (width + 1) + left]! +
        of[top * (width + 1) + left]!;
      const count = (foot - top) * (right - left);
      const middle = box(sums) / count;
      const variance = Math.max(0, box(squares) / count - middle * middle);
      out[y * width + x] = (roots.data[y * width + x]! - middle) / Math.sqrt(variance + FAINT * FAINT); // prettier-ignore
    }
  }
  return planeOf(width, height, out);
}

const powerOver = (least: number): number => 2 ** Math.ceil(Math.log2(least));

/** How much pixels say the same as their neighbours: as of a chain, each way. */
function grainOf({ width, height, data }: Plane): number {
  let [own, right, down] = [0, 0, 0];
  for (let y = 0; y < height - 1; y++) {
    for (let x = 0, i = y * width; x < width - 1; x++, i++) {
      own += data[i]! * data[i]!;
      right += data[i]! * data[i + 1]!;
      down += data[i]! * data[i + width]!;
    }
  }
  const chain = (shared: number): number => {
    const r2 = own > 0 ? Math.min(0.98, Math.max(0, shared / own) ** 2) : 0;
    return (1 + r2) / (1 - r2);
  };
  return chain(right) * chain(down);
}

/** @param side power of two of at least the longest side among the frames */
export function ready(plane: Plane, side: number): Ready {
  const even = evened(plane);
  const { width, height } = plane;
  const spectrum = new Float64Array(2 * side * side);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) spectrum[2 * (y * side + x)] = even.data[y * width + x]!;
  }
  forward(spectrum, side, side);
  return { width, height, even, side, spectrum, grainPx: grainOf(even) };
}

export const sideFor = (planes: readonly Plane[]): number =>
  powerOver(mostOf(planes.map(({ width, height }) => Math.max(width, height))));

export interface Laid {
  /** The middle of b from the middle of a, small pixels, y down. */
  readonly dx: number;
  readonly dy: number;
  /** −1 to 1. */
  readonly alike: number;
  /** Shared part of the smaller frame. */
  readonly share: number;
  /** Alike enough, and over enough of a picture, not to be chance. */
  readonly sure: boolean;
}

/** How alike two frames are with b's top left at (x, y) of a, and how much they share. */
function alikeAt(a: Plane, b: Plane, x: number, y: number): { alike: number; pixels: number } {
  const [left, right] = [Math.max(0, x), Math.min(a.width, x + b.width)];
  const [top, foot] = [Math.max(0, y), Math.min(a.height, y + b.height)];
  let [n, sa, sb, saa, sbb, sab] = [0, 0, 0, 0, 0, 0];
  for (let row = top; row < foot; row++) {
    let i = row * a.width + left;
    let j = (row - y) * b.width + left - x;
    for (let column = left; column < right; column++, i++, j++) {
      const [u, v] = [a.data[i]!, b.data[j]!];
      n++; sa += u; sb += v; saa += u * u; sbb += v * v; sab += u * v;
    } // prettier-ignore
  }
  const [va, vb] = [saa - (sa * sa) / n, sbb - (sb * sb) / n];
  return { alike: va > 0 && vb > 0 ? (sab - (sa * sb) / n) / Math.sqrt(va * vb) : 0, pixels: n };
}

/** So many of the highest peaks are tried. */
const PEAKS = 12;
/** Frames that share less than this show too little. */
const LEAST_SHARE = 0.03;
const LEAST_ALIKE = 0.35;
/** Deviations over what chance gives: of thousands of places the likeliest is looked at. */
const OVER_CHANCE = 6;

function peaks(field: Float64Array, side: number): { x: number; y: number }[] {
  const found: { x: number; y: number; value: number }[] = [];
  let least = -Infinity;
  for (let y = 0; y < side; y++) {
    for (let x = 0; x < side; x++) {
      const value = field[2 * (y * side + x)]!;
      if (value <= least) continue;
      const near = found.find((each) => Math.abs(each.x - x) < 3 && Math.abs(each.y - y) < 3);
      if (near) {
        if (value > near.value) Object.assign(near, { x, y, value });
        continue;
      }
      found.push({ x, y, value });
      if (found.length > PEAKS) {
        found.sort((p, q) => q.value - p.value);
        found.length = PEAKS;
        least = found.at(-1)!.value;
      }
    }
  }
  return found;
}

/**
 * Where b lies on a.
 * @param expected middle of b from that of a, small pixels, y down: of places that fit as well it is
 *   the nearer that counts (windows of a façade look the same)
 */
export function laidOn(a: Ready, b: Ready, expected: { x: number; y: number } | null): Laid {
  const { side } = a;
  const field = productBack(a.spectrum, b.spectrum, side);
  const least = LEAST_SHARE * Math.min(a.width * a.height, b.width * b.height);
  const fromMiddles = { x: (a.width - b.width) / 2, y: (a.height - b.height) / 2 };
  // Transforms go round: a peak stands for one of four places.
  const tried = peaks(field, side).flatMap(({ x, y }) =>
    [x, x - side].flatMap((left) => [y, y - side].map((top) => ({ x: left, y: top }))),
  );
  if (expected) {
    const [x, y] = [Math.round(expected.x + fromMiddles.x), Math.round(expected.y + fromMiddles.y)];
    tried.push({ x, y });
  }
  let best: Laid | null = null;
  let bestWorth = -Infinity;
  for (const { x, y } of tried) {
    const shared =
      Math.max(0, Math.min(a.width, x + b.width) - Math.max(0, x)) *
      Math.max(0, Math.min(a.height, y + b.height) - Math.max(0, y));
    if (shared < least) continue;
    const { alike, pixels } = alikeAt(a.even, b.even, x, y);
    const [dx, dy] = [x - fromMiddles.x, y - fromMiddles.y];
    const far = expected ? Math.hypot(dx - expected.x, dy - expected.y) / Math.max(a.width, a.height) : 0; // prettier-ignore
    const worth = alike - NEARER_COUNTS * Math.min(1, far);
    if (worth <= bestWorth) continue;
    bestWorth = worth;
    const chance = OVER_CHANCE / Math.sqrt(pixels / Math.max(a.grainPx, b.grainPx));
    best = {
      dx,
      dy,
      alike,
      share: shared / Math.min(a.width * a.height, b.width * b.height),
      sure: alike > Math.max(LEAST_ALIKE, Math.min(0.8, chance)),
    };
  }
  return best ?? { dx: 0, dy: 0, alike: 0, share: 0, sure: false };
}

const NEARER_COUNTS = 0.1;

/** How far a part of an overlap may lie from where the whole does, small pixels. */
const ASTRAY_PX = 10;
/** Less than this each way tells nothing. */
const LEAST_HALF_PX = 9;
/** A part has to be so much more alike elsewhere to be looked for there. */
const BETTER = 0.08;

/**
 * Where one part of an overlap lies, when near things went otherwise than the whole.
 * @param at middle of the part on a, from a's middle; `way` b's middle from a's: small pixels, y down
 * @param halfPx half the side of what is compared
 * @returns how far b shows it from where the whole would have it, whole small pixels
 */
export function partOff(
  a: Ready,
  b: Ready,
  at: { x: number; y: number },
  way: { x: number; y: number },
  halfPx: number,
): { x: number; y: number } {
  const r = Math.max(LEAST_HALF_PX, Math.round(halfPx));
  const [ax, ay] = [Math.round(at.x + a.width / 2), Math.round(at.y + a.height / 2)];
  const [bx, by] = [
    Math.round(at.x - way.x + b.width / 2),
    Math.round(at.y - way.y + b.height / 2),
  ];
  const likeness = (dx: number, dy: number): number => {
    const left = Math.max(-r, -ax, -bx - dx);
    const right = Math.min(r, a.width - ax, b.width - bx - dx);
    const top = Math.max(-r, -ay, -by - dy);
    const foot = Math.min(r, a.height - ay, b.height - by - dy);
    if (right - left < r || foot - top < r) return -1;
    let [n, sa, sb, saa, sbb, sab] = [0, 0, 0, 0, 0, 0];
    for (let y = top; y < foot; y++) {
      let i = (ay + y) * a.width + ax + left;
      let j = (by + dy + y) * b.width + bx + dx + left;
      for (let x = left; x < right; x++, i++, j++) {
        const [u, v] = [a.even.data[i]!, b.even.data[j]!];
        n++; sa += u; sb += v; saa += u * u; sbb += v * v; sab += u * v;
      } // prettier-ignore
    }
    const [va, vb] = [saa - (sa * sa) / n, sbb - (sb * sb) / n];
    return va > 0 && vb > 0 ? (sab - (sa * sb) / n) / Math.sqrt(va * vb) : -1;
  };
  const here = likeness(0, 0);
  // Most parts lie where the whole does: only those that do not are looked for.
  if (here > 1 - 2 * BETTER) return { x: 0, y: 0 };
  let best = { x: 0, y: 0, alike: Math.max(here, LEAST_ALIKE) + BETTER };
  for (let dy = -ASTRAY_PX; dy <= ASTRAY_PX; dy++) {
    for (let dx = -ASTRAY_PX; dx <= ASTRAY_PX; dx++) {
      const alike = likeness(dx, dy);
      if (alike > best.alike) best = { x: dx, y: dy, alike };
    }
  }
  return { x: best.x, y: best.y };
}
