import { drizzle, type NodePgDatabase } from 'drizzle-orm/node-postgres';
import { migrate } from 'drizzle-orm/node-postgres/migrator';
import pg from 'pg';
import * as tables from './tables.js';

export type Database = NodePgDatabase<typeof tables>;

export interface Connection {
  readonly db: Database;
  readonly ready: () => Promise<void>;
  readonly close: () => Promise<void>;
}

/** How long a request waits for the database before it is told that there is none. */
const CONNECT_MS = 2_000;
const STATEMENT_MS = 10_000;

export function connect(url: string, onIdleError: (error: Error) => void): Connection {
  const pool = new pg.Pool({
    connectionString: url,
    max: 10,
    connectionTimeoutMillis: CONNECT_MS,
    statement_timeout: STATEMENT_MS,
    query_timeout: STATEMENT_MS,
  });
  // A connection cut while idle is reported here; without a listener it would end the process.
  pool.on('error', onIdleError);
  return {
    db: drizzle(pool, { schema: tables }),
    ready: async () => {
      await pool.query('select 1');
    },
    close: () => pool.end(),
  };
}

export const applyMigrations = (db: Database, folder: string): Promise<void> =>
  migrate(db, { migrationsFolder: folder });

/** SQLSTATE classes and codes that mean the server is away, starting or stopping. */
const AWAY = /^(08|57P0|53300)/;
const SOCKET = new Set([
  'ECONNREFUSED',
  'ECONNRESET',
  'EPIPE',
  'ETIMEDOUT',
  'ENOTFOUND',
  'ENOENT',
  'EHOSTUNREACH',
]);
const SAID = /connection terminated|timeout exceeded when trying to connect|Query read timeout/i;

/** Whether an error says that the database cannot be reached, rather than that a query is wrong. */
export function isDatabaseAway(error: unknown): boolean {
  for (let each = error; each instanceof Error; each = each.cause) {
    const { code, syscall } = each as { code?: unknown; syscall?: unknown };
    // A file that is not there has the same code as a socket that is not.
    if (code === 'ENOENT' && syscall !== 'connect') return false;
    if (typeof code === 'string' && (AWAY.test(code) || SOCKET.has(code))) return true;
    if (SAID.test(each.message)) return true;
    if (each instanceof AggregateError && each.errors.some(isDatabaseAway)) return true;
  }
  return false;
}
