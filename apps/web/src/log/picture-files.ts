import { isRaw, type FileFacts } from '@gangway/sidecar/facts';
import type { FoundFile } from '../files/dropped-pictures.js';

/** What comes back from reading one file. */
export interface ReadFile {
  readonly path: string;
  readonly facts: FileFacts;
  readonly thumb: Blob | null;
  readonly fault: string | null;
}

/** One exposure: a raw file and the JPEG of the same name are one. */
export interface Picture {
  /** Path without its extension. */
  readonly key: string;
  /** The file that stands for it: the raw one, where there is one. */
  readonly name: string;
  readonly folder: string;
  readonly facts: FileFacts;
  readonly thumb: Blob | null;
  readonly fault: string | null;
  readonly names: readonly string[];
}

export { isPicture } from '../files/picture-names.js';
export const isSidecar = (path: string): boolean => /\.xmp$/i.test(path);

const folderOf = (path: string): string => path.slice(0, path.lastIndexOf('/') + 1);
export const baseOf = (path: string): string => path.slice(path.lastIndexOf('/') + 1);
export const stemKey = (path: string): string =>
  `${folderOf(path)}${baseOf(path).replace(/\.[^.]*$/, '')}`.toLowerCase();

/** Files of one name in one folder as one picture. */
export function picturesOf(read: readonly ReadFile[]): Picture[] {
  const byStem = new Map<string, ReadFile[]>();
  for (const each of read) {
    const key = stemKey(each.path);
    byStem.set(key, [...(byStem.get(key) ?? []), each]);
  }
  return [...byStem].map(([key, all]) => {
    const first = all.find(({ path }) => isRaw(path)) ?? all[0]!;
    const told = all.find(({ facts }) => facts.clockS !== null) ?? first;
    return {
      key,
      name: baseOf(first.path),
      folder: folderOf(first.path),
      facts: told.facts,
      thumb: all.find(({ thumb }) => thumb !== null)?.thumb ?? null,
      fault: told.facts.clockS === null ? (first.fault ?? 'It tells no time.') : null,
      names: all.map(({ path }) => baseOf(path)),
    };
  });
}

/** Messages to and from the worker that reads. */
export interface ReadAsked {
  readonly files: readonly FoundFile[];
}
export interface ReadTold {
  readonly read: readonly ReadFile[];
}
