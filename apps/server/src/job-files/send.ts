import type { Response } from 'express';
import { JOB_LISTS, JobWriter, migrated, type JobList } from '@gangway/station';
import type { Query } from '../database.js';
import { notFound } from '../problems.js';
import { writePart } from '../streaming.js';
import type { JobRow } from './plan.js';

/** A whole job as a file, written out piece by piece. */

const LINES_AT_ONCE = 500;
const START = '00000000-0000-0000-0000-000000000000';

/** A name a file may have: what a job is called, without what a file system trips over. */
const fileNameOf = (name: string): string =>
  `${
    name
      .replace(/[^\p{L}\p{N} ._-]+/gu, '-')
      .trim()
      .slice(0, 80) || 'job'
  }.job.json`;

export async function sendJob(query: Query, response: Response, id: string): Promise<void> {
  const [row] = await query<JobRow>(
    'select id, name, criterion, notes, films, more from jobs where id = $1',
    [id],
  );
  if (!row) throw notFound('job');
  const { name, criterion, notes, films, more } = row;
  const head: Record<string, unknown> = {
    ...more,
    format: 'gangway.job',
    version: 1,
    name,
    criterion: criterion ?? undefined,
    notes: notes ?? undefined,
    films: Array.isArray(films) && films.length > 0 ? films : undefined,
  };
  response.setHeader('Content-Type', 'application/json; charset=utf-8');
  response.setHeader(
    'Content-Disposition',
    `attachment; filename*=UTF-8''${encodeURIComponent(fileNameOf(name))}`,
  );
  const writer = new JobWriter();
  const send = (text: string): Promise<void> => writePart(response, text);
  await send(writer.head(head));
  for (const list of JOB_LISTS) {
    let opened = list === 'stations' || list === 'exposures';
    if (opened) await send(writer.open(list));
    for await (const entries of pagesOf(query, id, list)) {
      if (!opened && entries.length > 0) await send(writer.open(list));
      opened ||= entries.length > 0;
      await send(entries.map((each) => writer.entry(list, each)).join(''));
      if (response.closed) return;
    }
    if (opened) await send(writer.close());
  }
  await send(writer.end(head));
  response.end();
}

/** Entries of one list, in their order, a part at a time. */
async function* pagesOf(query: Query, job: string, list: JobList): AsyncGenerator<object[]> {
  if (list === 'rigs') return;
  if (list === 'kit') {
    yield await query<{ id: string; document: object }>(
      `select id, document from kit_items
       where id::text in (
         select jsonb_array_elements_text(kit_ids) from stations where job_id = $1
       ) order by id`,
      [job],
    );
    return;
  }
  const table = list === 'stations' ? 'stations' : 'exposures';
  const columns =
    list === 'stations' ? 'document, status, archived_at is not null as archived' : 'document';
  const which = list === 'stations' ? '' : 'and deleted_at is null';
  const size = list === 'stations' ? 50 : LINES_AT_ONCE;
  type Found = {
    id: string;
    position: number;
    document: object;
    status?: string;
    archived?: boolean;
  };
  for (let from: readonly [number, string] = [-Infinity, START]; ;) {
    const rows = await query<Found>(
      `select id, position, ${columns} from ${table}
       where job_id = $1 ${which} and (position, id) > ($2::float, $3::uuid)
       order by position, id limit ${size}`,
      [job, ...from],
    );
    yield rows.map(({ id, document, status, archived }) =>
      list === 'exposures'
        ? document
        : { id, ...(archived ? { archived } : {}), status, document: migrated(document) as object },
    );
    if (rows.length < size) return;
    const last = rows.at(-1)!;
    from = [last.position, last.id];
  }
}
