import sharp from 'sharp';
import { decode } from 'fast-png';
import { placeText, proofPng, proofTiff, type Placed } from '../src/mosaic/proof-files.js';

/** What is saved is read back by other libraries. */

const [width, height] = [5, 3];
const data = Uint8ClampedArray.from({ length: 4 * width * height }, (_, i) => (i % 4 === 3 ? (i === 3 ? 0 : 255) : (7 * i) % 256)); // prettier-ignore
const PLACED: Placed = { picture: { width, height, data }, leftMm: -27, topMm: 18.5, pitchMm: 0.05, title: 'Ropewalk — in three' }; // prettier-ignore

const PLACE = { left_mm: -27, top_mm: 18.5, width_mm: 0.25, height_mm: 3 * 0.05, pixel_mm: 0.05 };

it('a PNG holds the picture and its place', async () => {
  const png = decode(await proofPng(PLACED));
  expect([png.width, png.height, png.channels]).toEqual([width, height, 4]);
  expect([...png.data]).toEqual([...data]);
  expect(JSON.parse(png.text.Description!)).toMatchObject(PLACE);
  // What the format cannot write is marked, not lost.
  expect(png.text.Title).toBe('Ropewalk ? in three');
});

it('a TIFF holds the picture, its size and its place', async () => {
  const made = Buffer.from(proofTiff(PLACED));
  const back = await sharp(made).raw().toBuffer({ resolveWithObject: true });
  expect([back.info.width, back.info.height, back.info.channels]).toEqual([width, height, 4]);
  expect([...back.data]).toEqual([...data]);
  const told = await sharp(made).metadata();
  // 0.05 mm a pixel are 20 to the mm, 508 to the inch.
  expect([told.format, Math.round(told.density!), told.resolutionUnit]).toEqual([
    'tiff',
    508,
    'cm',
  ]);
  expect(made.toString('latin1')).toContain(placeText(PLACED));
});
