import { randomUUID } from 'node:crypto';
import type { Request } from 'express';
import {
  JOB_LISTS,
  JobReader,
  jobTooLarge,
  LARGEST_JOB_BYTES,
  type Job,
  type Problem,
} from '@gangway/station';
import { Refusal } from '../problems.js';

/** A job’s file as it comes in. */

export async function bodyOf(request: Request): Promise<Buffer> {
  const tooLarge = (bytes: number): Refusal => new Refusal(413, `The file ${jobTooLarge(bytes)}.`);
  const said = Number(request.headers['content-length'] ?? 0);
  if (said > LARGEST_JOB_BYTES) throw tooLarge(said);
  const chunks: Buffer[] = [];
  let bytes = 0;
  for await (const chunk of request as AsyncIterable<Buffer>) {
    bytes += chunk.length;
    if (bytes > LARGEST_JOB_BYTES) throw tooLarge(bytes);
    chunks.push(chunk);
  }
  return Buffer.concat(chunks);
}

const refused = (problems: readonly Problem[]): Refusal =>
  new Refusal(422, 'This is not a job that can be taken in.', { errors: [...problems] });

/** Entries read between two looks at what else there is to do. */
const AT_ONCE = 200;

/** A job from a file’s bytes; the server stays awake while it reads. */
export async function readJob(bytes: Buffer): Promise<Job> {
  let document: unknown;
  try {
    document = JSON.parse(new TextDecoder('utf-8', { fatal: true }).decode(bytes));
  } catch {
    throw refused([
      { pointer: '', message: 'is not JSON; a job file is one JSON object in UTF-8' },
    ]);
  }
  if (typeof document !== 'object' || document === null || Array.isArray(document)) {
    throw refused([{ pointer: '', message: 'must be a JSON object with "format": "gangway.job"' }]);
  }
  const reader = new JobReader();
  for (const [name, value] of Object.entries(document)) {
    const list = JOB_LISTS.find((each) => each === name);
    if (!list || !Array.isArray(value)) {
      reader.member(name, value);
      continue;
    }
    reader.begin(list);
    for (const [i, entry] of value.entries()) {
      if (reader.full) break;
      reader.entry(list, entry);
      if (i % AT_ONCE === AT_ONCE - 1) await new Promise((resolve) => setImmediate(resolve));
    }
  }
  const read = reader.finish();
  if (!read.ok) throw refused(read.problems);
  return read.value;
}

/** The same job with ids of its own; the gear it names keeps its. */
export function withNewIds(job: Job): Job {
  const ids = new Map(job.stations.map(({ id }) => [id, randomUUID()]));
  return {
    ...job,
    stations: job.stations.map((each) => ({ ...each, id: ids.get(each.id)! })),
    exposures: job.exposures.map((each) => ({
      ...each,
      id: randomUUID(),
      ...(each.station === undefined ? {} : { station: ids.get(each.station)! }),
    })),
  };
}
