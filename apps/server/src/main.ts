import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { pino } from 'pino';
import { makeApp } from './app.js';
import { listen } from './changes.js';
import { readConfig } from './config.js';
import { bound, SERVER_OPTIONS } from './connections.js';
import { applyMigrations, connect, NewerDatabase } from './database.js';
import { loadDemo } from './demo.js';
import { faultOf } from './logging.js';
import { RIGS } from './rigs.js';
import { STATIONS } from './stations.js';
import { keepThin } from './thinning.js';
import { codeOf, troubleOf } from './trouble.js';

/** A stop that takes longer than this is cut short. */
const STOP_MS = 10_000;
const PREPARE_AGAIN_MS = 1_000;
/** Ends that a start anew cannot cure; the start command knows them. */
const EXIT = { wrongSettings: 78, portTaken: 98 } as const;

const fail = (sentence: string, code: number): never => {
  process.stderr.write(`${sentence}\n`);
  process.exit(code);
};

const config = (() => {
  try {
    return readConfig(process.env);
  } catch (error) {
    return fail((error as Error).message, EXIT.wrongSettings);
  }
})();
const log = pino({ level: config.logLevel, base: null });
const connection = connect(config.databaseUrl, (error) =>
  log.warn({ code: codeOf(error) }, 'a database connection was cut'),
);
const state = { ready: false, stopping: false };

const changes = listen(config.databaseUrl, (error) =>
  log.warn({ code: codeOf(error) }, 'changes are not heard at the moment'),
);
const server = createServer(SERVER_OPTIONS, makeApp(config, connection, changes, log, state));
bound(server);
let endThinning = (): void => {};

server.on('error', (error: NodeJS.ErrnoException) => {
  const where = `${config.host}, port ${config.port}`;
  if (error.code === 'EADDRINUSE') fail(`${where} is taken; set PORT to another.`, EXIT.portTaken);
  if (error.code === 'EADDRNOTAVAIL' || error.code === 'ENOTFOUND') {
    fail(`HOST: this machine has no address ${config.host}.`, EXIT.wrongSettings);
  }
  if (error.code === 'EACCES') {
    fail(`PORT: this user may not listen on port ${config.port}.`, EXIT.wrongSettings);
  }
  fail(`Cannot listen on ${where}: ${error.code ?? 'unknown'}.`, 1);
});

/** The server answers, with 503, before the database does; migrations wait for it. */
async function prepare(): Promise<void> {
  for (;;) {
    try {
      await applyMigrations(config.databaseUrl, config.migrationsFolder);
      if (config.demo) await loadDemo(connection);
      state.ready = !state.stopping;
      endThinning = keepThin(connection, [STATIONS, RIGS], (error) =>
        log.warn(faultOf(error), 'old saves are not thinned at the moment'),
      );
      return;
    } catch (error) {
      if (error instanceof NewerDatabase) fail(error.message, EXIT.wrongSettings);
      const trouble = troubleOf(error);
      if (trouble === 'refused') {
        fail(
          `The database does not let Gangway in (${codeOf(error)}): look at DATABASE_URL.`,
          EXIT.wrongSettings,
        );
      }
      if (trouble === null || state.stopping) throw error;
      log.warn({ trouble }, 'the database cannot be prepared yet');
      await new Promise((resolve) => setTimeout(resolve, PREPARE_AGAIN_MS));
    }
  }
}

function stop(signal: string): void {
  if (state.stopping) return;
  state.stopping = true;
  state.ready = false;
  log.info({ signal }, 'stopping: finishing what was accepted');
  setTimeout(() => process.exit(1), STOP_MS).unref();
  endThinning();
  server.close(() => {
    void connection.close().finally(() => process.exit(0));
  });
  // Streams that stay open would keep the server from closing.
  void changes.close();
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
  log.fatal(faultOf(error), 'the database cannot be prepared');
  process.exit(1);
});
