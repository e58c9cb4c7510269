import { isDeepStrictEqual } from 'node:util';
import { getTableColumns, sql, type SQL } from 'drizzle-orm';
import { PgDialect, type PgColumn } from 'drizzle-orm/pg-core';
import type { Response } from 'express';
import { kitItems, rigs, stations } from './tables.js';

/**
 * Rows as the interface shows them, written as JSON by the database itself: a document passes
 * through unread, so one that nobody can read harms nothing here, and no time is spent on it.
 */

const moment = (column: PgColumn): SQL =>
  sql`to_char(${column} at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"')`;

const object = (fields: Readonly<Record<string, SQL | PgColumn>>): SQL<string> =>
  sql<string>`json_build_object(${sql.join(
    Object.entries(fields).flatMap(([name, value]) => [sql.raw(`'${name}'`), sql`${value}`]),
    sql`, `,
  )})::text`;

const ofDocument = (table: typeof stations | typeof kitItems | typeof rigs) => {
  const { id, revision, document, updatedAt, archivedAt } = getTableColumns(table);
  return {
    id,
    revision,
    document,
    updatedAt: moment(updatedAt),
    archived: sql`${archivedAt} is not null`,
  };
};

export const stationJson = object({
  ...ofDocument(stations),
  jobId: stations.jobId,
  createdAt: moment(stations.createdAt),
});
export const itemJson = object(ofDocument(kitItems));
export const rigJson = object(ofDocument(rigs));

/** Sends JSON that is text already. */
export function sendJson(response: Response, json: string, status = 200): void {
  response.statusCode = status;
  response.setHeader('Content-Type', 'application/json; charset=utf-8');
  response.setHeader('Content-Length', Buffer.byteLength(json));
  response.end(json);
}

/** Whether a stored document is what was given, as JSON has it: a minus zero, for one, is a zero. */
export const isSame = (stored: unknown, given: unknown): boolean =>
  isDeepStrictEqual(stored, JSON.parse(JSON.stringify(given)));

export const listJson = (rows: readonly { json: string }[]): string =>
  `[${rows.map(({ json }) => json).join(',')}]`;

/** An expression as it stands in a statement written by hand. */
export const textOf = (expression: SQL): string => new PgDialect().sqlToQuery(expression).sql;
