/** Pictures as they come in, by drop or choice: files with the folder each lies in. */

export interface FoundFile {
  /** From the folder that was chosen on, with slashes. */
  readonly path: string;
  readonly file: File;
  /** A person was told how much memory it takes, and wants it read. */
  readonly anySize?: boolean;
}

export interface Found {
  readonly files: readonly FoundFile[];
  /** The folder itself, where the browser lets the page write into it. */
  readonly folder: FileSystemDirectoryHandle | null;
}

/** Deeper than this nobody keeps pictures. */
const DEEPEST = 8;

type Entries = AsyncIterable<[string, FileSystemHandle]>;

async function* filesUnder(
  folder: FileSystemDirectoryHandle,
  path: string,
  depth = 0,
): AsyncGenerator<FoundFile> {
  if (depth > DEEPEST) return;
  for await (const [name, handle] of folder as unknown as Entries) {
    const own = `${path}${name}`;
    if (handle.kind === 'directory') {
      yield* filesUnder(handle as FileSystemDirectoryHandle, `${own}/`, depth + 1);
    } else yield { path: own, file: await (handle as FileSystemFileHandle).getFile() };
  }
}

export async function filesInFolder(folder: FileSystemDirectoryHandle): Promise<Found> {
  const files: FoundFile[] = [];
  for await (const each of filesUnder(folder, '')) files.push(each);
  return { files, folder };
}

async function filesOfEntry(entry: FileSystemEntry, path: string, depth = 0): Promise<FoundFile[]> {
  if (depth > DEEPEST) return [];
  if (entry.isFile) {
    const file = await new Promise<File>((resolve, reject) =>
      (entry as FileSystemFileEntry).file(resolve, reject),
    );
    return [{ path: `${path}${entry.name}`, file }];
  }
  const reader = (entry as FileSystemDirectoryEntry).createReader();
  const found: FoundFile[] = [];
  for (;;) {
    const some = await new Promise<FileSystemEntry[]>((resolve, reject) =>
      reader.readEntries(resolve, reject),
    );
    if (some.length === 0) return found;
    for (const each of some) {
      const inside = await filesOfEntry(each, `${path}${entry.name}/`, depth + 1);
      for (const file of inside) found.push(file);
    }
  }
}

/** What of a drop has to be asked for at once; the browser forgets it when the event ends. */
export function droppedFrom(transfer: DataTransfer): () => Promise<Found> {
  const items = [...transfer.items].filter(({ kind }) => kind === 'file');
  type WithHandle = { getAsFileSystemHandle?: () => Promise<FileSystemHandle | null> };
  const handle = items.length === 1 ? (items[0] as unknown as WithHandle).getAsFileSystemHandle?.() : undefined; // prettier-ignore
  const entries = items.map((item) => item.webkitGetAsEntry());
  const plain = [...transfer.files];
  return async () => {
    const one = await handle?.catch(() => null);
    if (one?.kind === 'directory') return filesInFolder(one as FileSystemDirectoryHandle);
    if (entries.every((entry) => entry !== null)) {
      const files = await Promise.all(entries.map((entry) => filesOfEntry(entry!, '')));
      return { files: files.flat(), folder: null };
    }
    return { files: plain.map((file) => ({ path: file.name, file })), folder: null };
  };
}

/** Files of a file chooser, a folder’s with their paths. */
export const chosenFrom = (files: readonly File[]): Found => ({
  files: files.map((file) => ({ path: file.webkitRelativePath || file.name, file })),
  folder: null,
});

let hear: ((found: () => Promise<Found>) => void) | null = null;

export const dropPictures = (found: () => Promise<Found>): void => hear?.(found);

/** Takes what is dropped on the page of the files. @returns what ends it */
export function onPicturesDropped(take: (found: () => Promise<Found>) => void): () => void {
  hear = take;
  return () => {
    hear = null;
  };
}
