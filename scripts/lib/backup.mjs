import { createHmac, randomBytes, timingSafeEqual } from 'node:crypto';
import {
  closeSync,
  createReadStream,
  existsSync,
  mkdirSync,
  openSync,
  readFileSync,
  renameSync,
  rmSync,
  writeFileSync,
} from 'node:fs';
import { dirname } from 'node:path';
import { leaveNothing } from './leftovers.mjs';
import { at } from './paths.mjs';
import { run } from './postgres-run.mjs';

/**
 * Backups: a file of PostgreSQL's own (pg_dump, custom form), and beside it a list of how many rows
 * each table had and what they hashed to, against which a restore is checked.
 */

export const checkFileOf = (file) => `${file}.check.json`;

const quoted = (name) => `"${name.replaceAll('"', '""')}"`;

/** Runs `work` with a connection that sees one moment of the database. */
export async function atOneMoment(url, work) {
  const { default: pg } = await import('pg');
  const client = new pg.Client({ connectionString: url, application_name: 'gangway-backup' });
  client.on('error', () => {});
  await client.connect();
  try {
    await client.query("set timezone = 'UTC'");
    await client.query('begin transaction isolation level repeatable read, read only');
    return await work(client);
  } finally {
    await client.end().catch(() => {});
  }
}

const TABLES = `
  select schemaname as schema, tablename as name from pg_tables
  where schemaname in ('public', 'drizzle') order by 1, 2`;

/** Rows and a hash of them for each table, whatever order they lie in. */
async function tablesOf(client) {
  const { rows } = await client.query(TABLES);
  const tables = {};
  for (const { schema, name } of rows) {
    const { rows: of } = await client.query(
      `select count(*)::integer as rows, md5(coalesce(string_agg(line, '' order by line), '')) as md5
       from (select md5(each::text) as line from ${quoted(schema)}.${quoted(name)} as each) as lines`,
    );
    tables[`${schema}.${name}`] = of[0];
  }
  return tables;
}

/** What a database holds, for comparing. */
export const contentsOf = (url) => atOneMoment(url, tablesOf);

/** When the last change of the tables was made that the database knows; 0: none, an empty one. */
async function migrationOf(client) {
  const { rows } = await client.query(
    `select to_regclass('drizzle.__drizzle_migrations') is not null as there`,
  );
  if (!rows[0].there) return 0;
  const { rows: latest } = await client.query(
    'select coalesce(max(created_at), 0) as made from drizzle.__drizzle_migrations',
  );
  return Number(latest[0].made);
}

export const journal = () =>
  JSON.parse(readFileSync(at('apps/server/migrations/meta/_journal.json'), 'utf8')).entries;
export const newest = () => journal().reduce((a, b) => (a.when > b.when ? a : b));

const countOf = (tables, name) => tables[`public.${name}`]?.rows ?? 0;

/** “2 jobs, 18 stations with 40 saves, 60 exposures, 33 things in the kit, 14 rigs” */
export const inWords = (tables) =>
  `${countOf(tables, 'jobs')} jobs, ${countOf(tables, 'stations')} stations with ` +
  `${countOf(tables, 'station_revisions')} saves, ${countOf(tables, 'exposures')} exposures, ` +
  `${countOf(tables, 'kit_items')} things in the kit, ` +
  `${countOf(tables, 'rigs')} rigs`;

export const isEmpty = (tables) =>
  ['jobs', 'stations', 'kit_items', 'rigs'].every((name) => countOf(tables, name) === 0);

