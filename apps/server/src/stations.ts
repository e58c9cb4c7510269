import { Router } from 'express';
import * as z from 'zod';
import {
  migrated,
  parseStation,
  stationDigest,
  STATUSES,
  VERSION,
  type Station,
} from '@gangway/station';
import { breaths } from './breath.js';
import type { Connection, Query } from './database.js';
import { kindOf } from './documents/kind.js';
import { create } from './documents/routes.js';
import { listJson, sendJson, shownColumns, type Shown } from './documents/rows.js';
import { readJson } from './documents/store.js';
import { requireJob } from './jobs.js';
import { forgetStation } from './log.js';
import { accept, afterStoring, notFound, Refusal } from './problems.js';
import { idSchema, whole } from './requests.js';

export const STATIONS = kindOf<Station>({
  what: 'station',
  table: 'stations',
  revisions: 'station_revisions',
  owner: 'station_id',
  parse: parseStation,
  own: {
    job_id: 'given.job_id',
    // After all that are there, in the order given.
    position: `(select coalesce(max(position), 0) from stations as there
      where there.job_id = given.job_id) + row_number() over ()`,
    status: `coalesce(given.status, 'planned')`,
  },
  shown: {
    jobId: 'job_id',
    status: 'status',
    digest: 'case when digest_of = revision then digest end',
  },
  digest: stationDigest,
  isOld: `gangway_is_old(document, ${VERSION})`,
  migrated,
  beside: 'job_id = (select job_id from stations where id = $1)',
  beforeRemoval: forgetStation,
});

const page = z.object({ offset: whole(0, 10_000_000, 0), limit: whole(1, 500, 100) });
const stem = z.object({ stem: z.string({ error: 'must be text' }).min(1).max(100) });

/** Stations of one job, mounted under it. */
export function stationsOfJob(connection: Connection): Router {
  const { query } = connection;
  const router = Router({ mergeParams: true });
  const jobOf = (params: Record<string, string>): string => accept(idSchema, params.job);

  router.get('/', async (request, response) => {
    const jobId = jobOf(request.params as Record<string, string>);
    const { offset, limit } = accept(page, request.query);
    const there = request.query.archived === 'true' ? 'is not null' : 'is null';
    const which = `job_id = $1 and archived_at ${there}`;
    await requireJob(query, jobId);
    const [of] = await query<{ total: number }>(
      `select count(*)::integer as total from stations where ${which}`,
      [jobId],
    );
    // Found first and written after: a sort would write every document of the job as JSON.
    const inPage = () =>
      query<Shown & { id: string; undigested: boolean }>(
        `select id, ${shownColumns(STATIONS)}, digest_of is distinct from revision as undigested
         from stations where id in (
           select id from stations where ${which} order by position, id limit $2 offset $3
         ) order by position, id`,
        [jobId, limit, offset],
      );
    let rows = await inPage();
    const fresh = rows.filter(({ undigested }) => undigested).map(({ id }) => id);
    if (fresh.length > 0) {
      await keepDigests(query, fresh);
      rows = await inPage();
    }
    const items = listJson(STATIONS, rows);
    sendJson(response, `{"total":${of!.total},"offset":${offset},"items":${items}}`);
  });

  /** The first of “Station 1”, “Station 2” … after the highest there is. */
  router.get('/free-name', async (request, response) => {
    const jobId = jobOf(request.params as Record<string, string>);
    const { stem: begins } = accept(stem, request.query);
    const [row] = await query<{ highest: number | null }>(
      `select max(substr(name, $3)::integer) as highest from stations
       where job_id = $1 and starts_with(name, $2) and substr(name, $3) ~ '^[1-9][0-9]{0,7}$'`,
      [jobId, `${begins} `, begins.length + 2],
    );
    response.json({ name: `${begins} ${(row?.highest ?? 0) + 1}` });
  });

  router.post('/', async (request, response) => {
    const job_id = jobOf(request.params as Record<string, string>);
    await requireJob(query, job_id);
    sendJson(response, await create(connection, STATIONS, request.body, { job_id }), 201);
  });

  return router;
}

