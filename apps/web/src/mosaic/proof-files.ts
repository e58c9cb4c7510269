import type { Shown } from '@gangway/frames';

/** The preview of a mosaic as a file that says where on the plan it lies. */

export interface Placed {
  readonly picture: Shown;
  /** Its top left corner, mm of picture coordinates. */
  readonly leftMm: number;
  readonly topMm: number;
  readonly pitchMm: number;
  readonly title: string;
}

/** What is written into the file of where it lies. */
export const placeText = ({ picture, leftMm, topMm, pitchMm }: Placed): string =>
  JSON.stringify({
    left_mm: leftMm,
    top_mm: topMm,
    width_mm: picture.width * pitchMm,
    height_mm: picture.height * pitchMm,
    pixel_mm: pitchMm,
    from: 'the axis of the lens, on the plane of the sensor as the picture is seen, y up',
  });

/** Letters that these formats can write. */
const plain = (text: string): string => text.replace(/[^\x20-\x7e\xa0-\xff]/g, '?');

export async function proofPng(placed: Placed): Promise<Uint8Array<ArrayBuffer>> {
  const { encode } = await import('fast-png');
  const { width, height, data } = placed.picture;
  const text = { Title: plain(placed.title), Description: placeText(placed), Software: 'Gangway' };
  return new Uint8Array(encode({ width, height, data, channels: 4, depth: 8, text }));
}

/** Tags of TIFF 6.0 that are written, and their kinds. */
const ASCII = 2;
const SHORT = 3;
const LONG = 4;
const RATIONAL = 5;

interface Tag {
  readonly tag: number;
  readonly type: number;
  readonly count: number;
  /** The value itself, or bytes that are written behind the table. */
  readonly value: number | Uint8Array;
}

const letters = (text: string): Uint8Array =>
  Uint8Array.from([...`${plain(text)}\0`], (letter) => letter.charCodeAt(0));

function numbers(values: readonly number[], bytes: 2 | 4): Uint8Array {
  const out = new DataView(new ArrayBuffer(values.length * bytes));
  values.forEach((value, i) => {
    if (bytes === 2) out.setUint16(i * 2, value, true);
    else out.setUint32(i * 4, value, true);
  });
  return new Uint8Array(out.buffer);
}

/** Pixels a centimetre to a thousandth. */
const perCm = (pitchMm: number): readonly number[] => [Math.round(10_000 / pitchMm), 1000];

/** Unpacked, in one strip, opacity kept. Source: TIFF 6.0, Baseline RGB images and ExtraSamples. */
export function proofTiff(placed: Placed): Uint8Array<ArrayBuffer> {
  const { picture, title, pitchMm } = placed;
  const { width, height, data } = picture;
  const tags: Tag[] = [
    { tag: 256, type: LONG, count: 1, value: width },
    { tag: 257, type: LONG, count: 1, value: height },
    { tag: 258, type: SHORT, count: 4, value: numbers([8, 8, 8, 8], 2) },
    { tag: 259, type: SHORT, count: 1, value: 1 },
    { tag: 262, type: SHORT, count: 1, value: 2 },
    text(270, `${title}\n${placeText(placed)}`.replace('\n', ' ')),
    { tag: 273, type: LONG, count: 1, value: 0 },
    { tag: 277, type: SHORT, count: 1, value: 4 },
    { tag: 278, type: LONG, count: 1, value: height },
    { tag: 279, type: LONG, count: 1, value: data.length },
    { tag: 282, type: RATIONAL, count: 1, value: numbers(perCm(pitchMm), 4) },
    { tag: 283, type: RATIONAL, count: 1, value: numbers(perCm(pitchMm), 4) },
    { tag: 284, type: SHORT, count: 1, value: 1 },
    { tag: 296, type: SHORT, count: 1, value: 3 },
    text(305, 'Gangway'),
    // The opacity is not multiplied in.
    { tag: 338, type: SHORT, count: 1, value: 2 },
  ];
  const table = 8 + 2 + 12 * tags.length + 4;
  let at = table;
  const places = tags.map(({ value }) => {
    if (typeof value === 'number') return 0;
    const from = at;
    at += value.length + (value.length % 2);
    return from;
  });
  const bytes = new Uint8Array(at + data.length);
  const view = new DataView(bytes.buffer);
  bytes.set([0x49, 0x49, 42, 0, 8, 0, 0, 0]);
  view.setUint16(8, tags.length, true);
  tags.forEach(({ tag, type, count, value }, i) => {
    const entry = 10 + 12 * i;
    view.setUint16(entry, tag, true);
    view.setUint16(entry + 2, type, true);
    view.setUint32(entry + 4, count, true);
    if (typeof value === 'number') view.setUint32(entry + 8, tag === 273 ? at : value, true);
    else {
      view.setUint32(entry + 8, places[i]!, true);
      bytes.set(value, places[i]);
    }
  });
  bytes.set(data, at);
  return bytes;
}

const text = (tag: number, words: string): Tag => {
  const value = letters(words);
  return { tag, type: ASCII, count: value.length, value };
};
