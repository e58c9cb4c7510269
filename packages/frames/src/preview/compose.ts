import { fromSrgb, toSrgb } from '../planes/light.js';
import type { ProvedFrame } from '../prove/result.js';
import { halfSize, onFrame, viewOf, type View } from '../prove/view.js';
import type { Shown } from './shown.js';
import { leastOf, mostOf } from '../numbers/extremes.js';

/** Frames laid together where a proof found them, exposure evened: a look at the seams, not a merge. */

export interface LaidFrame {
  readonly frame: Pick<
    ProvedFrame,
    'xMm' | 'yMm' | 'rotationDeg' | 'widthPx' | 'heightPx' | 'exposureStops'
  >;
  /** The file, whole and smaller ones, finest first. */
  readonly levels: readonly Shown[];
}

/** What is looked at: a piece of the picture and how large a pixel of the screen is on it. */
export interface Look {
  /** Of its top left corner, mm of picture coordinates. */
  readonly leftMm: number;
  readonly topMm: number;
  /** mm of a pixel that comes out. */
  readonly pitchMm: number;
  readonly width: number;
  readonly height: number;
}

export interface Laying {
  /** mm of a frame's pixel. */
  readonly pitchMm: number;
  readonly cylinderMm: number | null;
  /** How far frames run into each other at a seam, as a share of the way to their edges; 0 cuts them. */
  readonly blend: number;
  /** Whether seams are drawn. */
  readonly seams?: boolean;
}

const LINEAR = Float32Array.from({ length: 256 }, (_, i) => fromSrgb(i / 255));
const STEPS = 4095;
const CURVE = Uint8ClampedArray.from({ length: STEPS + 1 }, (_, i) => Math.round(255 * toSrgb(i / STEPS))); // prettier-ignore

interface Lying {
  readonly view: View;
  /** Of the frame's middle from the look's top left, and one pixel that comes out, frame pixels. */
  readonly x: number;
  readonly y: number;
  readonly step: number;
  readonly half: { readonly x: number; readonly y: number };
  /** The part of the look it can reach. */
  readonly box: {
    readonly x0: number;
    readonly x1: number;
    readonly y0: number;
    readonly y1: number;
  };
  readonly gain: number;
  readonly level: Shown;
  readonly perFilePx: number;
}

function lyingOf(look: Look, { frame, levels }: LaidFrame, { pitchMm, cylinderMm }: Laying): Lying {
  const across = Math.round(frame.rotationDeg / 90) % 2 !== 0;
  const file = across
    ? { widthPx: frame.heightPx, heightPx: frame.widthPx }
    : { widthPx: frame.widthPx, heightPx: frame.heightPx };
  const view = viewOf(file, frame.rotationDeg, cylinderMm === null ? null : cylinderMm / pitchMm);
  const step = look.pitchMm / pitchMm;
  const [x, y] = [(frame.xMm - look.leftMm) / pitchMm, (look.topMm - frame.yMm) / pitchMm];
  const half = halfSize(view);
  // Turned a little, a corner reaches farther than the frame's half.
  const lean = Math.abs(Math.sin(view.restRad));
  const reach = { x: half.x + lean * half.y, y: view.heightPx / 2 + lean * half.x };
  const within = (at: number, most: number): number => Math.max(0, Math.min(most, at));
  const fine = levels.findLast((level) => (level.width / file.widthPx) * step >= 1) ?? levels[0]!;
  return {
    view,
    x,
    y,
    step,
    half: { x: view.widthPx / 2, y: view.heightPx / 2 },
    box: {
      x0: within(Math.floor((x - reach.x) / step), look.width),
      x1: within(Math.ceil((x + reach.x) / step), look.width),
      y0: within(Math.floor((y - reach.y) / step), look.height),
      y1: within(Math.ceil((y + reach.y) / step), look.height),
    },
    gain: 2 ** -(frame.exposureStops ?? 0),
    level: fine,
    perFilePx: fine.width / file.widthPx,
  };
}

/** Calls with each pixel of the look that the frame covers, and where on the frame it lies. */
function eachPixel(
  { view, x, y, step, half, box }: Lying,
  width: number,
  visit: (at: number, u: number, v: number, inside: number) => void,
): void {
  const flat = view.cylinderPx === null && view.restRad === 0;
  for (let j = box.y0; j < box.y1; j++) {
    const dy = (j + 0.5) * step - y;
    for (let i = box.x0; i < box.x1; i++) {
      const dx = (i + 0.5) * step - x;
      const [u, v] = flat ? [dx, dy] : onFrame(view, dx, dy);
      const [toSide, toFoot] = [half.x - Math.abs(u), half.y - Math.abs(v)];
      // The product: between frames side by side the cut then runs straight, from edge to edge.
      const inside = toSide * toFoot;
      if (toSide > 0 && toFoot > 0) visit(j * width + i, u, v, inside);
    }
  }
}

/** Pixels of the screen to one of the picture from which its pixels are shown as squares. */
const SQUARES_FROM = 1.5;

