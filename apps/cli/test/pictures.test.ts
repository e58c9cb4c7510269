import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { newStation, type Station } from '@gangway/station';
import sharp, { type Sharp } from 'sharp';
import { toSrgb } from '../../../packages/frames/src/planes/light.js';
import type { Plane } from '../../../packages/frames/src/planes/plane.js';
import { edgePicture, transfer } from '../../../packages/frames/test/helpers/edges.js';
import { gridPlan, shotPlane } from '../../../packages/frames/test/helpers/mosaic.js';
import { lookAt, scene } from '../../../packages/frames/test/helpers/scene.js';
import { run } from '../src/main.js';

const folder = mkdtempSync(join(tmpdir(), 'gangway-pictures-'));
const at = (name: string): string => join(folder, name);

async function command(...args: string[]): Promise<{ code: number; out: string; err: string }> {
  let [out, err] = ['', ''];
  const code = await run(args, {
    stdin: (async function* () {})(),
    out: (text) => (out += text),
    err: (text) => (err += text),
  });
  return { code, out, err };
}

/** Light as a camera writes it: sRGB, 8 bits unless told. */
function coded({ width, height, data }: Plane, bits: 8 | 16 = 8): Sharp {
  const most = bits === 8 ? 255 : 65_535;
  const channels = 3;
  const values = new (bits === 8 ? Uint8Array : Uint16Array)(data.length * channels);
  data.forEach((light, i) => {
    values.fill(Math.round(most * toSrgb(Math.max(0, Math.min(1, light)))), 3 * i, 3 * i + 3);
  });
  const raw = sharp(values, { raw: { width, height, channels } });
  return bits === 8 ? raw : raw.toColourspace('rgb16');
}

const GRID = { columns: 3, rows: 1, widthPx: 300, heightPx: 200, overlap: 0.35, pitchMm: 0.12 };
const PLAN = gridPlan(GRID);
const SCENE = scene(5);
const frame = (i: number): Plane =>
  shotPlane(PLAN, SCENE, i, i === 1 ? { off: { x: 1.2, y: -0.7 } } : {}, { noise: 0.003, seed: i });

const STATION: Station = {
  ...newStation('a row'),
  back: { width_mm: 36, height_mm: 24, width_px: 300, height_px: 200, orientation: 'landscape' },
  mosaic: { pattern: 'free', moves: 'rear', places: PLAN.frames.map(({ xMm, yMm }) => ({ x_mm: xMm, y_mm: yMm })) }, // prettier-ignore
};

const station = at('station.json');
const names = [0, 1, 2].map((i) => at(`${i + 1}.jpg`));

beforeAll(async () => {
  writeFileSync(station, JSON.stringify(STATION));
  await Promise.all(names.map((name, i) => coded(frame(i)).jpeg({ quality: 95 }).toFile(name)));
});

