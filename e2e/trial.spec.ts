import { spawnSync } from 'node:child_process';
import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { expect, test } from '@playwright/test';
import pg from 'pg';
import { randomOf } from '../packages/station/test/helpers/mutations.js';
import { localPostgres } from '../scripts/lib/postgres.mjs';
import { demo, enter, freshStation, saved, stored, typed } from './helpers.js';
import { lens } from './gear.js';
import { addressOf, start, stop, stopAll, type Run } from './start-runs.js';

/**
 * Random kills during saves, under the start command itself: of the server, the postmaster and single
 * connections. `npm run trial -- ROUNDS [SEED]` does it at length; the usual run does two rounds.
 */
const ROUNDS = Number(process.env.TRIAL_ROUNDS ?? 2);
const SEED = Number(process.env.TRIAL_SEED ?? 20_260_601);
const PROFILE = 'test-trial';
const PORT = 5070;

test.describe.configure({ timeout: 300_000 + ROUNDS * 120_000 });

const database = localPostgres(PROFILE);
const random = randomOf(SEED);
const between = (least: number, most: number): number => least + random() * (most - least);

/** Process, data, begin and port of the postmaster; nothing while there is none. */
function mark(): string[] {
  const file = join(database.home, 'pg/postmaster.pid');
  return existsSync(file) ? readFileSync(file, 'utf8').split('\n') : [];
}

/** As the cluster's owner: what kills connections may not be the application. */
async function asAdmin<T>(work: (client: pg.Client) => Promise<T>): Promise<T | undefined> {
  const password = readFileSync(join(database.home, 'password'), 'utf8').trim();
  const [, , , port] = mark();
  const client = new pg.Client({
    ...{ host: '127.0.0.1', port: Number(port), user: 'gangway', database: 'gangway', password },
  });
  client.on('error', () => {});
  try {
    await client.connect();
    return await work(client);
  } catch {
    // It is away just now, which is what this is about.
    return undefined;
  } finally {
    await client.end().catch(() => {});
  }
}

const serverPid = (run: Run): number => {
  // Ends with 1 when there is none: the server was killed just now and is not back yet.
  const { stdout } = spawnSync('ps', ['-o', 'pid=,args=', '--ppid', String(run.child.pid)], {
    encoding: 'utf8',
  });
  const found = stdout.split('\n').find((line) => line.includes('apps/server/dist/main.js'));
  return found ? Number(found.trim().split(' ')[0]) : 0;
};

const kill = (pid: number, signal: NodeJS.Signals): void => {
  try {
    if (pid > 0) process.kill(pid, signal);
  } catch {
    // Gone already.
  }
};

type Victim = 'server' | 'postmaster' | 'connections';

async function strike(run: Run, victim: Victim): Promise<void> {
  if (victim === 'server') kill(serverPid(run), 'SIGKILL');
  if (victim === 'postmaster') {
    // Killed, shut down at once, shut down fast: each cuts connections in its own way.
    const ways = ['SIGKILL', 'SIGQUIT', 'SIGINT'] as const;
    kill(Number(mark()[0] ?? 0), ways[Math.floor(random() * ways.length)]!);
  }
  if (victim === 'connections') {
    const share = between(0.2, 1);
    await asAdmin((client) =>
      client.query(
        `select pg_terminate_backend(pid) from pg_stat_activity
         where application_name = 'gangway' and random() < $1`,
        [share],
      ),
    );
  }
}

interface Acknowledged {
  readonly id: string;
  readonly revision: number;
  readonly count: number;
}

/** Saves one document again and again; what was not answered for is sent again as it was. */
async function writer(api: string, going: () => boolean, acknowledged: Acknowledged[]) {
  const { document } = (await (await fetch(api)).json()) as { document: object };
  let baseRevision = 1;
  for (let count = 1; going(); count++) {
    for (;;) {
      const answer = await fetch(api, {
        method: 'PUT',
        headers: { 'Content-Type': 'application/json' },
        body: JSON.stringify({ baseRevision, document: { ...document, count } }),
        signal: AbortSignal.timeout(20_000),
      }).catch(() => null);
      const body = (await answer?.json().catch(() => null)) as { revision: number } | null;
      if (answer?.status === 200 && body) {
        baseRevision = body.revision;
        acknowledged.push({ id: api.split('/').at(-1)!, revision: body.revision, count });
        break;
      }
      // Away or in trouble: nothing else may be the answer.
      if (answer && answer.status !== 503) throw new Error(`answered ${answer.status}`);
      await sleep(50);
    }
    await sleep(between(0, 30));
  }
}

test.afterEach(stopAll);
test.afterAll(async () => {
  await database.start();
  await database.stop();
  database.forget();
});

