import type { ChildProcess } from 'node:child_process';
import { freePort } from '../scripts/lib/ports.mjs';
import { localPostgres } from '../scripts/lib/postgres.mjs';
import { ended, startServer } from '../scripts/lib/server.mjs';

/** The real server on a real database of its own, to be stopped and killed at will. */
export interface Stack {
  readonly address: string;
  readonly serverPid: () => number;
  readonly serverEnded: () => boolean;
  readonly databaseUrl: string;
  /** For what the application's own user may not do. */
  readonly adminUrl: string;
  readonly killServer: () => Promise<void>;
  /** Stops it as an operator would. */
  readonly stopServer: () => Promise<void>;
  readonly startServer: () => Promise<void>;
  readonly stopDatabase: () => Promise<void>;
  readonly startDatabase: () => Promise<void>;
  readonly end: () => Promise<void>;
}

export async function startStack(
  name: string,
  firstPort: number,
  demo: 'on' | 'off' = 'on',
): Promise<Stack> {
  // A port that no other database looks for: it is taken up again after a stop.
  const database = localPostgres(name, undefined, firstPort + 1000);
  await database.stop();
  database.forget();
  const databaseUrl = await database.start();
  const port = await freePort(firstPort);
  const start = async (): Promise<ChildProcess> =>
    (await startServer({ port, databaseUrl, logLevel: 'silent', demo })).child;
  let server = await start();
  return {
    address: `http://127.0.0.1:${port}`,
    serverPid: () => server.pid ?? 0,
    serverEnded: () => server.exitCode !== null || server.signalCode !== null,
    databaseUrl,
    adminUrl: database.adminUrl(),
    killServer: async () => {
      server.kill('SIGKILL');
      await ended(server);
    },
    stopServer: async () => {
      server.kill('SIGTERM');
      await ended(server);
    },
    startServer: async () => {
      server = await start();
    },
    stopDatabase: () => database.stop(),
    startDatabase: () => database.resume(),
    end: async () => {
      server.kill('SIGTERM');
      await ended(server);
      await database.stop();
      database.forget();
    },
  };
}
