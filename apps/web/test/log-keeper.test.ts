import { expect, test } from '@jest/globals';
import type { Logged, LogChange } from '@gangway/station';
import { draftsOf, type Roomy } from '../src/records/drafts.js';
import {
  makeLogKeeper,
  readOutbox,
  type LogKeeper,
  type Outbox,
} from '../src/records/log-keeper.js';
import { linesOf, type OpenLog } from '../src/records/log-lines.js';

const jobOf = (n: number): string => `00000000-0000-4000-8000-0000000000f${n}`;
const change = (n: number): LogChange => ({
  id: `00000000-0000-4000-8000-00000000000${n}`,
  set: { note: { was: undefined, to: `note ${n}` } },
});
const answerTo = (changes: readonly LogChange[]): object => ({
  before: 1,
  latest: 2,
  // The third is one that another hand changed, too.
  results: changes.map(({ id }) => ({ id, outcome: id.endsWith('3') ? 'clash' : 'done' })),
});

/** A browser in which other tabs left something, and a server that is away for the first `missing` requests. */
function browser(
  left: Record<string, Outbox>,
  missing = 0,
  alive: readonly string[] = [],
  keeps = true,
) {
  const kept = new Map<string, unknown>(Object.entries(left));
  const shelf = { length: 0, key: () => null, getItem: () => null, setItem: () => { throw new Error('full'); }, removeItem: () => {} }; // prettier-ignore
  const room: Roomy = {
    put: async (key, draft) => void kept.set(key, draft),
    drop: async (key) => void kept.delete(key),
    under: async (prefix) => [...kept].filter(([key]) => key.startsWith(prefix)),
  };
  const sent: [string, LogChange[]][] = [];
  let asked = 0;
  let log: OpenLog | null = null;
  const keeper = makeLogKeeper({
    getLog: () => log,
    setLog: (next) => (log = next),
    drafts: draftsOf<Outbox>('log.', readOutbox, { shelf, room }),
    tab: 'mine',
    runs: async (tab) => alive.includes(tab),
    fetch: (async (address: string, init?: RequestInit) => {
      if (++asked <= missing) throw new TypeError('away');
      const { changes } = JSON.parse(String(init?.body)) as { changes: LogChange[] };
      sent.push([address, changes]);
      return Response.json(answerTo(changes));
    }) as typeof fetch,
    wait: () => new Promise((resolve) => setTimeout(resolve)),
    now: () => 9,
    keeps: () => keeps,
  });
  const said = (): string =>
    log?.save.kind === 'away' || log?.save.kind === 'stopped' ? log.save.message : '';
  return { keeper: { ...keeper, close: () => void (log = null) }, kept, sent, said };
}

const outbox = (keptAt: number, ...waiting: LogChange[]): Outbox => ({
  keptAt,
  waiting,
  refused: [],
});
const settled = async (done: () => boolean): Promise<void> => {
  for (let i = 0; i < 1000 && !done(); i++) await new Promise((resolve) => setTimeout(resolve));
};

test('what waits of every job is sent without its log being opened, the oldest first', async () => {
  const { keeper, kept, sent } = browser(
    {
      [`log.${jobOf(1)}.b`]: outbox(2, change(2)),
      [`log.${jobOf(1)}.a`]: outbox(1, change(1)),
      [`log.${jobOf(2)}.a`]: outbox(1, change(4)),
    },
    3,
  );
  await keeper.sendOthers();
  await settled(() => kept.size === 0);
  expect(sent.sort()).toEqual([
    [`/api/jobs/${jobOf(1)}/log`, [change(1), change(2)]],
    [`/api/jobs/${jobOf(2)}/log`, [change(4)]],
  ]);
  expect(kept.size).toBe(0);
});

test('what a person has to decide stays, and so does what another tab sends by itself', async () => {
  const own = outbox(2, change(5));
  const { keeper, kept, sent } = browser(
    {
      [`log.${jobOf(1)}.gone`]: outbox(1, change(2), change(3)),
      [`log.${jobOf(1)}.alive`]: own,
    },
    0,
    ['alive'],
  );
  await keeper.sendOthers();
  await settled(() => !kept.has(`log.${jobOf(1)}.gone`));
  expect(sent.map(([, changes]) => changes)).toEqual([[change(2), change(3)]]);
  expect(Object.fromEntries(kept)).toEqual({
    [`log.${jobOf(1)}.alive`]: own,
    [`log.${jobOf(1)}.mine`]: { keptAt: 9, waiting: [change(3)], refused: [] },
  });
});

test('what another hand added in between is fetched, not passed over', async () => {
  const job = jobOf(3);
  const line = (n: number): Logged => ({ id: change(n).id, at: `2026-10-03T09:00:0${n}+02:00`, planned: true }); // prettier-ignore
  let log: OpenLog | null = null;
  const asked: string[] = [];
  // Someone else's line came as number 6 while this page, which knows of five changes, sent its own.
  const keeper: LogKeeper = makeLogKeeper({
    getLog: () => log,
    setLog: (next) => (log = next),
    drafts: draftsOf<Outbox>('log.', readOutbox, {
      shelf: { length: 0, key: () => null, getItem: () => null, setItem: () => {}, removeItem: () => {} }, // prettier-ignore
      room: { put: async () => {}, drop: async () => {}, under: async () => [] },
    }),
    tab: 'mine',
    runs: async () => false,
    fetch: (async (address: string, init?: RequestInit) => {
      if (init?.method === 'POST') {
        keeper.tell(job, 7);
        return Response.json({ before: 6, latest: 7, results: [{ id: line(2).id, outcome: 'done' }] }); // prettier-ignore
      }
      asked.push(address);
      const late = address.endsWith('since=5');
      const rows = late ? [1, 2].map((n) => ({ position: n, gone: false, document: line(n) })) : [];
      const head = { latest: late ? 7 : 5, total: rows.length, films: [] };
      return new Response([head, ...rows].map((each) => JSON.stringify(each)).join('\n'));
    }) as typeof fetch,
    wait: () => new Promise((resolve) => setTimeout(resolve)),
    now: () => 9,
    keeps: () => true,
  });
  await keeper.open(job);
  keeper.change({ label: 'Shot', changes: [{ id: line(2).id, add: line(2) }] });
  const now = (): OpenLog => log!;
  await settled(() => now().latest === 7);
  expect(asked.slice(0, 2).map((each) => each.split('=')[1])).toEqual(['0', '5']);
  expect(linesOf(now())).toEqual([line(1), line(2)]);
});

test('where the browser keeps nothing, the sentence does not say that it does', async () => {
  for (const [keeps, words] of [
    [true, 'Everything is kept here'],
    [false, 'this browser keeps nothing: leave this page open'],
  ] as const) {
    const { keeper, said } = browser({}, Infinity, [], keeps);
    void keeper.open(jobOf(7));
    await settled(() => said().includes('does not answer'));
    expect(said()).toContain(words);
    keeper.close();
  }
});