test(`${ROUNDS} rounds of random kills from seed ${SEED}: nothing acknowledged and nothing typed is lost`, async ({
  page,
  context,
}) => {
  const run = start(PROFILE, PORT);
  const address = await addressOf(run);
  const { cover, api } = await freshStation(address);
  await page.goto(cover);
  await expect(saved(page)).toBeVisible();
  const stationName = page.getByLabel('Name of the station');

  const acknowledged: Acknowledged[] = [];
  let going = true;
  const made = async (path: string, body: object = {}): Promise<string> => {
    const response = await fetch(`${address}/api/${path}`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify(body),
    });
    const { id } = (await response.json()) as { id: string };
    return `${address}/api/${path.split('/')[0]}/${id}`;
  };
  const copy = 'rigs/c0000000-0000-4000-8000-000000000002/duplicate';
  const writers = [
    (await freshStation(address, demo('2-glassblower-bench'))).api,
    (await freshStation(address)).api,
    await made(copy),
    await made('kit', { document: lens('Trial 35') }),
  ];
  const rigApi = await made(copy);
  const bench = await context.newPage();
  await bench.goto(rigApi.replace('/api/', '/'));
  const rigName = bench.getByLabel('Name of the rig');
  await expect(rigName).toBeVisible();
  const writing = Promise.all(writers.map((each) => writer(each, () => going, acknowledged)));
  // Its failure is told at the end, not as a rejection nobody waits for.
  writing.catch(() => {});

  const tally: Record<Victim, number> = { server: 0, postmaster: 0, connections: 0 };
  const victims = Object.keys(tally) as Victim[];
  const tallied = () =>
    `${tally.server} servers, ${tally.postmaster} postmasters, ${tally.connections} lots of ` +
    `connections killed; ${acknowledged.length} saves acknowledged`;
  for (let round = 0; round < ROUNDS; round++) {
    const struck = new Set<Victim>();
    const serverBefore = serverPid(run);
    const rise = round % 2 === 0 ? 1 + (round % 9) : 9.5;
    await enter(typed(page, 'Rise'), String(rise));
    const strikes = 1 + Math.floor(random() * 3);
    for (let i = 0; i < strikes; i++) {
      await sleep(between(0, 700));
      const victim = victims[Math.floor(random() * victims.length)]!;
      await strike(run, victim);
      struck.add(victim);
      tally[victim] += 1;
    }
    await enter(rigName, `Rig of round ${round}`);
    const shift = 1 + ((round * 7) % 10);
    await enter(typed(page, 'Shift'), String(shift));
    // Half a word, which is no value yet, is kept as well.
    const half = `Round ${round}, half`;
    await stationName.fill(half);
    await expect(stationName).toHaveValue(half);
    await expect(saved(page)).toBeVisible({ timeout: 90_000 });
    await expect(stationName).toHaveValue(half);
    if (random() < 0.3) {
      await page.reload();
      await expect(stationName).toHaveValue(half);
    }
    await stationName.press('Enter');
    await expect(saved(page)).toBeVisible({ timeout: 90_000 });
    const { document } = await stored(api);
    expect(document).toMatchObject({
      name: half,
      movements: { rise_mm: rise, shift_mm: shift },
    });
    await expect(bench.getByRole('button', { name: 'Saved; show earlier versions' })).toBeVisible({
      timeout: 90_000,
    });
    expect((await stored(rigApi)).document.name).toBe(`Rig of round ${round}`);
    if (!struck.has('server')) expect(serverPid(run)).toBe(serverBefore);
    if ((round + 1) % 20 === 0) console.log(`    ${round + 1} rounds, ${tallied()}`);
  }
  going = false;
  await writing;

  // All that was ever acknowledged is in the history, as it was acknowledged.
  const found = await asAdmin(async (client) => {
    const { rows } = await client.query<{ id: string; revision: number; count: number }>(
      `select id, revision, (document->>'count')::integer as count from (
         select station_id as id, revision, document from station_revisions
         union all select rig_id, revision, document from rig_revisions
         union all select item_id, revision, document from kit_revisions
       ) as saves where id = any($1)`,
      [writers.map((each) => each.split('/').at(-1))],
    );
    return new Map(rows.map(({ id, revision, count }) => [`${id} ${revision}`, count]));
  });
  expect(acknowledged.length).toBeGreaterThan(ROUNDS * 3);
  const lost = acknowledged.filter(
    ({ id, revision, count }) => found!.get(`${id} ${revision}`) !== count,
  );
  expect(lost).toEqual([]);
  console.log(`    ${tallied()}, none lost`);
  expect(await stop(run)).toBe(0);
});
