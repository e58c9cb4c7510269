import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type { Logged } from '@gangway/station';
import { draftsOf, type Roomy } from '../../web/src/records/drafts.js';
import {
  makeLogKeeper,
  readOutbox,
  type LogKeeper,
  type Outbox,
} from '../../web/src/records/log-keeper.js';
import type { OpenLog } from '../../web/src/records/log-lines.js';
import { database, serve, type Running } from './helpers.js';

/**
 * The page’s own keeper against the real server and database, while the way between them, the server
 * and the page itself are killed: before a request is heard, between hearing and answering, and
 * while the page waits.
 */

let end: () => Promise<void>;
let url: string;
let running: Running;

beforeAll(async () => {
  ({ url, end } = await database('log-kills'));
  running = await serve(url);
});
afterAll(async () => {
  await running.end();
  await end();
});

const KILLS = 100;
const JOB = '00000000-0000-4000-8000-0000000000f1';

test(`every line arrives once and in order through ${KILLS} kills`, async () => {
  await running.ask('POST', 'jobs', { id: JOB, name: 'Kills' });
  const shelf = new Map<string, string>();
  const room = new Map<string, unknown>();
  const places = {
    shelf: {
      get length() {
        return shelf.size;
      },
      key: (i: number) => [...shelf.keys()][i] ?? null,
      getItem: (key: string) => shelf.get(key) ?? null,
      setItem: (key: string, value: string) => void shelf.set(key, value),
      removeItem: (key: string) => void shelf.delete(key),
    },
    room: {
      put: async (key, draft) => void room.set(key, structuredClone(draft)),
      drop: async (key) => void room.delete(key),
      under: async (prefix) => [...room].filter(([key]) => key.startsWith(prefix)),
    } satisfies Roomy,
  };

  let kills = 0;
  let request = 0;
  /** The way to the server: now and then cut before, or after it has done its work. */
  const cutFetch: typeof fetch = async (input, init) => {
    const address = `${running.address}${String(input)}`;
    if (init?.method !== 'POST' || kills >= KILLS) return fetch(address, init);
    request++;
    if (request % 3 === 0) {
      kills++;
      throw new TypeError('cut before it was heard');
    }
    if (request % 3 === 1) {
      const response = await fetch(address, init);
      await response.text();
      kills++;
      throw new TypeError('cut between hearing and answering');
    }
    if (request % 15 === 2) {
      // The whole server goes, and comes again.
      const sent = fetch(address, init).catch(() => null);
      await running.end();
      await sent;
      running = await serve(url);
      kills++;
      throw new TypeError('the server was killed');
    }
    return fetch(address, init);
  };

  let log: OpenLog | null = null;
  let alive = 0;
  /** A page; what the one before it had in memory is gone. */
  const page = (): LogKeeper => {
    const own = ++alive;
    log = null;
    return makeLogKeeper({
      getLog: () => (own === alive ? log : null),
      setLog: (next) => {
        if (own === alive) log = next;
      },
      drafts: draftsOf<Outbox>('log.', readOutbox, places),
      tab: `tab ${own}`,
      runs: async () => false,
      fetch: cutFetch,
      wait: (ms) => new Promise((resolve) => setTimeout(resolve, ms / 100)),
      keeps: () => true,
      now: () => Date.now(),
    });
  };

  let keeper = page();
  await keeper.open(JOB);
  const sent: Logged[] = [];
  for (let n = 1; kills < KILLS || n <= 150; n++) {
    const line: Logged = {
      id: `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`,
      at: '2026-05-14T09:30:05+02:00',
      planned: true,
      note: `line ${n}`,
    };
    sent.push(line);
    keeper.change({ label: 'Shot', changes: [{ id: line.id, add: line }] });
    await new Promise((resolve) => setTimeout(resolve, n % 4));
    if (n % 10 === 0) {
      // The page is closed with what it had not sent, and opened again.
      kills++;
      keeper = page();
      await keeper.open(JOB);
    }
  }
  while ((log as OpenLog | null)?.waiting.length !== 0) {
    await new Promise((resolve) => setTimeout(resolve, 5));
  }
  const response = await fetch(`${running.address}/api/jobs/${JOB}/log`);
  const [, ...rows] = (await response.text()).trim().split('\n');
  expect(rows.map((row) => (JSON.parse(row) as { document: Logged }).document)).toEqual(sent);
  expect(kills).toBeGreaterThanOrEqual(KILLS);
});
