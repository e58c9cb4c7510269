import { mkdir, readdir, readFile, rename, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import {
  mergeSidecar,
  sidecarsOfJob,
  sidecarText,
  Unreadable,
  type Wanted,
} from '@gangway/sidecar';
import { isDoubtful, type Job } from '@gangway/station';

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

/** A sidecar’s place, and what lies there and beside the picture already. */
interface Place {
  readonly target: string;
  readonly here: Buffer | null;
  readonly beside: Buffer | null;
}

const besideWins = 'It differs from the one beside the picture; move one of them away.';

/** What is to be written, or null where all is as it should be. @throws Unreadable */
function textFor({ here, beside }: Place, wanted: readonly Wanted[]): string | null {
  const from = beside ?? here;
  const result = mergeSidecar(from && sidecarText(from), wanted);
  if (!result.ok) throw new Unreadable(result.message);
  const { text } = result.merged;
  if (here === null) return text;
  const own = sidecarText(here);
  if (own === text) return null;
  // Of two that part, one in each folder, neither is written over.
  if (beside && !here.equals(beside)) throw new Unreadable(besideWins);
  return text;
}

const readOr = (path: string | null): Promise<Buffer> | null => (path === null ? null : readFile(path)); // prettier-ignore

/**
 * Writes a sidecar for each exposure with a file name. What lies in `files` is merged, and so is
 * what lies where it is written: nothing unread is written over.
 * @returns the exit code: 2 where one could not be read and was left as it is
 */
export async function writeSidecars(job: Job, { out, files }: Asked, told: Told): Promise<number> {
  const { sidecars, without } = sidecarsOfJob(job);
  await mkdir(out, { recursive: true });
  const [there, beside] = [await namesIn(out), await namesIn(files ?? out)];
  let [written, same] = [0, 0];
  for (const { line, why } of without) told.err(`${line.file ?? ''}: ${why}\n`);
  for (const { line, name } of sidecars) {
    if (isDoubtful(line)) told.err(`${name}: its match to ${line.at} is not sure; look at it in the log\n`); // prettier-ignore
  }
  let code = without.length > 0 ? 2 : 0;
  for (const { name, wanted } of sidecars) {
    const [own, other] = [there.get(name.toLowerCase()), beside.get(name.toLowerCase())];
    const place: Place = {
      target: join(out, own ?? name),
      here: await readOr(own ? join(out, own) : null),
      beside: await readOr(other && files !== null ? join(files, other) : null),
    };
    try {
      const text = textFor(place, wanted);
      if (text === null) same++;
      else {
        await writeFile(`${place.target}.next`, text);
        await rename(`${place.target}.next`, place.target);
        written++;
      }
    } catch (error) {
      if (!(error instanceof Unreadable)) throw error;
      told.err(`${place.target}: ${error.message} It is left as it is.\n`);
      code = 2;
    }
  }
  told.out(`${written} written, ${same} as they were\n`);
  return code;
}
