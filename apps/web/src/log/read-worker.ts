import exifr from 'exifr';
import { imageSize } from 'image-size';
import { factsOf, NO_FACTS } from '@gangway/sidecar/facts';
import type { ReadAsked, ReadFile, ReadTold } from './picture-files.js';

/** Reads pictures’ own data away from the page. Nothing leaves the machine. */

const SMALL_PX = 160;
/** Larger pictures are not decoded for a small one of them. */
const MOST_PX = 150_000_000;
/** Sizes stand at the beginning of a file; what comes before them is seldom longer. */
const HEAD_BYTES = 500_000;

/** Whether a picture is small enough to be decoded beside others. */
async function isModest(file: File): Promise<boolean> {
  try {
    const { width, height } = imageSize(
      new Uint8Array(await file.slice(0, HEAD_BYTES).arrayBuffer()),
    );
    return width * height <= MOST_PX;
  } catch {
    return false;
  }
}

/** One picture is decoded at a time, however many are read. */
let decoding: Promise<unknown> = Promise.resolve();
function alone<T>(work: () => Promise<T>): Promise<T> {
  const next = decoding.then(work, work);
  decoding = next.catch(() => undefined);
  return next;
}
const DECODED = /\.(?:jpe?g|png|webp|avif)$/i;

/** The small picture a file carries, or one made of it where the browser can. */
async function thumbOf(path: string, file: File): Promise<Blob | null> {
  try {
    const bytes = await exifr.thumbnail(file);
    if (bytes) return new Blob([bytes as BlobPart], { type: 'image/jpeg' });
  } catch {
    // It carries none that can be read.
  }
  if (!DECODED.test(path) || !(await isModest(file))) return null;
  return alone(() => decodedThumb(file));
}

async function decodedThumb(file: File): Promise<Blob | null> {
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
    const facts = await factsOf(file);
    const thumb = await thumbOf(path, file);
    return { path, facts: facts ?? NO_FACTS, thumb, fault: facts ? null : 'It carries no data of its making.' }; // prettier-ignore
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
