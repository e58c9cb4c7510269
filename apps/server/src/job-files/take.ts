import { migrated, sameField, type Job } from '@gangway/station';
import { breaths } from '../breath.js';
import type { Query } from '../database.js';
import { insertAll } from '../documents/store.js';
import { KIT } from '../kit.js';
import { storeLines } from '../log.js';
import { RIGS } from '../rigs.js';
import { STATIONS } from '../stations.js';
import { moreOf, type Plan } from './plan.js';

/** A job’s file taken in, as it was looked at. */

export async function takeIn(query: Query, job: Job, plan: Plan): Promise<void> {
  const { id, name } = plan.shown.job;
  await query(
    `insert into jobs (id, name, criterion, notes, films, more)
     values ($1, $2, $3::jsonb, $4, $5::jsonb, $6::jsonb)
     on conflict (id) do update set name = excluded.name, criterion = excluded.criterion,
       notes = excluded.notes, films = excluded.films, more = excluded.more, updated_at = now()`,
    [
      id,
      name,
      job.criterion === undefined ? null : JSON.stringify(job.criterion),
      job.notes ?? null,
      job.films === undefined ? null : JSON.stringify(job.films),
      Object.keys(moreOf(job)).length === 0 ? null : JSON.stringify(moreOf(job)),
    ],
  );
  const start = Date.now();
  const madeIn = <T>(each: T, i: number) => ({ ...each, created_at: new Date(start + i) });
  await insertAll(query, KIT, (job.kit ?? []).map(madeIn));
  await insertAll(query, RIGS, (job.rigs ?? []).map(madeIn));
  await takeStations(query, job, plan);
  await takeLines(query, job, plan);
  await query(`select pg_notify('gangway_changes', $1)`, [
    JSON.stringify({ table: 'logs', id, revision: null }),
  ]);
}

/** Documents of one statement: what a database takes without trouble. */
const A_PART = 500;

const parts = <T>(all: readonly T[]): T[][] =>
  Array.from({ length: Math.ceil(all.length / A_PART) }, (_, i) =>
    all.slice(i * A_PART, (i + 1) * A_PART),
  );

async function takeStations(query: Query, job: Job, { shown, stations }: Plan): Promise<void> {
  const start = Date.now();
  const fresh = job.stations.flatMap((each, i) =>
    stations.has(each.id)
      ? []
      : [
          {
            id: each.id,
            document: each.document,
            created_at: new Date(start + i),
            job_id: shown.job.id,
            ...(each.status ? { status: each.status } : {}),
          },
        ],
  );
  for (const part of parts(fresh)) await insertAll(query, STATIONS, part);
  const breathe = breaths();
  const changed: Job['stations'][number][] = [];
  for (const each of job.stations) {
    const row = stations.get(each.id);
    if (row && !sameField(migrated(row.document), each.document)) changed.push(each);
    await breathe();
  }
  for (const part of parts(changed)) {
    // What was there before is kept for good: a person chose to go over it.
    await query(
      `with given as (
         select * from jsonb_to_recordset($1::jsonb) as given (id uuid, document jsonb)
       ), stored as (
         update stations set document = given.document, revision = revision + 1, updated_at = now()
         from given where stations.id = given.id
         returning stations.id, stations.revision, stations.document, stations.updated_at
       ), held as (
         update station_revisions as earlier set held = true from stored
         where earlier.station_id = stored.id and earlier.revision = stored.revision - 1
       )
       insert into station_revisions (station_id, revision, document, saved_at)
       select id, revision, document, updated_at from stored`,
      [JSON.stringify(part.map(({ id, document }) => ({ id, document })))],
    );
  }
  for (const part of parts(job.stations)) {
    await query(
      `update stations set status = coalesce(given.status, stations.status),
         archived_at = case when given.archived then coalesce(archived_at, now()) end
       from jsonb_to_recordset($1::jsonb) as given (id uuid, status text, archived boolean)
       where stations.id = given.id
         and (stations.status <> coalesce(given.status, stations.status)
           or (archived_at is not null) <> coalesce(given.archived, false))`,
      [JSON.stringify(part.map(({ id, status, archived }) => ({ id, status, archived })))],
    );
  }
}

async function takeLines(query: Query, job: Job, { shown, lines }: Plan): Promise<void> {
  const changed = job.exposures.filter((each) => {
    const row = lines.get(each.id);
    return !row || row.deleted || !sameField(row.document, each);
  });
  for (const part of parts(changed)) {
    await storeLines(
      query,
      shown.job.id,
      part.map((document) => ({ id: document.id, document, position: null, deleted: false })),
    );
  }
}
