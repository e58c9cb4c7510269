import { spawn } from 'node:child_process';
import { existsSync, mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { performance } from 'node:perf_hooks';
import { pathToFileURL } from 'node:url';
import { longest, watch as watchPage, watched } from './bench-page.mjs';
import { withApp } from './browser.mjs';
import { at } from './paths.mjs';

/** Twelve frames of 24 megapixels proved, and the rate of tiles beside a general vision library's. */

const FRAME = { width: 6000, height: 4000 };
const STEP = { x: 3600, y: 2700 };
const [COLUMNS, ROWS] = [4, 3];
const TILE = 256;

/** Texture of several sizes, brought to size by the picture library. */
async function scene(sharp, width, height) {
  const sum = new Float32Array(width * height);
  for (const coarse of [3, 9, 40, 200]) {
    const [w, h] = [Math.ceil(width / coarse), Math.ceil(height / coarse)];
    let state = 12_345 + coarse;
    const noise = Buffer.alloc(w * h);
    for (let i = 0; i < noise.length; i++) {
      state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0;
      noise[i] = state >>> 24;
    }
    const layer =
      await sharp(noise, { raw: { width: w, height: h, channels: 1 }, limitInputPixels: false }) // prettier-ignore
        .resize(width, height, { kernel: 'cubic', fit: 'fill' })
        .toColourspace('b-w')
        .raw()
        .toBuffer();
    for (let i = 0; i < sum.length; i++) sum[i] += layer[i] - 127;
  }
  const out = new Uint8Array(sum.length);
  for (let i = 0; i < sum.length; i++) out[i] = Math.max(8, Math.min(247, 120 + sum[i] / 2));
  return out;
}

/** Frames as JPEG and the station that planned them. */
async function frames(sharp, folder) {
  mkdirSync(folder, { recursive: true });
  const width = FRAME.width + (COLUMNS - 1) * STEP.x + 40;
  const height = FRAME.height + (ROWS - 1) * STEP.y + 40;
  const whole = await scene(sharp, width, height);
  const names = [];
  for (let i = 0; i < COLUMNS * ROWS; i++) {
    const left = 20 + (i % COLUMNS) * STEP.x + ((i * 7) % 5) - 2;
    const top = 20 + Math.floor(i / COLUMNS) * STEP.y + ((i * 3) % 5) - 2;
    const pixels = Buffer.alloc(3 * FRAME.width * FRAME.height);
    for (let y = 0, to = 0; y < FRAME.height; y++) {
      for (let from = (top + y) * width + left, end = from + FRAME.width; from < end; from++) {
        pixels[to++] = whole[from];
        pixels[to++] = whole[from];
        pixels[to++] = whole[from];
      }
    }
    names.push(`${folder}/${String(i + 1).padStart(2, '0')}.jpg`);
    await sharp(pixels, { raw: { ...FRAME, channels: 3 } })
      .jpeg({ quality: 90 })
      .toFile(names[i]);
  }
  const pitch = 36 / FRAME.width;
  const station = JSON.parse(readFileSync(at('apps/server/demo/4-ropewalk.json'), 'utf8'));
  station.back = { width_mm: 36, height_mm: 24, width_px: 6000, height_px: 4000, orientation: 'landscape' }; // prettier-ignore
  station.mosaic = {
    pattern: 'free',
    moves: 'rear',
    places: names.map((_, i) => ({
      x_mm: ((i % COLUMNS) - (COLUMNS - 1) / 2) * STEP.x * pitch,
      y_mm: ((ROWS - 1) / 2 - Math.floor(i / COLUMNS)) * STEP.y * pitch,
    })),
  };
  writeFileSync(`${folder}/station.json`, JSON.stringify(station));
  return names;
}

/** Runs the command; @returns seconds, most memory in MB and what it printed */
function proved(args) {
  return new Promise((resolve, reject) => {
    const begin = performance.now();
    const child = spawn(process.execPath, [at('apps/cli/bin/gangway.mjs'), 'prove', ...args]);
    let [out, mostMb] = ['', 0];
    child.stdout.on('data', (chunk) => (out += chunk));
    child.stderr.pipe(process.stderr);
    const watch = setInterval(() => {
      const status = `/proc/${child.pid}/status`;
      const [, kb] = (existsSync(status) && /VmHWM:\s+(\d+)/.exec(readFileSync(status, 'utf8'))) || []; // prettier-ignore
      if (kb) mostMb = Math.max(mostMb, Number(kb) / 1024);
    }, 200);
    child.on('error', reject);
    child.on('exit', (code) => {
      clearInterval(watch);
      if (code !== 0) return reject(new Error(`gangway prove ended with ${code}`));
      return resolve({
        seconds: (performance.now() - begin) / 1000,
        mostMb,
        proof: JSON.parse(out),
      });
    });
  });
}

async function vision() {
  const { default: cv } = await import('@techstark/opencv-js');
  if (!cv.Mat) await new Promise((resolve) => (cv.onRuntimeInitialized = resolve));
  // Wrapped: it has a `then` of its own, which a promise would follow for ever.
  return { cv };
}

/** Phase correlation as the vision library's own transforms do it; this build of it has no single call. */
function correlating({ cv }) {
  const [a, b] = [0, 1].map(() => new cv.Mat(TILE, TILE, cv.CV_32F));
  const [fa, fb, back] = [new cv.Mat(), new cv.Mat(), new cv.Mat()];
  const none = new cv.Mat();
  return (one, other) => {
    a.data32F.set(one.data);
    b.data32F.set(other.data);
    cv.dft(a, fa, cv.DFT_COMPLEX_OUTPUT, 0);
    cv.dft(b, fb, cv.DFT_COMPLEX_OUTPUT, 0);
    const [p, q] = [fa.data32F, fb.data32F];
    for (let i = 0; i < p.length; i += 2) {
      const re = p[i] * q[i] + p[i + 1] * q[i + 1];
      const im = p[i + 1] * q[i] - p[i] * q[i + 1];
      const size = Math.sqrt(re * re + im * im) || 1;
      p[i] = re / size;
      p[i + 1] = im / size;
    }
    cv.dft(fa, back, cv.DFT_INVERSE | cv.DFT_REAL_OUTPUT | cv.DFT_SCALE, 0);
    return cv.minMaxLoc(back, none).maxLoc;
  };
}

/** Tiles of one picture, each against the same place a few pixels on. */
function tilePairs(cut, plane) {
  const pairs = [];
  for (let y = 16; y + TILE + 16 < plane.height && pairs.length < 40; y += TILE / 2) {
    for (let x = 16; x + TILE + 16 < plane.width && pairs.length < 40; x += TILE / 2) {
      const area = { x, y, width: TILE, height: TILE };
      pairs.push([cut(plane, area), cut(plane, { ...area, x: x + 5, y: y - 3 })]);
    }
  }
  return pairs;
}

/** Pairs a second of several ways, taken in turns so that a busy moment meets them all; the best of each. */
function rates(pairs, ways) {
  const best = ways.map(() => 0);
  for (let round = 0; round < 12; round++) {
    ways.forEach((work, i) => {
      const begin = performance.now();
      for (const [a, b] of pairs) work(a, b);
      best[i] = Math.max(best[i], (pairs.length * 1000) / (performance.now() - begin));
    });
  }
  return best;
}

export async function measureFrames(say, build) {
  const sharp = createRequire(at('apps/cli/package.json'))('sharp');
  const out = at('.data/bench-frames.mjs');
  const entry = (name) => JSON.stringify(at(`packages/frames/src/${name}`));
  await build({
    stdin: {
      contents: `export { matchTile } from ${entry('prove/tile.ts')}; export { cut } from ${entry('planes/plane.ts')};`,
      resolveDir: at('packages/frames'),
    },
    outfile: out,
    bundle: true,
    format: 'esm',
    platform: 'node',
    logLevel: 'warning',
  });
  const { matchTile, cut } = await import(pathToFileURL(out).href);
  const [width, height] = [1400, 1100];
  const values = await scene(sharp, width, height);
  const data = Float32Array.from(values, (value) => (value / 255) ** 2.2);
  const pairs = tilePairs(cut, { width, height, data });
  const [ours, theirs] = rates(pairs, [
    (a, b) => matchTile(a, b, 0.002),
    correlating(await vision()),
  ]);
  say(`tiles of ${TILE} px laid on each other: ${ours.toFixed(0)} a second, to a few hundredths of a pixel; a vision library’s phase correlation, whole pixels: ${theirs.toFixed(0)}`); // prettier-ignore
  const folder = at('.data/bench-frames');
  try {
    const names = await frames(sharp, folder);
    const { seconds, mostMb, proof } = await proved([`${folder}/station.json`, ...names]);
    say(`12 frames of 24 megapixels proved in ${seconds.toFixed(1)} s and ${mostMb.toFixed(0)} MB (60 s and 2048 MB allowed): ${proof.verdict}`); // prettier-ignore
    await onPage(say, `${folder}/station.json`, names);
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

/** The memory of pages and their workers together, MB; what they share is counted once. */
function pagesMb() {
  let kb = 0;
  for (const id of readdirSync('/proc')) {
    if (!/^\d+$/.test(id)) continue;
    try {
      if (!readFileSync(`/proc/${id}/cmdline`, 'utf8').includes('--type=renderer')) continue;
      kb += Number(/Pss:\s+(\d+)/.exec(readFileSync(`/proc/${id}/smaps_rollup`, 'utf8'))?.[1] ?? 0);
    } catch {
      // It has ended, or is another's.
    }
  }
  return kb / 1024;
}

/** The same frames dropped on the page: how long it takes, and how long the page is ever blocked. */
async function onPage(say, stationFile, names) {
  await withApp('bench', 4580, say, async (browser, address) => {
    const post = async (path, body) =>
      (
        await fetch(`${address}/api/${path}`, {
          method: 'POST',
          headers: { 'Content-Type': 'application/json' },
          body: JSON.stringify(body),
        })
      ).json();
    const job = await post('jobs', { name: 'Bench' });
    const document = JSON.parse(readFileSync(stationFile, 'utf8'));
    const station = await post(`jobs/${job.id}/stations`, { document });
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await page.goto(`${address}/jobs/${job.id}/stations/${station.id}/mosaic/prove`);
    await page.getByText('Do the frames fit?').waitFor();
    await page.waitForTimeout(1500);
    await watchPage(page);
    const begin = performance.now();
    let mostMb = 0;
    const watch = setInterval(() => (mostMb = Math.max(mostMb, pagesMb())), 500);
    await page.getByLabel('Frames of the mosaic').setInputFiles(names);
    await page.getByRole('button', { name: '100 %' }).waitFor({ timeout: 300_000 });
    const seconds = (performance.now() - begin) / 1000;
    clearInterval(watch);
    const { tasks } = await watched(page);
    say(`on the page: ${seconds.toFixed(1)} s, at most ${mostMb.toFixed(0)} MB; times the page was blocked for over 50 ms: ${longest(tasks)}`); // prettier-ignore
  });
}