describe('gangway prove', () => {
  it('prints where each frame lay, y up, as one line', async () => {
    const { code, out, err } = await command('prove', station, ...names);
    expect([code, err, out.trimEnd().includes('\n')]).toEqual([0, '', false]);
    const proof = JSON.parse(out);
    expect(proof).toMatchObject({ verdict: 'still', set_aside: [], missing: [], order_by: 'name' });
    const [, second] = proof.frames;
    expect(Math.abs(second.off_px[0] - 1.2)).toBeLessThan(0.25);
    expect(Math.abs(second.off_px[1] + 0.7)).toBeLessThan(0.25);
    expect(second.x_mm).toBeCloseTo(PLAN.frames[1]!.xMm + 1.2 * 0.12, 1);
    expect(proof.overlaps.map(({ a, b }: { a: number; b: number }) => [a, b])).toEqual([[1, 2], [2, 3]]); // prettier-ignore
    expect(proof.next_time).toBe('Lens, body and light stood still: merge it.');
  });

  it('names what is no frame, sets it aside, and goes on', async () => {
    const whole = readFileSync(names[0]!);
    writeFileSync(at('short.jpg'), whole.subarray(0, whole.length / 2));
    writeFileSync(at('words.jpg'), 'no picture, only words');
    await sharp({ create: { width: 90, height: 60, channels: 3, background: 'grey' } }).png().toFile(at('small.png')); // prettier-ignore
    // A header alone: what it claims is told before anything is read.
    const huge = await sharp({ create: { width: 2, height: 2, channels: 3, background: 'grey' } }).png().toBuffer(); // prettier-ignore
    huge.writeUInt32BE(60_000, 16);
    huge.writeUInt32BE(60_000, 20);
    writeFileSync(at('huge.png'), huge);
    writeFileSync(at('1-again.jpg'), whole);
    const odd = ['short.jpg', 'words.jpg', 'small.png', 'huge.png', 'none.jpg', '1-again.jpg'].map(at); // prettier-ignore
    const { code, out } = await command('prove', station, ...names, ...odd);
    const proof = JSON.parse(out) as {
      verdict: string;
      set_aside: { file: string; why: string }[];
    };
    expect([code, proof.verdict]).toEqual([0, 'still']);
    const why = Object.fromEntries(proof.set_aside.map((each) => [each.file.slice(folder.length + 1), each.why])); // prettier-ignore
    expect(why).toMatchObject({
      'short.jpg': 'it ends too early, or is damaged',
      'words.jpg': 'it cannot be read as a picture',
      'none.jpg': 'there is no such file',
      'small.png': 'it has 90 × 60 pixels, the others 300 × 200',
    });
    expect(why['huge.png']).toMatch(/^it claims .* pixels/);
    expect(Object.keys(why)).toHaveLength(6);
  });

  it('reads what cameras and converters write: turned by a note, CMYK, 16 bits, grey', async () => {
    // A note that says how to turn it, on a picture that lies on its side.
    await coded(frame(0)).rotate(-90).withMetadata({ orientation: 6 }).jpeg({ quality: 95 }).toFile(at('a.jpg')); // prettier-ignore
    await coded(frame(1)).toColourspace('cmyk').tiff().toFile(at('b.tif'));
    await coded(frame(2), 16).tiff({ compression: 'lzw' }).toFile(at('c.tif'));
    const { out } = await command('prove', station, at('a.jpg'), at('b.tif'), at('c.tif'));
    const proof = JSON.parse(out);
    expect(proof.set_aside).toEqual([]);
    expect(proof.overlaps.map(({ verdict }: { verdict: string }) => verdict)).not.toContain(
      'unsure',
    );
    expect(Math.abs(proof.frames[1].off_px[0] - 1.2)).toBeLessThan(0.25);
    expect(proof.notes).toEqual([
      { file: at('b.tif'), what: 'CMYK, brought to sRGB' },
      { file: at('c.tif'), what: '16 bits' },
    ]);
  });

  it('finds a wrong note of turning by what overlaps', async () => {
    await coded(frame(1)).rotate(180).jpeg({ quality: 95 }).toFile(at('2-turned.jpg'));
    const { out } = await command('prove', station, names[0]!, at('2-turned.jpg'), names[2]!);
    const proof = JSON.parse(out);
    expect([proof.verdict, proof.order_by]).toEqual(['still', 'overlap']);
    expect(Math.abs(proof.frames[1].turned_deg)).toBe(180);
  });

  it('says what it needs', async () => {
    const plain = at('plain.json');
    writeFileSync(plain, JSON.stringify(newStation('no mosaic')));
    expect(await command('prove', plain, names[0]!)).toMatchObject({ code: 2, err: 'prove: the station has no mosaic: lay one out, or give another station\n' }); // prettier-ignore
    expect((await command('prove', station)).err).toContain('give a station file and the frames');
    expect((await command('prove', station, '--fast', names[0]!)).err).toContain('--fast is no option of prove'); // prettier-ignore
    expect((await command('prove', at('none.json'), names[0]!)).code).toBe(2);
  });
});

