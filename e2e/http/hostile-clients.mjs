import { connect } from 'node:net';
import { randomUUID } from 'node:crypto';

/**
 * `node hostile-clients.mjs ADDRESS ROUNDS SECONDS`: thirty clients that mean ill, each for so many rounds,
 * or until the time is over. In a process of their own: what they cost is not the server’s.
 */
const [address, rounds, seconds] = [
  process.argv[2],
  Number(process.argv[3]),
  Number(process.argv[4]),
];
const { hostname, port, host } = new URL(address);
const CLIENTS = 30;
const until = performance.now() + seconds * 1000;

const members = Buffer.from(`{"format":"gangway.job","stations":[${'1,'.repeat(24_000_000)}1]}`);
const deep = Buffer.from('['.repeat(1_000_000));
const wide = Buffer.from(`{"document":{"x":[${'{},'.repeat(600_000)}{}]}}`);
const text = Buffer.from(`{"name":"${'x'.repeat(2_000_000)}"}`);
const station = (
  await (await fetch(`${address}/api/stations/a0000000-0000-4000-8000-000000000101`)).json()
).document;
const many = Buffer.from(
  JSON.stringify({
    format: 'gangway.job',
    version: 1,
    name: 'Ten thousand',
    stations: Array.from({ length: 10_000 }, () => ({ id: randomUUID(), document: station })),
    exposures: [],
  }),
);
const large = Buffer.from(
  JSON.stringify({
    baseRevision: 1,
    document: {
      ...station,
      marks: Array.from({ length: 200 }, (_, i) => ({
        label: `${i}`,
        x_m: i % 7,
        y_m: 1,
        z_m: 3 + i,
        must: 'sharp',
      })),
      more: Array.from({ length: 60_000 }, (_, i) => i),
    },
  }),
);

const send = (path, body, method = 'POST') =>
  fetch(address + path, { method, headers: { 'Content-Type': 'application/json' }, body })
    .then((response) => response.arrayBuffer())
    .catch(() => undefined);
const get = (path) =>
  fetch(address + path)
    .then((response) => response.arrayBuffer())
    .catch(() => undefined);

/** Says a part of a request, and nothing more for a while. */
const hold = (said, forMs) =>
  new Promise((resolve) => {
    const socket = connect(Number(port), hostname, () => socket.write(said));
    socket.on('error', () => {});
    socket.on('close', resolve);
    setTimeout(() => socket.destroy(), forMs);
  });

const STATION = '/api/stations/a0000000-0000-4000-8000-000000000102';
const deeds = [
  () => send(`/api/job-files?job=${randomUUID()}`, members),
  () => send(`/api/job-files?job=${randomUUID()}`, many),
  () => send('/api/jobs', deep),
  () => send('/api/jobs', text),
  () => send(STATION, wide, 'PUT'),
  () => send(STATION, large, 'PUT'),
  () =>
    send(
      `/api/kit/imports/${randomUUID()}`,
      Buffer.from(`{"items":[${'{"id":1},'.repeat(300_000)}{}]}`),
      'PUT',
    ),
  () =>
    hold(
      `POST /api/jobs HTTP/1.1\r\nHost: ${host}\r\nContent-Type: application/json\r\nContent-Length: 1000\r\n\r\n{`,
      500,
    ),
  () => hold(`GET /api/changes HTTP/1.1\r\nHost: ${host}\r\n\r\n`, 300),
  () => hold('GET / HT', 500),
  () => Promise.all(Array.from({ length: 40 }, () => hold('', 200))),
  () => get('/api/jobs/a0000000-0000-4000-8000-000000000001/stations?limit=500'),
  () => get('/api/job-files/a0000000-0000-4000-8000-000000000001'),
  () => get('/api/kit'),
];

let done = 0;
await Promise.all(
  Array.from({ length: CLIENTS }, async (_, client) => {
    for (let round = 0; round < rounds && performance.now() < until; round++) {
      await deeds[(client * 5 + round * 3) % deeds.length]();
      done++;
    }
  }),
);
console.log(done);
process.exit(0);
