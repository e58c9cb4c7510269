import { spawn, spawnSync } from 'node:child_process';
import { networkInterfaces } from 'node:os';
import { setTimeout as sleep } from 'node:timers/promises';
import { userNamed } from './data-folder.mjs';
import { at, ROOT } from './paths.mjs';
import { pauseAfter } from './processes.mjs';

const ENTRY = at('apps/server/dist/main.js');
const READY_MS = 120_000;
/** Ends of the server that a start anew cannot cure; it has said why. */
const FOR_GOOD = new Set([78, 98]);

const forUrl = (host) => (host.includes(':') ? `[${host.replace(/^\[|\]$/g, '')}]` : host);

const EVERYWHERE = { '0.0.0.0': '127.0.0.1', '::': '::1' };

/** Where a server that listens on `host` is reached from this machine. */
const addressOf = (host, port) => `http://${forUrl(EVERYWHERE[host] ?? host)}:${port}`;

const isLoopback = (host) => /^(localhost|127(\.\d{1,3}){3}|\[?::1\]?)$/i.test(host);

/** Addresses under which other machines reach a server that listens on `host`. */
export function addressesBeyond(host, port) {
  if (isLoopback(host)) return [];
  if (!EVERYWHERE[host]) return [addressOf(host, port)];
  return Object.values(networkInterfaces())
    .flat()
    .filter(({ internal, family }) => !internal && (family === 'IPv4' || host === '::'))
    .filter(({ address }) => !address.startsWith('fe80'))
    .map(({ address }) => addressOf(address, port));
}

/** Reads what the server reads, as the user it would run as. */
const LOOK = `
const { readFileSync } = require('node:fs');
for (const file of process.argv.slice(1)) readFileSync(file);`;

/**
 * Whom the server runs as: started by root it gives up root's rights, where the user it changes to
 * can read the project; where not, it says so.
 */
function serverUser(port, say) {
  if (process.getuid?.() !== 0) return {};
  const stays = (why) => {
    say(`The server runs as root: ${why}.`);
    return {};
  };
  if (port > 0 && port < 1024) return stays(`only root may listen on port ${port}`);
  const as = userNamed('nobody');
  const needed = [
    ENTRY,
    at('apps/web/dist/index.html'),
    at('apps/server/migrations/meta/_journal.json'),
    at('node_modules/express/package.json'),
  ];
  const { status } = spawnSync(process.execPath, ['-e', LOOK, ...needed], { ...as, cwd: '/' });
  return status === 0 ? as : stays(`the user “nobody” cannot read ${ROOT}`);
}

/** Starts the built server as its own process. */
function launch({ host, port, databaseUrl, logLevel, log, demo, as }) {
  return spawn(process.execPath, [ENTRY], {
    // The channel tells the server when this process ends without a word.
    stdio: ['ignore', log, log, 'ipc'],
    cwd: '/',
    ...as,
    env: {
      ...process.env,
      NODE_ENV: 'production',
      HOST: host,
      PORT: String(port),
      DATABASE_URL: databaseUrl,
      DEMO: demo,
      LOG_LEVEL: process.env.LOG_LEVEL ?? logLevel,
      WEB_FOLDER: at('apps/web/dist'),
      MIGRATIONS_FOLDER: at('apps/server/migrations'),
    },
  });
}

const hasEnded = (child) => child.exitCode !== null || child.signalCode !== null;

async function becomesReady(child, address) {
  const until = Date.now() + READY_MS;
  while (Date.now() < until) {
    if (hasEnded(child)) {
      throw new Error(
        `The server ended with ${child.exitCode ?? child.signalCode}; its last lines are above.`,
      );
    }
    const ready = await fetch(`${address}/readyz`).then(
      (response) => response.ok,
      () => false,
    );
    if (ready) return;
    await sleep(100);
  }
  child.kill('SIGKILL');
  throw new Error('The server did not become ready within two minutes.');
}

/** Starts the server. @returns it, and its address once it answers there */
export async function startServer({
  host = '127.0.0.1',
  logLevel = 'warn',
  log = 'inherit',
  demo = process.env.DEMO ?? 'on',
  say = () => {},
  ...rest
}) {
  const as = serverUser(rest.port, say);
  const settings = { ...rest, host, logLevel, log, demo, as };
  const child = launch(settings);
  const address = addressOf(host, rest.port);
  try {
    await becomesReady(child, address);
  } catch (error) {
    child.kill('SIGKILL');
    throw error;
  }
  return { child, address, again: () => launch(settings) };
}

/** A server that has been up this long counts as one that works. */
const WORKS_MS = 5000;

/**
 * Starts the server anew whenever it ends by itself, after a pause that grows.
 * @returns `stop`, and `over`: a promise that ends when it was stopped, or fails when it cannot go on
 */
export function keepServing({ child: first, again }, say) {
  let child = first;
  let stopping = false;
  const going = async () => {
    let failures = 0;
    for (let begun = Date.now(); ; begun = Date.now()) {
      await ended(child);
      if (stopping) return;
      if (FOR_GOOD.has(child.exitCode)) throw new Error('The server cannot go on; see above.');
      if (Date.now() - begun > WORKS_MS) failures = 0;
      const pause = pauseAfter(failures);
      failures += 1;
      say(
        `The server ended by itself (${child.signalCode ?? `code ${child.exitCode}`}); ` +
          `starting it again in ${pause / 1000} s.`,
      );
      await sleep(pause);
      if (stopping) return;
      child = again();
    }
  };
  return {
    over: going(),
    pid: () => child.pid,
    stop: async () => {
      stopping = true;
      child.kill('SIGTERM');
      await ended(child);
    },
  };
}

export const ended = (child) =>
  hasEnded(child) ? Promise.resolve() : new Promise((resolve) => child.once('exit', resolve));
