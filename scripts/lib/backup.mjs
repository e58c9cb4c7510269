import { spawnSync } from 'node:child_process';
import {
  chmodSync,
  closeSync,
  existsSync,
  mkdirSync,
  openSync,
  readFileSync,
  readSync,
  renameSync,
  rmSync,
  writeFileSync,
} from 'node:fs';
import { dirname, join } from 'node:path';
import { at } from './paths.mjs';
import { requireTools } from './postgres-programs.mjs';

/**
 * Backups: a file of PostgreSQL's own (pg_dump, custom form), and beside it a list of how many rows
 * each table had and what they hashed to, against which a restore is checked.
 */

const checkFileOf = (file) => `${file}.check.json`;

const quoted = (name) => `"${name.replaceAll('"', '""')}"`;

/** Runs `work` with a connection that sees one moment of the database. */
async function atOneMoment(url, work) {
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

const journal = () =>
  JSON.parse(readFileSync(at('apps/server/migrations/meta/_journal.json'), 'utf8')).entries;
const newest = () => journal().reduce((a, b) => (a.when > b.when ? a : b));

/** A program of PostgreSQL's; the password goes by the environment, which others cannot read. */
function run(program, url, args, say, more = {}) {
  const { hostname, port, username, password, pathname, searchParams } = new URL(url);
  const part = (text) => decodeURIComponent(text);
  const { status, stderr, error } = spawnSync(join(requireTools(say), program), args, {
    encoding: 'utf8',
    maxBuffer: 1 << 26,
    env: {
      ...process.env,
      LC_ALL: 'C.UTF-8',
      PGHOST: part(searchParams.get('host') ?? hostname),
      PGPORT: port || '5432',
      PGUSER: part(username),
      PGPASSWORD: part(password),
      PGDATABASE: part(pathname.slice(1)),
    },
    ...more,
  });
  if (status !== 0) {
    throw new Error(`${program} failed:\n${error?.message ?? String(stderr).trim().slice(-2000)}`);
  }
}

const countOf = (tables, name) => tables[`public.${name}`]?.rows ?? 0;

/** “2 jobs, 18 stations with 40 saves, 60 exposures, 33 things in the kit, 14 rigs” */
export const inWords = (tables) =>
  `${countOf(tables, 'jobs')} jobs, ${countOf(tables, 'stations')} stations with ` +
  `${countOf(tables, 'station_revisions')} saves, ${countOf(tables, 'exposures')} exposures, ` +
  `${countOf(tables, 'kit_items')} things in the kit, ` +
  `${countOf(tables, 'rigs')} rigs`;

const isEmpty = (tables) =>
  ['jobs', 'stations', 'kit_items', 'rigs'].every((name) => countOf(tables, name) === 0);

/** Writes a backup of everything. The file is there whole or not at all. @returns what it holds */
export async function backup(url, file, say) {
  mkdirSync(dirname(file), { recursive: true });
  const made = `${file}.part`;
  const check = await atOneMoment(url, async (client) => {
    const { rows } = await client.query('select pg_export_snapshot() as snapshot');
    const args = ['-Fc', '--no-owner', '--no-privileges', `--snapshot=${rows[0].snapshot}`];
    try {
      run('pg_dump', url, [...args, '-f', made], say);
      chmodSync(made, 0o600);
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
      throw error;
    }
  });
  writeFileSync(checkFileOf(file), `${JSON.stringify(check, null, 2)}\n`, { mode: 0o600 });
  renameSync(made, file);
  return check;
}

/** Reads the list beside a backup. @returns null when there is none */
function checkOf(file) {
  const path = checkFileOf(file);
  if (!existsSync(path)) return null;
  const check = JSON.parse(readFileSync(path, 'utf8'));
  if (check.format !== 'gangway.backup' || check.version !== 1) {
    throw new Error(`${path} is not the list that belongs to a backup.`);
  }
  return check;
}

/** What differs between two lists of tables, a sentence each. */
function differencesBetween(went, came) {
  const names = [...new Set([...Object.keys(went), ...Object.keys(came)])].sort();
  return names.flatMap((name) => {
    const [a, b] = [went[name], came[name]];
    if (!a || !b) return [`${name} is ${a ? 'missing' : 'new'}`];
    if (a.rows !== b.rows) return [`${name} has ${b.rows} rows, not ${a.rows}`];
    return a.md5 === b.md5 ? [] : [`${name} has other contents`];
  });
}

/** Tables that a restore replaces; others are somebody else's. */
const OURS = new Set(
  [
    'jobs',
    'stations',
    'station_revisions',
    'kit_items',
    'kit_revisions',
    'rigs',
    'rig_revisions',
    'exposures',
  ].map((name) => `public.${name}`),
).add('drizzle.__drizzle_migrations');

/**
 * Replaces what a database holds by a backup, in one transaction: all of it or nothing.
 * @param confirmed asked when there is something to be replaced; whether to go on
 * @throws when it may not, cannot, or what came back is not what went
 */
export async function restore(url, file, { profile, say, confirmed }) {
  if (!existsSync(file)) throw new Error(`There is no file ${file}.`);
  if (headOf(file) !== 'PGDMP') {
    throw new Error(`${file} is not a backup made by “npm run backup”.`);
  }
  const check = checkOf(file);
  if (check && check.migration > newest().when) {
    throw new Error(
      'This backup was made by a newer Gangway. Nothing was changed. Restore it with that version.',
    );
  }
  const sql = at('.data', `restore-${process.pid}.sql`);
  try {
    // Read to its end first: a file that was cut short must not be half restored.
    run('pg_restore', url, ['--no-owner', '--no-privileges', '-f', sql, file], say);
    const there = await contentsOf(url);
    const foreign = Object.keys(there).filter((name) => !OURS.has(name));
    if (foreign.length > 0) {
      throw new Error(
        `The database holds tables that are not Gangway’s (${foreign.join(', ')}). Nothing was changed.`,
      );
    }
    if (check && differencesBetween(check.tables, there).length === 0) {
      say('The database holds exactly this already; nothing to do.');
      return check.tables;
    }
    await refuseInUse(url);
    if (!isEmpty(there)) {
      if (!(await confirmed(inWords(there)))) throw new Error('Nothing was changed.');
      const kept = keptFile(profile, 'before-restore');
      await backup(url, kept, say);
      say(`What was there is kept in ${kept}`);
    }
    const drop = [
      ...Object.keys(there).map((name) => `drop table ${name} cascade;`),
      'drop function if exists gangway_is_old(jsonb, integer);',
      'drop function if exists gangway_tell() cascade;',
    ];
    writeFileSync(
      sql,
      `${drop.join('\n')}\ndrop schema if exists drizzle cascade;\n${readFileSync(sql, 'utf8')}`,
    );
    run('psql', url, ['-Xq', '-1', '-v', 'ON_ERROR_STOP=1', '-f', sql], say, {
      stdio: ['ignore', 'ignore', 'pipe'],
    });
  } finally {
    rmSync(sql, { force: true });
  }
  const came = await contentsOf(url);
  const wrong = check ? differencesBetween(check.tables, came) : [];
  if (wrong.length > 0) {
    throw new Error(`What came back is not what went into the backup: ${wrong.join('; ')}.`);
  }
  say(
    check
      ? `Restored, and equal to what went into the backup row by row: ${inWords(came)}.`
      : `Restored: ${inWords(came)}. There is no ${checkFileOf(file)} to compare it with.`,
  );
  return came;
}

function headOf(file) {
  const head = Buffer.alloc(5);
  const handle = openSync(file);
  readSync(handle, head, 0, 5, 0);
  closeSync(handle);
  return head.toString('latin1');
}

async function refuseInUse(url) {
  const using = await atOneMoment(url, async (client) => {
    const { rows } = await client.query(
      `select count(*)::integer as using from pg_stat_activity
       where datname = current_database() and application_name = 'gangway'`,
    );
    return rows[0].using;
  });
  if (using > 0) throw new Error('Gangway is running on this database. Stop it, then restore.');
}

const keptFile = (profile, why) => {
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
