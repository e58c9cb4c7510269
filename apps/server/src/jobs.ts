import { randomUUID } from 'node:crypto';
import { and, asc, count, desc, eq, isNotNull, isNull, sql } from 'drizzle-orm';
import { Router } from 'express';
import * as z from 'zod';
import { criterionSchema, type Station } from '@gangway/station';
import type { Database } from './database.js';
import { accept, notFound } from './problems.js';
import { jobs, revisions, stations } from './tables.js';

export const nameSchema = z
  .string({ error: 'must be text' })
  .trim()
  .min(1, { error: 'give a name of at least one letter' })
  .max(200, { error: 'must be at most 200 characters long' })

  .refine((name) => !/[\u0000-\u001f\u007f]/.test(name), {
    error: 'must not hold control characters',
  });

export const idSchema = z.uuid({ error: 'must be a UUID' });

const created = z.object({ id: idSchema.optional(), name: nameSchema });
const changed = z.object({
  name: nameSchema.optional(),
  archived: z.boolean().optional(),
  criterion: criterionSchema.nullable().optional(),
});

type JobRow = typeof jobs.$inferSelect;

const shown = (job: JobRow) => ({
  id: job.id,
  name: job.name,
  createdAt: job.createdAt,
  updatedAt: job.updatedAt,
  archived: job.archivedAt !== null,
  criterion: job.criterion,
});

export async function findJob(db: Database, id: string): Promise<JobRow> {
  const [job] = await db.select().from(jobs).where(eq(jobs.id, id));
  if (!job) throw notFound('job');
  return job;
}

/** A name no other job of the list has: “Pier (copy)”, “Pier (copy 2)”. */
export function copyName(name: string, taken: ReadonlySet<string>): string {
  const stem = name.replace(/ \(copy(?: \d+)?\)$/, '').slice(0, 180);
  for (let n = 1; ; n++) {
    const candidate = `${stem} (copy${n === 1 ? '' : ` ${n}`})`;
    if (!taken.has(candidate)) return candidate;
  }
}

export function jobRoutes(db: Database): Router {
  const router = Router();

  router.get('/', async (request, response) => {
    const archived = request.query.archived === 'true';
    const rows = await db
      .select({ job: jobs, stations: count(stations.id) })
      .from(jobs)
      .leftJoin(stations, and(eq(stations.jobId, jobs.id), isNull(stations.archivedAt)))
      .where(archived ? isNotNull(jobs.archivedAt) : isNull(jobs.archivedAt))
      .groupBy(jobs.id)
      .orderBy(desc(jobs.updatedAt), asc(jobs.id));
    response.json(rows.map((row) => ({ ...shown(row.job), stations: row.stations })));
  });

  router.post('/', async (request, response) => {
    const { id = randomUUID(), name } = accept(created, request.body);
    // The page names the job, so that asking again after a lost answer makes no second one.
    await db.insert(jobs).values({ id, name }).onConflictDoNothing();
    response.status(201).json(shown(await findJob(db, id)));
  });

  router.get('/:id', async (request, response) => {
    const job = await findJob(db, accept(idSchema, request.params.id));
    response.json(shown(job));
  });

  router.patch('/:id', async (request, response) => {
    const id = accept(idSchema, request.params.id);
    const { name, archived, criterion } = accept(changed, request.body);
    const [job] = await db
      .update(jobs)
      .set({
        ...(name === undefined ? {} : { name }),
        ...(criterion === undefined ? {} : { criterion: criterion as Station['criterion'] | null }),
        ...(archived === undefined ? {} : { archivedAt: archived ? sql`now()` : null }),
        updatedAt: sql`now()`,
      })
      .where(eq(jobs.id, id))
      .returning();
    if (!job) throw notFound('job');
    response.json(shown(job));
  });

  router.post('/:id/duplicate', async (request, response) => {
    const id = accept(idSchema, request.params.id);
    const { id: newId = randomUUID() } = accept(
      z.object({ id: idSchema.optional() }),
      request.body ?? {},
    );
    const copy = await db.transaction(async (tx) => {
      const source = await findJob(tx, id);
      const names = await tx.select({ name: jobs.name }).from(jobs);
      const name = copyName(source.name, new Set(names.map((row) => row.name)));
      const inserted = await tx
        .insert(jobs)
        .values({ id: newId, name, criterion: source.criterion })
        .onConflictDoNothing()
        .returning({ id: jobs.id });
      if (inserted.length > 0) await copyStations(tx, id, newId);
      return findJob(tx, newId);
    });
    response.status(201).json(shown(copy));
  });

  return router;
}

async function copyStations(db: Database, from: string, to: string): Promise<void> {
  const rows = await db
    .select({ document: stations.document, createdAt: stations.createdAt })
    .from(stations)
    .where(and(eq(stations.jobId, from), isNull(stations.archivedAt)));
  for (const row of rows) {
    await insertStation(db, randomUUID(), to, row.document, row.createdAt);
  }
}

/** A new station with its first revision. @returns false when the id is taken already */
export async function insertStation(
  db: Database,
  id: string,
  jobId: string,
  document: Station,
  createdAt?: Date,
): Promise<boolean> {
  const inserted = await db
    .insert(stations)
    .values({ id, jobId, revision: 1, document, ...(createdAt ? { createdAt } : {}) })
    .onConflictDoNothing()
    .returning({ id: stations.id });
  if (inserted.length === 0) return false;
  await db.insert(revisions).values({ stationId: id, revision: 1, document });
  await db
    .update(jobs)
    .set({ updatedAt: sql`now()` })
    .where(eq(jobs.id, jobId));
  return true;
}
