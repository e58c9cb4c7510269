import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { pino } from 'pino';
import { makeApp } from './app.js';
import { readConfig } from './config.js';
import { applyMigrations, connect, isDatabaseAway } from './database.js';
import { loadDemo } from './demo.js';

/** A stop that takes longer than this is cut short. */
const STOP_MS = 10_000;
const MIGRATE_AGAIN_MS = 1_000;

const config = readConfig(process.env);
const log = pino({ level: config.logLevel });
const connection = connect(config.databaseUrl, (error) =>
  log.warn({ err: error }, 'a database connection was cut'),
);
const state = { ready: false, stopping: false };

const server = createServer(makeApp(config, connection, log, state));

server.on('error', (error: NodeJS.ErrnoException) => {
  log.fatal(
    { err: error },
    error.code === 'EADDRINUSE'
      ? `port ${config.port} is taken; set PORT to another`
      : 'cannot listen',
  );
  process.exit(error.code === 'EADDRINUSE' ? 98 : 1);
});

/** The server answers, with 503, before the database does; migrations wait for it. */
async function prepare(): Promise<void> {
  for (;;) {
    try {
      await applyMigrations(connection.db, config.migrationsFolder);
      if (config.demo) await loadDemo(connection.db);
      state.ready = !state.stopping;
      return;
    } catch (error) {
      if (!isDatabaseAway(error) || state.stopping) throw error;
      log.warn('the database does not answer yet');
      await new Promise((resolve) => setTimeout(resolve, MIGRATE_AGAIN_MS));
    }
  }
}

function stop(signal: string): void {
  if (state.stopping) return;
  state.stopping = true;
  state.ready = false;
  log.info({ signal }, 'stopping: finishing what was accepted');
  setTimeout(() => process.exit(1), STOP_MS).unref();
  server.close(() => {
    void connection.close().finally(() => process.exit(0));
  });
  server.closeIdleConnections();
}

process.on('SIGTERM', () => stop('SIGTERM'));
process.on('SIGINT', () => stop('SIGINT'));
// Started by a script: when that is killed, nothing else would end this process.
process.on('disconnect', () => stop('parent ended'));

server.listen(config.port, config.host, () => {
  const { port } = server.address() as AddressInfo;
  log.info({ host: config.host, port }, 'listening');
});

prepare().catch((error: unknown) => {
  log.fatal({ err: error }, 'the database cannot be prepared');
  process.exit(1);
});
