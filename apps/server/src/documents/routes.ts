import { randomUUID } from 'node:crypto';
import { Router } from 'express';
import * as z from 'zod';
import type { Connection } from '../database.js';
import { accept, acceptDocument, afterStoring, taken } from '../problems.js';
import { nameSchema, idSchema, whole } from '../requests.js';
import { duplicate } from './copies.js';
import type { Kind } from './kind.js';
import { isSame, listJson, sendJson, shownColumns, type Shown } from './rows.js';
import {
  archive,
  beginningOf,
  insertAll,
  listRevisions,
  nameRevision,
  readJson,
  readRevision,
  remove,
  save,
} from './store.js';

const created = z.object({ id: idSchema.optional(), document: z.unknown() });
const saved = z.object({
  baseRevision: z.number({ error: 'must be the revision the change was based on' }).int().min(1),
  document: z.unknown(),
  holds: z.array(z.number().int().min(1)).max(20).default([]),
});
const archiving = z.object({ archived: z.boolean({ error: 'must be true or false' }) });
/** What a copy is to be called by; the page names it, so that asking twice makes one. */
const copied = z.object({ id: idSchema.optional() });
const revisionPage = z.object({
  before: whole(1, 2_147_483_647, 2_147_483_647),
  limit: whole(1, 500, 200),
});
const named = z.object({ name: nameSchema.nullable() });

/** Reads a new document and stores it; asked again after a lost answer it makes no second one. */
export async function create(
  connection: Connection,
  kind: Kind,
  body: unknown,
  own: { readonly job_id?: string } = {},
): Promise<string> {
  const { id = randomUUID(), document } = accept(created, body);
  const made = acceptDocument(kind.what, kind.parse(document));
  await connection.transact(async (query) => {
    const added = await insertAll(query, kind, [{ id, document: made, ...own }]);
    if (added.size > 0) return;
    const there = await beginningOf(query, kind, id);
    const elsewhere = own.job_id !== undefined && there?.job_id !== own.job_id;
    if (elsewhere || !isSame(there?.document, made)) throw taken(kind.what);
  });
  return afterStoring(() => readJson(connection, kind, id));
}

/** All that are, or are not, in the archive, in the order they were made. */
export function listRoutes(connection: Connection, kind: Kind): Router {
  const router = Router();
  router.get('/', async (request, response) => {
    const there = request.query.archived === 'true' ? 'is not null' : 'is null';
    const rows = await connection.query<Shown>(
      `select ${shownColumns(kind)} from ${kind.table} where archived_at ${there}
       order by created_at, id`,
      [],
    );
    sendJson(response, listJson(kind, rows));
  });
  router.post('/', async (request, response) => {
    sendJson(response, await create(connection, kind, request.body), 201);
  });
  return router;
}

/** What can be done with one document and with its earlier versions. */
export function documentRoutes(connection: Connection, kind: Kind): Router {
  const { query } = connection;
  const router = Router();
  const idOf = (params: Record<string, string>): string => accept(idSchema, params.id);
  const revisionOf = (params: Record<string, string>): number =>
    accept(whole(1, 2_147_483_647, 1), params.revision);

  router.get('/:id', async (request, response) => {
    sendJson(response, await readJson(connection, kind, idOf(request.params)));
  });

  router.put('/:id', async (request, response) => {
    const id = idOf(request.params);
    sendJson(response, await save(connection, kind, id, accept(saved, request.body)));
  });

  router.patch('/:id', async (request, response) => {
    const id = idOf(request.params);
    const { archived } = accept(archiving, request.body);
    sendJson(response, await archive(query, kind, id, archived));
  });

  router.delete('/:id', async (request, response) => {
    await remove(connection, kind, idOf(request.params));
    response.status(204).end();
  });

  router.post('/:id/duplicate', async (request, response) => {
    const id = idOf(request.params);
    const { id: newId = randomUUID() } = accept(copied, request.body ?? {});
    await duplicate(connection, kind, id, newId);
    sendJson(response, await afterStoring(() => readJson(connection, kind, newId)), 201);
  });

  router.get('/:id/revisions', async (request, response) => {
    const id = idOf(request.params);
    const { before, limit } = accept(revisionPage, request.query);
    response.json(await listRevisions(query, kind, id, before, limit));
  });

  router.get('/:id/revisions/:revision', async (request, response) => {
    const id = idOf(request.params);
    response.json(await readRevision(query, kind, id, revisionOf(request.params)));
  });

  router.patch('/:id/revisions/:revision', async (request, response) => {
    const id = idOf(request.params);
    const { name } = accept(named, request.body);
    await nameRevision(query, kind, id, revisionOf(request.params), name);
    response.status(204).end();
  });

  return router;
}
