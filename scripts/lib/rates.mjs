import { fork } from 'node:child_process';
import { Agent, request } from 'node:http';
import { performance } from 'node:perf_hooks';
import { at } from './paths.mjs';

const CLIENTS = 50;
const ROUND_MS = 1200;
const ROUNDS = 7;

const agent = new Agent({ keepAlive: true, maxSockets: CLIENTS });

function ask(url, method, body) {
  return new Promise((resolve, reject) => {
    const sent = request(
      url,
      {
        method,
        agent,
        headers: body
          ? { 'Content-Type': 'application/json', 'Content-Length': Buffer.byteLength(body) }
          : {},
      },
      (response) => {
        const parts = [];
        response.on('data', (part) => parts.push(part));
        response.on('end', () => {
          if (response.statusCode !== 200) reject(new Error(`${url}: ${response.statusCode}`));
          else resolve(Buffer.concat(parts));
        });
      },
    );
    sent.on('error', (error) => {
      // A connection that lay idle was closed just as it was taken up again.
      if (sent.reusedSocket && error.code === 'ECONNRESET') resolve(ask(url, method, body));
      else reject(error);
    });
    sent.end(body);
  });
}

/** Answers a second with so many clients, each asking anew once it is answered. */
async function rate(work) {
  const begin = performance.now();
  let answers = 0;
  const client = async (number) => {
    while (performance.now() - begin < ROUND_MS) {
      await work(number);
      answers += 1;
    }
  };
  await Promise.all(Array.from({ length: CLIENTS }, (_, number) => client(number)));
  return (answers * 1000) / (performance.now() - begin);
}

const middle = (values) => values.toSorted((a, b) => a - b)[Math.floor(values.length / 2)];

/** Ours and the bare one in turn, so that a busy minute strikes both; the middle of the rounds. */
async function compared(name, wanted, ours, bare, say) {
  const rounds = [];
  await rate(ours);
  for (let round = 0; round < ROUNDS; round++) {
    rounds.push({ bare: await rate(bare), ours: await rate(ours) });
  }
  const ratio = middle(rounds.map((each) => each.ours / each.bare));
  say(
    `${name}:`.padEnd(37) +
      `${middle(rounds.map((each) => each.ours)).toFixed(0)} a second, a bare server ` +
      `${middle(rounds.map((each) => each.bare)).toFixed(0)}: ${ratio.toFixed(2)} of it (${wanted} wanted)`,
  );
}

/** How our server reads and saves stations beside a bare one on the same database. */
export async function measureRates(address, databaseUrl, say) {
  const child = fork(at('scripts/lib/bare-server.mjs'), {
    env: { ...process.env, NODE_ENV: 'production', DATABASE_URL: databaseUrl },
  });
  try {
    const { port } = await new Promise((resolve) => child.once('message', resolve));
    const [job] = JSON.parse(await ask(`${address}/api/jobs`, 'GET'));
    const { items } = JSON.parse(await ask(`${address}/api/jobs/${job.id}/stations`, 'GET'));
    const copies = await Promise.all(
      Array.from({ length: CLIENTS }, async () => {
        const sent = JSON.stringify({ document: items[0].document });
        const made = await fetch(`${address}/api/jobs/${job.id}/stations`, {
          method: 'POST',
          headers: { 'Content-Type': 'application/json' },
          body: sent,
        });
        return made.json();
      }),
    );
    const ids = copies.map(({ id }) => id);
    await compared(
      'reading a station, 50 clients',
      0.8,
      (number) => ask(`${address}/api/stations/${ids[number]}`, 'GET'),
      (number) => ask(`http://127.0.0.1:${port}/${ids[number]}`, 'GET'),
      say,
    );
    const { document } = copies[0];
    const revisions = copies.map(({ revision }) => revision);
    let count = 0;
    const body = (number) =>
      JSON.stringify({
        baseRevision: revisions[number],
        document: { ...document, notes_kept: (count += 1) },
      });
    await compared(
      'saving a station, 50 clients',
      0.5,
      async (number) => {
        const answer = await ask(`${address}/api/stations/${ids[number]}`, 'PUT', body(number));
        revisions[number] = JSON.parse(answer).revision;
      },
      (number) => ask(`http://127.0.0.1:${port}/${ids[number]}`, 'PUT', body(number)),
      say,
    );
  } finally {
    child.disconnect();
  }
}
