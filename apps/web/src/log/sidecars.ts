import { Zip, ZipPassThrough } from 'fflate';
import { sidecarText, type Written } from '@gangway/sidecar';

/** Sidecars of what was matched: looked at, then written. */

export interface Prepared {
  /** From the folder on. */
  readonly path: string;
  /** What lies there now; null: nothing. */
  readonly existing: string | null;
  readonly text: string;
  readonly kind: 'new' | 'changed' | 'same';
  readonly written: readonly Written[];
  readonly stays: readonly string[];
}

export interface Preparation {
  readonly ready: readonly Prepared[];
  readonly refused: readonly { readonly name: string; readonly why: string }[];
}

/** Longer at a stretch a page is felt to stand still, ms. */
const STRETCH_MS = 12;

/** Gives the page a turn now and then. */
function turns(): () => Promise<void> {
  let since = performance.now();
  return async () => {
    if (performance.now() - since < STRETCH_MS) return;
    await new Promise((resolve) => setTimeout(resolve));
    since = performance.now();
  };
}

/** A path inside an archive: never out of the folder it is unpacked in. */
export const inside = (path: string): string =>
  path
    .split('/')
    .filter((part) => part !== '' && part !== '.' && part !== '..')
    .map((part) => part.replace(/[\\:]/g, '_'))
    .join('/');

/** All that is new or changed, as one archive. */
export async function zipOf(ready: readonly Prepared[]): Promise<Blob> {
  const parts: BlobPart[] = [];
  const turn = turns();
  const zip = new Zip((error, chunk) => {
    if (error) throw error;
    parts.push(chunk as BlobPart);
  });
  const encoder = new TextEncoder();
  for (const { path, text, kind } of ready) {
    if (kind === 'same') continue;
    await turn();
    const entry = new ZipPassThrough(inside(path));
    zip.add(entry);
    entry.push(encoder.encode(text), true);
  }
  zip.end();
  return new Blob(parts, { type: 'application/zip' });
}

export interface WrittenOut {
  readonly written: number;
  readonly refused: readonly { readonly name: string; readonly why: string }[];
}

type AskedHandle = FileSystemDirectoryHandle & {
  requestPermission?: (options: { mode: 'readwrite' }) => Promise<PermissionState>;
};

/** Asks the person, where the browser wants that, whether the page may write into a folder. */
export async function mayWrite(folder: AskedHandle): Promise<boolean> {
  const answer = await folder.requestPermission?.({ mode: 'readwrite' }).catch(() => 'denied');
  return answer === undefined || answer === 'granted';
}

/** Writes beside the pictures. What lies there otherwise than it was read is left alone. */
export async function writeInto(
  folder: FileSystemDirectoryHandle,
  ready: readonly Prepared[],
): Promise<WrittenOut> {
  let written = 0;
  const refused: { name: string; why: string }[] = [];
  for (const { path, text, existing, kind } of ready) {
    if (kind === 'same') continue;
    try {
      const parts = path.split('/');
      const name = parts.pop()!;
      let at = folder;
      for (const part of parts) at = await at.getDirectoryHandle(part);
      const there = await at.getFileHandle(name).catch(() => null);
      const now = there
        ? sidecarText(new Uint8Array(await (await there.getFile()).arrayBuffer()))
        : null;
      if (now !== existing) {
        refused.push({ name: path, why: 'It was changed since it was read, and is left as it is. Read the folder again.' }); // prettier-ignore
        continue;
      }
      const handle = there ?? (await at.getFileHandle(name, { create: true }));
      const stream = await handle.createWritable();
      await stream.write(text);
      await stream.close();
      written++;
    } catch {
      refused.push({ name: path, why: 'It could not be written.' });
    }
  }
  return { written, refused };
}
