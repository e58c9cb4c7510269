import { writeFileSync } from 'node:fs';
import { zipSync } from 'fflate';
import { BROWSER_ARGS } from './lib/browser.mjs';
import { ropewalk, wall } from './lib/demo-scenes.mjs';
import { ensureChromium, ensurePackages } from './lib/install.mjs';
import { at } from './lib/paths.mjs';

/**
 * Makes the small pictures that the demo measures: a mosaic that holds, one of which a frame slipped,
 * a white wall at five shifts, and a wall of bricks at every stop through a lens that is best at f/8.
 */

ensurePackages(console.log);
const { default: sharp } = await import('sharp');
const { chromium } = await import('@playwright/test');

const fromSrgb = (v) => (v <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4);
const toSrgb = (v) => (v <= 0.0031308 ? v * 12.92 : 1.055 * v ** (1 / 2.4) - 0.055);

function random(seed) {
  let state = seed >>> 0;
  const uniform = () => ((state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0) + 0.5) / 2 ** 32; // prettier-ignore
  return () => Math.sqrt(-2 * Math.log(uniform())) * Math.cos(2 * Math.PI * uniform());
}

async function drawn(scene, size) {
  const browser = await chromium.launch({ executablePath: ensureChromium(console.log), args: BROWSER_ARGS }); // prettier-ignore
  const page = await browser.newPage();
  const address = await page.evaluate(scene, size);
  await browser.close();
  return Buffer.from(address.split(',')[1], 'base64');
}

const clock = (second) => `2026:10:03 09:${String(10 + Math.floor(second / 60)).padStart(2, '0')}:${String(second % 60).padStart(2, '0')}`; // prettier-ignore

/** Linear light, three colours a pixel, as a JPEG with what a camera tells. */
async function jpeg(light, width, height, { second, fNumber, seed, noise = 0.003, quality = 88 }) {
  const normal = random(seed);
  const bytes = Buffer.alloc(light.length);
  for (let i = 0; i < light.length; i++) {
    const noisy = light[i] + noise * Math.sqrt(Math.max(light[i], 0.02)) * normal();
    bytes[i] = Math.round(255 * toSrgb(Math.min(1, Math.max(0, noisy))));
  }
  return sharp(bytes, { raw: { width, height, channels: 3 } })
    .withExif({
      IFD0: { Model: 'Demo camera' },
      IFD2: {
        DateTimeOriginal: clock(second),
        ...(fNumber ? { FNumber: `${Math.round(fNumber * 10)}/10` } : {}),
      },
    }) // prettier-ignore
    .jpeg({ quality, chromaSubsampling: '4:4:4' })
    .toBuffer();
}

async function lightOf(png) {
  const { data, info } = await sharp(png).removeAlpha().raw().toBuffer({ resolveWithObject: true });
  return { data: Float32Array.from(data, (v) => fromSrgb(v / 255)), width: info.width, height: info.height }; // prettier-ignore
}

/** A frame cut out of a scene drawn twice as large, from a place that may lie between pixels. */
function cutOut({ data, width }, left, top, w, h, gain) {
  const out = new Float32Array(3 * w * h);
  const sample = (x, y, c) => {
    const [i, j] = [Math.floor(x), Math.floor(y)];
    const [a, b] = [x - i, y - j];
    const v = (p, q) => data[3 * (q * width + p) + c];
    return (1 - b) * ((1 - a) * v(i, j) + a * v(i + 1, j)) + b * ((1 - a) * v(i, j + 1) + a * v(i + 1, j + 1)); // prettier-ignore
  };
  for (let y = 0; y < h; y++) {
    for (let x = 0; x < w; x++) {
      for (let c = 0; c < 3; c++) {
        let sum = 0;
        for (const [dx, dy] of [[0, 0], [1, 0], [0, 1], [1, 1]]) sum += sample(2 * (left + x) + dx, 2 * (top + y) + dy, c); // prettier-ignore
        out[3 * (y * w + x) + c] = (gain * sum) / 4;
      }
    }
  }
  return out;
}

