import { readFileSync } from 'node:fs';
import { connect } from 'node:net';
import { demo } from '../fresh.js';
import { malformed, sendRaw, type Known } from './malformed-requests.js';
import { runs } from '../../scripts/lib/runs.mjs';
import { startStack, type Stack } from '../stack.js';

const SEED = 20_260_601;
const COUNT = runs(20_000);
const AT_ONCE = 16;
/** What a process that answers holds on to settles by then. */
const SETTLED = COUNT / 4;

let stack: Stack;
beforeAll(async () => {
  stack = await startStack('test-malformed', 4870);
});
afterAll(() => stack.end());

/** Memory the server's process holds, in MB. */
const memoryMb = (): number =>
  Number(/VmRSS:\s+(\d+) kB/.exec(readFileSync(`/proc/${stack.serverPid()}/status`, 'utf8'))![1]) /
  1024;

test(`${COUNT} malformed requests over all routes: no fault of ours, memory flat`, async () => {
  const job = 'a0000000-0000-4000-8000-000000000001';
  const known: Known = {
    ids: [
      job,
      'a0000000-0000-4000-8000-000000000101',
      'b0000000-0000-4000-8000-000000000001',
      'c0000000-0000-4000-8000-000000000001',
    ],
    document: demo('1-customs-house-front'),
  };
  const faults: string[] = [];
  const tally = new Map<number, number>();
  let next = 0;
  let settledMb = 0;
  const client = async (): Promise<void> => {
    while (next < COUNT) {
      const index = next++;
      if (index === SETTLED) settledMb = memoryMb();
      const sent = malformed(index, SEED, known);
      const { status, type, text } = await sendRaw(stack.address, sent);
      tally.set(status, (tally.get(status) ?? 0) + 1);
      const what = `${index}: ${sent.method} ${sent.path} ${sent.body.toString().slice(0, 80)} → ${status}`;
      if (status >= 500) faults.push(what);
      // A refusal says in a sentence what is wrong; a HEAD has no body.
      if (status >= 400 && sent.method !== 'HEAD') {
        const said = type.startsWith('application/problem+json')
          ? (JSON.parse(text) as { detail?: string }).detail
          : undefined;
        if (!said || !/^[A-Z“].*\.$/s.test(said)) faults.push(`${what}, no sentence`);
      }
    }
  };
  await Promise.all(Array.from({ length: AT_ONCE }, client));
  expect(faults.slice(0, 5)).toEqual([]);
  // The test is worth something only while much is refused, and some gets through.
  expect((tally.get(422) ?? 0) + (tally.get(400) ?? 0)).toBeGreaterThan(COUNT / 10);
  expect(stack.serverEnded()).toBe(false);
  expect(memoryMb() - settledMb).toBeLessThan(100);
});

test('what is no HTTP at all is answered with a sentence, and the connection closed', async () => {
  const { hostname, port } = new URL(stack.address);
  for (const bytes of [
    'GARBAGE\r\n\r\n',
    'GET / HTTP/1.1\r\nHost: x\r\nX: \u0001\r\n\r\n',
    '\u0016\u0003\u0001',
  ]) {
    const answer = await new Promise<string>((resolve) => {
      const socket = connect(Number(port), hostname, () => socket.write(`${bytes}\r\n\r\n`));
      let text = '';
      socket.on('data', (chunk) => (text += String(chunk)));
      socket.on('close', () => resolve(text));
    });
    expect(answer).toMatch(/^HTTP\/1.1 400 .*This is not a request that can be read\./s);
    expect(answer).toMatch(/X-Content-Type-Options: nosniff/);
    expect(answer).toMatch(/Permissions-Policy: accelerometer=\(self\)/);
  }
  expect((await fetch(`${stack.address}/readyz`)).ok).toBe(true);
});

/** What a server answers to bytes as they are. */
const answerTo = (bytes: string): Promise<string> =>
  new Promise((resolve) => {
    const { hostname, port } = new URL(stack.address);
    const socket = connect(Number(port), hostname, () => socket.write(bytes));
    let text = '';
    socket.on('data', (chunk) => (text += String(chunk)));
    socket.on('error', () => resolve(text));
    socket.on('close', () => resolve(text));
  });

