import sharp from 'sharp';
import { openPicture, openPictures } from '../src/pictures/open.js';
import { crc32, deflateSync } from 'node:zlib';
import { oriented } from '../src/pictures/oriented.js';

/** What the browser does not show is read here, so it can be tried without one. */

const [WIDTH, HEIGHT] = [6, 4];
const at = (x: number, y: number, c: number): number => 20 * x + 9 * y + 3 * c;
const pixels = (scale: number, channels = 3): number[] =>
  Array.from({ length: WIDTH * HEIGHT * channels }, (_, i) => {
    const k = Math.floor(i / channels);
    return scale * at(k % WIDTH, Math.floor(k / WIDTH), i % channels);
  });

const wide = (channels: 1 | 3 = 3) =>
  sharp(Uint16Array.from(pixels(257, channels)), { raw: { width: WIDTH, height: HEIGHT, channels } }).toColourspace(channels === 3 ? 'rgb16' : 'grey16'); // prettier-ignore
const narrow = (channels: 1 | 3 = 3) =>
  sharp(Uint8Array.from(pixels(1, channels)), { raw: { width: WIDTH, height: HEIGHT, channels } });

const found = async (path: string, bytes: Buffer | Promise<Buffer>) => ({ path, file: new File([new Uint8Array(await bytes)], path) }); // prettier-ignore

describe('TIFF', () => {
  it.each([
    ['deflate', { compression: 'deflate', predictor: 'horizontal' }],
    ['LZW', { compression: 'lzw' }],
    ['packed bits', { compression: 'packbits' }],
    ['nothing', { compression: 'none' }],
    ['deflate in tiles', { compression: 'deflate', tile: true, tileWidth: 16, tileHeight: 16 }],
  ] as const)('of 8 and 16 bits packed with %s is read to the last digit', async (_, options) => {
    for (const [made, scale, note] of [
      [narrow(), 1, null],
      [wide(), 257, '16 bits'],
    ] as const) {
      // prettier-ignore
      const opened = await openPicture(await found('a.tif', made.tiff(options).toBuffer()));
      expect([opened.file.widthPx, opened.file.heightPx, opened.note]).toEqual([WIDTH, HEIGHT, note]); // prettier-ignore
      const { data, channels } = await opened.samples();
      expect(channels).toBe(3);
      expect([...data]).toEqual(pixels(scale));
    }
  });

  it('in grey has one value a pixel', async () => {
    const opened = await openPicture(await found('a.tif', narrow(1).toColourspace('b-w').tiff({ compression: 'lzw' }).toBuffer())); // prettier-ignore
    const { data, channels } = await opened.samples();
    expect(channels).toBe(1);
    expect([...data]).toEqual(pixels(1, 1));
  });

  it('laid on its side stands as its note says', async () => {
    for (let orientation = 1; orientation <= 8; orientation++) {
      const bytes = await narrow().withMetadata({ orientation }).tiff({ compression: 'lzw' }).toBuffer(); // prettier-ignore
      const stood = await sharp(bytes).autoOrient().raw().toBuffer({ resolveWithObject: true });
      const opened = await openPicture(await found('a.tif', bytes));
      const { width, height, data } = await opened.samples();
      expect([opened.file.widthPx, width, height]).toEqual([stood.info.width, stood.info.width, stood.info.height]); // prettier-ignore
      expect([...data]).toEqual([...stood.data]);
    }
  });

  it('of one bit is refused in words', async () => {
    const bytes = await narrow(1)
      .toColourspace('b-w')
      .tiff({ compression: 'none', bitdepth: 1 })
      .toBuffer();
    await expect(openPicture(await found('a.tif', bytes))).rejects.toThrow('8 and 16 are');
  });
});

