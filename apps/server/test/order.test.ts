import { randomUUID } from 'node:crypto';
import { newStation } from '@gangway/station';
import { database, serve, type Running } from './helpers.js';

/** The order of a job’s stations, and how far each has come. */

let end: () => Promise<void>;
let app: Running;

beforeAll(async () => {
  const made = await database('order-test');
  app = await serve(made.url);
  end = async () => {
    await app.end();
    await made.end();
  };
}, 120_000);
afterAll(() => end());

async function jobOf(count: number): Promise<{ job: string; ids: string[] }> {
  const job = randomUUID();
  await app.ask('POST', 'jobs', { id: job, name: 'Order' });
  const ids: string[] = [];
  for (let i = 0; i < count; i++) {
    const id = randomUUID();
    await app.ask('POST', `jobs/${job}/stations`, { id, document: newStation(`S${i}`) });
    ids.push(id);
  }
  return { job, ids };
}

const namesIn = async (job: string): Promise<string[]> => {
  const { body } = await app.ask('GET', `jobs/${job}/stations`);
  return body.items.map((each: { document: { name: string } }) => each.document.name);
};

describe('order', () => {
  it('is that of making until somebody moves one, before another or to the end', async () => {
    const { job, ids } = await jobOf(4);
    expect(await namesIn(job)).toEqual(['S0', 'S1', 'S2', 'S3']);
    await app.ask('PUT', `stations/${ids[3]}/place`, { before: ids[1] });
    expect(await namesIn(job)).toEqual(['S0', 'S3', 'S1', 'S2']);
    await app.ask('PUT', `stations/${ids[0]}/place`, { before: null });
    expect(await namesIn(job)).toEqual(['S3', 'S1', 'S2', 'S0']);
    await app.ask('PUT', `stations/${ids[2]}/place`, { before: ids[3] });
    expect(await namesIn(job)).toEqual(['S2', 'S3', 'S1', 'S0']);
    // A new one comes last, and pages keep the order.
    await app.ask('POST', `jobs/${job}/stations`, { document: newStation('S4') });
    const { body } = await app.ask('GET', `jobs/${job}/stations?offset=3&limit=2`);
    expect(body.items.map((each: { document: { name: string } }) => each.document.name)).toEqual([
      'S0',
      'S4',
    ]);
  });

  it('has room however often two are put between the same two', async () => {
    const { job, ids } = await jobOf(4);
    for (let i = 0; i < 70; i++) {
      await app.ask('PUT', `stations/${ids[2 + (i % 2)]}/place`, { before: ids[1] });
    }
    expect(await namesIn(job)).toEqual(['S0', 'S2', 'S3', 'S1']);
  });

  it('a station goes before one of its own job only, and moving says nothing of its document', async () => {
    const [one, other] = [await jobOf(2), await jobOf(1)];
    const refused = await app.ask('PUT', `stations/${one.ids[0]}/place`, {
      before: other.ids[0],
    });
    expect(refused.status).toBe(422);
    expect(refused.body.errors[0].pointer).toBe('/before');
    expect((await app.ask('PUT', `stations/${randomUUID()}/place`, { before: null })).status).toBe(
      404,
    );
    const moved = await app.ask('PUT', `stations/${one.ids[0]}/place`, { before: null });
    expect(moved.body).toMatchObject({ id: one.ids[0], revision: 1 });
  });
});

describe('status', () => {
  it('begins as planned, is one of four, and goes with neither copy', async () => {
    const { job, ids } = await jobOf(1);
    const path = `stations/${ids[0]}`;
    expect((await app.ask('GET', path)).body.status).toBe('planned');
    expect((await app.ask('PUT', `${path}/status`, { status: 'shot' })).body).toMatchObject({
      status: 'shot',
      revision: 1,
    });
    const wrong = await app.ask('PUT', `${path}/status`, { status: 'lost' });
    expect(wrong.status).toBe(422);
    expect(JSON.stringify(wrong.body)).toContain('planned, ready, shot, again');
    const copied = await app.ask('POST', `${path}/duplicate`, {});
    expect(copied.body.status).toBe('planned');
    const twin = await app.ask('POST', `jobs/${job}/duplicate`, {});
    const { body } = await app.ask('GET', `jobs/${twin.body.id}/stations`);
    expect(body.items.map((each: { status: string }) => each.status)).toEqual([
      'planned',
      'planned',
    ]);
  });
});
