import { randomUUID } from 'node:crypto';
import { and, asc, count, desc, eq, inArray, lt, sql } from 'drizzle-orm';
import { Router } from 'express';
import * as z from 'zod';
import { parseEdited, parseStation, type Station } from '@gangway/station';
import type { Connection, Database } from './database.js';
import { copied, copyName, idSchema, isCopyOf, requireJob, stationsIn } from './jobs.js';
import {
  accept,
  acceptDocument,
  notFound,
  requireCopyable,
  stale,
  stillInUse,
  taken,
} from './problems.js';
import { isSame, listJson, sendJson, stationJson, textOf } from './rows.js';
import { revisions, stations } from './tables.js';

const envelope = z.object({ document: z.unknown() });
const created = envelope.extend({ id: idSchema.optional() });
const saved = envelope.extend({
  baseRevision: z.number({ error: 'must be the revision the change was based on' }).int().min(1),
});
const archiving = z.object({ archived: z.boolean({ error: 'must be true or false' }) });

const whole = (least: number, most: number, usual: number) => {
  const error = `must be a whole number from ${least} to ${most}`;
  return z.coerce
    .number({ error })
    .int({ error })
    .min(least, { error })
    .max(most, { error })
    .default(usual);
};
const page = z.object({ offset: whole(0, 10_000_000, 0), limit: whole(1, 500, 100) });
const stem = z.object({ stem: z.string({ error: 'must be text' }).min(1).max(100) });
const revisionPage = z.object({
  before: whole(1, 2_147_483_647, 2_147_483_647),
  limit: whole(1, 500, 200),
});

const inOrder = [asc(stations.createdAt), asc(stations.id)];

/** A new station with its first revision. @returns false when the id is taken already */
export async function insertStation(
  tx: Database,
  id: string,
  jobId: string,
  document: Station,
  createdAt?: Date,
): Promise<boolean> {
  const inserted = await tx
    .insert(stations)
    .values({ id, jobId, revision: 1, document, ...(createdAt ? { createdAt } : {}) })
    .onConflictDoNothing()
    .returning({ id: stations.id });
  if (inserted.length === 0) return false;
  await tx.insert(revisions).values({ stationId: id, revision: 1, document });
  return true;
}

/** The document a station began with, and the job it is in. */
async function beginningOf(tx: Database, id: string) {
  const [row] = await tx
    .select({ jobId: stations.jobId, document: revisions.document })
    .from(stations)
    .innerJoin(revisions, and(eq(revisions.stationId, stations.id), eq(revisions.revision, 1)))
    .where(eq(stations.id, id));
  return row;
}

async function stationAsJson(db: Database, id: string): Promise<string> {
  const [row] = await db.select({ json: stationJson }).from(stations).where(eq(stations.id, id));
  if (!row) throw notFound('station');
  return row.json;
}

/** Stations of one job, mounted under it. */
export function stationsOfJob({ db, transact }: Connection): Router {
  const router = Router({ mergeParams: true });
  const jobOf = (params: Record<string, string>): string => accept(idSchema, params.job);

  router.get('/', async (request, response) => {
    const jobId = jobOf(request.params as Record<string, string>);
    const { offset, limit } = accept(page, request.query);
    const which = stationsIn(jobId, request.query.archived === 'true');
    await requireJob(db, jobId);
    const [of] = await db.select({ total: count() }).from(stations).where(which);
    // Found first and written after: a sort would write every document of the job as JSON.
    const found = db
      .select({ id: stations.id })
      .from(stations)
      .where(which)
      .orderBy(...inOrder)
      .limit(limit)
      .offset(offset);
    const rows = await db
      .select({ json: stationJson })
      .from(stations)
      .where(inArray(stations.id, found))
      .orderBy(...inOrder);
    sendJson(response, `{"total":${of!.total},"offset":${offset},"items":${listJson(rows)}}`);
  });

  /** The first of “Station 1”, “Station 2” … after the highest there is. */
  router.get('/free-name', async (request, response) => {
    const jobId = jobOf(request.params as Record<string, string>);
    const { stem: begins } = accept(stem, request.query);
    const [row] = await db
      .select({
        highest: sql<number | null>`max(substr(${stations.name}, ${begins.length + 2})::integer)`,
      })
      .from(stations)
      .where(
        and(
          eq(stations.jobId, jobId),
          sql`starts_with(${stations.name}, ${`${begins} `})`,
          sql`substr(${stations.name}, ${begins.length + 2}) ~ '^[1-9][0-9]{0,7}$'`,
        ),
      );
    response.json({ name: `${begins} ${(row?.highest ?? 0) + 1}` });
  });

  router.post('/', async (request, response) => {
    const jobId = jobOf(request.params as Record<string, string>);
    const { id = randomUUID(), document } = accept(created, request.body);
    const station = acceptDocument('station', parseStation(document));
    await transact(async (tx) => {
      await requireJob(tx, jobId);
      if (await insertStation(tx, id, jobId, station)) return;
      // Asked again after a lost answer: the same station in the same job.
      const there = await beginningOf(tx, id);
      if (there?.jobId !== jobId || !isSame(there.document, station)) {
        throw taken('station');
      }
    });
    sendJson(response, await stationAsJson(db, id), 201);
  });

  return router;
}