const zip = (name, files) => {
  const stored = Object.fromEntries(Object.entries(files).map(([file, bytes]) => [file, [new Uint8Array(bytes), { level: 0, mtime: '2026-10-03T12:00:00' }]])); // prettier-ignore
  const bytes = zipSync(stored);
  writeFileSync(at(`apps/web/public/${name}.zip`), bytes);
  console.log(
    `${name}: ${Object.keys(files).length} pictures, ${Math.round(bytes.length / 1024)} kB`,
  );
};

/** Three upright frames of 24 × 36 mm that share 37.5 %, as the station has them. */
async function mosaics() {
  const [w, h] = [440, 660];
  const step = w * (1 - 0.375);
  const edge = 24;
  const scene = await lightOf(await drawn(ropewalk, { width: 2 * (w + 2 * Math.round(step) + 2 * edge), height: 2 * (h + 2 * edge) })); // prettier-ignore
  for (const [name, offs] of [
    [
      'demo-mosaic-holds',
      [
        [0, 0],
        [0.4, -0.3],
        [-0.3, 0.2],
      ],
    ],
    [
      'demo-mosaic-slipped',
      [
        [0, 0],
        [0.3, -0.2],
        [0.6, 6.4],
      ],
    ],
  ]) {
    // prettier-ignore
    const files = {};
    for (const [i, [dx, dy]] of offs.entries()) {
      const light = cutOut(scene, edge + i * step + dx, edge + dy, w, h, [0.8, 0.78, 0.82][i]);
      files[`OQ05${String(i + 11)}.JPG`] = await jpeg(light, w, h, { second: 30 * i, fNumber: 11, seed: 40 + i }); // prettier-ignore
    }
    zip(name, files);
  }
}

/** The lens of the demo's white wall: falloff in stops by radius, and where its light ends, mm. */
const CENTRE = { x: 0.4, y: -0.2 };
const FLAT_STOPS = [
  { fNumber: 3.5, natural: 3.1, ends: 31.4, soft: 3.2 },
  { fNumber: 8, natural: 1.9, ends: 33.6, soft: 1.1 },
];

/** Where each picture was taken: shift and rise, mm. */
const WHITE = {
  middle: [0, 0],
  right14: [14, 0],
  left14: [-14, 0],
  up14: [0, 14],
  down14: [0, -14],
};

/** Light of the white at a place of the picture, mm; a little more comes from one side. */
function whiteAt(x, y, { natural, ends, soft }) {
  const r = Math.hypot(x - CENTRE.x, y - CENTRE.y);
  const fall = natural * (r / 33) ** 2.2 + 4 * Math.exp((r - ends) / soft) ** 2;
  return 0.72 * 2 ** -(fall + 0.004 * x);
}

async function flat() {
  const [w, h] = [360, 240];
  const pitch = 36 / w;
  const files = {};
  let count = 0;
  for (const lens of FLAT_STOPS) {
    for (const [name, [shift, rise]] of Object.entries(WHITE)) {
      const light = Float32Array.from({ length: 3 * w * h }, (_, i) => {
        const at = Math.floor(i / 3);
        const [x, y] = [at % w, Math.floor(at / w)];
        return whiteAt((x + 0.5 - w / 2) * pitch + shift, (h / 2 - y - 0.5) * pitch + rise, lens);
      });
      const told = { second: 5 * count, fNumber: lens.fNumber, seed: 90 + count, noise: 0.004, quality: 92 }; // prettier-ignore
      files[`white-f${lens.fNumber}-${name}.jpg`] = await jpeg(light, w, h, told);
      count++;
    }
  }
  zip('demo-flat', files);
}

/** Blur in the middle and at the corner by stop, pixels; the right side lags. */
const SERIES = [
  [3.5, 0.95, 2.6],
  [5.6, 0.7, 1.75],
  [8, 0.5, 0.95],
  [11, 0.62, 0.9],
  [16, 0.95, 1.05],
  [22, 1.4, 1.45],
];

/** Light through a blur that differs from place to place; places are −1 to 1 each way, y down. */
function softened(light, width, height, sigmaAt) {
  const level = 0.25;
  const blurs = new Map();
  const at = (k) => {
    if (!blurs.has(k)) blurs.set(k, blurred(light, width, height, k * level));
    return blurs.get(k);
  };
  return Float32Array.from({ length: light.length }, (_, i) => {
    const place = Math.floor(i / 3);
    const [x, y] = [place % width, Math.floor(place / width)];
    const sigma = sigmaAt((2 * x) / width - 1, (2 * y) / height - 1) / level;
    const k = Math.floor(sigma);
    return at(k)[i] + (sigma - k) * (at(k + 1)[i] - at(k)[i]);
  });
}

