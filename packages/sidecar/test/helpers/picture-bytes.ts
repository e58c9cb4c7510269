/** Small pictures made byte by byte, with nothing in them but what they tell of themselves. */

export interface Told {
  readonly make?: string;
  readonly model?: string;
  readonly taken?: string;
  readonly hundredths?: string;
  readonly exposure?: readonly [number, number];
  readonly iso?: number;
}

interface Entry {
  readonly tag: number;
  readonly type: 2 | 3 | 4 | 5;
  readonly bytes: Buffer;
  readonly count: number;
}

/** TIFF 6.0 and Exif 2.3: a header, an image directory, and one of the exposure. */
export function tiff(told: Told, { little = true, raw = false } = {}): Buffer {
  const u16 = (value: number): Buffer => {
    const bytes = Buffer.alloc(2);
    if (little) bytes.writeUInt16LE(value);
    else bytes.writeUInt16BE(value);
    return bytes;
  };
  const u32 = (value: number): Buffer => {
    const bytes = Buffer.alloc(4);
    if (little) bytes.writeUInt32LE(value);
    else bytes.writeUInt32BE(value);
    return bytes;
  };
  const ascii = (tag: number, text: string | undefined): Entry[] =>
    text === undefined ? [] : [{ tag, type: 2, bytes: Buffer.from(`${text}\0`, 'latin1'), count: text.length + 1 }]; // prettier-ignore
  const directory = (entries: readonly Entry[], at: number): Buffer => {
    let rest = at + 2 + entries.length * 12 + 4;
    const values: Buffer[] = [];
    const rows = entries.map(({ tag, type, bytes, count }) => {
      const head = Buffer.concat([u16(tag), u16(type), u32(count)]);
      if (bytes.length <= 4) return Buffer.concat([head, bytes, Buffer.alloc(4 - bytes.length)]);
      const even = bytes.length % 2 === 0 ? bytes : Buffer.concat([bytes, Buffer.alloc(1)]);
      values.push(even);
      const row = Buffer.concat([head, u32(rest)]);
      rest += even.length;
      return row;
    });
    return Buffer.concat([u16(entries.length), ...rows, u32(0), ...values]);
  };
  const exposure: Entry[] = [
    ...(told.exposure ? [{ tag: 0x829a, type: 5, bytes: Buffer.concat(told.exposure.map(u32)), count: 1 } as const] : []), // prettier-ignore
    ...(told.iso === undefined ? [] : [{ tag: 0x8827, type: 3, bytes: u16(told.iso), count: 1 } as const]), // prettier-ignore
    ...ascii(0x9003, told.taken),
    ...ascii(0x9291, told.hundredths),
  ];
  const image = (exifAt: number): Entry[] => [
    ...ascii(0x010f, told.make),
    ...ascii(0x0110, told.model),
    { tag: 0x8769, type: 4, bytes: u32(exifAt), count: 1 },
    // What makes a DNG of it: its version.
    ...(raw ? [{ tag: 0xc612, type: 4, bytes: Buffer.from([1, 4, 0, 0]), count: 1 } as const] : []),
  ];
  const exifAt = 8 + directory(image(0), 8).length;
  const header = Buffer.concat([Buffer.from(little ? 'II' : 'MM'), u16(42), u32(8)]);
  return Buffer.concat([header, directory(image(exifAt), 8), directory(exposure, exifAt)]);
}

/** JPEG: its own start and end, and the data in an APP1 segment. */
export function jpeg(told: Told): Buffer {
  const data = Buffer.concat([Buffer.from('Exif\0\0'), tiff(told, { little: false })]);
  const length = Buffer.alloc(2);
  length.writeUInt16BE(data.length + 2);
  return Buffer.concat([
    Buffer.from([0xff, 0xd8, 0xff, 0xe1]),
    length,
    data,
    Buffer.from([0xff, 0xd9]),
  ]);
}

/** HEIF (ISO/IEC 23008-12): boxes that say where the one item lies that holds the data. */
export function heic(told: Told): Buffer {
  const u32 = (value: number): Buffer => {
    const bytes = Buffer.alloc(4);
    bytes.writeUInt32BE(value);
    return bytes;
  };
  const u16 = (value: number): Buffer => u32(value).subarray(2);
  const box = (name: string, ...parts: Buffer[]): Buffer => {
    const body = Buffer.concat(parts);
    return Buffer.concat([u32(body.length + 8), Buffer.from(name), body]);
  };
  const full = (name: string, version: number, ...parts: Buffer[]): Buffer =>
    box(name, Buffer.from([version, 0, 0, 0]), ...parts);
  const data = Buffer.concat([u32(6), Buffer.from('Exif\0\0'), tiff(told, { little: false })]);
  const infe = full('infe', 2, u16(1), u16(0), Buffer.from('Exif\0'));
  const meta = (at: number): Buffer =>
    full(
      'meta',
      0,
      full('hdlr', 0, u32(0), Buffer.from('pict'), Buffer.alloc(13)),
      full('pitm', 0, u16(1)),
      full('iinf', 0, u16(1), infe),
      // Offsets and lengths of four bytes; one item, in one piece.
      full('iloc', 0, Buffer.from([0x44, 0x00]), u16(1), u16(1), u16(0), u16(1), u32(at), u32(data.length)), // prettier-ignore
    );
  const start = box('ftyp', Buffer.from('heic'), u32(0), Buffer.from('mif1heic'));
  const at = start.length + meta(0).length + 8;
  return Buffer.concat([start, meta(at), box('mdat', data)]);
}