/**
 * What came in without being saved one by one (copies, files of jobs, an older version’s rows) gets its
 * line for the list the first time a list asks, once for each revision.
 */
async function keepDigests(query: Query, ids: readonly string[]): Promise<void> {
  const rows = await query<{ id: string; revision: number; document: unknown }>(
    'select id, revision, document from stations where id = any($1::uuid[])',
    [ids],
  );
  const breathe = breaths();
  const made: object[] = [];
  for (const { id, revision, document } of rows) {
    made.push({ id, revision, digest: stationDigest(migrated(document)) });
    await breathe();
  }
  await query(
    `update stations set digest = made.digest, digest_of = made.revision
     from jsonb_to_recordset($1::jsonb) as made (id uuid, revision integer, digest jsonb)
     where stations.id = made.id and stations.revision = made.revision`,
    [JSON.stringify(made)],
  );
}

const standing = z.object({
  status: z.enum(STATUSES, { error: `must be one of ${STATUSES.join(', ')}` }),
});
const placed = z.object({ before: idSchema.nullable() });

/** How far a station has come, and its place among the others of its job. */
export function placeRoutes(connection: Connection): Router {
  const { query, transact } = connection;
  const router = Router();
  const idOf = (params: Record<string, string>): string => accept(idSchema, params.id);

  router.put('/:id/status', async (request, response) => {
    const id = idOf(request.params);
    const { status } = accept(standing, request.body);
    const found = await query('update stations set status = $2 where id = $1 returning 1', [
      id,
      status,
    ]);
    if (found.length === 0) throw notFound('station');
    sendJson(response, await afterStoring(() => readJson(connection, STATIONS, id)));
  });

  router.put('/:id/place', async (request, response) => {
    const id = idOf(request.params);
    const { before } = accept(placed, request.body);
    await transact((within) => place(within, id, before));
    sendJson(response, await afterStoring(() => readJson(connection, STATIONS, id)));
  });

  return router;
}

/** Less room than this between two stations, and all of the job are spaced anew. */
const LEAST_ROOM = 1e-6;

/** Puts a station before another of its job, or after all of them. */
async function place(query: Query, id: string, before: string | null): Promise<void> {
  const [own] = await query<{ job_id: string }>('select job_id from stations where id = $1', [id]);
  if (!own) throw notFound('station');
  // One at a time in a job: two hands cannot put two stations into the same gap.
  await query('select 1 from jobs where id = $1 for update', [own.job_id]);
  for (let spaced = false; ; spaced = true) {
    const room = await roomBefore(query, own.job_id, id, before);
    if (room.most - room.least > LEAST_ROOM || spaced) {
      await query('update stations set position = $2 where id = $1', [
        id,
        (room.least + room.most) / 2,
      ]);
      return;
    }
    await query(
      `update stations set position = spaced.at from (
         select id, row_number() over (order by position, id) as at
         from stations where job_id = $1
       ) as spaced where stations.id = spaced.id`,
      [own.job_id],
    );
  }
}

/** The gap a station is to go into: the places of its neighbours there. */
async function roomBefore(
  query: Query,
  jobId: string,
  id: string,
  before: string | null,
): Promise<{ least: number; most: number }> {
  const others = `from stations where job_id = $1 and id <> $2`;
  if (before === null) {
    const [last] = await query<{ at: number }>(
      `select coalesce(max(position), 0) as at ${others}`,
      [jobId, id],
    );
    return { least: last!.at, most: last!.at + 2 };
  }
  const [next] = await query<{ at: number }>(`select position as at ${others} and id = $3`, [
    jobId,
    id,
    before,
  ]);
  if (!next) {
    throw new Refusal(422, 'A station can be placed before another of its own job only.', {
      errors: [{ pointer: '/before', message: 'must be another station of the same job' }],
    });
  }
  const [last] = await query<{ at: number }>(
    `select coalesce(max(position), $3::float - 2) as at ${others} and position < $3`,
    [jobId, id, next.at],
  );
  return { least: last!.at, most: next.at };
}