/** Writes a backup of everything. The file is there whole or not at all. @returns what it holds */
export async function backup(url, file, say) {
  mkdirSync(dirname(file), { recursive: true });
  const made = `${file}.part`;
  const stay = leaveNothing(made);
  const check = await atOneMoment(url, async (client) => {
    const { rows } = await client.query('select pg_export_snapshot() as snapshot');
    // Our own schemas alone: an extension that somebody put into the database is not ours to bring back.
    const own = ['-n', 'public', '-n', 'drizzle'];
    const args = ['-Fc', ...own, '--no-owner', '--no-privileges', `--snapshot=${rows[0].snapshot}`];
    try {
      // Nobody else may read it from its first byte on.
      rmSync(made, { force: true });
      closeSync(openSync(made, 'wx', 0o600));
      run('pg_dump', url, [...args, '-f', made], say);
      // Read to its end once: what cannot be read back is no backup.
      run('pg_restore', url, ['-f', '/dev/null', made], say);
      return {
        format: 'gangway.backup',
        version: 1,
        made: new Date().toISOString(),
        migration: await migrationOf(client),
        tables: await tablesOf(client),
      };
    } catch (error) {
      rmSync(made, { force: true });
      stay();
      throw error;
    }
  });
  const signed = { ...check, hmac: await digestOf(made, check) };
  writeFileSync(checkFileOf(file), `${JSON.stringify(signed, null, 2)}\n`, { mode: 0o600 });
  renameSync(made, file);
  stay();
  return check;
}

/** Reads the list beside a backup. @returns null when there is none */
export function checkOf(file) {
  const path = checkFileOf(file);
  if (!existsSync(path)) return null;
  const check = JSON.parse(readFileSync(path, 'utf8'));
  if (check.format !== 'gangway.backup' || check.version !== 1) {
    throw new Error(`${path} is not the list that belongs to a backup.`);
  }
  return check;
}

/** What this installation signs its backups with; whoever reads it can sign as well. */
function ownKey() {
  const path = at('.data', 'backup-key');
  if (!existsSync(path)) {
    mkdirSync(dirname(path), { recursive: true });
    writeFileSync(path, randomBytes(32).toString('hex'), { mode: 0o600, flag: 'wx' });
  }
  return readFileSync(path, 'utf8');
}

/** A keyed digest of a backup and of the list beside it. */
async function digestOf(file, { hmac: _, ...check }) {
  const hash = createHmac('sha256', ownKey()).update(JSON.stringify(check));
  for await (const chunk of createReadStream(file)) hash.update(chunk);
  return hash.digest('hex');
}

/** Whether this installation wrote a backup, and nothing of it was changed since. */
export async function isOwn(file, check) {
  if (typeof check?.hmac !== 'string') return false;
  const [said, own] = [check.hmac, await digestOf(file, check)].map((text) => Buffer.from(text));
  return said.length === own.length && timingSafeEqual(said, own);
}

/** What differs between two lists of tables, a sentence each. */
export function differencesBetween(went, came) {
  const names = [...new Set([...Object.keys(went), ...Object.keys(came)])].sort();
  return names.flatMap((name) => {
    const [a, b] = [went[name], came[name]];
    if (!a || !b) return [`${name} is ${a ? 'missing' : 'new'}`];
    if (a.rows !== b.rows) return [`${name} has ${b.rows} rows, not ${a.rows}`];
    return a.md5 === b.md5 ? [] : [`${name} has other contents`];
  });
}

export const keptFile = (profile, why) => {
  const stamp = new Date().toISOString().replace(/[:.]/g, '-');
  return at('.data/backups', `${profile}-${why}-${stamp}.dump`);
};

/** Before the tables of a database are changed, all that it holds is kept in a file. */
export async function backupBeforeMigration(url, profile, say) {
  if (process.env.BACKUP === 'off') return;
  const { when, tag } = newest();
  const made = await atOneMoment(url, migrationOf).catch(() => null);
  // Not there yet, empty, or as new as this version: the server says what is to be said.
  if (made === null || made === 0 || made >= when) return;
  const file = keptFile(profile, `before-${tag}`);
  say('The tables of the database are going to be changed; backing it up first …');
  try {
    await backup(url, file, say);
  } catch (error) {
    throw new Error(
      `${error.message}\nNothing was changed. Make the backup yourself and start with BACKUP=off.`,
      { cause: error },
    );
  }
  say(`It is kept in ${file}`);
}