describe('other files', () => {
  it('PNG with 16 bits keeps them', async () => {
    const opened = await openPicture(await found('a.png', wide().png().toBuffer()));
    expect(opened.note).toBe('16 bits');
    expect([...(await opened.samples()).data]).toEqual(pixels(257));
  });

  it('what cannot be read says why', async () => {
    const jpeg = await narrow().jpeg().toBuffer();
    const claim = await narrow().png().toBuffer();
    claim.writeUInt32BE(60_000, 16);
    claim.writeUInt32BE(60_000, 20);
    for (const [path, bytes, why] of [
      ['cut.jpg', jpeg.subarray(0, jpeg.length - 40), 'it ends too early, or is damaged'],
      ['words.jpg', Buffer.from('no picture at all'), 'it cannot be read as a picture'],
      ['empty.tif', Buffer.alloc(0), 'it cannot be read as a picture'],
      ['claim.png', claim, 'it claims 60000 × 60000 pixels; at most 400 million are read'],
      ['a.dng', Buffer.from('II*\0 without anything'), 'it is a raw file without a preview inside'],
    ] as const) {
      await expect(openPicture(await found(path, Buffer.from(bytes)))).rejects.toThrow(why);
    }
  });

  it('a colour with four parts and a preview inside a raw file are said', async () => {
    const cmyk = await openPicture(await found('a.jpg', narrow().toColourspace('cmyk').jpeg().toBuffer())); // prettier-ignore
    expect(cmyk.note).toBe('CMYK, brought to sRGB');
    const raw = Buffer.concat([Buffer.from('II*\0 some raw data '), await narrow().jpeg().toBuffer()]); // prettier-ignore
    const opened = await openPicture(await found('a.dng', raw));
    expect([opened.note, opened.file.widthPx]).toEqual(['the preview inside a raw file', WIDTH]);
  });
});

it('turning samples four times by a quarter brings them back', () => {
  const samples = { width: 3, height: 2, channels: 1 as const, linear: false, data: Uint8Array.of(1, 2, 3, 4, 5, 6) }; // prettier-ignore
  let turned: Parameters<typeof oriented>[0] = samples;
  for (let i = 0; i < 4; i++) turned = oriented(turned, 6);
  expect(turned).toEqual(samples);
  // A quarter clockwise: the left column becomes the top row. Source: TIFF 6.0, Orientation 6.
  expect([...oriented(samples, 6).data]).toEqual([4, 1, 5, 2, 6, 3]);
});

describe('pictures that take much memory', () => {
  /** The head of a PNG of a size, with data that unpack to so many bytes. */
  function png(width: number, height: number, bits: number, unpacked: number): Buffer {
    const chunk = (type: string, data: Buffer): Buffer => {
      const length = Buffer.alloc(4);
      length.writeUInt32BE(data.length);
      const named = Buffer.concat([Buffer.from(type), data]);
      const crc = Buffer.alloc(4);
      crc.writeUInt32BE(crc32(named));
      return Buffer.concat([length, named, crc]);
    };
    const head = Buffer.alloc(13);
    head.writeUInt32BE(width, 0);
    head.writeUInt32BE(height, 4);
    head.set([bits, 0, 0, 0, 0], 8);
    return Buffer.concat([
      Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]),
      chunk('IHDR', head),
      chunk('IDAT', deflateSync(Buffer.alloc(unpacked))),
      chunk('IEND', Buffer.alloc(0)),
    ]);
  }

  it('are told before they are decoded, and read when a person says so', async () => {
    const large = await found('large.png', png(20_000, 20_000, 16, 100));
    const { aside, opened } = await openPictures([large]);
    expect(opened).toEqual([]);
    expect(aside).toEqual([
      {
        file: 'large.png',
        why: 'it has 400 million pixels and takes 1.6 GB of memory to read',
        large: true,
      },
    ]);
    const asked = await openPictures([{ ...large, anySize: true }]);
    expect(asked.opened[0]!.file).toMatchObject({ widthPx: 20_000, heightPx: 20_000 });
    // Larger than any back: a person is not even asked.
    const absurd = await openPictures([await found('a.png', png(60_000, 60_000, 16, 100))]);
    expect(absurd.aside[0]).not.toHaveProperty('large');
  });

  it('by what their data unpack to are not unpacked whole', async () => {
    const bomb = await openPicture(await found('bomb.png', png(20, 20, 16, 50_000_000)));
    await expect(bomb.samples()).rejects.toThrow('it ends too early, or is damaged');
    const sound = png(20, 20, 16, 20 * 41);
    expect((await openPicture(await found('a.png', sound))).file).toMatchObject({ widthPx: 20 });
    const samples = await (await openPicture(await found('a.png', sound))).samples();
    expect(samples.data).toHaveLength(400);
  });
});
