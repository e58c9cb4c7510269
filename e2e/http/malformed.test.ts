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
  }
  expect((await fetch(`${stack.address}/readyz`)).ok).toBe(true);
});
