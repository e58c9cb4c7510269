import { Router } from 'express';
import * as z from 'zod';
import { migrated, parseStation, VERSION, type Station } from '@gangway/station';
import type { Connection } from './database.js';
import { kindOf } from './documents/kind.js';
import { create } from './documents/routes.js';
import { listJson, sendJson, shownColumns, type Shown } from './documents/rows.js';
import { requireJob } from './jobs.js';
import { accept } from './problems.js';
import { idSchema, whole } from './requests.js';

export const STATIONS = kindOf<Station>({
  what: 'station',
  table: 'stations',
  revisions: 'station_revisions',
  owner: 'station_id',
  parse: parseStation,
  own: { job_id: 'given.job_id' },
  shown: { jobId: 'job_id' },
  isOld: `gangway_is_old(document, ${VERSION})`,
  migrated,
  beside: 'job_id = (select job_id from stations where id = $1)',
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
    const rows = await query<Shown>(
      `select ${shownColumns(STATIONS)} from stations
       where id in (
         select id from stations where ${which} order by created_at, id limit $2 offset $3
       ) order by created_at, id`,
      [jobId, limit, offset],
    );
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
