import { spawn } from 'node:child_process';
import { setTimeout as sleep } from 'node:timers/promises';
import { at } from './paths.mjs';

/** Starts the built server as its own process. @returns it, and its address once it answers */
export async function startServer({
  port,
  databaseUrl,
  logLevel = 'warn',
  log = 'inherit',
  demo = process.env.DEMO ?? 'on',
}) {
  const child = spawn(process.execPath, [at('apps/server/dist/main.js')], {
    // The channel tells the server when this process ends without a word.
    stdio: ['ignore', log, log, 'ipc'],
    env: {
      ...process.env,
      NODE_ENV: 'production',
      PORT: String(port),
      DATABASE_URL: databaseUrl,
      DEMO: demo,
      LOG_LEVEL: process.env.LOG_LEVEL ?? logLevel,
      WEB_FOLDER: at('apps/web/dist'),
      MIGRATIONS_FOLDER: at('apps/server/migrations'),
    },
  });
  const address = `http://127.0.0.1:${port}`;
  for (let i = 0; i < 1200; i++) {
    if (child.exitCode !== null) {
      throw new Error(`The server ended with code ${child.exitCode}; its last lines are above.`);
    }
    const ready = await fetch(`${address}/readyz`).then(
      (response) => response.ok,
      () => false,
    );
    if (ready) return { child, address };
    await sleep(100);
  }
  child.kill('SIGKILL');
  throw new Error('The server did not become ready within two minutes.');
}

export const ended = (child) =>
  child.exitCode !== null || child.signalCode !== null
    ? Promise.resolve()
    : new Promise((resolve) => child.once('exit', resolve));