test('every answer bars sniffing and what nobody needs, refusals of every kind too', async () => {
  const host = new URL(stack.address).host;
  const close = 'Connection: close\r\n\r\n';
  for (const [status, bytes] of [
    [200, `GET / HTTP/1.1\r\nHost: ${host}\r\n${close}`],
    [200, `GET /api/jobs HTTP/1.1\r\nHost: ${host}\r\n${close}`],
    [200, `GET /healthz HTTP/1.1\r\nHost: ${host}\r\n${close}`],
    [404, `GET /api/nothing HTTP/1.1\r\nHost: ${host}\r\n${close}`],
    [404, `GET /assets/nothing HTTP/1.1\r\nHost: ${host}\r\n${close}`],
    [421, `GET / HTTP/1.1\r\nHost: elsewhere.example\r\n${close}`],
    [421, `GET http://elsewhere.example/ HTTP/1.1\r\nHost: ${host}\r\n${close}`],
    [400, `GET / HTTP/1.1\r\nHost: ${host}\r\nHost: ${host}\r\n${close}`],
    [400, `GET /%zz HTTP/1.1\r\nHost: ${host}\r\n${close}`],
    [
      415,
      `POST /api/jobs HTTP/1.1\r\nHost: ${host}\r\nContent-Type: text/plain\r\nContent-Length: 2\r\n${close}{}`,
    ],
    [
      415,
      `POST /api/jobs HTTP/1.1\r\nHost: ${host}\r\nContent-Type: application/json\r\nContent-Encoding: gzip\r\nContent-Length: 2\r\n${close}{}`,
    ],
    [
      413,
      `POST /api/job-files?job=a0000000-0000-4000-8000-0000000000ff HTTP/1.1\r\nHost: ${host}\r\nContent-Type: application/json\r\nContent-Length: 99000000\r\n${close}{}`,
    ],
  ] as const) {
    const answer = await answerTo(bytes);
    expect(answer.slice(0, 12)).toBe(`HTTP/1.1 ${status}`);
    expect(answer).toMatch(/x-content-type-options: nosniff/i);
    expect(answer).toMatch(/permissions-policy: .*camera=\(self\).*geolocation=\(\)/i);
  }
});

test('49 MB of members are refused before they are parsed, and others are served meanwhile', async () => {
  const body = Buffer.from(`{"format":"gangway.job","stations":[${'1,'.repeat(24_400_000)}1]}`);
  const sending = Array.from({ length: 2 }, () =>
    fetch(`${stack.address}/api/job-files?job=${crypto.randomUUID()}`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body,
    }).then(
      async (response) => [response.status, await response.text()] as const,
      // It may have been hung up on before it had sent everything.
      () => [413, 'holds more than'] as const,
    ),
  );
  let served = 0;
  let done = false;
  const all = Promise.all(sending).finally(() => (done = true));
  while (!done) {
    expect((await fetch(`${stack.address}/api/jobs`)).status).toBe(200);
    served++;
  }
  for (const [status, text] of await all) {
    expect(status).toBe(413);
    expect(text).toContain('holds more than');
  }
  expect(served).toBeGreaterThan(2);
  // A parser would have made of it some hundreds of megabytes.
  expect(memoryMb()).toBeLessThan(900);
});

test('a third large file of one machine is told to wait', async () => {
  const url = new URL(stack.address);
  const job = (): string => `/api/job-files?job=${crypto.randomUUID()}`;
  const head = (path: string): string =>
    `POST ${path} HTTP/1.1\r\nHost: ${url.host}\r\nContent-Type: application/json\r\nContent-Length: 2000000\r\n\r\n{`;
  let holding = true;
  const slow = new Set<ReturnType<typeof connect>>();
  /** Held open; one that came while the third was being answered is told to wait, and comes again. */
  const hold = (): void => {
    const socket = connect(Number(url.port), url.hostname, () => socket.write(head(job())));
    slow.add(socket);
    socket.on('error', () => {});
    socket.on('data', () => socket.destroy());
    socket.on('close', () => {
      slow.delete(socket);
      if (holding) hold();
    });
  };
  hold();
  hold();
  const third = () =>
    fetch(stack.address + job(), {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: `{}${' '.repeat(2_000_000)}`,
    });
  let answer = await third();
  while (answer.status !== 429) answer = await third();
  expect(((await answer.json()) as { detail: string }).detail).toContain('when they are done');
  expect(answer.headers.get('retry-after')).toBe('5');
  holding = false;
  for (const socket of slow) socket.destroy();
  while ((await third()).status === 429);
});
