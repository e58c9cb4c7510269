import { imageSize } from 'image-size';
import type { FrameFile, LoadedFrame, Samples } from '@gangway/frames';
import { luminanceOf } from '@gangway/frames';
import { embeddedPreview, factsOf, isRaw, NO_FACTS, wholeJpeg, type FileFacts } from '@gangway/sidecar/facts'; // prettier-ignore
import type { FoundFile } from '../files/dropped-pictures.js';
import { onItsSide } from './oriented.js';
import { pngBytes, unpacksTo } from './png-bytes.js';

/** Picture files as numbers, in a worker: the browser's own decoders, and readers for what they leave out. */

/** More pixels than any back has; a file that claims them is broken or ill meant. */
const MOST_PX = 400_000_000;
/** From here on it is asked first: decoded, a pixel takes four bytes. */
export const ASKED_PX = 150_000_000;
const BYTES_A_PIXEL = 4;

export interface Opened {
  readonly file: FrameFile;
  readonly facts: FileFacts;
  /** What was done to read it that the figures rest on. */
  readonly note: string | null;
  /** The whole picture, read anew each time: a stack of files is not kept in memory. */
  readonly samples: () => Promise<Samples>;
}

export interface SetAside {
  readonly file: string;
  readonly why: string;
  /** It would be read if a person says so. */
  readonly large?: boolean;
}

/** It can be read, and takes more memory than is taken unasked. */
class Large extends Error {}

const NO_PICTURE = 'it cannot be read as a picture';
const CUT_SHORT = 'it ends too early, or is damaged';

interface Reader {
  readonly widthPx: number;
  readonly heightPx: number;
  readonly notes: readonly string[];
  /** Whether a profile was undone, after which the usual curve holds. */
  readonly profiled: boolean;
  readonly read: (linear: boolean) => Promise<Samples>;
}

const startsWith = (bytes: Uint8Array, ...start: readonly number[]): boolean =>
  start.every((byte, i) => bytes[i] === byte);
const isTiff = (bytes: Uint8Array): boolean =>
  startsWith(bytes, 0x49, 0x49, 0x2a, 0) || startsWith(bytes, 0x4d, 0x4d, 0, 0x2a);
const isPng = (bytes: Uint8Array): boolean => startsWith(bytes, 0x89, 0x50, 0x4e, 0x47);
const isJpeg = (bytes: Uint8Array): boolean => startsWith(bytes, 0xff, 0xd8);

/** Profiles stand before the picture. */
const HEAD_BYTES = 300_000;
const hasProfile = (bytes: Uint8Array): boolean =>
  /ICC_PROFILE|iCCP|ICCP/.test(new TextDecoder('latin1').decode(bytes.subarray(0, HEAD_BYTES)));

async function decoded(blob: Blob, width: number, height: number): Promise<Samples> {
  const bitmap = await createImageBitmap(blob).catch(() => {
    throw new Error(CUT_SHORT);
  });
  try {
    if (bitmap.width !== width || bitmap.height !== height) throw new Error(CUT_SHORT);
    const pen = new OffscreenCanvas(width, height).getContext('2d', { willReadFrequently: true });
    if (!pen) throw new Error('it is too large for this browser');
    pen.drawImage(bitmap, 0, 0);
    return { width, height, channels: 4, linear: false, data: pen.getImageData(0, 0, width, height).data }; // prettier-ignore
  } finally {
    bitmap.close();
  }
}

/** Files that the browser shows. */
function shownReader(blob: Blob, bytes: Uint8Array): Reader {
  const { width, height, orientation = 1 } = imageSize(bytes);
  const [widthPx, heightPx] = onItsSide(orientation) ? [height, width] : [width, height];
  const jpeg = isJpeg(bytes) ? wholeJpeg(bytes) : { colours: 3 };
  if (!jpeg) throw new Error(CUT_SHORT);
  return {
    widthPx,
    heightPx,
    notes: jpeg.colours === 4 ? ['CMYK, brought to sRGB'] : [],
    profiled: hasProfile(bytes),
    read: async (linear) => ({ ...(await decoded(blob, widthPx, heightPx)), linear }),
  };
}

/** Bits a colour stand in the 25th byte. Source: PNG (W3C), IHDR. */
const BITS_AT = 24;

