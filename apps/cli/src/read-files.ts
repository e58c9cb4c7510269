import { readFile, stat } from 'node:fs/promises';
import {
  JOB_FORMAT,
  jobTooLarge,
  LARGEST_FILE_BYTES,
  LARGEST_JOB_BYTES,
  parseJobText,
  parseStationText,
  tooLarge,
  type Job,
  type Problem,
  type Station,
} from '@gangway/station';
import type { Streams } from './streams.js';

/** What a file holds. */
export type Holding =
  | { readonly kind: 'station'; readonly file: string; readonly station: Station }
  | { readonly kind: 'job'; readonly file: string; readonly job: Job };

type Kind = Holding['kind'];

type Read = { ok: true; text: string } | { ok: false; problem: Problem };

const problem = (message: string): Read => ({ ok: false, problem: { pointer: '', message } });

const LARGEST: Record<Kind, number> = { station: LARGEST_FILE_BYTES, job: LARGEST_JOB_BYTES };

function refusedForSize(bytes: number, kind: Kind): Read | null {
  if (bytes <= LARGEST[kind]) return null;
  if (kind === 'job') return problem(jobTooLarge(bytes));
  const large = tooLarge(bytes);
  return large.ok ? null : { ok: false, problem: large.problems[0]! };
}

async function readStdin(stdin: Streams['stdin'], most: Kind): Promise<Read> {
  const chunks: Buffer[] = [];
  let bytes = 0;
  for await (const chunk of stdin) {
    const buffer = Buffer.from(chunk);
    bytes += buffer.length;
    if (bytes <= LARGEST[most]) chunks.push(buffer);
  }
  return refusedForSize(bytes, most) ?? { ok: true, text: Buffer.concat(chunks).toString('utf8') };
}

async function readText(file: string, stdin: Streams['stdin'], most: Kind): Promise<Read> {
  if (file === '-') return readStdin(stdin, most);
  try {
    const { size } = await stat(file);
    return refusedForSize(size, most) ?? { ok: true, text: await readFile(file, 'utf8') };
  } catch (error) {
    const code = (error as NodeJS.ErrnoException).code;
    if (code === 'ENOENT') return problem('there is no such file');
    if (code === 'EISDIR') return problem('is a folder; give a file');
    return problem(`cannot be read (${code ?? String(error)})`);
  }
}

/** Enough of a file to see what it is. */
const HEAD = 2000;
const isJob = (text: string): boolean =>
  new RegExp(`"format"\\s*:\\s*"${JOB_FORMAT}"`).test(text.slice(0, HEAD));

function holding(file: string, text: string, kinds: readonly Kind[]): Holding | Problem[] {
  const asJob = kinds.includes('job') && (kinds.length === 1 || isJob(text));
  if (asJob) {
    const read = parseJobText(text);
    return read.ok ? { kind: 'job', file, job: read.value } : read.problems;
  }
  const read = parseStationText(text);
  return read.ok ? { kind: 'station', file, station: read.value } : read.problems;
}

/** Reads files one by one, telling what is wrong with those that hold none of `kinds`. */
export async function readFiles(
  files: readonly string[],
  { stdin, err }: Pick<Streams, 'stdin' | 'err'>,
  kinds: readonly Kind[],
  take: (found: Holding) => void,
): Promise<number> {
  const most: Kind = kinds.includes('job') ? 'job' : 'station';
  let code = 0;
  for (const file of files) {
    const read = await readText(file, stdin, most);
    const found = read.ok ? holding(file, read.text, kinds) : [read.problem];
    if (!Array.isArray(found)) {
      take(found);
      continue;
    }
    code = 2;
    for (const { pointer, message } of found) err(`${file}: ${pointer || '/'}: ${message}\n`);
  }
  return code;
}