export function stationRoutes(connection: Connection): Router {
  const { db, transact, prepared } = connection;
  const router = Router();
  const idOf = (params: Record<string, string>): string => accept(idSchema, params.id);

  router.get('/:id', async (request, response) => {
    const [row] = await prepared('read station', READ, [idOf(request.params)]);
    if (!row) throw notFound('station');
    sendJson(response, row.json as string);
  });

  router.put('/:id', async (request, response) => {
    const id = idOf(request.params);
    const { baseRevision, document } = accept(saved, request.body);
    sendJson(response, await save(connection, id, baseRevision, document));
  });

  router.patch('/:id', async (request, response) => {
    const id = idOf(request.params);
    const { archived } = accept(archiving, request.body);
    const [row] = await db
      .update(stations)
      .set({ archivedAt: archived ? sql`now()` : null })
      .where(eq(stations.id, id))
      .returning({ json: stationJson });
    if (!row) throw notFound('station');
    sendJson(response, row.json);
  });

  router.delete('/:id', async (request, response) => {
    const id = idOf(request.params);
    await transact(async (tx) => {
      const [row] = await tx.select().from(stations).where(eq(stations.id, id)).for('update');
      if (!row) throw notFound('station');
      if (row.archivedAt === null) throw stillInUse();
      await tx.delete(revisions).where(eq(revisions.stationId, id));
      await tx.delete(stations).where(eq(stations.id, id));
    });
    response.status(204).end();
  });

  router.post('/:id/duplicate', async (request, response) => {
    const id = idOf(request.params);
    const { id: newId = randomUUID() } = accept(copied, request.body ?? {});
    await transact(async (tx) => {
      const [source] = await tx.select().from(stations).where(eq(stations.id, id));
      if (!source) throw notFound('station');
      requireCopyable(source.document);
      const { name: was } = source;
      const rows = await tx
        .select({ name: stations.name })
        .from(stations)
        .where(eq(stations.jobId, source.jobId));
      const name = copyName(was ?? '', new Set(rows.map((row) => row.name ?? '')));
      const document = { ...source.document, name };
      if (await insertStation(tx, newId, source.jobId, document)) return;
      const there = await beginningOf(tx, newId);
      const same = isSame({ ...there?.document, name }, document);
      if (there?.jobId !== source.jobId || !same || !isCopyOf(there.document.name, was ?? '')) {
        throw taken('station');
      }
    });
    sendJson(response, await stationAsJson(db, newId), 201);
  });

  /** When each was saved, newest first; the documents one by one. */
  router.get('/:id/revisions', async (request, response) => {
    const id = idOf(request.params);
    const { before, limit } = accept(revisionPage, request.query);
    await stationAsJson(db, id);
    response.json(
      await db
        .select({ revision: revisions.revision, savedAt: revisions.savedAt })
        .from(revisions)
        .where(and(eq(revisions.stationId, id), lt(revisions.revision, before)))
        .orderBy(desc(revisions.revision))
        .limit(limit),
    );
  });

  router.get('/:id/revisions/:revision', async (request, response) => {
    const id = idOf(request.params);
    const revision = accept(whole(1, 2_147_483_647, 1), request.params.revision);
    const [row] = await db
      .select()
      .from(revisions)
      .where(and(eq(revisions.stationId, id), eq(revisions.revision, revision)));
    if (!row) throw notFound('version of a station');
    response.json({ revision, savedAt: row.savedAt, document: row.document });
  });

  return router;
}

const READ = `select ${textOf(stationJson)} as json from stations where id = $1`;

/** One way to the database and one lock, held for the length of the statement. */
const STORE_NEXT = `
  with given as (
    select $3::jsonb as document
  ), stored as (
    update stations set document = given.document, revision = revision + 1, updated_at = now()
    from given
    where id = $1 and revision = $2 and stations.document <> given.document
    returning stations.*
  ), kept as (
    insert into station_revisions (station_id, revision, document, saved_at)
    select id, revision, document, updated_at from stored
  )
  select ${textOf(stationJson)} as json from stored as stations`;

/**
 * Stores a document as the next revision when it was based on the present one.
 * @returns the station as JSON
 * @throws a 409 that holds both versions when it was not
 */
async function save(
  connection: Connection,
  id: string,
  baseRevision: number,
  input: unknown,
): Promise<string> {
  const { db, transact, prepared } = connection;
  const storeNext = async (document: Station): Promise<string | undefined> => {
    const values = [id, baseRevision, JSON.stringify(document)];
    const [row] = await prepared('store station', STORE_NEXT, values);
    return row?.json as string | undefined;
  };
  const read = parseStation(input);
  if (read.ok) {
    const stored = await storeNext(read.value);
    if (stored !== undefined) return stored;
  }
  // Either it cannot be stored as it is, or it is there already, or something else is.
  const document = await transact(async (tx) => {
    const [row] = await tx.select().from(stations).where(eq(stations.id, id));
    if (!row) throw notFound('station');
    const station = acceptDocument(
      'station',
      read.ok ? read : parseEdited(parseStation, input, row.document),
    );
    // The same content again is a repeat whose first answer was lost, or an empty change.
    if (isSame(row.document, station)) return null;
    if (row.revision !== baseRevision) {
      const current = JSON.parse(await stationAsJson(tx, id)) as unknown;
      stale('station', current, { baseRevision, document: station });
    }
    return station;
  });
  const stored = document === null ? await stationAsJson(db, id) : await storeNext(document);
  // It was changed by another in between: the next look will say so.
  return stored ?? save(connection, id, baseRevision, input);
}