/** PNG with 16 bits, of which the browser would drop 8. */
function widePng(blob: Blob, bytes: Uint8Array): Reader {
  const { width, height } = imageSize(bytes);
  return {
    widthPx: width,
    heightPx: height,
    notes: ['16 bits', ...(hasProfile(bytes) ? ['its colour profile is not applied'] : [])],
    profiled: false,
    read: async (linear) => {
      const { decode } = await import('fast-png');
      const whole = new Uint8Array(await blob.arrayBuffer());
      // It unpacks whatever is there, however much that is.
      if (!(await unpacksTo(whole, pngBytes(new DataView(whole.buffer)))))
        throw new Error(CUT_SHORT);
      const { data, channels } = decode(whole);
      return { width, height, linear, channels: channels as Samples['channels'], data: data as Uint16Array }; // prettier-ignore
    },
  };
}

async function tiffReader(blob: Blob): Promise<Reader> {
  const { openTiff } = await import('./tiff.js');
  const tiff = await openTiff(blob);
  return {
    ...tiff,
    notes: [
      ...(tiff.cmyk ? ['CMYK, brought to sRGB'] : []),
      ...(tiff.wide ? ['16 bits'] : []),
      ...(tiff.profile ? ['its colour profile is not applied'] : []),
    ],
    profiled: false,
    read: tiff.samples,
  };
}

async function readerOf(path: string, file: Blob, bytes: Uint8Array): Promise<Reader> {
  if (isRaw(path)) {
    const preview = embeddedPreview(bytes);
    if (!preview) throw new Error('it is a raw file without a preview inside');
    const own = new Uint8Array(preview);
    const reader = shownReader(new Blob([own], { type: 'image/jpeg' }), own);
    return { ...reader, notes: ['the preview inside a raw file', ...reader.notes] };
  }
  if (isTiff(bytes)) return tiffReader(file);
  if (isPng(bytes) && bytes[BITS_AT] === 16) return widePng(file, bytes);
  return shownReader(file, bytes);
}

const inWords = (error: unknown): string => {
  const said = error instanceof Error ? error.message : '';
  // Words of ours begin so; a library's are not for reading.
  return said.startsWith('it ') ? said : NO_PICTURE;
};

/** @throws with what is wrong, in words */
export async function openPicture({ path, file, anySize }: FoundFile): Promise<Opened> {
  try {
    const bytes = new Uint8Array(await file.arrayBuffer());
    const { widthPx, heightPx, notes, profiled, read } = await readerOf(path, file, bytes);
    if (widthPx * heightPx > MOST_PX) {
      throw new Error(`it claims ${widthPx} × ${heightPx} pixels; at most ${MOST_PX / 1e6} million are read`); // prettier-ignore
    }
    if (widthPx * heightPx > ASKED_PX && !anySize) {
      const gigabytes = ((widthPx * heightPx * BYTES_A_PIXEL) / 1e9).toFixed(1);
      throw new Large(
        `it has ${Math.round((widthPx * heightPx) / 1e6)} million pixels and takes ${gigabytes} GB of memory to read`,
      );
    }
    const facts = (await factsOf(bytes).catch(() => null)) ?? NO_FACTS;
    const linear = facts.linear && !profiled;
    const samples = async (): Promise<Samples> => {
      try {
        return await read(linear);
      } catch (error) {
        const said = inWords(error);
        throw new Error(said === NO_PICTURE ? CUT_SHORT : said);
      }
    };
    const load = async (): Promise<LoadedFrame> => loadedOf(await samples());
    const all = [...notes, ...(linear ? ['linear'] : [])];
    return {
      file: { name: path, widthPx, heightPx, takenS: facts.clockS, load },
      facts,
      note: all.length > 0 ? all.join(', ') : null,
      samples,
    };
  } catch (error) {
    if (error instanceof Large) throw error;
    throw new Error(inWords(error));
  }
}

export const loadedOf = (samples: Samples): LoadedFrame => ({
  piece: (area, every) => luminanceOf(samples, area, every),
  close: () => undefined,
});

/** Opens files one after another; those that cannot be opened are named. */
export async function openPictures(
  files: readonly FoundFile[],
  step: () => void = () => undefined,
): Promise<{ opened: Opened[]; aside: SetAside[] }> {
  const opened: Opened[] = [];
  const aside: SetAside[] = [];
  for (const each of files) {
    try {
      opened.push(await openPicture(each));
    } catch (error) {
      const large = error instanceof Large ? { large: true } : {};
      aside.push({ file: each.path, why: (error as Error).message, ...large });
    }
    step();
  }
  return { opened, aside };
}