/** Adds a frame's light; what lies between four pixels is shared among them. */
function adding(
  { view, half, level, perFilePx: k, gain, step }: Lying,
  sums: Float32Array,
): (at: number, u: number, v: number, weight: number) => void {
  const { width: w, height: h, data } = level;
  const { quarters } = view;
  const squares = 1 / (step * k) >= SQUARES_FROM;
  const add = (at: number, from: number, part: number): void => {
    const to = 4 * at;
    sums[to]! += part * gain * LINEAR[data[from]!]!;
    sums[to + 1]! += part * gain * LINEAR[data[from + 1]!]!;
    sums[to + 2]! += part * gain * LINEAR[data[from + 2]!]!;
    sums[to + 3]! += part;
  };
  return (at, u, v, weight) => {
    const [px, py] = [u + half.x, v + half.y];
    const fx = quarters === 0 ? px : quarters === 1 ? py : quarters === 2 ? 2 * half.x - px : 2 * half.y - py; // prettier-ignore
    const fy = quarters === 0 ? py : quarters === 1 ? 2 * half.x - px : quarters === 2 ? 2 * half.y - py : px; // prettier-ignore
    if (squares) {
      const i = Math.min(w - 1, Math.floor(fx * k));
      const j = Math.min(h - 1, Math.floor(fy * k));
      add(at, 4 * (j * w + i), weight);
      return;
    }
    const [sx, sy] = [Math.max(0, fx * k - 0.5), Math.max(0, fy * k - 0.5)];
    const i = Math.min(w - 1, Math.floor(sx));
    const j = Math.min(h - 1, Math.floor(sy));
    const [a, b] = [Math.min(1, sx - i), Math.min(1, sy - j)];
    const right = i + 1 < w ? 4 : 0;
    const below = j + 1 < h ? 4 * w : 0;
    const from = 4 * (j * w + i);
    add(at, from, weight * (1 - a) * (1 - b));
    add(at, from + right, weight * a * (1 - b));
    add(at, from + below, weight * (1 - a) * b);
    add(at, from + right + below, weight * a * b);
  };
}

/** @returns the piece that is looked at; clear where no frame lies */
export function composed(look: Look, frames: readonly LaidFrame[], laying: Laying): Shown {
  const { width, height } = look;
  const lying = frames
    .map((each) => lyingOf(look, each, laying))
    .filter(({ box }) => box.x1 > box.x0 && box.y1 > box.y0);
  // Each place belongs to the frame whose edges are farthest from it.
  const deepest = new Float32Array(width * height);
  const owner = new Uint16Array(width * height);
  lying.forEach((each, i) =>
    eachPixel(each, width, (at, _u, _v, inside) => {
      if (inside <= deepest[at]!) return;
      deepest[at] = inside;
      owner[at] = i + 1;
    }),
  );
  const sums = new Float32Array(4 * width * height);
  const blend = Math.max(laying.blend, 1e-6);
  for (const each of lying) {
    const add = adding(each, sums);
    eachPixel(each, width, (at, u, v, inside) => {
      const weight = 1 - (1 - inside / deepest[at]!) / blend;
      if (weight > 0) add(at, u, v, weight);
    });
  }
  const out = new Uint8ClampedArray(sums.length);
  for (let i = 0; i < out.length; i += 4) {
    const all = sums[i + 3]!;
    if (all === 0) continue;
    for (let c = 0; c < 3; c++) {
      out[i + c] = CURVE[Math.min(STEPS, Math.round((STEPS * sums[i + c]!) / all))]!;
    }
    out[i + 3] = 255;
  }
  if (laying.seams) drawSeams(owner, width, out);
  return { width, height, data: out };
}

/** Pixels of a dash. */
const DASH = 6;

/** Where one frame's part ends and another's begins: dark and light in turn, so that it shows on anything. */
function drawSeams(owner: Uint16Array, width: number, out: Uint8ClampedArray): void {
  for (let at = 0; at + width < owner.length; at++) {
    const [own, right, below] = [owner[at]!, owner[at + 1]!, owner[at + width]!];
    const beside = at % width < width - 1 && right !== own && right > 0;
    if (own === 0 || !(beside || (below !== own && below > 0))) continue;
    const along = beside ? Math.floor(at / width) : at % width;
    out.fill(Math.floor(along / DASH) % 2 === 0 ? 255 : 0, 4 * at, 4 * at + 3);
  }
}

/** The box round all frames, mm of picture coordinates; null without frames. */
export function boxOf(
  frames: readonly LaidFrame['frame'][],
  { pitchMm, cylinderMm }: Pick<Laying, 'pitchMm' | 'cylinderMm'>,
): { leftMm: number; rightMm: number; topMm: number; footMm: number } | null {
  if (frames.length === 0) return null;
  const boxes = frames.map(({ xMm, yMm, widthPx, heightPx }) => {
    const turned = { widthPx, heightPx, quarters: 0, restRad: 0, cylinderPx: cylinderMm === null ? null : cylinderMm / pitchMm }; // prettier-ignore
    const x = halfSize(turned).x * pitchMm;
    const y = (heightPx / 2) * pitchMm;
    return { leftMm: xMm - x, rightMm: xMm + x, topMm: yMm + y, footMm: yMm - y };
  });
  return {
    leftMm: leastOf(boxes.map(({ leftMm }) => leftMm)),
    rightMm: mostOf(boxes.map(({ rightMm }) => rightMm)),
    topMm: mostOf(boxes.map(({ topMm }) => topMm)),
    footMm: leastOf(boxes.map(({ footMm }) => footMm)),
  };
}
