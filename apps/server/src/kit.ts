import { randomUUID } from 'node:crypto';
import { and, asc, eq, isNotNull, isNull, sql } from 'drizzle-orm';
import { Router } from 'express';
import * as z from 'zod';
import { parseEdited, parseKitItem, type KitItem } from '@gangway/station';
import type { Connection, Database } from './database.js';
import { copied, copyName, idSchema, isCopyOf } from './jobs.js';
import {
  accept,
  acceptDocument,
  notFound,
  Refusal,
  requireCopyable,
  stale,
  stillInUse,
  taken,
} from './problems.js';
import { isSame, itemJson, listJson, sendJson } from './rows.js';
import { jobs, kitItems, kitRevisions, rigs, stations } from './tables.js';

type KitRow = typeof kitItems.$inferSelect;

const shownItem = (row: KitRow) => ({
  id: row.id,
  revision: row.revision,
  document: row.document,
  updatedAt: row.updatedAt,
  archived: row.archivedAt !== null,
});

async function itemAsJson(db: Database, id: string): Promise<string> {
  const [row] = await db.select({ json: itemJson }).from(kitItems).where(eq(kitItems.id, id));
  if (!row) throw notFound('item in the kit');
  return row.json;
}

/** What an item was when it was added, and the import that added it. */
export async function beginningOfItem(tx: Database, id: string) {
  const [row] = await tx
    .select({ document: kitRevisions.document, importId: kitRevisions.importId })
    .from(kitRevisions)
    .where(and(eq(kitRevisions.itemId, id), eq(kitRevisions.revision, 1)));
  return row;
}

const created = z.object({ id: idSchema.optional(), document: z.unknown() });
const saved = z.object({
  baseRevision: z.number({ error: 'must be the revision the change was based on' }).int().min(1),
  document: z.unknown(),
});
export const archiving = z.object({ archived: z.boolean({ error: 'must be true or false' }) });

export const acceptItem = (document: unknown, under?: string): KitItem =>
  acceptDocument('item', parseKitItem(document), under);

export async function findItem(db: Database, id: string): Promise<KitRow> {
  const [row] = await db.select().from(kitItems).where(eq(kitItems.id, id));
  if (!row) throw notFound('item in the kit');
  return row;
}

/** A new item with its first revision; asking again with the same id changes nothing. */
export async function insertItem(
  db: Database,
  id: string,
  document: KitItem,
  importId: string | null = null,
  createdAt?: Date,
): Promise<boolean> {
  const added = await db
    .insert(kitItems)
    .values({ id, kind: document.kind, revision: 1, document, ...(createdAt ? { createdAt } : {}) })
    .onConflictDoNothing()
    .returning({ id: kitItems.id });
  if (added.length === 0) return false;
  await db.insert(kitRevisions).values({ itemId: id, revision: 1, document, importId });
  return true;
}

/**
 * Stores a changed item as its next revision.
 * @throws a 409 that holds both versions when it was changed elsewhere meanwhile
 */
export async function saveItem(
  tx: Database,
  id: string,
  baseRevision: number,
  input: unknown,
  importId: string | null = null,
  under?: string,
): Promise<KitRow> {
  const [row] = await tx.select().from(kitItems).where(eq(kitItems.id, id)).for('update');
  if (!row) throw notFound('item in the kit');
  const document = acceptDocument('item', parseEdited(parseKitItem, input, row.document), under);
  // The same content again is a repeat whose first answer was lost, or an empty change.
  if (isSame(row.document, document)) return row;
  if (document.kind !== row.kind) {
    throw new Refusal(422, 'What kind of thing an item is cannot be changed.', {
      errors: [{ pointer: '/document/kind', message: `must stay "${row.kind}"` }],
    });
  }
  if (row.revision !== baseRevision) stale('item', shownItem(row), { baseRevision, document });
  const revision = row.revision + 1;
  const [stored] = await tx
    .update(kitItems)
    .set({ document, revision, updatedAt: sql`now()` })
    .where(eq(kitItems.id, id))
    .returning();
  await tx.insert(kitRevisions).values({ itemId: id, revision, document, importId });
  return stored!;
}