async function wallLight(w, h) {
  const png = await drawn(wall, { width: 2 * w + 2, height: 2 * h + 2 });
  return cutOut(await lightOf(png), 0, 0, w, h, 0.8);
}

async function series() {
  const [w, h] = [720, 480];
  const wallAsIs = await wallLight(w, h);
  const files = {};
  for (const [i, [fNumber, middle, corner]] of SERIES.entries()) {
    const light = softened(wallAsIs, w, h, (u, v) => {
      const r = Math.min(1, Math.hypot(u * 1.5, v) / Math.hypot(1.5, 1));
      const lag = 1 + Math.max(0, u) * (fNumber < 8 ? 0.9 : 0.1);
      return (middle + (corner - middle) * r ** 2) * lag;
    });
    files[`wall-f${fNumber}.jpg`] = await jpeg(light, w, h, { second: 10 * i, fNumber, seed: 200 + i, quality: 90 }); // prettier-ignore
  }
  zip('demo-series', files);
}

/** What the demo's tilt scale reads when the lens is straight. */
const ZERO_DEG = 0.35;

async function zero() {
  const [w, h] = [480, 360];
  const wallAsIs = await wallLight(w, h);
  const files = {};
  for (const [i, deg] of [-1, -0.5, 0, 0.5, 1].entries()) {
    const light = softened(wallAsIs, w, h, (_, v) => Math.hypot(0.6, 2.6 * (deg - ZERO_DEG) * v));
    files[`lean${deg}.jpg`] = await jpeg(light, w, h, { second: 10 * i, fNumber: 3.5, seed: 320 + i, quality: 88 }); // prettier-ignore
  }
  zip('demo-zero', files);
}

/** Gaussian blur of light, one way after the other. */
function blurred(light, width, height, sigma) {
  if (sigma === 0) return light;
  const reach = Math.ceil(3.5 * sigma);
  const kernel = Array.from({ length: 2 * reach + 1 }, (_, i) => Math.exp(-((i - reach) ** 2) / (2 * sigma ** 2))); // prettier-ignore
  const sum = kernel.reduce((a, b) => a + b);
  const pass = (from, step, count, others) => {
    const out = new Float32Array(from.length);
    const place = (i) => 3 * step * Math.min(count - 1, Math.max(0, i));
    const one = (start, i, c) => kernel.reduce((value, part, k) => value + part * from[start + place(i + k - reach) + c], 0); // prettier-ignore
    for (const start of others) {
      for (let i = 0; i < 3 * count; i++) {
        const c = i % 3;
        out[start + place((i - c) / 3) + c] = one(start, (i - c) / 3, c) / sum;
      }
    }
    return out;
  };
  const rows = Array.from({ length: height }, (_, y) => 3 * y * width);
  const columns = Array.from({ length: width }, (_, x) => 3 * x);
  return pass(pass(light, 1, width, rows), width, height, columns);
}

/** Dark and light that meet 5° off the upright, through a lens that blurs by a pixel. */
async function edge() {
  const [w, h] = [300, 220];
  const light = new Float32Array(3 * w * h);
  const [c, s] = [Math.cos((5 * Math.PI) / 180), Math.sin((5 * Math.PI) / 180)];
  const normal = (x) => 0.5 * (1 + Math.tanh(Math.sqrt(2 / Math.PI) * x * (1 + 0.044_715 * x * x)));
  for (let y = 0; y < h; y++) {
    for (let x = 0; x < w; x++) {
      const d = (x + 0.5 - w / 2) * c + (y + 0.5 - h / 2) * s;
      light.fill(0.06 + 0.6 * normal(d / 0.75), 3 * (y * w + x), 3 * (y * w + x) + 3);
    }
  }
  zip('demo-edge', { 'edge-f8.jpg': await jpeg(light, w, h, { second: 0, fNumber: 8, seed: 7, noise: 0.002, quality: 95 }) }); // prettier-ignore
}

await mosaics();
await flat();
await series();
await edge();
await zero();
