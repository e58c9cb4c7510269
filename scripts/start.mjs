import { readFileSync, rmSync, writeFileSync } from 'node:fs';
import { sweepLeftovers } from './lib/leftovers.mjs';
import { takeLock } from './lib/lock.mjs';
import { freePort, readPort } from './lib/ports.mjs';
import { lockOf, ownDatabase, profile, runFileOf } from './lib/profile.mjs';

const USUAL_PORT = 4170;
const OWN_DATABASE = ownDatabase();
const PROFILE = profile();
const RUN_FILE = runFileOf(PROFILE);
const say = (text) => console.log(text);

/** The address of the Gangway that a process runs, once it answers there. */
async function addressOf(holder) {
  try {
    const { pid, address } = JSON.parse(readFileSync(RUN_FILE, 'utf8'));
    if (pid !== holder.pid) return undefined;
    const health = await fetch(`${address}/healthz`).then((response) => response.json());
    return health.name === 'gangway' ? address : undefined;
  } catch {
    return undefined;
  }
}

/** Ends what was begun, last first. */
const undo = [];
let undoing = null;
const endAll = () =>
  (undoing ??= (async () => {
    for (const each of undo.reverse()) await each();
  })());

async function main() {
  let told = false;
  const { release, answer } = await takeLock(lockOf(PROFILE), async (holder) => {
    if (!holder) return undefined;
    const address = await addressOf(holder);
    if (!address && !told) say(`Another start is under way (process ${holder.pid}); waiting …`);
    told = true;
    return address;
  });
  if (answer) {
    say(`Gangway is already running at ${answer}`);
    return;
  }
  undo.push(release);
  sweepLeftovers();

  const { ensurePackages } = await import('./lib/install.mjs');
  ensurePackages(say);
  const { ensureBuilt } = await import('./lib/build.mjs');
  await ensureBuilt(say);

  const { localPostgres } = await import('./lib/postgres.mjs');
  const host = process.env.HOST || '127.0.0.1';
  const wanted = readPort(process.env.PORT, USUAL_PORT);
  const port = await freePort(wanted, host);
  if (port !== wanted) say(`Port ${wanted} is taken; using ${port}.`);

  let databaseUrl = OWN_DATABASE;
  if (!OWN_DATABASE) {
    const database = localPostgres(PROFILE, say);
    undo.push(() => database.stop());
    databaseUrl = await database.start();
  }
  const { backupBeforeMigration } = await import('./lib/backup.mjs');
  await backupBeforeMigration(databaseUrl, PROFILE, say);

  const { addressesBeyond, keepServing, startServer } = await import('./lib/server.mjs');
  const started = await startServer({ host, port, databaseUrl, say });
  const serving = keepServing(started, say);
  undo.push(() => serving.stop());
  undo.push(() => rmSync(RUN_FILE, { force: true }));
  writeFileSync(RUN_FILE, JSON.stringify({ pid: process.pid, address: started.address }));
  say(`\nGangway is at ${started.address}`);
  const beyond = addressesBeyond(host, port);
  if (beyond.length > 0) {
    say(
      `For other machines: ${beyond.join(', ')}\n` +
        'Whoever reaches it there may read and change everything. Use it on a network you trust only.',
    );
  }
  say('Stop it with Ctrl C.');
  await serving.over;
}

const stop = () => void endAll().then(() => process.exit(0));
process.on('SIGINT', stop);
process.on('SIGTERM', stop);

main()
  .then(() => (undoing ? new Promise(() => {}) : endAll()))
  .catch(async (error) => {
    // Stopped while it was starting: what then failed is of no interest.
    if (undoing) return;
    console.error(`\n${error.message}`);
    await endAll();
    process.exit(1);
  });
