import { parseEdited } from '@gangway/station';
import type { Connection, Query } from '../database.js';
import { acceptDocument, notFound, Refusal, stale, stillInUse } from '../problems.js';
import type { Given, Kind } from './kind.js';
import { isSame, jsonOf, moment, shownColumns, type Shown } from './rows.js';

/** What is done with documents of any kind. Statements name tables and columns of ours only. */

const MISSING: Readonly<Record<Kind['table'], string>> = {
  stations: 'station',
  rigs: 'rig',
  kit_items: 'item in the kit',
};

const missing = ({ table }: Kind): Refusal => notFound(MISSING[table]);

/** New documents, each with its first revision, in one statement. @returns ids that were free */
export async function insertAll(
  query: Query,
  { table, revisions, owner, own }: Kind,
  given: readonly Given[],
): Promise<Set<string>> {
  if (given.length === 0) return new Set();
  const [columns, values] = [Object.keys(own), Object.values(own)];
  const rows = await query<{ id: string }>(
    `with given as (
       select * from jsonb_to_recordset($1::jsonb) as given
         (id uuid, document jsonb, created_at timestamptz, import_id uuid, job_id uuid, status text)
     ), added as (
       insert into ${table} (${['id', 'revision', 'document', 'created_at', ...columns].join(', ')})
       select ${['id', '1', 'document', 'coalesce(created_at, now())', ...values].join(', ')}
       from given
       on conflict do nothing
       returning id
     ), kept as (
       insert into ${revisions} (${owner}, revision, document${revisions === 'kit_revisions' ? ', import_id' : ''})
       select given.id, 1, document${revisions === 'kit_revisions' ? ', import_id' : ''}
       from given join added using (id)
     )
     select id from added`,
    [JSON.stringify(given)],
  );
  return new Set(rows.map(({ id }) => id));
}

/** What a document was when it was made; undefined when there is none. */
export async function beginningOf(
  query: Query,
  { table, revisions, owner }: Kind,
  id: string,
): Promise<Record<string, unknown> | undefined> {
  const [row] = await query<Record<string, unknown>>(
    `select head.*, first.* from ${table} as head
     join ${revisions} as first on first.${owner} = head.id and first.revision = 1
     where head.id = $1`,
    [id],
  );
  return row;
}

/** One document as JSON. @throws a 404 when there is none */
export async function readJson(
  { prepared }: Pick<Connection, 'prepared'>,
  kind: Kind,
  id: string,
): Promise<string> {
  const text = `select ${shownColumns(kind)} from ${kind.table} where id = $1`;
  const [row] = await prepared(`read ${kind.what}`, text, [id]);
  if (!row) throw missing(kind);
  return jsonOf(kind, row as unknown as Shown);
}

export interface Change {
  readonly baseRevision: number;
  readonly document: unknown;
  /** Earlier revisions a person chose to go on from, or over: never thinned away. */
  readonly holds: readonly number[];
}

/** One way to the database and one lock, held for the length of the statement. */
const storeNext = (kind: Kind): string => {
  const { table, revisions, owner, digest } = kind;
  const kept = digest ? ', digest = $5::jsonb, digest_of = revision + 1' : '';
  return `
    with given as (
      select $3::jsonb as document
    ), stored as (
      update ${table} as head
      set document = given.document, revision = revision + 1, updated_at = now()${kept}
      from given
      where id = $1 and revision = $2 and head.document <> given.document
        and head.document->>'kind' is not distinct from given.document->>'kind'
      returning head.*
    ), kept as (
      insert into ${revisions} (${owner}, revision, document, saved_at)
      select id, revision, document, updated_at from stored
    ), held as (
      update ${revisions} as earlier set held = true
      from stored
      where earlier.${owner} = stored.id and earlier.revision = any($4::integer[])
    )
    select ${shownColumns(kind)} from stored`;
};

/**
 * Stores a document as the next revision when it was based on the present one.
 * @returns it as JSON
 * @throws a 409 that holds both versions when it was not
 */
export async function save<T extends object>(
  connection: Connection,
  kind: Kind<T>,
  id: string,
  change: Change,
): Promise<string> {
  const { prepared, transact } = connection;
  const store = async (document: T): Promise<string | undefined> => {
    const values: unknown[] = [
      id,
      change.baseRevision,
      JSON.stringify(document),
      [...change.holds],
    ];
    if (kind.digest) values.push(JSON.stringify(kind.digest(document)));
    const [row] = await prepared(`store ${kind.what}`, storeNext(kind), values);
    return row && jsonOf(kind, row as unknown as Shown);
  };
  const read = kind.parse(change.document);
  if (read.ok) {
    const stored = await store(read.value);
    if (stored !== undefined) return stored;
  }
  // Either it cannot be stored as it is, or it is there already, or something else is.
  const sound = read.ok ? read.value : undefined;
  const document = await transact((query) => changed(query, kind, id, change, { sound }));
  const stored = document === null ? await readJson(connection, kind, id) : await store(document);
  // It was changed by another in between: the next look will say so.
  return stored ?? save(connection, kind, id, change);
}

interface Head<T> {
  readonly document: T;
  readonly revision: number;
}

