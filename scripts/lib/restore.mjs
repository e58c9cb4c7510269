import { createHash } from 'node:crypto';
import {
  closeSync,
  existsSync,
  mkdirSync,
  openSync,
  readFileSync,
  readSync,
  rmSync,
  writeSync,
} from 'node:fs';
import { join } from 'node:path';
import {
  atOneMoment,
  backup,
  checkFileOf,
  checkOf,
  contentsOf,
  differencesBetween,
  inWords,
  isEmpty,
  isOwn,
  journal,
  keptFile,
  newest,
} from './backup.mjs';
import { MIGRATIONS, OURS, requireOurs, rowsOf, TABLES_IN_ORDER } from './dump-rows.mjs';
import { leaveNothing } from './leftovers.mjs';
import { at } from './paths.mjs';
import { run } from './postgres-run.mjs';

/** A backup brought back: its rows, in tables made by our own migrations. */

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
