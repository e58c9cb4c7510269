import { spawnSync } from 'node:child_process';
import {
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  truncateSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import pg from 'pg';
import { contentsOf } from '../../scripts/lib/backup.mjs';
import { at } from '../../scripts/lib/paths.mjs';
import { requireTools } from '../../scripts/lib/postgres-programs.mjs';
import { environmentOf } from '../../scripts/lib/postgres-run.mjs';
import { localPostgres } from '../../scripts/lib/postgres.mjs';
import { addressOf, start, stop, stopAll } from '../start-runs.js';

/** A demo with revisions, backed up while it runs, restored, compared row by row. */
const PROFILE = 'test-backup';
const PORT = 4970;

const folder = mkdtempSync(join(tmpdir(), 'gangway-backup-'));
const file = join(folder, 'all.dump');
const database = localPostgres(PROFILE);

const command = (script: 'backup' | 'restore', args: string[], typed = '') => {
  const { status, stdout, stderr } = spawnSync(
    process.execPath,
    [at('scripts', `${script}.mjs`), ...args],
    { env: { ...process.env, GANGWAY_PROFILE: PROFILE }, encoding: 'utf8', input: typed },
  );
  return { status, said: stdout + stderr };
};

async function inside<T>(work: (url: string, client: pg.Client) => Promise<T>): Promise<T> {
  const url = await database.start();
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  try {
    return await work(url, client);
  } finally {
    await client.end();
    await database.stop();
  }
}

/** Every row of every table as text, sorted: what “equal row by row” means. */
async function rowsOf(client: pg.Client): Promise<Record<string, string[]>> {
  const all: Record<string, string[]> = {};
  for (const table of [
    'jobs',
    'stations',
    'station_revisions',
    'kit_items',
    'kit_revisions',
    'rigs',
    'exposures',
    'rig_revisions',
  ]) {
    const { rows } = await client.query<{ row: string }>(
      `select t::text as row from ${table} as t`,
    );
    all[table] = rows.map(({ row }) => row).sort();
  }
  return all;
}

/** A dump as anybody makes one. */
function dumpTo(url: string, to: string): void {
  const { status, stderr } = spawnSync(
    join(
      requireTools(() => {}),
      'pg_dump',
    ),
    ['-Fc', '--no-owner', '--no-privileges', '-f', to],
    {
      encoding: 'utf8',
      env: { ...process.env, ...environmentOf(url) },
    },
  );
  expect([status, stderr]).toEqual([0, '']);
}

let before: Record<string, string[]>;

afterEach(stopAll);
afterAll(async () => {
  await database.start();
  await database.stop();
  database.forget();
  rmSync(folder, { recursive: true });
  for (const name of readdirSync(at('.data/backups')).filter((each) => each.startsWith(PROFILE))) {
    rmSync(at('.data/backups', name));
  }
});

test('a backup is taken while Gangway runs, and says what it holds', async () => {
  const run = start(PROFILE, PORT);
  const address = await addressOf(run);
  const send = (method: string, path: string, body: unknown) =>
    fetch(`${address}/api/${path}`, {
      method,
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify(body),
    });
  const api = 'stations/a0000000-0000-4000-8000-000000000101';
  const { document } = (await (await fetch(`${address}/api/${api}`)).json()) as {
    document: object;
  };
  for (let revision = 1; revision <= 5; revision++) {
    const changed = { ...document, name: `Façade “${revision}” 👨‍👩‍👧`, kept: { n: 1e-7 * revision } };
    expect((await send('PUT', api, { baseRevision: revision, document: changed })).status).toBe(
      200,
    );
  }
  await send('PATCH', 'kit/b0000000-0000-4000-8000-000000000003', { archived: true });
  const { status, said } = command('backup', [file]);
  expect(said).toContain('2 jobs, 19 stations with 24 saves');
  expect(status).toBe(0);
  // A restore waits for nobody: it says what stands in its way.
  const refused = command('restore', [file], 'replace\n');
  expect(refused.status).toBe(1);
  expect(refused.said).toContain(`Gangway is running at ${address}`);
  expect(command('backup', [file]).said).toContain('is there already; name another');
  expect(await stop(run)).toBe(0);
  before = await inside((_url, client) => rowsOf(client));
  expect(before.station_revisions).toHaveLength(24);
  expect(before.exposures).toHaveLength(60);
});

test('what is there already is left alone', () => {
  expect(command('restore', [file]).said).toContain('holds exactly this already');
});

test('over something else a restore asks for a word; without it nothing changes', async () => {
  const changed = await inside(async (_url, client) => {
    await client.query(`update jobs set name = 'Something else'`);
    await client.query(`delete from station_revisions where revision > 3`);
    return rowsOf(client);
  });
  for (const typed of ['', '\n', 'yes\n', 'Replace\n']) {
    const { status, said } = command('restore', [file], typed);
    expect(said).toContain('Type “replace” to go on');
    expect(said).toContain('Nothing was changed.');
    expect(status).toBe(1);
  }
  expect(await inside((_url, client) => rowsOf(client))).toEqual(changed);
});

test('with it everything comes back, equal row by row, and what was there is kept', async () => {
  const { status, said } = command('restore', [file], 'replace\n');
  expect(said).toContain('equal to what went into the backup row by row');
  expect(status).toBe(0);
  expect(await inside((_url, client) => rowsOf(client))).toEqual(before);
  const kept = /What was there is kept in (\S+)/.exec(said)![1]!;
  expect(existsSync(kept)).toBe(true);
  // That one comes back too.
  expect(command('restore', [kept], 'replace\n').status).toBe(0);
  await inside(async (_url, client) => {
    const { rows } = await client.query<{ name: string }>('select name from jobs');
    // Both jobs of the demo had been called so.
    expect(rows).toEqual([{ name: 'Something else' }, { name: 'Something else' }]);
  });
});

test('into an empty folder it needs no word, and Gangway starts on it', async () => {
  await database.start();
  await database.stop();
  database.forget();
  const { said } = command('restore', [file]);
  expect(said).toContain('row by row');
  expect(await inside((_url, client) => rowsOf(client))).toEqual(before);
  const run = start(PROFILE, PORT);
  const address = await addressOf(run);
  const { document } = (await (
    await fetch(`${address}/api/stations/a0000000-0000-4000-8000-000000000101`)
  ).json()) as { document: unknown };
  expect(document).toMatchObject({ name: 'Façade “5” 👨‍👩‍👧', kept: { n: 5e-7 } });
  await stop(run);
});

test('files that are no backup, cut short, changed or from a later version change nothing', async () => {
  const now = await inside((url) => contentsOf(url));
  const check = JSON.parse(readFileSync(`${file}.check.json`, 'utf8')) as Record<string, unknown>;
  const bad = (name: string, content: Buffer | null, its: unknown): string => {
    const path = join(folder, name);
    if (content) writeFileSync(path, content);
    if (its) writeFileSync(`${path}.check.json`, JSON.stringify(its));
    return path;
  };
  const whole = readFileSync(file);
  const cut = bad('cut.dump', whole, { ...check, tables: {} });
  truncateSync(cut, whole.length - 2000);
  for (const [path, words] of [
    [bad('none.dump', null, null), 'There is no file'],
    [bad('text.dump', Buffer.from('jobs and stations'), null), 'is not a backup'],
    [cut, 'pg_restore failed'],
    [bad('later.dump', whole, { ...check, migration: 9e12 }), 'made by a newer Gangway'],
    [bad('list.dump', whole, { format: 'else' }), 'is not the list that belongs to a backup'],
    // A byte of it changed, or no list beside it: where it comes from is not known.
    [bad('other.dump', whole, { ...check, made: 'later', tables: {} }), 'Type “trust” to go on'],
    [bad('alone.dump', whole, null), 'not written by this installation'],
  ] as const) {
    const { status, said } = command('restore', [path], 'replace\n');
    expect(said).toContain(words);
    expect(status).toBe(1);
  }
  expect(await inside((url) => contentsOf(url))).toEqual(now);
  const wrong = {
    ...check,
    tables: { ...(check.tables as object), 'public.jobs': { rows: 7, md5: 'x' } },
  };
  const told = command('restore', [bad('wrong.dump', whole, wrong)], 'trust\nreplace\n');
  expect(told.said).toContain('public.jobs has 2 rows, not 7');
  expect(told.status).toBe(1);
});

test('a database with tables of somebody else is not restored over', async () => {
  await inside((_url, client) => client.query('create table accounts (n integer)'));
  const { said } = command('restore', [file], 'replace\n');
  expect(said).toContain('tables that are not Gangway’s (public.accounts)');
  await inside((_url, client) => client.query('drop table accounts'));
});

test('of a file from elsewhere its rows are taken, and nothing it would have run', async () => {
  // Somebody's dump of the same tables, with a trigger and a function of their own in it.
  const evil = join(folder, 'evil.dump');
  await inside(async (url, client) => {
    await client.query(`create function gangway_extra() returns trigger language plpgsql as
      $$ begin raise exception 'run'; end $$`);
    await client.query(`create trigger extra before insert on jobs
      for each row execute function gangway_extra()`);
    dumpTo(url, evil);
    await client.query('drop function gangway_extra() cascade');
  });
  const refused = command('restore', [evil], 'trust\nreplace\n');
  expect(refused.said).toContain('no backup of Gangway’s does: FUNCTION public gangway_extra()');
  expect(refused.status).toBe(1);
});

test('a backup of the tables as they once were comes back, every one of 2,268 saves', async () => {
  const old = at('apps/server/test/fixtures/saves-before-thinning.dump');
  const { status, said } = command('restore', [old], 'trust\nreplace\n');
  expect(said).toContain('1 jobs, 4 stations with 2268 saves');
  expect(status).toBe(0);
  const run = start(PROFILE, PORT);
  const address = await addressOf(run);
  // Beside it lies the demo by now.
  const oldJob = 'd0000000-0000-4000-8000-000000000001';
  const { items } = (await (await fetch(`${address}/api/jobs/${oldJob}/stations`)).json()) as {
    items: { id: string }[];
  };
  let saves = 0;
  for (const { id } of items) {
    for (let before = 1e6; ;) {
      const page = (await (
        await fetch(`${address}/api/stations/${id}/revisions?before=${before}&limit=500`)
      ).json()) as { revision: number }[];
      saves += page.length;
      if (page.length < 500) break;
      before = page.at(-1)!.revision;
    }
  }
  expect(saves).toBe(2268);
  // What thinning would do is told, and is not done.
  const history = (await (await fetch(`${address}/api/history?whole=20`)).json()) as object;
  expect(history).toMatchObject({ thin: false, would: { documents: 3 } });
  expect(await stop(run)).toBe(0);
});

test('what a killed restore left is gone at the next start, and was nobody else’s to read', () => {
  const left = at('.data/restore-999999999');
  mkdirSync(left, { recursive: true });
  writeFileSync(join(left, 'restore.sql'), 'rows');
  mkdirSync(at('.data/unfinished'), { recursive: true });
  writeFileSync(
    at('.data/unfinished/999999999-1.json'),
    JSON.stringify({ pid: 999_999_999, path: left }),
  );
  expect(command('backup', [join(folder, 'last.dump')]).said).toContain('holds');
  expect(existsSync(left)).toBe(false);
  expect(statSync(join(folder, 'last.dump')).mode & 0o777).toBe(0o600);
  expect(statSync(join(folder, 'last.dump.check.json')).mode & 0o777).toBe(0o600);
});