describe('gangway measure', () => {
  it('edge: half contrast of a known edge, after a file of 8 bits, with an area and without', async () => {
    const look = { angleDeg: 6, gaussianPx: 0.9, noise: 0.003 };
    await coded(edgePicture(look)).png().toFile(at('edge.png'));
    const found = JSON.parse((await command('measure', 'edge', at('edge.png'))).out);
    expect(found.problems).toEqual([]);
    expect(found.angle_deg).toBeCloseTo(6, 1);
    expect(transfer(look)(found.mtf50_cy_px)).toBeCloseTo(0.5, 1);
    expect(found.mtf[0]).toEqual([0, 1]);
    const part = JSON.parse((await command('measure', 'edge', '--area', '10,10,100,100', at('edge.png'))).out); // prettier-ignore
    expect(part.mtf50_cy_px).toBeCloseTo(found.mtf50_cy_px, 2);
    const beyond = await command('measure', 'edge', at('edge.png'), '--area=60,60,100,100');
    expect([beyond.code, beyond.err]).toEqual([2, `${at('edge.png')}: --area reaches beyond the picture, which has 120 × 120 pixels\n`]); // prettier-ignore
    const none = JSON.parse((await command('measure', 'edge', at('edge.png'), '--area=0,0,40,100')).out); // prettier-ignore
    expect([none.mtf50_cy_px, none.problems.length > 0]).toEqual([null, true]);
  });

  it('flat: a list by stop, the middle found, movements for each file', async () => {
    const at3 = [[0, 0], [4, 9], [-4, -9]] as const; // prettier-ignore
    const files: string[] = [];
    for (const [k, [rise, shift]] of at3.entries()) {
      const white = lookAt({ at: (x, y) => {
        // Natural falloff of 24 mm about (0.8, −0.5) mm.
        const r = Math.hypot(shift + (x - 149.5) * 0.12 - 0.8, rise - (y - 99.5) * 0.12 + 0.5);
        return 0.7 / Math.hypot(1, r / 24) ** 4;
      } }, { width: 300, height: 200, x: 0, y: 0, noise: 0.002, seed: k }); // prettier-ignore
      files.push(at(`white-${k}.tif`));
      await coded(white, 16).tiff().toFile(files[k]!);
    }
    const asked = at3.flatMap(([rise, shift], i) => [files[i]!, `--at=${rise},${shift}`]);
    const { code, out, err } = await command('measure', 'flat', station, ...asked, '--f=8');
    expect([code, err]).toEqual([0, '']);
    const [found, ...more] = JSON.parse(out);
    expect([found.f_number, more]).toEqual([8, []]);
    expect(Math.hypot(found.centre[0] - 0.8, found.centre[1] + 0.5)).toBeLessThan(0.1);
    for (const { radius_mm, stops } of found.points) {
      expect(Math.abs(stops - 4 * Math.log2(Math.hypot(1, radius_mm / 24)))).toBeLessThan(0.03);
    }
    expect(found.circle_mm).toBeNull();
    const uneven = await command('measure', 'flat', station, ...files, '--at=0,0');
    expect(uneven.err).toContain('--at is given 1 times for 3 files: once for each');
    const mixed = JSON.parse((await command('measure', 'flat', station, ...files, '--f=4', '--f=8', '--f=8', '--at=0,0', '--at=4,9', '--at=-4,-9')).out); // prettier-ignore
    expect(mixed.map(({ f_number }: { f_number: number }) => f_number)).toEqual([4, 8]);
  });

  it('series: what is best, from files that tell no stop', async () => {
    const files = [0, 1, 2].map((i) => at(`series-${i}.png`));
    for (const [i, finestPx] of [3, 1, 2.2].entries()) {
      const plane = lookAt(scene(3, { finestPx: 1 }), { width: 420, height: 300, x: 0, y: 0, seed: i, noise: 0.003 }); // prettier-ignore
      await coded(plane).blur(finestPx).png().toFile(files[i]!);
    }
    const { out } = await command('measure', 'series', ...files, '--f=4', '--f=8', '--f=16');
    const found = JSON.parse(out);
    expect(found.best.centre ?? found.best.edge).toBe(8);
    expect(found.stops.map(({ f_number }: { f_number: number }) => f_number)).toEqual([4, 8, 16]);
    const blank = await command('measure', 'series', ...files);
    expect([blank.code, blank.err]).toEqual([2, `${files[0]}: it does not tell its f-number: give --f=N once for each file\n`]); // prettier-ignore
  });

  it('says what can be measured', async () => {
    expect((await command('measure', 'weight')).err).toContain('say what to measure: edge, flat, series'); // prettier-ignore
    expect((await command('measure', 'edge')).err).toContain('give one picture');
    expect((await command('measure', 'edge', 'a.jpg', '--area=1,2')).err).toContain('four whole numbers'); // prettier-ignore
    expect((await command('measure', 'flat', station, 'a.jpg', '--at=up')).err).toContain('RISE,SHIFT'); // prettier-ignore
    expect((await command('measure', 'series', 'a.jpg', '--zoom=2')).err).toContain('--zoom is no option here'); // prettier-ignore
    expect((await command('measure', 'series', 'a.jpg', 'b.jpg', '--focus=0', '--focus=1')).err).toContain('--width=36'); // prettier-ignore
  });
});
