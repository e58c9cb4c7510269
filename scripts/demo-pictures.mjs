import { writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { at } from './lib/paths.mjs';
import { BROWSER_ARGS } from './lib/browser.mjs';
import { ensureChromium, ensurePackages } from './lib/install.mjs';

/**
 * Makes the small pictures that the demo's day is matched with: drawn here, with the times of a
 * camera that keeps winter time and is some seconds slow besides. One line has no file
 * where another of the same settings was made six seconds before: nobody can tell which is there.
 */

const CLOCK_S = -(3600 + 37);
/** From the shot to the tap, s. */
const TAPS_S = [2, 3, 2, 4, 3, 2, 5, 3, 2, 3];
const [WIDTH, HEIGHT] = [240, 160];

async function demoLog() {
  const { build } = await import('esbuild');
  const outfile = join(tmpdir(), `gangway-demo-${process.pid}.mjs`);
  await build({
    entryPoints: [at('apps/server/src/demo.ts')],
    outfile,
    bundle: true,
    platform: 'node',
    format: 'esm',
    external: ['drizzle-orm', 'express', 'pg', 'zod', 'yalps', 'helmet', 'pino'].flatMap((name) => [
      name,
      `${name}/*`,
    ]),
    nodePaths: [at('node_modules')],
    logLevel: 'error',
  });
  const { copyFileSync, rmSync } = await import('node:fs');
  const here = at('.data', `demo-${process.pid}.mjs`);
  copyFileSync(outfile, here);
  try {
    return (await import(pathToFileURL(here).href)).readDemo();
  } finally {
    rmSync(here);
    rmSync(outfile);
  }
}

const wall = (moment) => Date.parse(`${moment.slice(0, 19)}Z`) / 1000;

/** An Exif block (CIPA DC-008) with a picture's time, exposure and camera. */
function exif({ clockS, timeS, iso }) {
  const text = (value) => Buffer.from(`${value}\0`, 'latin1');
  const [n, d] = timeS < 1 ? [1, Math.round(1 / timeS)] : [Math.round(timeS * 10), 10];
  const rational = Buffer.alloc(8);
  rational.writeUInt32LE(n, 0);
  rational.writeUInt32LE(d, 4);
  const short = (value) => {
    const made = Buffer.alloc(2);
    made.writeUInt16LE(value);
    return made;
  };
  const long = (value) => {
    const made = Buffer.alloc(4);
    made.writeUInt32LE(value);
    return made;
  };
  const when = new Date(clockS * 1000).toISOString().slice(0, 19).replace('T', ' ').replaceAll('-', ':'); // prettier-ignore
  const ifd = (start, fields) => {
    const head = Buffer.alloc(2 + fields.length * 12 + 4);
    head.writeUInt16LE(fields.length, 0);
    let rest = Buffer.alloc(0);
    fields.forEach(([tag, type, count, value], i) => {
      const place = 2 + i * 12;
      head.writeUInt16LE(tag, place);
      head.writeUInt16LE(type, place + 2);
      head.writeUInt32LE(count, place + 4);
      if (value.length <= 4) value.copy(head, place + 8);
      else {
        head.writeUInt32LE(start + head.length + rest.length, place + 8);
        rest = Buffer.concat([rest, value]);
      }
    });
    return Buffer.concat([head, rest]);
  };
  const model = text('Demo camera');
  const first = (pointer) => ifd(8, [[0x0110, 2, model.length, model], [0x8769, 4, 1, long(pointer)]]); // prettier-ignore
  const second = ifd(8 + first(0).length, [
    [0x829a, 5, 1, rational],
    [0x8827, 3, 1, short(iso)],
    [0x9003, 2, 20, text(when)],
  ]);
  const tiff = Buffer.concat([Buffer.from('II*\0\x08\0\0\0', 'latin1'), first(8 + first(0).length), second]); // prettier-ignore
  const body = Buffer.concat([Buffer.from('Exif\0\0', 'latin1'), tiff]);
  const head = Buffer.from([0xff, 0xe1, 0, 0]);
  head.writeUInt16BE(body.length + 2, 2);
  return Buffer.concat([head, body]);
}

/** A place in a few strokes; what moves in front of it is elsewhere each time. */
const draw = ({ station, index, width, height }) => {
  const canvas = document.createElement('canvas');
  canvas.width = width;
  canvas.height = height;
  const c = canvas.getContext('2d');
  const skies = ['#b9c4cc', '#4d4a43', '#6d6558', '#26241f', '#8d99a0'];
  c.fillStyle = skies[station];
  c.fillRect(0, 0, width, height);
  c.fillStyle = ['#8c8473', '#7b7160', '#a39678', '#5b5347', '#5f6a4f'][station];
  if (station === 0) {
    c.fillRect(40, 26, 160, 110);
    c.fillStyle = '#3b3a36';
    for (let x = 52; x < 190; x += 24) for (let y = 38; y < 110; y += 26) c.fillRect(x, y, 11, 16);
  } else if (station === 1) {
    for (let i = 0; i < 6; i++) c.strokeRect(20 + i * 16, 14 + i * 9, 200 - i * 32, 120 - i * 16);
    c.fillRect(104, 62, 32, 40);
  } else if (station === 2) {
    for (let i = 0; i < 9; i++) c.fillRect(0, 30 + i * 11, width, 3);
    c.fillStyle = '#d8cfae';
    c.fillRect(0, 74, width, 5);
  } else if (station === 3) {
    for (const [x, h] of [
      [60, 70],
      [110, 92],
      [160, 58],
    ])
      c.fillRect(x, 130 - h, 22, h);
    c.fillStyle = '#c9bfa5';
    c.fillRect(0, 130, width, 4);
  } else {
    c.fillRect(0, 92, width, 68);
  }
  c.fillStyle = '#1d1c19';
  const x = 12 + ((index * 53) % (width - 24));
  c.fillRect(x, 118, 6, 18);
  c.beginPath();
  c.arc(x + 3, 114, 3.5, 0, 7);
  c.fill();
  return canvas.toDataURL('image/jpeg', 0.55);
};

ensurePackages(console.log);
const { log, day } = await demoLog();
const withFile = log.filter(({ film }) => film === undefined);
// Six seconds apart and alike: the second has no file, the first's was made between the two.
const doubtful = withFile.findIndex(({ at }) => at.includes('07:24:05'));
const shots = withFile.flatMap((line, i) => {
  if (i === doubtful + 1) return [];
  const back = i === doubtful ? -1 : TAPS_S[i % TAPS_S.length];
  return [{ line, shotS: wall(line.at) - back }];
});
// One that nobody logged.
const test = { line: withFile[9], shotS: wall(withFile[8].at) - 95 };
const all = [...shots, test].sort((a, b) => a.shotS - b.shotS);
const stations = day.map(({ id }) => id);

const { chromium } = await import('@playwright/test');
const browser = await chromium.launch({
  executablePath: ensureChromium(console.log),
  args: BROWSER_ARGS,
});
const page = await browser.newPage();
const { zipSync } = await import('fflate');
const files = {};
for (const [i, { line, shotS }] of all.entries()) {
  const address = await page.evaluate(draw, {
    station: stations.indexOf(line.station),
    index: i,
    width: WIDTH,
    height: HEIGHT,
  });
  const jpeg = Buffer.from(address.split(',')[1], 'base64');
  const facts = { clockS: Math.floor(shotS + CLOCK_S), timeS: line.flash ? 1 / 125 : line.time_s, iso: line.iso }; // prettier-ignore
  // After the start of the image (FF D8) comes the Exif block.
  const bytes = Buffer.concat([jpeg.subarray(0, 2), exif(facts), jpeg.subarray(2)]);
  files[`OQ${String(i + 412).padStart(4, '0')}.JPG`] = [new Uint8Array(bytes), { level: 0, mtime: '2026-10-03T12:00:00' }]; // prettier-ignore
}
await browser.close();
writeFileSync(at('apps/web/public/demo-pictures.zip'), zipSync(files));
console.log(`${all.length} pictures`);
