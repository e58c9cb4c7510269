import { isDeepStrictEqual } from 'node:util';
import type { Response } from 'express';
import type { Kind } from './kind.js';

/**
 * Rows as the interface shows them, written as JSON by the database itself: a document of the
 * present form passes through unread, so one that nobody can read harms nothing here, and no time
 * is spent on it.
 */
export interface Shown {
  readonly json: string;
  readonly old: boolean;
}

/** A moment as JSON has it. */
export const moment = (column: string): string =>
  `to_char(${column} at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"')`;

/** What to select of a row. The names are our own, never from outside. */
export function shownColumns({ shown, isOld }: Kind): string {
  const fields = {
    id: 'id',
    revision: 'revision',
    document: 'document',
    updatedAt: moment('updated_at'),
    createdAt: moment('created_at'),
    archived: 'archived_at is not null',
    ...shown,
  };
  const listed = Object.entries(fields).map(([name, column]) => `'${name}', ${column}`);
  return `json_build_object(${listed.join(', ')})::text as json, ${isOld} as old`;
}

/** The row's JSON, its document brought to the present form. */
export function jsonOf({ migrated }: Kind, { json, old }: Shown): string {
  if (!old) return json;
  const row = JSON.parse(json) as { document: unknown };
  return JSON.stringify({ ...row, document: migrated(row.document) });
}

export const listJson = (kind: Kind, rows: readonly Shown[]): string =>
  `[${rows.map((row) => jsonOf(kind, row)).join(',')}]`;

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
