import { spawnSync } from 'node:child_process';
import { createHash, createHmac, randomBytes, timingSafeEqual } from 'node:crypto';
import {
  closeSync,
  createReadStream,
  existsSync,
  mkdirSync,
  openSync,
  readFileSync,
  readSync,
  renameSync,
  rmSync,
  writeFileSync,
  writeSync,
} from 'node:fs';
import { dirname, join } from 'node:path';
import { leaveNothing } from './leftovers.mjs';
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
  const { status, stdout, stderr, error } = spawnSync(join(requireTools(say), program), args, {
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
  return stdout;
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
function checkOf(file) {
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
async function isOwn(file, check) {
  if (typeof check?.hmac !== 'string') return false;
  const [said, own] = [check.hmac, await digestOf(file, check)].map((text) => Buffer.from(text));
  return said.length === own.length && timingSafeEqual(said, own);
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

/** Our tables, each after those it hangs on; others are somebody else's. */
const TABLES_IN_ORDER = [
  'jobs',
  'stations',
  'station_revisions',
  'kit_items',
  'kit_revisions',
  'rigs',
  'rig_revisions',
  'exposures',
  'settings',
];
const MIGRATIONS = 'drizzle.__drizzle_migrations';
const OURS = new Set([...TABLES_IN_ORDER.map((name) => `public.${name}`), MIGRATIONS]);

/** What else one of our own dumps holds, by the words of its list of contents. */
const KNOWN_ENTRIES = [
  /^(?:TABLE|TABLE DATA|DEFAULT) (?:public|drizzle) (\S+)(?: id)?$/,
  /^(?:CONSTRAINT|FK CONSTRAINT|TRIGGER) (?:public|drizzle) (\S+) \S+$/,
  /^INDEX public (\S+)$/,
  /^FUNCTION public gangway_(?:is_old|tell)\([\w, ]*\)$/,
  /^SCHEMA - (?:public|drizzle)$/,
  /^(?:COMMENT|ACL) - SCHEMA public$/,
  /^SEQUENCE (?:SET )?(?:OWNED BY )?drizzle __drizzle_migrations_id_seq$/,
  /^SEQUENCE OWNED BY drizzle __drizzle_migrations_id_seq$/,
  /^SEQUENCE SET drizzle __drizzle_migrations_id_seq$/,
];
const HANGS_ON_TABLE =
  /^(?:TABLE|TABLE DATA|DEFAULT|CONSTRAINT|FK CONSTRAINT|TRIGGER) (public|drizzle) (\S+)/;

/** The entries of a dump’s list of contents, without numbers and owner. */
export const entriesOf = (list) =>
  list
    .split('\n')
    .filter((line) => /^\d+;/.test(line))
    .map((line) => line.replace(/^\d+; \d+ \d+ /, '').replace(/ \S*$/, ''));

/** @throws with the name of what no backup of ours holds */
export function requireOurs(list) {
  for (const entry of entriesOf(list)) {
    const [, schema, table] = HANGS_ON_TABLE.exec(entry) ?? [];
    const known = KNOWN_ENTRIES.some((each) => each.test(entry));
    if (known && (table === undefined || OURS.has(`${schema}.${table}`))) continue;
    throw new Error(
      `The file holds something that no backup of Gangway’s does: ${entry.slice(0, 200)}. Nothing was changed.`,
    );
  }
}

const COPY = /^COPY (public|drizzle)\.(\w+) \(([\w", ]+)\) FROM stdin;$/;
/** Lines that pg_restore writes around the rows. They are left out, not run. */
const AROUND = [
  /^$/,
  /^--/,
  /^SET \w+ = [\w']+;$/,
  /^SELECT pg_catalog\.set_config\('search_path', '', false\);$/,
  /^SELECT pg_catalog\.setval\('drizzle\.__drizzle_migrations_id_seq', \d+, (?:true|false)\);$/,
  /^\\(?:un)?restrict \w+$/,
];

const NEW_LINE = Buffer.from('\n');
const END_OF_ROWS = Buffer.from('\\.');

/** Lines as PostgreSQL ends them, and nothing else: a document may hold other line ends. */
async function* linesOf(path) {
  let rest = Buffer.alloc(0);
  for await (const chunk of createReadStream(path)) {
    const bytes = rest.length > 0 ? Buffer.concat([rest, chunk]) : chunk;
    let from = 0;
    for (let end; (end = bytes.indexOf(10, from)) >= 0; from = end + 1) {
      yield bytes.subarray(from, end);
    }
    rest = bytes.subarray(from);
  }
  if (rest.length > 0) yield rest;
}

/**
 * Takes the rows out of what pg_restore wrote, table by table: nothing else of it is ever run.
 * @returns the columns of each table, and where its rows stand
 * @throws with the line that does not belong there
 */
async function rowsOf(script, folder) {
  const found = new Map();
  let open = null;
  for await (const bytes of linesOf(script)) {
    if (open) {
      if (bytes.equals(END_OF_ROWS)) {
        closeSync(open);
        open = null;
      } else writeSync(open, Buffer.concat([bytes, NEW_LINE]));
      continue;
    }
    const line = bytes.toString('utf8');
    const copy = COPY.exec(line);
    if (copy) {
      const name = `${copy[1]}.${copy[2]}`;
      if (!OURS.has(name) || found.has(name)) {
        throw new Error(`The file holds rows for ${name}. Nothing was changed.`);
      }
      const rows = join(folder, `${name}.rows`);
      open = openSync(rows, 'wx', 0o600);
      found.set(name, { columns: copy[3].split(', '), rows });
    } else if (!AROUND.some((each) => each.test(line))) {
      throw new Error(
        `The file holds something else than rows: “${line.slice(0, 100)}”. Nothing was changed.`,
      );
    }
  }
  if (open) throw new Error('The file ends in the middle of its rows. Nothing was changed.');
  return found;
}

/** Which of our own migrations a backup knows: its rows name them, and nothing else of it is believed. */
function migrationsIn(found) {
  const entry = found.get(MIGRATIONS);
  const all = journal();
  if (!entry) return [];
  const at = entry.columns.indexOf('created_at');
  const made = new Set(
    readFileSync(entry.rows, 'utf8')
      .split('\n')
      .filter(Boolean)
      .map((line) => Number(line.split('\t')[at])),
  );
  const known = all.filter(({ when }) => made.has(when));
  if (known.length !== made.size || known.some(({ when }, i) => when !== all[i].when)) {
    throw new Error(
      'The file was made by a Gangway with other tables than this one knows. Nothing was changed.',
    );
  }
  return known;
}

const migrationFile = ({ tag }) => readFileSync(at('apps/server/migrations', `${tag}.sql`), 'utf8');

/** Our own tables made anew as the backup’s version had them, and its rows in them: one script, one transaction. */
function writeScript(path, found, there) {
  const migrations = migrationsIn(found);
  const handle = openSync(path, 'wx', 0o600);
  const put = (text) => writeSync(handle, text);
  for (const name of Object.keys(there)) put(`drop table ${name} cascade;\n`);
  put('drop function if exists gangway_is_old(jsonb, integer);\n');
  put('drop function if exists gangway_tell() cascade;\n');
  put('drop schema if exists drizzle cascade;\n');
  put('create schema drizzle;\n');
  put(
    'create table drizzle.__drizzle_migrations (id serial primary key, hash text not null, created_at bigint);\n',
  );
  for (const each of migrations) {
    const sql = migrationFile(each);
    put(`${sql.replaceAll('--> statement-breakpoint', '')}\n;\n`);
    const hash = createHash('sha256').update(sql).digest('hex');
    put(
      `insert into drizzle.__drizzle_migrations (hash, created_at) values ('${hash}', ${each.when});\n`,
    );
  }
  for (const name of TABLES_IN_ORDER.map((each) => `public.${each}`)) {
    const entry = found.get(name);
    if (!entry) continue;
    // What a migration put into a new table is in the backup, too.
    put(`alter table ${name} disable trigger user;\ndelete from ${name};\n`);
    put(`copy ${name} (${entry.columns.join(', ')}) from stdin;\n`);
    const rows = openSync(entry.rows);
    const chunk = Buffer.alloc(1 << 20);
    for (let n; (n = readSync(rows, chunk, 0, chunk.length, null)) > 0;) {
      writeSync(handle, chunk, 0, n);
    }
    closeSync(rows);
    put(`\\.\nalter table ${name} enable trigger user;\n`);
  }
  closeSync(handle);
}

/**
 * Replaces what a database holds by the rows of a backup, in one transaction: all of it or nothing. The
 * file’s own statements are never run.
 * @param confirmed asked what is to be confirmed, and the word for it; whether to go on
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
  const folder = at('.data', `restore-${process.pid}`);
  const stay = leaveNothing(folder);
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  try {
    requireOurs(run('pg_restore', url, ['-l', file], say));
    // Read to its end first: a file that was cut short must not be half restored.
    const dumped = join(folder, 'dumped.sql');
    closeSync(openSync(dumped, 'wx', 0o600));
    run(
      'pg_restore',
      url,
      ['--data-only', '--no-owner', '--no-privileges', '-f', dumped, file],
      say,
    );
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
    const found = await rowsOf(dumped, folder);
    if (!(await isOwn(file, check)) && !(await confirmed(ELSEWHERE, 'trust'))) {
      throw new Error('Nothing was changed.');
    }
    if (!isEmpty(there)) {
      const holds = `The database holds ${inWords(there)}.\nThey will be replaced.`;
      if (!(await confirmed(holds, 'replace'))) throw new Error('Nothing was changed.');
      const kept = keptFile(profile, 'before-restore');
      await backup(url, kept, say);
      say(`What was there is kept in ${kept}`);
    }
    const script = join(folder, 'restore.sql');
    writeScript(script, found, there);
    run('psql', url, ['-Xq', '-1', '-v', 'ON_ERROR_STOP=1', '-f', script], say, {
      stdio: ['ignore', 'ignore', 'pipe'],
    });
  } finally {
    rmSync(folder, { recursive: true, force: true });
    stay();
  }
  const came = await contentsOf(url);
  const wrong = check ? differencesBetween(rowsOnly(check.tables), rowsOnly(came)) : [];
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

/** The list of migrations is ours, not the backup’s. */
const rowsOnly = ({ [MIGRATIONS]: _, ...tables }) => tables;

const ELSEWHERE =
  'This file was not written by this installation, or was changed since. Its rows are taken, and ' +
  'nothing else of it; they may still say anything. Go on only if you know where it comes from.';

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
