import { Router } from 'express';
import * as z from 'zod';
import { parseKitItem } from '@gangway/station';
import type { Connection, Query } from './database.js';
import { insertAll, saveItem } from './documents/store.js';
import { KIT } from './kit.js';
import { accept, acceptDocument, taken } from './problems.js';
import { idSchema } from './requests.js';

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
      document: acceptDocument('item', parseKitItem(document), `/items/${i}/document`),
      import_id: importId,
    }));
    const changed = changes.map((change, i) => ({ ...change, under: `/changes/${i}/document` }));
    await transact(async (query) => {
      const added = await insertAll(query, KIT, read.toSorted(byId));
      const there = read.map(({ id }) => id).filter((id) => !added.has(id));
      if (!(await allOf(query, importId, there))) throw taken('item');
      for (const { id, under, ...change } of changed.toSorted(byId)) {
        await saveItem(query, KIT, id, change, { importId, under });
      }
    });
    response.json({ added: read.length, changed: changed.length });
  });

  router.delete('/:id', async (request, response) => {
    const importId = accept(idSchema, request.params.id);
    response.json(await transact((query) => takeBack(query, importId)));
  });

  return router;
}

/** Whether all of these items were made by this very import: it was sent again. */
async function allOf(query: Query, importId: string, ids: readonly string[]): Promise<boolean> {
  if (ids.length === 0) return true;
  const rows = await query(
    `select 1 from kit_revisions
     where item_id = any($1::uuid[]) and revision = 1 and import_id = $2`,
    [ids, importId],
  );
  return rows.length === ids.length;
}

/** Undoes an import. What was changed since is left as it is, and named. */
async function takeBack(query: Query, importId: string) {
  const made = await query<{ id: string; made: number; revision: number; name: string }>(
    `select item_id as id, made.revision as made, item.revision, item.document->>'name' as name
     from kit_revisions as made join kit_items as item on item.id = item_id
     where import_id = $1 order by item_id for update of item`,
    [importId],
  );
  const untouched = made.filter((each) => each.revision === each.made);
  const added = untouched.filter((each) => each.made === 1).map(({ id }) => id);
  await query('delete from kit_items where id = any($1::uuid[])', [added]);
  const changed = untouched.filter((each) => each.made > 1);
  for (const { id, made: baseRevision } of changed) {
    const [before] = await query<{ document: unknown }>(
      `select document from kit_revisions where item_id = $1 and revision < $2
       order by revision desc limit 1`,
      [id, baseRevision],
    );
    await saveItem(query, KIT, id, { baseRevision, document: before!.document });
  }
  const left = made.filter((each) => each.revision !== each.made).map(({ name }) => name);
  return { removed: added.length, restored: changed.length, left };
}
