import { randomUUID } from 'node:crypto';
import { and, asc, desc, eq, isNotNull, isNull, sql } from 'drizzle-orm';
import { Router } from 'express';
import * as z from 'zod';
import { criterionSchema } from '@gangway/station';
import type { Connection, Database, Query } from './database.js';
import { copyName, isCopyOf, stemOf } from './documents/copies.js';
import { idSchema, nameSchema } from './requests.js';
import { accept, afterStoring, notFound, Refusal, stillInUse, taken } from './problems.js';
import { jobs, stations } from './tables.js';

const created = z.object({ id: idSchema.optional(), name: nameSchema });
const notesSchema = z
  .string({ error: 'must be text' })
  .max(20_000, 'must have at most 20,000 characters')
  .nullable();
const changed = z.object({
  name: nameSchema.optional(),
  archived: z.boolean({ error: 'must be true or false' }).optional(),
  criterion: criterionSchema.nullable().optional(),
  notes: notesSchema.optional(),
  /** What the notes were when they were opened: told, nothing written meanwhile is lost. */
  notesWas: notesSchema.optional(),
});
const copied = z.object({ id: idSchema.optional() });

/** What stations say of their job: how many it has, and when one was last saved. */
const told = (db: Database) =>
  db
    .select({
      jobId: stations.jobId,
      count: sql<number>`(count(*) filter (where ${stations.archivedAt} is null))::integer`.as(
        'count',
      ),
      latest: sql<Date>`max(${stations.updatedAt})`.as('latest'),
    })
    .from(stations)
    .groupBy(stations.jobId)
    .as('told');

function jobRows(db: Database) {
  const of = told(db);
  // A save of a station leaves the job's own row alone: it would be a lock all of them wait for.
  const updatedAt = sql<Date>`greatest(${jobs.updatedAt}, ${of.latest})`.mapWith(jobs.updatedAt);
  const rows = db
    .select({
      id: jobs.id,
      name: jobs.name,
      createdAt: jobs.createdAt,
      updatedAt: updatedAt.as('latest_change'),
      archived: sql<boolean>`${jobs.archivedAt} is not null`,
      criterion: jobs.criterion,
      notes: jobs.notes,
      stations: sql<number>`coalesce(${of.count}, 0)`,
    })
    .from(jobs)
    .leftJoin(of, eq(of.jobId, jobs.id));
  return { rows, updatedAt };
}

async function findJob(db: Database, id: string) {
  const [job] = await jobRows(db).rows.where(eq(jobs.id, id));
  if (!job) throw notFound('job');
  return job;
}

/** @throws a 404 when there is none; cheaper than {@link findJob} */
export async function requireJob(query: Query, id: string): Promise<void> {
  const [job] = await query('select 1 from jobs where id = $1', [id]);
  if (!job) throw notFound('job');
}

const notesMoved = (notes: string | null): Refusal =>
  new Refusal(409, 'The notes were changed elsewhere since you opened them. Nothing was changed.', {
    notes,
  });

export function jobRoutes({ db, transact }: Connection): Router {
  const router = Router();

  router.get('/', async (request, response) => {
    const archived = request.query.archived === 'true';
    const { rows, updatedAt } = jobRows(db);
    response.json(
      await rows
        .where(archived ? isNotNull(jobs.archivedAt) : isNull(jobs.archivedAt))
        .orderBy(desc(updatedAt), asc(jobs.id)),
    );
  });

  router.post('/', async (request, response) => {
    const { id = randomUUID(), name } = accept(created, request.body);
    // The page names the job, so that asking again after a lost answer makes no second one.
    const added = await db.insert(jobs).values({ id, name }).onConflictDoNothing().returning();
    const job = await afterStoring(() => findJob(db, id));
    if (added.length === 0 && job.name !== name) throw taken('job');
    response.status(201).json(job);
  });

  router.get('/:id', async (request, response) => {
    response.json(await findJob(db, accept(idSchema, request.params.id)));
  });

  router.patch('/:id', async (request, response) => {
    const id = accept(idSchema, request.params.id);
    const { name, archived, criterion, notes, notesWas } = accept(changed, request.body);
    const untouched =
      notes === undefined || notesWas === undefined
        ? sql`true`
        : sql`(${jobs.notes} is not distinct from ${notesWas} or ${jobs.notes} is not distinct from ${notes})`;
    const found = await db
      .update(jobs)
      .set({
        ...(name === undefined ? {} : { name }),
        ...(criterion === undefined ? {} : { criterion }),
        ...(notes === undefined ? {} : { notes }),
        ...(archived === undefined ? {} : { archivedAt: archived ? sql`now()` : null }),
        updatedAt: sql`now()`,
      })
      .where(and(eq(jobs.id, id), untouched))
      .returning({ id: jobs.id });
    const job = await afterStoring(() => findJob(db, id));
    if (found.length === 0) throw notesMoved(job.notes);
    response.json(job);
  });

  router.delete('/:id', async (request, response) => {
    await removeJob(transact, accept(idSchema, request.params.id));
    response.status(204).end();
  });

  router.post('/:id/duplicate', async (request, response) => {
    const id = accept(idSchema, request.params.id);
    const { id: newId = randomUUID() } = accept(copied, request.body ?? {});
    await transact(async (_query, tx) => {
      const source = await findJob(tx, id);
      const names = await tx
        .select({ name: jobs.name })
        .from(jobs)
        .where(sql`starts_with(${jobs.name}, ${stemOf(source.name)})`);
      const name = copyName(source.name, new Set(names.map((row) => row.name)));
      const added = await tx
        .insert(jobs)
        .values({ id: newId, name, criterion: source.criterion, notes: source.notes })
        .onConflictDoNothing()
        .returning({ id: jobs.id });
      if (added.length > 0) await copyStations(tx, id, newId);
      else if (id === newId || !isCopyOf((await findJob(tx, newId)).name, source.name)) {
        throw taken('job');
      }
    });
    response.status(201).json(await afterStoring(() => findJob(db, newId)));
  });

  return router;
}

/** Takes an archived job away for good, with its stations and all their saves. */
const removeJob = (transact: Connection['transact'], id: string): Promise<void> =>
  transact(async (query) => {
    const [row] = await query<{ archived: boolean }>(
      'select archived_at is not null as archived from jobs where id = $1 for update',
      [id],
    );
    if (!row) throw notFound('job');
    if (!row.archived) throw stillInUse();
    await query(
      'delete from station_revisions where station_id in (select id from stations where job_id = $1)',
      [id],
    );
    await query('delete from exposures where job_id = $1', [id]);
    await query('delete from stations where job_id = $1', [id]);
    await query('delete from jobs where id = $1', [id]);
  });

/** Copies what is not archived, each as its first revision, in order and still to be shot, without a document leaving the database. */
const copyStations = (tx: Database, from: string, to: string) =>
  tx.execute(sql`
    with copied as (
      insert into stations (id, job_id, revision, document, created_at, position)
      select gen_random_uuid(), ${to}, 1, document, created_at, position
      from stations where job_id = ${from} and archived_at is null
      returning id, document
    )
    insert into station_revisions (station_id, revision, document)
    select id, 1, document from copied`);
