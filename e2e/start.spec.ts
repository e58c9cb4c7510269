import { execFileSync, spawnSync } from 'node:child_process';
import { existsSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { createServer } from 'node:net';
import { dirname, join } from 'node:path';
import { expect, test } from '@playwright/test';
import pg from 'pg';
import { contentsOf } from '../scripts/lib/backup.mjs';
import { BROWSER_ARGS } from '../scripts/lib/browser.mjs';
import { at } from '../scripts/lib/paths.mjs';
import { localPostgres } from '../scripts/lib/postgres.mjs';
import { addressOf, start, stop, stopAll } from './start-runs.js';
import { newStation } from './helpers.js';

/** The start command itself: one for a folder, nothing left behind, and what it refuses. */
const PROFILE = 'test-start';
const COPY = 'test-start-copy';
const PORT = 4470;

test.describe.configure({ mode: 'serial', timeout: 600_000 });

const jobs = async (address: string): Promise<string[]> =>
  ((await (await fetch(`${address}/api/jobs`)).json()) as { name: string }[]).map(
    ({ name }) => name,
  );

const database = localPostgres(PROFILE);
const postmaster = (home = database.home): number => {
  const mark = join(home, 'pg/postmaster.pid');
  return existsSync(mark) ? Number(readFileSync(mark, 'utf8').split('\n')[0]) : 0;
};

/** Runs something on the database of a Gangway that is stopped. */
async function inside<T>(work: (client: pg.Client, url: string) => Promise<T>): Promise<T> {
  const url = await database.start();
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  try {
    return await work(client, url);
  } finally {
    await client.end();
    await database.stop();
  }
}

test.afterEach(stopAll);
test.afterAll(async () => {
  await database.start();
  await database.stop();
  database.forget();
  rmSync(join(dirname(database.home), COPY), { recursive: true, force: true });
  for (const name of readdirSync(at('.data/backups')).filter((each) => each.startsWith(PROFILE))) {
    rmSync(at('.data/backups', name));
  }
});

test('two first starts at once: one waits and finds the other; a kill leaves nothing in the way', async () => {
  const both = [start(PROFILE, PORT), start(PROFILE, PORT)];
  const [address, same] = await Promise.all(both.map(addressOf));
  expect(address).toBe(same);
  const waited = both.filter((run) => run.said().includes('already running'));
  expect(waited).toHaveLength(1);
  expect(await waited[0]!.ended).toBe(0);
  const first = both.find((run) => !waited.includes(run))!;
  expect(await jobs(address!)).toEqual(['Orrin Quay', 'A day in October']);
  await fetch(`${address}/api/jobs`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ name: 'Kept' }),
  });

  first.child.kill('SIGKILL');
  await first.ended;
  // Its database goes on; a start takes it over, and the demo is not laid over what is there.
  const third = start(PROFILE, PORT);
  expect(await jobs(await addressOf(third))).toEqual(['Kept', 'Orrin Quay', 'A day in October']);
  expect(await stop(third)).toBe(0);
  expect(postmaster()).toBe(0);
});

test('takes the next port when its own is taken, and says so; root gives up its rights', async () => {
  const squatter = createServer();
  await new Promise<void>((resolve) => squatter.listen(PORT, '127.0.0.1', resolve));
  const run = start(PROFILE, PORT);
  const address = await addressOf(run);
  expect(run.said()).toContain(`Port ${PORT} is taken; using ${PORT + 1}.`);
  expect(address).toBe(`http://127.0.0.1:${PORT + 1}`);
  if (process.getuid?.() === 0 && !run.said().includes('runs as root')) {
    const users = execFileSync('ps', ['-o', 'user=', '--ppid', String(run.child.pid)], {
      encoding: 'utf8',
    });
    expect(users).toContain('nobody');
  }
  expect(await stop(run)).toBe(0);
  squatter.close();
});

test('the application is no superuser in its database', async () => {
  await inside(async (client) => {
    const { rows } = await client.query(
      `select rolsuper, rolcreatedb, rolcreaterole, rolbypassrls from pg_roles
       where rolname = current_user`,
    );
    expect(rows).toEqual([
      { rolsuper: false, rolcreatedb: false, rolcreaterole: false, rolbypassrls: false },
    ]);
  });
});

test('a database from a newer version is refused with a sentence, unchanged, nothing left running', async () => {
  const before = await inside(async (client, url) => {
    await client.query(
      `insert into drizzle.__drizzle_migrations (hash, created_at) values ('later', 9e12)`,
    );
    return contentsOf(url);
  });
  const run = start(PROFILE, PORT);
  expect(await run.ended).toBe(1);
  expect(run.said()).toContain('written by a newer Gangway. Nothing was changed in it.');
  expect(postmaster()).toBe(0);
  await inside(async (client, url) => {
    expect(await contentsOf(url)).toEqual(before);
    await client.query(`delete from drizzle.__drizzle_migrations where hash = 'later'`);
  });
});

