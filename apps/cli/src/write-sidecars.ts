import { mkdir, readdir, readFile, rename, writeFile } from 'node:fs/promises';
import { join, resolve } from 'node:path';
import { mergeSidecar, sidecarsOfJob, sidecarText, Unreadable } from '@gangway/sidecar';
import type { Job } from '@gangway/station';

interface Asked {
  readonly out: string;
  readonly files: string | null;
}

interface Told {
  readonly out: (text: string) => void;
  readonly err: (text: string) => void;
}

/** Names in a folder by what they are in small letters: some file systems tell no capitals apart. */
async function namesIn(folder: string): Promise<Map<string, string>> {
  const names = await readdir(folder).catch((error: NodeJS.ErrnoException) => {
    if (error.code === 'ENOENT') return [];
    throw error;
  });
  return new Map(names.map((name) => [name.toLowerCase(), name]));
}

async function existingText(path: string | null): Promise<string | null> {
  return path === null ? null : sidecarText(await readFile(path));
}

/**
 * Writes a sidecar for each exposure with a file name. What lies in `files` is merged, and so is
 * what lies where it is written: nothing unread is written over.
 * @returns the exit code: 2 where one could not be read and was left as it is
 */
export async function writeSidecars(job: Job, { out, files }: Asked, told: Told): Promise<number> {
  const { sidecars, without } = sidecarsOfJob(job);
  await mkdir(out, { recursive: true });
  const [there, beside] = [await namesIn(out), files === null ? null : await namesIn(files)];
  let [written, same, code] = [0, 0, 0];
  for (const { line, why } of without) told.err(`${line.file ?? ''}: ${why}\n`);
  if (without.length > 0) code = 2;
  for (const { name, wanted } of sidecars) {
    const key = name.toLowerCase();
    const own = there.get(key);
    const other = beside?.get(key);
    const from = other ? join(files!, other) : own ? join(out, own) : null;
    const target = join(out, own ?? name);
    try {
      // Of two that part, one in each folder, neither is lost.
      if (other && own && resolve(from!) !== resolve(target)) {
        const both = [await readFile(from!), await readFile(target)] as const;
        const merged = mergeSidecar(sidecarText(both[0]), wanted);
        const done = merged.ok && merged.merged.text === sidecarText(both[1]);
        if (!both[0].equals(both[1]) && !done) {
          throw new Unreadable(`It differs from the one in ${files!}; move one of them away.`);
        }
      }
      const existing = await existingText(from);
      const result = mergeSidecar(existing, wanted);
      if (!result.ok) throw new Unreadable(result.message);
      const { text, changed } = result.merged;
      const here = own ? await readFile(join(out, own), 'utf8') : null;
      if (here === text || (!changed && resolve(from ?? '') === resolve(target))) {
        same++;
        continue;
      }
      await writeFile(`${target}.next`, text);
      await rename(`${target}.next`, target);
      written++;
    } catch (error) {
      if (!(error instanceof Unreadable)) throw error;
      told.err(`${from ?? target}: ${error.message} It is left as it is.\n`);
      code = 2;
    }
  }
  told.out(`${written} written, ${same} as they were\n`);
  return code;
}
