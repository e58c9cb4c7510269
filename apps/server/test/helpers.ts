import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { join } from 'node:path';
import { pino } from 'pino';
import { localPostgres } from '../../../scripts/lib/postgres.mjs';
import { makeApp } from '../src/app.js';
import { listen } from '../src/changes.js';
import { readConfig } from '../src/config.js';
import { applyMigrations, connect, type Connection } from '../src/database.js';

const MIGRATIONS = join(import.meta.dirname, '../migrations');

/** A database of the test's own, its tables made. */
export async function database(name: string): Promise<{ url: string; end: () => Promise<void> }> {
  const local = localPostgres(name);
  await local.stop();
  local.forget();
  const url = await local.start();
  await applyMigrations(url, MIGRATIONS);
  return {
    url,
    end: async () => {
      await local.stop();
      local.forget();
    },
  };
}

export interface Answer {
  readonly status: number;
  readonly body: any; // eslint-disable-line @typescript-eslint/no-explicit-any -- as tests look at it
}

export interface Running {
  readonly connection: Connection;
  readonly address: string;
  readonly ask: (method: string, path: string, body?: unknown) => Promise<Answer>;
  readonly end: () => Promise<void>;
}

/** The app as it is served, in this process. */
export async function serve(url: string): Promise<Running> {
  const config = readConfig({
    DATABASE_URL: url,
    WEB_FOLDER: '/nowhere',
    MIGRATIONS_FOLDER: MIGRATIONS,
    PORT: '4170',
  });
  const connection = connect(url, () => {});
  const changes = listen(url, () => {});
  const app = makeApp(config, connection, changes, pino({ level: 'silent' }), {
    ready: true,
    stopping: false,
  });
  const server: Server = createServer(app);
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const address = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  return {
    connection,
    address,
    ask: async (method, path, body) => {
      const response = await fetch(`${address}/api/${path}`, {
        method,
        ...(body === undefined
          ? {}
          : { body: JSON.stringify(body), headers: { 'Content-Type': 'application/json' } }),
      });
      const text = await response.text();
      return { status: response.status, body: text === '' ? null : JSON.parse(text) };
    },
    end: async () => {
      await changes.close();
      server.closeAllConnections();
      await new Promise((resolve) => server.close(resolve));
      await connection.close();
    },
  };
}

/** What a page hears from a server, event by event. */
export async function hear(address: string) {
  const stop = new AbortController();
  const response = await fetch(`${address}/api/changes`, { signal: stop.signal });
  const reader = response.body!.getReader();
  const heard: string[] = [];
  let wake = (): void => {};
  const reading = (async () => {
    let rest = '';
    for (;;) {
      const { done, value } = await reader.read().catch(() => ({ done: true, value: undefined }));
      if (done) return;
      const parts = (rest + new TextDecoder().decode(value)).split('\n\n');
      rest = parts.pop()!;
      heard.push(...parts);
      wake();
    }
  })();
  return {
    /** Waits for an event that has these words. */
    until: async (words: string): Promise<string> => {
      for (;;) {
        const found = heard.find((event) => event.includes(words));
        if (found !== undefined) return found;
        await new Promise<void>((resolve) => (wake = resolve));
      }
    },
    end: async () => {
      stop.abort();
      await reading;
    },
  };
}