test('before its tables are changed a database is backed up, and the backup kept', async () => {
  const before = await inside(async (client, url) => {
    // As the version before the last four changes of its tables left it.
    await client.query(
      `drop table settings;
       alter table stations drop column digest, drop column digest_of;
       drop table exposures;
       alter table jobs drop column notes, drop column films, drop column more;
       drop table rig_revisions;
       drop function gangway_is_old(jsonb, integer);
       drop function gangway_tell() cascade;
       alter table stations drop column kit_ids, drop column position, drop column status;
       create index stations_by_job on stations (job_id, created_at);
       alter table rigs drop column kit_ids;
       drop index station_revisions_by_time;
       alter table station_revisions drop column name, drop column held;
       alter table kit_revisions drop column name, drop column held`,
    );
    await client.query(
      `delete from drizzle.__drizzle_migrations
       where created_at in (
         select created_at from drizzle.__drizzle_migrations order by created_at desc limit 4
       )`,
    );
    return contentsOf(url);
  });
  const run = start(PROFILE, PORT);
  await addressOf(run);
  const file = /It is kept in (\S+)/.exec(run.said())![1]!;
  expect(await stop(run)).toBe(0);
  const check = JSON.parse(readFileSync(`${file}.check.json`, 'utf8')) as { tables: unknown };
  expect(check.tables).toEqual(before);
  await inside(async (client) => {
    // Rigs that were there have their present save among those that are kept.
    const { rows } = await client.query<{ rigs: number; kept: number }>(
      `select (select count(*)::integer from rigs) as rigs,
         (select count(*)::integer from rig_revisions) as kept`,
    );
    // Stations stand in the order they were made in.
    const { rows: placed } = await client.query<{ same: boolean }>(
      `select array_agg(id order by job_id, position) = array_agg(id order by job_id, created_at, id) as same
       from stations`,
    );
    expect(placed[0]!.same).toBe(true);
    expect(rows[0]!.rigs).toBeGreaterThan(0);
    expect(rows[0]!.kept).toBe(rows[0]!.rigs);
  });
  // The next start has nothing to change, and makes no other.
  const again = start(PROFILE, PORT);
  await addressOf(again);
  expect(again.said()).not.toContain('backing it up');
  await stop(again);
});

test.describe('a start that fails says why and leaves nothing running', () => {
  for (const [env, words] of [
    [{ LOG_LEVEL: 'loud' }, 'LOG_LEVEL'],
    [{ PORT: 'many' }, 'PORT must be a whole number from 1 to 65535, not many'],
    [{ PORT: '4190' }, 'browsers do not open port 4190'],
    [{ HOST: '203.0.113.9' }, 'HOST: this machine has no address 203.0.113.9'],
  ] as const) {
    test(words, async () => {
      const run = start(PROFILE, PORT, env);
      expect(await run.ended).toBe(1);
      expect(run.said()).toContain(words);
      expect(postmaster()).toBe(0);
    });
  }
});

test('a copy of the data folder with the wrong owner is told, with the command that mends it', async () => {
  test.skip(process.getuid?.() !== 0, 'only root can make a folder that belongs to another');
  const run = start(PROFILE, PORT);
  await addressOf(run);
  const copy = join(dirname(database.home), COPY);
  // Taken while it runs, so that it holds the mark of a server that is not its own.
  execFileSync('cp', ['-r', database.home, copy]);
  const wrong = start(COPY, PORT + 5);
  expect(await wrong.ended).toBe(1);
  expect(wrong.said()).toContain('does not belong to the user the database runs as');
  const mend = /chown -R postgres:postgres \S+/.exec(wrong.said())![0];
  expect(spawnSync('sh', ['-c', mend]).status).toBe(0);
  const right = start(COPY, PORT + 5);
  expect(await jobs(await addressOf(right))).toContain('Orrin Quay');
  // It is a database of its own, not the one it was copied from.
  expect(postmaster(copy)).not.toBe(postmaster());
  await stop(right);
  await stop(run);
});

test('listening beyond loopback it says so at start and on the page, and works without secure-context functions', async ({
  playwright,
}) => {
  const run = start(PROFILE, PORT, { HOST: '0.0.0.0', ALLOWED_HOSTS: 'studio.test' });
  const address = await addressOf(run);
  expect(address).toBe(`http://127.0.0.1:${PORT}`);
  // It is said after the address, a moment later.
  await expect
    .poll(() => run.said())
    .toContain('Whoever reaches it there may read and change everything.');
  const browser = await playwright.chromium.launch({
    executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
    args: [...BROWSER_ARGS, '--host-resolver-rules=MAP studio.test 127.0.0.1'],
  });
  try {
    const page = await browser.newPage();
    const failed: string[] = [];
    page.on('pageerror', (error) => failed.push(error.message));
    await page.goto(`http://studio.test:${PORT}/jobs`);
    expect(await page.evaluate(() => [isSecureContext, 'randomUUID' in crypto])).toEqual([
      false,
      false,
    ]);
    await expect(page.getByText('Whoever can reach this address')).toBeVisible();
    await page.getByRole('button', { name: 'Understood' }).click();
    await expect(page.getByText('Whoever can reach this address')).toBeHidden();
    await page.getByRole('button', { name: 'New job' }).click();
    await page.getByLabel('Name of the job').fill('From the roof');
    await page.getByRole('button', { name: 'Create' }).click();
    await newStation(page);
    await page.getByRole('link', { name: /^Cover/ }).click();
    await page.getByRole('textbox', { name: 'Rise, typed' }).fill('2');
    await page.keyboard.press('Enter');
    await expect(page.getByRole('button', { name: /^Saved/ })).toBeVisible();
    for (const path of ['kit', 'kit/new/lens', 'rigs']) {
      await page.goto(`http://studio.test:${PORT}/${path}`);
      await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
    }
    expect(failed).toEqual([]);
  } finally {
    await browser.close();
  }
  await stop(run);
});
