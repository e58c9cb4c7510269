import { and, desc, eq, lt } from 'drizzle-orm';
import { Router } from 'express';
import * as z from 'zod';
import type { Database } from './database.js';
import { idSchema } from './jobs.js';
import { acceptItem, findItem, insertItem, saveItem } from './kit.js';
import { accept } from './problems.js';
import { kitItems, kitRevisions } from './tables.js';

const part = z.object({
  items: z
    .array(z.object({ id: idSchema, document: z.unknown() }))
    .max(5000)
    .default([]),
  changes: z
    .array(z.object({ id: idSchema, baseRevision: z.number().int().min(1), document: z.unknown() }))
    .max(5000)
    .default([]),
});

/** Imports: each part is taken whole or not at all, and a whole import can be taken back. */
export function importRoutes(db: Database): Router {
  const router = Router();

  router.put('/:id', async (request, response) => {
    const importId = accept(idSchema, request.params.id);
    const { items, changes } = accept(part, request.body);
    const read = items.map(({ id, document }, i) => ({
      id,
      document: acceptItem(document, `/items/${i}/document`),
    }));
    const changed = changes.map(({ id, baseRevision, document }, i) => ({
      id,
      baseRevision,
      document: acceptItem(document, `/changes/${i}/document`),
    }));
    await db.transaction(async (tx) => {
      for (const { id, document } of read) await insertItem(tx, id, document, importId);
      for (const { id, baseRevision, document } of changed) {
        await saveItem(tx, id, baseRevision, document, importId);
      }
    });
    response.json({ added: read.length, changed: changed.length });
  });

  router.delete('/:id', async (request, response) => {
    const importId = accept(idSchema, request.params.id);
    const answer = await db.transaction((tx) => takeBack(tx, importId));
    response.json(answer);
  });

  return router;
}

/** Undoes an import. What was changed since is left as it is, and named. */
async function takeBack(tx: Database, importId: string) {
  const made = await tx
    .select({ itemId: kitRevisions.itemId, revision: kitRevisions.revision })
    .from(kitRevisions)
    .where(eq(kitRevisions.importId, importId));
  const left: string[] = [];
  let removed = 0;
  let restored = 0;
  for (const { itemId, revision } of made) {
    const row = await findItem(tx, itemId);
    if (row.revision !== revision) left.push(row.document.name);
    else if (revision === 1) {
      await tx.delete(kitItems).where(eq(kitItems.id, itemId));
      removed += 1;
    } else {
      const [before] = await tx
        .select()
        .from(kitRevisions)
        .where(and(eq(kitRevisions.itemId, itemId), lt(kitRevisions.revision, revision)))
        .orderBy(desc(kitRevisions.revision))
        .limit(1);
      await saveItem(tx, itemId, revision, before!.document);
      restored += 1;
    }
  }
  return { removed, restored, left };
}
