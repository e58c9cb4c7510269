import { and, desc, eq, lt } from 'drizzle-orm';
import { Router } from 'express';
import * as z from 'zod';
import type { Connection, Database } from './database.js';
import { idSchema } from './jobs.js';
import { acceptItem, beginningOfItem, findItem, insertItem, saveItem } from './kit.js';
import { accept, taken } from './problems.js';
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

/** In one order always: two imports of the same items wait for each other and cannot lock up. */
const byId = (a: { id: string }, b: { id: string }): number => (a.id < b.id ? -1 : 1);

/** Imports: each part is taken whole or not at all, and a whole import can be taken back. */
export function importRoutes({ transact }: Connection): Router {
  const router = Router();

  router.put('/:id', async (request, response) => {
    const importId = accept(idSchema, request.params.id);
    const { items, changes } = accept(part, request.body);
    const read = items.map(({ id, document }, i) => ({
      id,
      document: acceptItem(document, `/items/${i}/document`),
    }));
    const changed = changes.map((change, i) => ({ ...change, under: `/changes/${i}/document` }));
    await transact(async (tx) => {
      for (const { id, document } of read.toSorted(byId)) {
        if (await insertItem(tx, id, document, importId)) continue;
        if ((await beginningOfItem(tx, id))?.importId !== importId) throw taken('item');
      }
      for (const { id, baseRevision, document, under } of changed.toSorted(byId)) {
        await saveItem(tx, id, baseRevision, document, importId, under);
      }
    });
    response.json({ added: read.length, changed: changed.length });
  });

  router.delete('/:id', async (request, response) => {
    const importId = accept(idSchema, request.params.id);
    const answer = await transact((tx) => takeBack(tx, importId));
    response.json(answer);
  });

  return router;
}

/** Undoes an import. What was changed since is left as it is, and named. */
async function takeBack(tx: Database, importId: string) {
  const made = await tx
    .select({ itemId: kitRevisions.itemId, revision: kitRevisions.revision })
    .from(kitRevisions)
    .where(eq(kitRevisions.importId, importId))
    .orderBy(kitRevisions.itemId);
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
