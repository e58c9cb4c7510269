import { randomUUID } from 'node:crypto';
import {
  JOB_LISTS,
  JobReader,
  LARGEST_JOB_BYTES,
  type Job,
  type JobList,
  type Problem,
} from '@gangway/station';
import type { Bounds } from '../bodies.js';
import { breaths } from '../breath.js';
import { Refusal } from '../problems.js';
import { NotJson, piecesOf } from './pieces.js';

/** A job’s file as it comes in. */

/** Twenty thousand stations of two hundred fields each. */
export const A_JOB: Bounds = {
  what: 'The file',
  bytes: LARGEST_JOB_BYTES,
  depth: 60,
  members: 4_000_000,
};

const refused = (problems: readonly Problem[]): Refusal =>
  new Refusal(422, 'This is not a job that can be taken in.', { errors: [...problems] });

const NO_JSON = 'is not JSON; a job file is one JSON object in UTF-8';
const NO_OBJECT = 'must be a JSON object with "format": "gangway.job"';

const isList = (name: string): name is JobList => JOB_LISTS.some((each) => each === name);

/** A job from a file’s bytes, entry by entry; the server stays awake while it reads. */
export async function readJob(bytes: Buffer): Promise<Job> {
  const reader = new JobReader();
  const breathe = breaths();
  try {
    for (const piece of piecesOf(bytes, new Set(JOB_LISTS))) {
      const { name } = piece;
      if (piece.kind === 'member') reader.member(name, piece.value);
      else if (!isList(name)) continue;
      else if (piece.kind === 'list') reader.begin(name);
      else if (!reader.full) reader.entry(name, piece.value);
      await breathe();
    }
  } catch (error) {
    if (!(error instanceof NotJson)) throw error;
    const begins = bytes.toString('utf8', 0, 100).trim();
    const message = /^(?:\[|"|\d|null|true|false)/.test(begins) ? NO_OBJECT : NO_JSON;
    throw refused([{ pointer: '', message }]);
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
