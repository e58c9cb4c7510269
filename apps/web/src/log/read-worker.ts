import exifr from 'exifr';
import { NO_FACTS, type FileFacts, type ReadAsked, type ReadFile, type ReadTold } from './picture-files.js'; // prettier-ignore

/** Reads pictures’ own data away from the page. Nothing leaves the machine. */

const OPTIONS = {
  tiff: true,
  exif: true,
  gps: false,
  ifd1: false,
  interop: false,
  xmp: false,
  icc: false,
  iptc: false,
  jfif: false,
  ihdr: false,
  mergeOutput: true,
  sanitize: true,
  translateValues: false,
  // Times are told without a zone: they are read by us, not by the zone this machine is in.
  reviveValues: false,
} as const;

const number = (value: unknown): number | null => {
  const one: unknown = Array.isArray(value) ? value[0] : value;
  return typeof one === 'number' && Number.isFinite(one) && one > 0 ? one : null;
};

const words = (value: unknown): string =>
  typeof value === 'string' ? value.replace(/\0/g, '').trim() : '';

/** `2026:10:03 07:12:08`, with the hundredths beside it. */
function clockOf(text: unknown, sub: unknown): number | null {
  const parts = /^(\d{4})[:-](\d\d)[:-](\d\d)[ T](\d\d):(\d\d):(\d\d)/.exec(words(text));
  if (!parts) return null;
  const [y, mo, d, h, mi, s] = parts.slice(1).map(Number) as [number, number, number, number, number, number]; // prettier-ignore
  const at = Date.UTC(y, mo - 1, d, h, mi, s) / 1000;
  const rest = Number(`0.${words(sub).replace(/\D/g, '') || '0'}`);
  return y < 1900 || !Number.isFinite(at) ? null : at + rest;
}

function factsFrom(tags: Record<string, unknown>): FileFacts {
  const camera = [tags.Make, tags.Model, tags.SerialNumber ?? tags.BodySerialNumber].map(words);
  return {
    clockS: clockOf(tags.DateTimeOriginal ?? tags.CreateDate ?? tags.DateTimeDigitized, tags.SubSecTimeOriginal), // prettier-ignore
    camera: camera.filter(Boolean).join(' '),
    timeS: number(tags.ExposureTime),
    iso: number(tags.ISO ?? tags.PhotographicSensitivity ?? tags.ISOSpeedRatings),
    widthPx: number(tags.ExifImageWidth ?? tags.ImageWidth),
    heightPx: number(tags.ExifImageHeight ?? tags.ImageHeight),
  };
}

const SMALL_PX = 160;
const DECODED = /\.(?:jpe?g|png|webp|avif)$/i;

/** The small picture a file carries, or one made of it where the browser can. */
async function thumbOf(path: string, file: File): Promise<Blob | null> {
  try {
    const bytes = await exifr.thumbnail(file);
    if (bytes) return new Blob([bytes as BlobPart], { type: 'image/jpeg' });
  } catch {
    // It carries none that can be read.
  }
  if (!DECODED.test(path)) return null;
  try {
    const bitmap = await createImageBitmap(file, { resizeWidth: SMALL_PX, resizeQuality: 'low' });
    const canvas = new OffscreenCanvas(bitmap.width, bitmap.height);
    canvas.getContext('2d')!.drawImage(bitmap, 0, 0);
    bitmap.close();
    return await canvas.convertToBlob({ type: 'image/jpeg', quality: 0.7 });
  } catch {
    return null;
  }
}

async function readOne(path: string, file: File): Promise<ReadFile> {
  try {
    const tags = (await exifr.parse(file, OPTIONS)) as Record<string, unknown> | undefined;
    const thumb = await thumbOf(path, file);
    const facts = tags ? factsFrom(tags) : NO_FACTS;
    return { path, facts, thumb, fault: tags ? null : 'It carries no data of its making.' };
  } catch {
    return { path, facts: NO_FACTS, thumb: null, fault: 'It cannot be read as a picture.' };
  }
}

/** Told this many at a time, so that the page is not called for each. */
const AT_ONCE = 12;

self.addEventListener('message', ({ data }: MessageEvent<ReadAsked>) => {
  void (async () => {
    for (let i = 0; i < data.files.length; i += AT_ONCE) {
      const part = data.files.slice(i, i + AT_ONCE);
      const read = await Promise.all(part.map(({ path, file }) => readOne(path, file)));
      self.postMessage({ read } satisfies ReadTold);
    }
  })();
});