/** The document to be stored; null when it is there already. The row stays locked for the work. */
async function changed<T extends object>(
  query: Query,
  kind: Kind<T>,
  id: string,
  { baseRevision, document: input }: Pick<Change, 'baseRevision' | 'document'>,
  { under, sound }: { under?: string | undefined; sound?: T | undefined } = {},
): Promise<T | null> {
  const [row] = await query<Head<T> & Shown & { same: boolean | null }>(
    `select document, revision, document = $2::jsonb as same, ${shownColumns(kind)}
     from ${kind.table} where id = $1 for update`,
    [id, sound === undefined ? null : JSON.stringify(sound)],
  );
  if (!row) throw missing(kind);
  const document =
    sound ?? acceptDocument(kind.what, parseEdited(kind.parse, input, row.document), under);
  // The same content again is a repeat whose first answer was lost, or an empty change.
  if (row.same ?? isSame(row.document, document)) return null;
  const sort = (of: unknown): unknown => (of as { kind?: unknown }).kind;
  if (sort(document) !== sort(row.document)) {
    throw new Refusal(422, 'What kind of thing an item is cannot be changed.', {
      errors: [{ pointer: '/document/kind', message: `must stay "${String(sort(row.document))}"` }],
    });
  }
  if (row.revision !== baseRevision) {
    stale(kind.what, JSON.parse(jsonOf(kind, row)), { baseRevision, document });
  }
  return document;
}

/** {@link save} of a kit item as a part of an import, or of taking one back. */
export async function saveItem(
  query: Query,
  kind: Kind & { readonly table: 'kit_items' },
  id: string,
  change: Pick<Change, 'baseRevision' | 'document'>,
  { importId = null, under }: { importId?: string | null; under?: string } = {},
): Promise<void> {
  const document = await changed(query, kind, id, change, { under });
  if (document === null) return;
  await query(
    `with stored as (
       update kit_items set document = $2, revision = revision + 1, updated_at = now()
       where id = $1
       returning id, revision, document, updated_at
     )
     insert into kit_revisions (item_id, revision, document, saved_at, import_id)
     select id, revision, document, updated_at, $3 from stored`,
    [id, JSON.stringify(document), importId],
  );
}

/** Puts a document into the archive or takes it out. @returns it as JSON */
export async function archive(
  query: Query,
  kind: Kind,
  id: string,
  archived: boolean,
): Promise<string> {
  const [row] = await query<Shown>(
    `update ${kind.table} set archived_at = ${archived ? 'now()' : 'null'}
     where id = $1 returning ${shownColumns(kind)}`,
    [id],
  );
  if (!row) throw missing(kind);
  return jsonOf(kind, row);
}

/** Takes an archived document away for good, with every save. Copies elsewhere stay as they are. */
export const remove = ({ transact }: Connection, kind: Kind, id: string): Promise<void> =>
  transact(async (query) => {
    const [row] = await query<{ archived: boolean }>(
      `select archived_at is not null as archived from ${kind.table} where id = $1 for update`,
      [id],
    );
    if (!row) throw missing(kind);
    if (!row.archived) throw stillInUse();
    await kind.beforeRemoval?.(query, id);
    await query(`delete from ${kind.revisions} where ${kind.owner} = $1`, [id]);
    await query(`delete from ${kind.table} where id = $1`, [id]);
  });

export interface ListedRevision {
  readonly revision: number;
  readonly savedAt: string;
  /** What a person called it; null where nobody did. */
  readonly name: string | null;
}

/** When each was saved, newest first; the documents one by one. */
export async function listRevisions(
  query: Query,
  kind: Kind,
  id: string,
  before: number,
  limit: number,
): Promise<readonly ListedRevision[]> {
  const [there] = await query(`select 1 from ${kind.table} where id = $1`, [id]);
  if (!there) throw missing(kind);
  return query<ListedRevision>(
    `select revision, ${moment('saved_at')} as "savedAt", name from ${kind.revisions}
     where ${kind.owner} = $1 and revision < $2 order by revision desc limit $3`,
    [id, before, limit],
  );
}

export async function readRevision(
  query: Query,
  kind: Kind,
  id: string,
  revision: number,
): Promise<ListedRevision & { readonly document: unknown }> {
  const [row] = await query<ListedRevision & { document: unknown; old: boolean }>(
    `select revision, ${moment('saved_at')} as "savedAt", name, document, ${kind.isOld} as old
     from ${kind.revisions} where ${kind.owner} = $1 and revision = $2`,
    [id, revision],
  );
  if (!row) throw notFound(`version of a ${kind.what}`);
  const { old, ...shown } = row;
  return old ? { ...shown, document: kind.migrated(row.document) } : shown;
}

/** Gives a version a name of a person's, which keeps it for good; null takes the name away. */
export async function nameRevision(
  query: Query,
  kind: Kind,
  id: string,
  revision: number,
  name: string | null,
): Promise<void> {
  const named = await query(
    `update ${kind.revisions} set name = $3 where ${kind.owner} = $1 and revision = $2 returning 1`,
    [id, revision, name],
  );
  if (named.length === 0) throw notFound(`version of a ${kind.what}`);
}
