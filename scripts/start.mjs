import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { at } from './lib/paths.mjs';

const USUAL_PORT = 4170;
const OWN_DATABASE = process.env.DATABASE_URL;
/** Runs with another database, or under another name as the tests do, may go on side by side. */
const PROFILE =
  process.env.GANGWAY_PROFILE ??
  (OWN_DATABASE
    ? `url-${createHash('sha256').update(OWN_DATABASE).digest('hex').slice(0, 12)}`
    : 'app');
const RUN_FILE = at('.data', `run-${PROFILE}.json`);
const say = (text) => console.log(text);

/** The address of a Gangway that already runs from this folder, or null. */
async function alreadyRunning() {
  if (!existsSync(RUN_FILE)) return null;
  try {
    const { pid, address } = JSON.parse(readFileSync(RUN_FILE, 'utf8'));
    process.kill(pid, 0);
    const health = await fetch(`${address}/healthz`).then((response) => response.json());
    return health.name === 'gangway' ? address : null;
  } catch {
    return null;
  }
}

async function main() {
  const running = await alreadyRunning();
  if (running) {
    say(`Gangway is already running at ${running}`);
    return;
  }
  const { ensurePackages } = await import('./lib/install.mjs');
  ensurePackages(say);
  const { buildServer, buildWeb } = await import('./lib/build.mjs');
  say('Building …');
  await Promise.all([buildServer(), buildWeb()]);

  const { freePort, localPostgres } = await import('./lib/postgres.mjs');
  const database = OWN_DATABASE ? null : localPostgres(PROFILE, say);
  const databaseUrl = OWN_DATABASE ?? (await database.start());

  const { ended, startServer } = await import('./lib/server.mjs');
  const wanted = Number(process.env.PORT ?? USUAL_PORT);
  const port = await freePort(wanted);
  if (port !== wanted) say(`Port ${wanted} is taken; using ${port}.`);
  const { child, address } = await startServer({ port, databaseUrl });
  mkdirSync(at('.data'), { recursive: true });
  writeFileSync(RUN_FILE, JSON.stringify({ pid: process.pid, address }));
  say(`\nGangway is at ${address}\nStop it with Ctrl C.`);

  let stopping = false;
  const stop = async () => {
    if (stopping) return;
    stopping = true;
    child.kill('SIGTERM');
    await ended(child);
    await database?.stop();
    rmSync(RUN_FILE, { force: true });
    process.exit(0);
  };
  process.on('SIGINT', stop);
  process.on('SIGTERM', stop);
  await ended(child);
  if (stopping) return;
  await database?.stop();
  rmSync(RUN_FILE, { force: true });
  throw new Error('The server ended by itself; its last lines are above.');
}

main().catch((error) => {
  console.error(`\n${error.message}`);
  process.exit(1);
});