const holds = (document: unknown, id: string) =>
  sql`jsonb_path_exists(${document}, '$.**.kit_id ? (@ == $id)', jsonb_build_object('id', ${id}::text))`;

/** Where copies of an item are: rigs and stations that are not archived. */
async function usedBy(db: Database, id: string) {
  const inRigs = await db
    .select({ id: rigs.id, document: rigs.document })
    .from(rigs)
    .where(sql`${isNull(rigs.archivedAt)} and ${holds(rigs.document, id)}`);
  const inStations = await db
    .select({ id: stations.id, jobId: stations.jobId, job: jobs.name, document: stations.document })
    .from(stations)
    .innerJoin(jobs, eq(jobs.id, stations.jobId))
    .where(sql`${isNull(stations.archivedAt)} and ${holds(stations.document, id)}`);
  return {
    rigs: inRigs.map((row) => ({ id: row.id, name: row.document.name })),
    stations: inStations.map((row) => ({
      id: row.id,
      jobId: row.jobId,
      name: row.document.name,
      job: row.job,
    })),
  };
}

export function kitRoutes({ db, transact }: Connection): Router {
  const router = Router();
  const idOf = (params: Record<string, string>): string => accept(idSchema, params.id);

  router.get('/', async (request, response) => {
    const archived = request.query.archived === 'true';
    const rows = await db
      .select({ json: itemJson })
      .from(kitItems)
      .where(archived ? isNotNull(kitItems.archivedAt) : isNull(kitItems.archivedAt))
      .orderBy(asc(kitItems.createdAt), asc(kitItems.id));
    sendJson(response, listJson(rows));
  });

  router.post('/', async (request, response) => {
    const { id = randomUUID(), document } = accept(created, request.body);
    const item = acceptItem(document);
    await transact(async (tx) => {
      if (await insertItem(tx, id, item)) return;
      if (!isSame((await beginningOfItem(tx, id))?.document, item)) throw taken('item');
    });
    sendJson(response, await itemAsJson(db, id), 201);
  });

  router.get('/:id', async (request, response) => {
    sendJson(response, await itemAsJson(db, idOf(request.params)));
  });

  router.get('/:id/used-by', async (request, response) => {
    const { id } = await findItem(db, idOf(request.params));
    response.json(await usedBy(db, id));
  });

  router.put('/:id', async (request, response) => {
    const id = idOf(request.params);
    const { baseRevision, document } = accept(saved, request.body);
    response.json(shownItem(await transact((tx) => saveItem(tx, id, baseRevision, document))));
  });

  router.patch('/:id', async (request, response) => {
    const id = idOf(request.params);
    const { archived } = accept(archiving, request.body);
    const [row] = await db
      .update(kitItems)
      .set({ archivedAt: archived ? sql`now()` : null })
      .where(eq(kitItems.id, id))
      .returning({ json: itemJson });
    if (!row) throw notFound('item in the kit');
    sendJson(response, row.json);
  });

  router.post('/:id/duplicate', async (request, response) => {
    const id = idOf(request.params);
    const { id: newId = randomUUID() } = accept(copied, request.body ?? {});
    await transact(async (tx) => {
      const { document, kind } = await findItem(tx, id);
      requireCopyable(document);
      const rows = await tx
        .select({ name: sql<string>`${kitItems.document}->>'name'` })
        .from(kitItems)
        .where(eq(kitItems.kind, kind));
      const name = copyName(String(document.name), new Set(rows.map((row) => row.name)));
      const copy = { ...document, name };
      if (await insertItem(tx, newId, copy)) return;
      const there = (await beginningOfItem(tx, newId))?.document;
      const same = isSame({ ...there, name }, copy);
      if (!same || !isCopyOf(there!.name, document.name)) throw taken('item');
    });
    sendJson(response, await itemAsJson(db, newId), 201);
  });

  router.delete('/:id', async (request, response) => {
    const id = idOf(request.params);
    const row = await findItem(db, id);
    if (row.archivedAt === null) throw stillInUse();
    // Rigs and stations hold copies of their own; they stay as they are.
    await db.delete(kitItems).where(eq(kitItems.id, id));
    response.status(204).end();
  });

  return router;
}
