import exifr from 'exifr';
import { factsOf, NO_FACTS } from '@gangway/sidecar/facts';
import type { ReadAsked, ReadFile, ReadTold } from './picture-files.js';

/** Reads pictures’ own data away from the page. Nothing leaves the machine. */

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
