import exifr from 'exifr';

/** What a picture’s file tells of itself: JPEG, TIFF, HEIC and those raw formats that are TIFF inside. */

export interface FileFacts {
  /** By the camera’s clock, s of a clock without zones. */
  readonly clockS: number | null;
  readonly camera: string;
  readonly timeS: number | null;
  readonly iso: number | null;
  /** As written; a lens without contacts writes 0, which is none. */
  readonly fNumber: number | null;
  readonly widthPx: number | null;
  readonly heightPx: number | null;
  /** Whether its numbers are light itself: by a gamma of 1 in its own data. */
  readonly linear: boolean;
}

export const NO_FACTS: FileFacts = {
  clockS: null,
  camera: '',
  timeS: null,
  iso: null,
  fNumber: null,
  widthPx: null,
  heightPx: null,
  linear: false,
};

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
  // A camera that lost its time writes noughts, or a day that is none.
  const same = Number.isFinite(at) && new Date(at * 1000).toISOString().startsWith(`${parts[1]}-${parts[2]}-${parts[3]}T${parts[4]}:${parts[5]}:${parts[6]}`); // prettier-ignore
  const rest = Number(`0.${words(sub).replace(/\D/g, '') || '0'}`);
  return y < 1900 || !same ? null : at + rest;
}

function factsFrom(tags: Record<string, unknown>): FileFacts {
  const camera = [tags.Make, tags.Model, tags.SerialNumber ?? tags.BodySerialNumber].map(words);
  return {
    clockS: clockOf(tags.DateTimeOriginal ?? tags.CreateDate ?? tags.DateTimeDigitized, tags.SubSecTimeOriginal), // prettier-ignore
    camera: camera.filter(Boolean).join(' '),
    timeS: number(tags.ExposureTime),
    iso: number(tags.ISO ?? tags.PhotographicSensitivity ?? tags.ISOSpeedRatings),
    fNumber: number(tags.FNumber),
    widthPx: number(tags.ExifImageWidth ?? tags.ImageWidth),
    heightPx: number(tags.ExifImageHeight ?? tags.ImageHeight),
    linear: number(tags.Gamma) === 1,
  };
}

/** @returns null where the file carries no such data. @throws when it cannot be read at all */
export async function factsOf(file: Parameters<typeof exifr.parse>[0]): Promise<FileFacts | null> {
  const tags = (await exifr.parse(file, OPTIONS)) as Record<string, unknown> | undefined;
  return tags ? factsFrom(tags) : null;
}

export { embeddedPreview, isRaw, wholeJpeg } from './embedded-preview.js';
