import { randomUUID } from 'node:crypto';
import { isDeepStrictEqual } from 'node:util';
import { asc, eq, isNotNull, isNull, sql } from 'drizzle-orm';
import { Router } from 'express';
import * as z from 'zod';
import { parseRig, type Rig } from '@gangway/station';
import type { Database } from './database.js';
import { copyName, idSchema } from './jobs.js';
import { archiving } from './kit.js';
import { accept, acceptDocument, notFound, stale } from './problems.js';
import { rigs } from './tables.js';

type RigRow = typeof rigs.$inferSelect;

const shown = (row: RigRow) => ({
  id: row.id,
  revision: row.revision,
  document: row.document,
  updatedAt: row.updatedAt,
  archived: row.archivedAt !== null,
});

const created = z.object({ id: idSchema.optional(), document: z.unknown() });
const saved = z.object({
  baseRevision: z.number({ error: 'must be the revision the change was based on' }).int().min(1),
  document: z.unknown(),
});

const acceptRig = (document: unknown): Rig => acceptDocument('rig', parseRig(document));

async function findRig(db: Database, id: string): Promise<RigRow> {
  const [row] = await db.select().from(rigs).where(eq(rigs.id, id));
  if (!row) throw notFound('rig');
  return row;
}

/** A new rig; asking again with the same id changes nothing. */
export async function insertRig(
  db: Database,
  id: string,
  document: Rig,
  createdAt?: Date,
): Promise<void> {
  await db
    .insert(rigs)
    .values({ id, revision: 1, document, ...(createdAt ? { createdAt } : {}) })
    .onConflictDoNothing();
}

export function rigRoutes(db: Database): Router {
  const router = Router();
  const idOf = (params: Record<string, string>): string => accept(idSchema, params.id);

  router.get('/', async (request, response) => {
    const archived = request.query.archived === 'true';
    const rows = await db
      .select()
      .from(rigs)
      .where(archived ? isNotNull(rigs.archivedAt) : isNull(rigs.archivedAt))
      .orderBy(asc(rigs.createdAt), asc(rigs.id));
    response.json(rows.map(shown));
  });

  router.post('/', async (request, response) => {
    const { id = randomUUID(), document } = accept(created, request.body);
    await insertRig(db, id, acceptRig(document));
    response.status(201).json(shown(await findRig(db, id)));
  });

  router.get('/:id', async (request, response) => {
    response.json(shown(await findRig(db, idOf(request.params))));
  });

  router.put('/:id', async (request, response) => {
    const id = idOf(request.params);
    const { baseRevision, document } = accept(saved, request.body);
    const rig = acceptRig(document);
    const row = await db.transaction(async (tx) => {
      const [now] = await tx.select().from(rigs).where(eq(rigs.id, id)).for('update');
      if (!now) throw notFound('rig');
      if (isDeepStrictEqual(now.document, rig)) return now;
      if (now.revision !== baseRevision) stale('rig', shown(now), { baseRevision, document: rig });
      const [stored] = await tx
        .update(rigs)
        .set({ document: rig, revision: now.revision + 1, updatedAt: sql`now()` })
        .where(eq(rigs.id, id))
        .returning();
      return stored!;
    });
    response.json(shown(row));
  });

  router.patch('/:id', async (request, response) => {
    const id = idOf(request.params);
    const { archived } = accept(archiving, request.body);
    const [row] = await db
      .update(rigs)
      .set({ archivedAt: archived ? sql`now()` : null })
      .where(eq(rigs.id, id))
      .returning();
    if (!row) throw notFound('rig');
    response.json(shown(row));
  });

  router.post('/:id/duplicate', async (request, response) => {
    const id = idOf(request.params);
    const { id: newId = randomUUID() } = accept(
      z.object({ id: idSchema.optional() }),
      request.body ?? {},
    );
    await db.transaction(async (tx) => {
      const { document } = await findRig(tx, id);
      const rows = await tx.select({ name: sql<string>`${rigs.document}->>'name'` }).from(rigs);
      const name = copyName(document.name, new Set(rows.map((row) => row.name)));
      await insertRig(tx, newId, { ...document, name });
    });
    response.status(201).json(shown(await findRig(db, newId)));
  });

  return router;
}
