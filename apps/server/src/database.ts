import { sql } from 'drizzle-orm';
import { drizzle, type NodePgDatabase } from 'drizzle-orm/node-postgres';
import { readMigrationFiles } from 'drizzle-orm/migrator';
import { migrate } from 'drizzle-orm/node-postgres/migrator';
import pg from 'pg';
import * as tables from './tables.js';
import { troubleOf } from './trouble.js';

export type Database = NodePgDatabase<typeof tables>;

/** Runs a statement written by hand. Names in it are our own; what comes from outside is a value. */
export type Query = <Row extends object = Record<string, unknown>>(
  text: string,
  values: readonly unknown[],
) => Promise<Row[]>;

const queryOf =
  (db: Database): Query =>
  async <Row extends object>(text: string, values: readonly unknown[]) => {
    const parts = text.split(/\$(\d+)/);
    const chunks = parts.map((part, i) =>
      i % 2 === 0 ? sql.raw(part) : sql`${sql.param(values[Number(part) - 1])}`,
    );
    return (await db.execute(sql.join(chunks))).rows as Row[];
  };

export interface Connection {
  readonly db: Database;
  /** A statement with its values, `$1` the first. */
  readonly query: Query;
  /** All of the work or nothing of it; done anew when the database asks for that. */
  readonly transact: <T>(work: (query: Query, tx: Database) => Promise<T>) => Promise<T>;
  /** A statement the database plans once for each connection and then only carries out. */
  readonly prepared: (
    name: string,
    text: string,
    values: readonly unknown[],
  ) => Promise<readonly Record<string, unknown>[]>;
  readonly ready: () => Promise<void>;
  readonly close: () => Promise<void>;
}

/** How long a request waits for the database before it is told that there is none. */
const CONNECT_MS = 5_000;
const STATEMENT_MS = 10_000;
/** The driver gives up on a connection later than the database does on a statement. */
const QUERY_MS = STATEMENT_MS + 2_000;
const MOST_TRIES = 5;

export const APPLICATION = 'gangway';

export function connect(url: string, onCut: (error: Error) => void): Connection {
  const pool = new pg.Pool({
    connectionString: url,
    application_name: APPLICATION,
    max: 10,
    connectionTimeoutMillis: CONNECT_MS,
    statement_timeout: STATEMENT_MS,
    query_timeout: QUERY_MS,
    idle_in_transaction_session_timeout: QUERY_MS,
  });
  // The pool listens to a connection only while it lies idle. One cut while it is in use, between
  // two statements of a transaction, is reported to nobody else and would end the process.
  pool.on('connect', (client) => client.on('error', onCut));
  pool.on('error', () => {});

  async function once<T>(work: (query: Query, tx: Database) => Promise<T>): Promise<T> {
    const client = await pool.connect();
    let fault: unknown;
    try {
      const tx = drizzle(client, { schema: tables });
      await client.query('begin');
      const made = await work(queryOf(tx), tx);
      await client.query('commit');
      return made;
    } catch (error) {
      // A connection that cannot roll back is thrown away; the database rolls back by itself.
      fault = await client.query('rollback').then(
        () => undefined,
        (cut: unknown) => cut,
      );
      throw error;
    } finally {
      client.release(fault instanceof Error ? fault : undefined);
    }
  }

  async function transact<T>(work: (query: Query, tx: Database) => Promise<T>): Promise<T> {
    for (let tries = 1; ; tries++) {
      try {
        return await once(work);
      } catch (error) {
        if (troubleOf(error) !== 'again' || tries === MOST_TRIES) throw error;
        await new Promise((resolve) => setTimeout(resolve, 2 ** tries * 10 * (1 + Math.random())));
      }
    }
  }

  const db = drizzle(pool, { schema: tables });
  return {
    db,
    query: queryOf(db),
    transact,
    prepared: async (name, text, values) =>
      (await pool.query<Record<string, unknown>>({ name, text, values: [...values] })).rows,
    ready: async () => {
      await pool.query('select 1');
    },
    close: () => pool.end(),
  };
}

/** The database was written by a later version: nothing may be changed in it. */
export class NewerDatabase extends Error {
  constructor() {
    super(
      'The database was written by a newer Gangway. Nothing was changed in it. Start that version, ' +
        'or restore a backup made by this one into an empty database.',
    );
  }
}

/** @throws NewerDatabase when the database knows a migration that is not in the folder */
async function refuseNewer(db: Database, folder: string): Promise<void> {
  const { rows: found } = await db.execute(
    sql`select to_regclass('drizzle.__drizzle_migrations') is not null as there`,
  );
  if (found[0]?.there !== true) return;
  const { rows } = await db.execute(
    sql`select max(created_at) as latest from drizzle.__drizzle_migrations`,
  );
  const known = Math.max(...readMigrationFiles({ migrationsFolder: folder }).map(madeAt));
  if (Number(rows[0]?.latest ?? 0) > known) throw new NewerDatabase();
}

const madeAt = ({ folderMillis }: { folderMillis: number }): number => folderMillis;

/** Any number, the same for all of ours: who holds it may change the tables. */
const MIGRATION_LOCK = 4170_001;

/** Brings the tables to this version; of several processes that start at once one does it. */
export async function applyMigrations(url: string, folder: string): Promise<void> {
  const client = new pg.Client({
    connectionString: url,
    application_name: APPLICATION,
    connectionTimeoutMillis: CONNECT_MS,
  });
  client.on('error', () => {});
  try {
    await client.connect();
    const db = drizzle(client, { schema: tables });
    await client.query('select pg_advisory_lock($1)', [MIGRATION_LOCK]);
    await refuseNewer(db, folder);
    await migrate(db, { migrationsFolder: folder });
  } finally {
    await client.end().catch(() => {});
  }
}
