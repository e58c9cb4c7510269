import { randomUUID } from 'node:crypto';
import { isDeepStrictEqual } from 'node:util';
import { and, asc, desc, eq, isNotNull, isNull, sql } from 'drizzle-orm';
import { Router } from 'express';
import * as z from 'zod';
import { parseStation, type Station } from '@gangway/station';
import type { Database } from './database.js';
import { copyName, findJob, idSchema, insertStation } from './jobs.js';
import { accept, acceptDocument, notFound, stale } from './problems.js';
import { jobs, revisions, stations } from './tables.js';

type StationRow = typeof stations.$inferSelect;

const shown = (row: StationRow) => ({
  id: row.id,
  jobId: row.jobId,
  revision: row.revision,
  document: row.document,
  createdAt: row.createdAt,
  updatedAt: row.updatedAt,
  archived: row.archivedAt !== null,
});

const envelope = z.object({ document: z.unknown() });
const created = envelope.extend({ id: idSchema.optional() });
const saved = envelope.extend({
  baseRevision: z.number({ error: 'must be the revision the change was based on' }).int().min(1),
});

const acceptStation = (document: unknown): Station =>
  acceptDocument('station', parseStation(document));

async function findStation(db: Database, id: string): Promise<StationRow> {
  const [row] = await db.select().from(stations).where(eq(stations.id, id));
  if (!row) throw notFound('station');
  return row;
}

/** Stations of one job, mounted under it. */
export function stationsOfJob(db: Database): Router {
  const router = Router({ mergeParams: true });
  const jobOf = (params: Record<string, string>): string => accept(idSchema, params.job);

  router.get('/', async (request, response) => {
    const jobId = jobOf(request.params as Record<string, string>);
    await findJob(db, jobId);
    const archived = request.query.archived === 'true';
    const rows = await db
      .select()
      .from(stations)
      .where(
        and(
          eq(stations.jobId, jobId),
          archived ? isNotNull(stations.archivedAt) : isNull(stations.archivedAt),
        ),
      )
      .orderBy(asc(stations.createdAt), asc(stations.id));
    response.json(rows.map(shown));
  });

  router.post('/', async (request, response) => {
    const jobId = jobOf(request.params as Record<string, string>);
    const { id = randomUUID(), document } = accept(created, request.body);
    const station = acceptStation(document);
    await db.transaction(async (tx) => {
      await findJob(tx, jobId);
      await insertStation(tx, id, jobId, station);
    });
    response.status(201).json(shown(await findStation(db, id)));
  });

  return router;
}

export function stationRoutes(db: Database): Router {
  const router = Router();
  const idOf = (params: Record<string, string>): string => accept(idSchema, params.id);

  router.get('/:id', async (request, response) => {
    response.json(shown(await findStation(db, idOf(request.params))));
  });

  router.put('/:id', async (request, response) => {
    const id = idOf(request.params);
    const { baseRevision, document } = accept(saved, request.body);
    response.json(shown(await save(db, id, baseRevision, acceptStation(document))));
  });

  router.patch('/:id', async (request, response) => {
    const id = idOf(request.params);
    const { archived } = accept(z.object({ archived: z.boolean() }), request.body);
    const [row] = await db
      .update(stations)
      .set({ archivedAt: archived ? sql`now()` : null })
      .where(eq(stations.id, id))
      .returning();
    if (!row) throw notFound('station');
    response.json(shown(row));
  });

  router.post('/:id/duplicate', async (request, response) => {
    const id = idOf(request.params);
    const { id: newId = randomUUID() } = accept(
      z.object({ id: idSchema.optional() }),
      request.body ?? {},
    );
    await db.transaction(async (tx) => {
      const source = await findStation(tx, id);
      const rows = await tx
        .select({ document: stations.document })
        .from(stations)
        .where(eq(stations.jobId, source.jobId));
      const taken = new Set(rows.map((row) => row.document.name));
      const document = { ...source.document, name: copyName(source.document.name, taken) };
      await insertStation(tx, newId, source.jobId, document);
    });
    response.status(201).json(shown(await findStation(db, newId)));
  });

  router.get('/:id/revisions', async (request, response) => {
    const id = idOf(request.params);
    await findStation(db, id);
    const rows = await db
      .select()
      .from(revisions)
      .where(eq(revisions.stationId, id))
      .orderBy(desc(revisions.revision))
      .limit(200);
    response.json(rows.map(({ revision, savedAt, document }) => ({ revision, savedAt, document })));
  });

  return router;
}

/**
 * Stores a document as the next revision when it was based on the present one.
 * @throws a 409 that holds both versions when it was not
 */
async function save(
  db: Database,
  id: string,
  baseRevision: number,
  document: Station,
): Promise<StationRow> {
  return db.transaction(async (tx) => {
    const [row] = await tx.select().from(stations).where(eq(stations.id, id)).for('update');
    if (!row) throw notFound('station');
    // The same content again is a repeat whose first answer was lost, or an empty change.
    if (isDeepStrictEqual(row.document, document)) return row;
    if (row.revision !== baseRevision) {
      stale('station', shown(row), { baseRevision, document });
    }
    const revision = row.revision + 1;
    const [stored] = await tx
      .update(stations)
      .set({ document, revision, updatedAt: sql`now()` })
      .where(eq(stations.id, id))
      .returning();
    await tx.insert(revisions).values({ stationId: id, revision, document });
    await tx
      .update(jobs)
      .set({ updatedAt: sql`now()` })
      .where(eq(jobs.id, row.jobId));
    return stored!;
  });
}
