import { randomUUID } from 'node:crypto';
import { asc, eq, isNotNull, isNull, sql } from 'drizzle-orm';
import { Router } from 'express';
import * as z from 'zod';
import { parseEdited, parseRig, type Rig } from '@gangway/station';
import type { Connection, Database } from './database.js';
import { copied, copyName, idSchema, isCopyOf } from './jobs.js';
import { archiving } from './kit.js';
import {
  accept,
  acceptDocument,
  notFound,
  requireCopyable,
  stale,
  stillInUse,
  taken,
} from './problems.js';
import { isSame, listJson, rigJson, sendJson } from './rows.js';
import { rigs } from './tables.js';

const created = z.object({ id: idSchema.optional(), document: z.unknown() });
const saved = z.object({
  baseRevision: z.number({ error: 'must be the revision the change was based on' }).int().min(1),
  document: z.unknown(),
});

async function findRig(db: Database, id: string) {
  const [row] = await db.select().from(rigs).where(eq(rigs.id, id));
  if (!row) throw notFound('rig');
  return row;
}

/** A new rig. @returns false when the id is taken already */
export async function insertRig(
  db: Database,
  id: string,
  document: Rig,
  createdAt?: Date,
): Promise<boolean> {
  const added = await db
    .insert(rigs)
    .values({ id, revision: 1, document, ...(createdAt ? { createdAt } : {}) })
    .onConflictDoNothing()
    .returning({ id: rigs.id });
  return added.length > 0;
}

async function rigAsJson(db: Database, id: string): Promise<string> {
  const [row] = await db.select({ json: rigJson }).from(rigs).where(eq(rigs.id, id));
  if (!row) throw notFound('rig');
  return row.json;
}

export function rigRoutes({ db, transact }: Connection): Router {
  const router = Router();
  const idOf = (params: Record<string, string>): string => accept(idSchema, params.id);

  router.get('/', async (request, response) => {
    const archived = request.query.archived === 'true';
    const rows = await db
      .select({ json: rigJson })
      .from(rigs)
      .where(archived ? isNotNull(rigs.archivedAt) : isNull(rigs.archivedAt))
      .orderBy(asc(rigs.createdAt), asc(rigs.id));
    sendJson(response, listJson(rows));
  });

  router.post('/', async (request, response) => {
    const { id = randomUUID(), document } = accept(created, request.body);
    const rig = acceptDocument('rig', parseRig(document));
    if (!(await insertRig(db, id, rig))) {
      const there = await findRig(db, id);
      if (there.revision > 1 || !isSame(there.document, rig)) throw taken('rig');
    }
    sendJson(response, await rigAsJson(db, id), 201);
  });

  router.get('/:id', async (request, response) => {
    sendJson(response, await rigAsJson(db, idOf(request.params)));
  });

  router.put('/:id', async (request, response) => {
    const id = idOf(request.params);
    const { baseRevision, document } = accept(saved, request.body);
    await transact(async (tx) => {
      const [now] = await tx.select().from(rigs).where(eq(rigs.id, id)).for('update');
      if (!now) throw notFound('rig');
      const rig = acceptDocument('rig', parseEdited(parseRig, document, now.document));
      if (isSame(now.document, rig)) return;
      if (now.revision !== baseRevision) {
        const current = JSON.parse(await rigAsJson(tx, id)) as unknown;
        stale('rig', current, { baseRevision, document: rig });
      }
      await tx
        .update(rigs)
        .set({ document: rig, revision: now.revision + 1, updatedAt: sql`now()` })
        .where(eq(rigs.id, id));
    });
    sendJson(response, await rigAsJson(db, id));
  });

  router.patch('/:id', async (request, response) => {
    const id = idOf(request.params);
    const { archived } = accept(archiving, request.body);
    const [row] = await db
      .update(rigs)
      .set({ archivedAt: archived ? sql`now()` : null })
      .where(eq(rigs.id, id))
      .returning({ json: rigJson });
    if (!row) throw notFound('rig');
    sendJson(response, row.json);
  });

  router.delete('/:id', async (request, response) => {
    const id = idOf(request.params);
    const row = await findRig(db, id);
    if (row.archivedAt === null) throw stillInUse();
    await db.delete(rigs).where(eq(rigs.id, id));
    response.status(204).end();
  });

  router.post('/:id/duplicate', async (request, response) => {
    const id = idOf(request.params);
    const { id: newId = randomUUID() } = accept(copied, request.body ?? {});
    await transact(async (tx) => {
      const { document } = await findRig(tx, id);
      requireCopyable(document);
      const rows = await tx.select({ name: sql<string>`${rigs.document}->>'name'` }).from(rigs);
      const name = copyName(String(document.name), new Set(rows.map((row) => row.name)));
      const copy = { ...document, name };
      if (await insertRig(tx, newId, copy)) return;
      const there = await findRig(tx, newId);
      const same = isSame({ ...there.document, name }, copy);
      if (there.revision > 1 || !same || !isCopyOf(there.document.name, document.name)) {
        throw taken('rig');
      }
    });
    sendJson(response, await rigAsJson(db, newId), 201);
  });

  return router;
}
