import { spawn, type ChildProcess } from 'node:child_process';
import { createServer } from 'node:net';
import { fileURLToPath } from 'node:url';
import { expect, test } from '@playwright/test';
import { localPostgres } from '../scripts/lib/postgres.mjs';

const SCRIPT = fileURLToPath(new URL('../scripts/start.mjs', import.meta.url));
const PROFILE = 'test-start';
const PORT = 4470;

test.describe.configure({ mode: 'serial', timeout: 600_000 });

interface Run {
  child: ChildProcess;
  said: () => string;
  ended: Promise<number | null>;
}

function start(): Run {
  let text = '';
  const child = spawn(process.execPath, [SCRIPT], {
    env: { ...process.env, PORT: String(PORT), GANGWAY_PROFILE: PROFILE, LOG_LEVEL: 'silent' },
  });
  child.stdout.on('data', (chunk) => (text += String(chunk)));
  child.stderr.on('data', (chunk) => (text += String(chunk)));
  const ended = new Promise<number | null>((resolve) => child.once('exit', resolve));
  return { child, said: () => text, ended };
}

const addressOf = async (run: Run): Promise<string> => {
  await expect
    .poll(run.said, { timeout: 240_000 })
    .toMatch(/Gangway is (at|already running at) http/);
  return /https?:\/\/\S+/.exec(run.said())![0];
};

const jobs = async (address: string): Promise<string[]> =>
  ((await (await fetch(`${address}/api/jobs`)).json()) as { name: string }[]).map(
    ({ name }) => name,
  );

test.afterAll(async () => {
  const database = localPostgres(PROFILE);
  await database.start();
  await database.stop();
  database.forget();
});

test('starts, says where, loads the demo; a second start finds it; a kill leaves nothing in the way', async () => {
  const first = start();
  const address = await addressOf(first);
  expect(await jobs(address)).toEqual(['Orrin Quay']);
  await fetch(`${address}/api/jobs`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ name: 'Kept' }),
  });

  const second = start();
  expect(await addressOf(second)).toBe(address);
  expect(second.said()).toContain('already running');
  expect(await second.ended).toBe(0);

  first.child.kill('SIGKILL');
  await first.ended;
  const third = start();
  expect(await jobs(await addressOf(third))).toEqual(['Kept', 'Orrin Quay']);
  third.child.kill('SIGTERM');
  expect(await third.ended).toBe(0);
});

test('takes the next port when its own is taken, and says so', async () => {
  const squatter = createServer();
  await new Promise<void>((resolve) => squatter.listen(PORT, '127.0.0.1', resolve));
  const run = start();
  const address = await addressOf(run);
  expect(run.said()).toContain(`Port ${PORT} is taken; using ${PORT + 1}.`);
  expect(address).toBe(`http://127.0.0.1:${PORT + 1}`);
  run.child.kill('SIGINT');
  expect(await run.ended).toBe(0);
  squatter.close();
});
