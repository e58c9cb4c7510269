import { Router } from 'express';
import { parseKitItem, type KitItem } from '@gangway/station';
import type { Connection, Query } from './database.js';
import type { Kind } from './documents/kind.js';
import { readJson } from './documents/store.js';
import { accept } from './problems.js';
import { idSchema } from './requests.js';

export const KIT: Kind<KitItem> & { readonly table: 'kit_items' } = {
  what: 'item',
  table: 'kit_items',
  revisions: 'kit_revisions',
  owner: 'item_id',
  parse: parseKitItem,
  own: { kind: `given.document->>'kind'` },
  shown: {},
  // Items carry no version: what was added to them since is optional.
  isOld: 'false',
  migrated: (document) => document,
  beside: 'kind = (select kind from kit_items where id = $1)',
};

interface Use {
  readonly id: string;
  readonly name: string;
}

/** Where copies of an item are: rigs and stations that are not archived. */
async function usedBy(query: Query, id: string) {
  const [rigs, stations] = await Promise.all([
    query<Use>(
      `select id, document->>'name' as name from rigs
       where kit_ids ? $1 and archived_at is null order by created_at, id`,
      [id],
    ),
    query<Use & { readonly jobId: string; readonly job: string }>(
      `select stations.id, stations.name, job_id as "jobId", jobs.name as job
       from stations join jobs on jobs.id = job_id
       where kit_ids ? $1 and stations.archived_at is null
       order by stations.created_at, stations.id`,
      [id],
    ),
  ]);
  return { rigs, stations };
}

export function usedByRoutes(connection: Connection): Router {
  const router = Router();
  router.get('/:id/used-by', async (request, response) => {
    const id = accept(idSchema, request.params.id);
    await readJson(connection, KIT, id);
    response.json(await usedBy(connection.query, id));
  });
  return router;
}
