import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { LARGEST_SIDECAR_BYTES } from '@gangway/sidecar';
import type { Found, FoundFile } from '../files/dropped-pictures.js';
import { isPicture, isSidecar, picturesOf, stemKey, type Picture, type ReadFile, type ReadTold } from './picture-files.js'; // prettier-ignore

export interface Pictures {
  readonly pictures: readonly Picture[];
  /** Sidecars that lie there, by the picture’s key. */
  readonly sidecars: ReadonlyMap<string, FoundFile>;
  readonly folder: FileSystemDirectoryHandle | null;
  readonly reading: { readonly done: number; readonly of: number } | null;
  /** Every file that came, pictures and others. */
  readonly files: readonly FoundFile[];
  /** Files that are no pictures. */
  readonly left: number;
}

/** More than a shoot. */
const MOST = 20_000;
const TELL_MS = 120;

const NONE: Pictures = {
  pictures: [],
  sidecars: new Map(),
  folder: null,
  reading: null,
  files: [],
  left: 0,
};

/** Reads pictures in a worker, with progress and a stop. */
export function usePictures() {
  const [found, setFound] = useState<Found | null>(null);
  const [read, setRead] = useState<readonly ReadFile[]>([]);
  const [stopped, setStopped] = useState(false);
  const worker = useRef<Worker | null>(null);
  const stop = useCallback((): void => {
    worker.current?.terminate();
    worker.current = null;
    setStopped(true);
  }, []);
  useEffect(() => () => worker.current?.terminate(), []);

  const take = useCallback((next: Found): void => {
    worker.current?.terminate();
    const files = next.files.filter(({ path }) => isPicture(path)).slice(0, MOST);
    setFound({ ...next, files: next.files });
    setRead([]);
    setStopped(false);
    if (files.length === 0) return;
    const own = new Worker(new URL('./read-worker.ts', import.meta.url), { type: 'module' });
    worker.current = own;
    const all: ReadFile[] = [];
    let told: ReturnType<typeof setTimeout> | undefined;
    own.addEventListener('message', ({ data }: MessageEvent<ReadTold>) => {
      for (const each of data.read) all.push(each);
      const done = all.length >= files.length;
      // The page is drawn anew a few times a second, however fast files are read.
      told ??= setTimeout(
        () => {
          told = undefined;
          setRead([...all]);
        },
        done ? 0 : TELL_MS,
      );
      if (done) own.terminate();
    });
    own.addEventListener('error', () => setStopped(true));
    own.postMessage({ files });
  }, []);

  const pictures = useMemo((): Pictures => {
    if (!found) return NONE;
    const wanted = found.files.filter(({ path }) => isPicture(path));
    const sidecars = found.files.filter(({ path, file }) => isSidecar(path) && file.size <= LARGEST_SIDECAR_BYTES); // prettier-ignore
    const of = Math.min(wanted.length, MOST);
    return {
      pictures: picturesOf(read),
      sidecars: new Map(sidecars.map((each) => [stemKey(each.path), each])),
      folder: found.folder,
      files: found.files,
      reading: stopped || read.length >= of ? null : { done: read.length, of },
      left: found.files.length - wanted.length - found.files.filter(({ path }) => isSidecar(path)).length, // prettier-ignore
    };
  }, [found, read, stopped]);
  /** The same folder looked into again: its pictures are read already. */
  const renew = setFound;
  return useMemo(() => ({ ...pictures, take, stop, renew }), [pictures, take, stop, renew]);
}
