import { randomUUID } from 'node:crypto';
import { newRig, newStation, type Station } from '@gangway/station';
import { RIGS } from '../src/rigs.js';
import { STATIONS } from '../src/stations.js';
import { thin } from '../src/thinning.js';
import { database, hear, serve, type Running } from './helpers.js';

let end: () => Promise<void>;
let url: string;
let app: Running;
let job: string;

beforeAll(async () => {
  ({ url, end } = await database('unit-documents'));
  app = await serve(url);
  job = (await app.ask('POST', 'jobs', { name: 'Quay' })).body.id;
});

afterAll(async () => {
  await app.end();
  await end();
});

const lens = { ...newStation('').lens };
const item = (name: string) => ({ kind: 'lens', ...lens, name });

/** What each kind is made of and where; `changed` is another document of the kind. */
const KINDS = [
  {
    what: 'station',
    list: () => `jobs/${job}/stations`,
    path: 'stations',
    made: newStation('Pier') as object,
    changed: { ...newStation('Pier'), aperture: 11 } as object,
  },
  {
    what: 'rig',
    list: () => 'rigs',
    path: 'rigs',
    made: newRig('Pier') as object,
    changed: { ...newRig('Pier'), aperture: 11 } as object,
  },
  {
    what: 'item',
    list: () => 'kit',
    path: 'kit',
    made: item('Pier'),
    changed: { ...item('Pier'), notes: 'scratched' },
  },
];

describe.each(KINDS)('documents: $what', ({ what, list, path, made, changed }) => {
  const create = async (document: object = made) => {
    const { status, body } = await app.ask('POST', list(), { document });
    expect(status).toBe(201);
    return body as { id: string; revision: number; document: object };
  };

  it('are made once, however often they are sent', async () => {
    const id = randomUUID();
    for (let n = 0; n < 2; n++) {
      const { status, body } = await app.ask('POST', list(), { id, document: made });
      expect([status, body.id, body.revision]).toEqual([201, id, 1]);
      expect(body.document).toEqual(made);
    }
    const other = await app.ask('POST', list(), { id, document: changed });
    expect(other.status).toBe(409);
  });

  it('are saved against the revision they were based on', async () => {
    const { id } = await create();
    const put = (baseRevision: number, document: unknown) =>
      app.ask('PUT', `${path}/${id}`, { baseRevision, document });
    expect((await put(1, changed)).body).toMatchObject({ revision: 2, document: changed });
    // The same once more: its answer may have been lost.
    expect((await put(1, changed)).body.revision).toBe(2);
    const refused = await put(1, made);
    expect(refused.status).toBe(409);
    expect(refused.body.current).toMatchObject({ id, revision: 2, document: changed });
    expect(refused.body.yours.document).toEqual(made);
    expect((await app.ask('GET', `${path}/${id}`)).body.revision).toBe(2);
  });

  it('are refused with a pointer to what is wrong, and nothing is changed', async () => {
    const { id } = await create();
    const wrong = { ...changed, name: 7 };
    const { status, body } = await app.ask('PUT', `${path}/${id}`, { baseRevision: 1, document: wrong }); // prettier-ignore
    expect(status).toBe(422);
    expect(body.errors[0].pointer).toBe('/document/name');
    expect((await app.ask('GET', `${path}/${id}`)).body).toMatchObject({ revision: 1 });
  });

  it('keep every save, and names given to them', async () => {
    const { id } = await create();
    await app.ask('PUT', `${path}/${id}`, { baseRevision: 1, document: changed });
    const named = await app.ask('PATCH', `${path}/${id}/revisions/1`, { name: 'as found' });
    expect(named.status).toBe(204);
    const { body } = await app.ask('GET', `${path}/${id}/revisions`);
    expect(body).toMatchObject([
      { revision: 2, name: null },
      { revision: 1, name: 'as found' },
    ]);
    const first = await app.ask('GET', `${path}/${id}/revisions/1`);
    expect(first.body.document).toEqual(made);
    expect((await app.ask('GET', `${path}/${id}/revisions/9`)).status).toBe(404);
  });

  it('are copied under a name of their own, once', async () => {
    const { id } = await create({ ...made, name: `Copied ${what}` });
    const newId = randomUUID();
    for (let n = 0; n < 2; n++) {
      const { status, body } = await app.ask('POST', `${path}/${id}/duplicate`, { id: newId });
      expect([status, body.id, body.revision]).toEqual([201, newId, 1]);
      expect(body.document.name).toBe(`Copied ${what} (copy)`);
    }
    const next = await app.ask('POST', `${path}/${id}/duplicate`);
    expect(next.body.document.name).toBe(`Copied ${what} (copy 2)`);
  });

  it('go for good only from the archive', async () => {
    const { id } = await create();
    expect((await app.ask('DELETE', `${path}/${id}`)).status).toBe(409);
    const archived = await app.ask('PATCH', `${path}/${id}`, { archived: true });
    expect(archived.body.archived).toBe(true);
    expect((await app.ask('DELETE', `${path}/${id}`)).status).toBe(204);
    expect((await app.ask('GET', `${path}/${id}`)).status).toBe(404);
    expect((await app.ask('DELETE', `${path}/${id}`)).status).toBe(404);
  });

  it('of which two are saved at once, one is refused', async () => {
    const { id } = await create();
    const versions = [changed, { ...changed, name: 'Other' }];
    const answers = await Promise.all(
      versions.map((document) => app.ask('PUT', `${path}/${id}`, { baseRevision: 1, document })),
    );
    expect(answers.map(({ status }) => status).sort()).toEqual([200, 409]);
  });
});

describe('a kit item', () => {
  it('stays the kind of thing it is', async () => {
    const { body } = await app.ask('POST', 'kit', { document: item('Fixed') });
    const document = { kind: 'board', name: 'Fixed', offset_mm: 0 };
    const refused = await app.ask('PUT', `kit/${body.id}`, { baseRevision: 1, document });
    expect(refused.body.errors).toEqual([{ pointer: '/document/kind', message: 'must stay "lens"' }]); // prettier-ignore
  });

  it('is found where copies of it are', async () => {
    const { body: kit } = await app.ask('POST', 'kit', { document: item('Used') });
    const origin = { kit_id: kit.id, kit_revision: 1 };
    const rig = { ...newRig('With it'), lens: { ...lens, origin } };
    const { body: there } = await app.ask('POST', 'rigs', { document: rig });
    const station = { ...newStation('With it'), lens: { ...lens, origin } };
    const { body: stored } = await app.ask('POST', `jobs/${job}/stations`, { document: station });
    const { body } = await app.ask('GET', `kit/${kit.id}/used-by`);
    expect(body).toEqual({
      rigs: [{ id: there.id, name: 'With it' }],
      stations: [{ id: stored.id, jobId: job, name: 'With it', job: 'Quay' }],
    });
    await app.ask('PATCH', `rigs/${there.id}`, { archived: true });
    expect((await app.ask('GET', `kit/${kit.id}/used-by`)).body.rigs).toEqual([]);
  });
});

describe('an import', () => {
  const items = () =>
    Array.from({ length: 400 }, (_, i) => ({ id: randomUUID(), document: item(`Imported ${i}`) }));

  it('is taken whole, sent twice it is one, and can be taken back', async () => {
    const id = randomUUID();
    const part = items();
    for (let n = 0; n < 2; n++) {
      const { body } = await app.ask('PUT', `kit/imports/${id}`, { items: part });
      expect(body).toEqual({ added: 400, changed: 0 });
    }
    const changed = part[7]!;
    await app.ask('PUT', `kit/${changed.id}`, { baseRevision: 1, document: item('Mine now') });
    const { body } = await app.ask('DELETE', `kit/imports/${id}`);
    expect(body).toEqual({ removed: 399, restored: 0, left: ['Mine now'] });
  });

  it('with an id that is taken changes nothing', async () => {
    const { body: there } = await app.ask('POST', 'kit', { document: item('There') });
    const part = [...items().slice(0, 3), { id: there.id, document: item('Not mine') }];
    const { status } = await app.ask('PUT', `kit/imports/${randomUUID()}`, { items: part });
    expect(status).toBe(409);
    expect((await app.ask('GET', `kit/${part[0]!.id}`)).status).toBe(404);
    expect((await app.ask('GET', `kit/${there.id}`)).body.document.name).toBe('There');
  });

  it('takes back a change to what it was', async () => {
    const { body: there } = await app.ask('POST', 'kit', { document: item('Before') });
    const id = randomUUID();
    const change = { id: there.id, baseRevision: 1, document: item('After') };
    await app.ask('PUT', `kit/imports/${id}`, { changes: [change] });
    expect((await app.ask('DELETE', `kit/imports/${id}`)).body.restored).toBe(1);
    expect((await app.ask('GET', `kit/${there.id}`)).body.document.name).toBe('Before');
  });
});

describe('what was stored in an older form', () => {
  const copy = { kit_id: randomUUID(), kit_revision: 3 };

  it('comes out in the present one, of lists, pages and earlier versions', async () => {
    const old = { ...newStation('Old'), lens: { ...lens, ...copy } };
    const { body } = await app.ask('POST', `jobs/${job}/stations`, { document: newStation('Old') });
    const text = JSON.stringify(old);
    await app.connection.query('update stations set document = $2 where id = $1', [body.id, text]);
    await app.connection.query('update station_revisions set document = $2 where station_id = $1', [
      body.id,
      text,
    ]);
    const wanted = { ...lens, origin: copy };
    expect((await app.ask('GET', `stations/${body.id}`)).body.document.lens).toEqual(wanted);
    const list = await app.ask('GET', `jobs/${job}/stations?limit=500`);
    const listed = list.body.items.find(({ id }: { id: string }) => id === body.id);
    expect(listed.document.lens).toEqual(wanted);
    const earlier = await app.ask('GET', `stations/${body.id}/revisions/1`);
    expect(earlier.body.document.lens).toEqual(wanted);
  });

  it('and can be read by nobody passes as it is', async () => {
    const { body } = await app.ask('POST', 'rigs', { document: newRig('Spoilt') });
    for (const spoilt of ['[1, 2]', '"text"', '{"version": "x"}', 'null', '{"lens": 5}']) {
      await app.connection.query('update rigs set document = $2 where id = $1', [body.id, spoilt]);
      const read = await app.ask('GET', `rigs/${body.id}`);
      expect([read.status, read.body.document]).toEqual([200, JSON.parse(spoilt)]);
    }
    await app.ask('PATCH', `rigs/${body.id}`, { archived: true });
    expect((await app.ask('DELETE', `rigs/${body.id}`)).status).toBe(204);
  });
});

describe('saves that have come of age', () => {
  const DAY = 24 * 60;

  /** A station whose saves are so many minutes old, the first the oldest. */
  async function savedAt(minutes: readonly number[]): Promise<string> {
    const { body } = await app.ask('POST', `jobs/${job}/stations`, { document: newStation('Aged') }); // prettier-ignore
    for (let n = 1; n < minutes.length; n++) {
      const document: Station = { ...newStation('Aged'), aperture: 4 + n / 100 };
      await app.ask('PUT', `stations/${body.id}`, { baseRevision: n, document });
    }
    for (const [i, age] of minutes.entries()) {
      await app.connection.query(
        `update station_revisions set saved_at = now() - make_interval(mins => $3)
         where station_id = $1 and revision = $2`,
        [body.id, i + 1, age],
      );
    }
    return body.id;
  }
  const kept = async (id: string): Promise<number[]> =>
    (await app.ask('GET', `stations/${id}/revisions`)).body
      .map(({ revision }: { revision: number }) => revision)
      .reverse();
  const WHOLE = 20;
  const thinned = async (): Promise<unknown> => {
    const { body } = await app.ask('PUT', 'history', { thin: true, whole: WHOLE });
    await app.ask('PUT', 'history', { thin: false, whole: WHOLE });
    return body.gone;
  };
  /** As many of a minute each as lie whole at the end. */
  const recent = Array.from({ length: WHOLE }, (_, i) => WHOLE - i);
  const older = (ids: readonly number[], count: number): number[] => [
    ...ids,
    ...Array.from({ length: WHOLE }, (_, i) => count - WHOLE + 1 + i),
  ];

  it('stay all of them, until a person turns thinning on', async () => {
    const id = await savedAt(Array.from({ length: 60 }, (_, i) => 9000 - i));
    expect(await thin(app.connection, [STATIONS, RIGS])).toBe(0);
    expect(await kept(id)).toHaveLength(60);
    const { body } = await app.ask('GET', `history?whole=${WHOLE}`);
    expect(body).toMatchObject({ thin: false, tried: WHOLE, would: { saves: 39, documents: 1 } });
    expect(await kept(id)).toHaveLength(60);
    expect(await thinned()).toBe(39);
    expect(await kept(id)).toEqual(older([1], 60));
  });

  it('keep the last of each spell of work, the first of all, and the newest', async () => {
    const id = await savedAt([
      ...[3 * DAY + 60, 3 * DAY + 58, 3 * DAY + 55, 3 * DAY + 54],
      ...[2 * DAY, 2 * DAY - 3, 2 * DAY - 6],
      ...recent,
    ]);
    await thinned();
    expect(await kept(id)).toEqual(older([1, 4, 7], 27));
    await thinned();
    expect(await kept(id)).toEqual(older([1, 4, 7], 27));
  });

  it('keep what a person named or went on from, and what is present', async () => {
    const id = await savedAt([...[9, 8, 7, 6, 5].map((minute) => 5 * DAY + minute), ...recent]);
    await app.ask('PATCH', `stations/${id}/revisions/2`, { name: 'the one' });
    const document = { ...newStation('Aged'), aperture: 16 };
    const saved = { baseRevision: 25, document, holds: [3] };
    expect((await app.ask('PUT', `stations/${id}`, saved)).body.revision).toBe(26);
    await thinned();
    expect(await kept(id)).toEqual(older([1, 2, 3, 5], 26));
  });

  it('are not made old by a clock that jumps ten years ahead, or back', async () => {
    const minutes = Array.from({ length: 50 }, (_, i) => 4000 - i);
    const id = await savedAt(minutes);
    const would = async () => (await app.ask('GET', `history?whole=${WHOLE}`)).body.would.saves;
    const before = await would();
    const shift = (by: string, which: string) =>
      app.connection.query(
        `update station_revisions set saved_at = saved_at ${by}
         where station_id = $1 and revision ${which}`,
        [id],
      );
    // All that was saved so far is ten years old by a clock that went ahead.
    await shift(`- interval '10 years'`, '> 0');
    expect(await would()).toBe(before);
    // It jumps in the middle, and later back: two more saves end a spell.
    await shift(`+ interval '10 years'`, 'between 10 and 20');
    expect(await would()).toBe(before - 2);
    await thinned();
    expect(await kept(id)).toEqual(older([1, 9, 20], 50));
  });

  it('refuse a number that is none', async () => {
    for (const whole of [0, 19, 1e6, 20.5, 'many', null]) {
      const { status, body } = await app.ask('PUT', 'history', { thin: true, whole });
      expect(status).toBe(422);
      expect(body.errors[0].message).toContain('from 20 to 100000');
    }
  });
});

describe('what is changed', () => {
  it('is told to the pages of every process', async () => {
    const second = await serve(url);
    const [here, there] = [await hear(app.address), await hear(second.address)];
    try {
      await here.until('anew');
      await there.until('anew');
      const { body } = await app.ask('POST', `jobs/${job}/stations`, { document: newStation('Told') }); // prettier-ignore
      await app.ask('PUT', `stations/${body.id}`, {
        baseRevision: 1,
        document: { ...newStation('Told'), aperture: 11 },
      });
      for (const stream of [here, there]) {
        const told = await stream.until(`"${body.id}", "revision" : 2`);
        expect(told).toContain('"table" : "stations"');
      }
    } finally {
      await here.end();
      await there.end();
      await second.end();
    }
  });
});

describe('two processes in front of one database', () => {
  /** `EDITS=1000` goes on at length. */
  const EDITS = Number(process.env.EDITS ?? 200);

  it('lose no edit of either and overwrite none', async () => {
    const second = await serve(url);
    try {
      const { body } = await app.ask('POST', `jobs/${job}/stations`, { document: newStation('Both') }); // prettier-ignore
      /** Each goes on from what is there, and asks anew when the other came first. */
      const work = async (at: Running, who: string): Promise<number> => {
        let refused = 0;
        let now = (await at.ask('GET', `stations/${body.id}`)).body;
        for (let n = 0; n < EDITS / 2;) {
          const document = { ...now.document, name: `${who} ${n}` };
          const answer = await at.ask('PUT', `stations/${body.id}`, {
            baseRevision: now.revision,
            document,
          });
          if (answer.status === 200) {
            now = answer.body;
            n += 1;
          } else {
            expect(answer.status).toBe(409);
            now = answer.body.current;
            refused += 1;
          }
        }
        return refused;
      };
      const refused = await Promise.all([work(app, 'here'), work(second, 'there')]);
      // They did come into each other's way.
      expect(refused[0]! + refused[1]!).toBeGreaterThan(0);
      const rows = await app.connection.query<{ name: string }>(
        `select document->>'name' as name from station_revisions
         where station_id = $1 order by revision`,
        [body.id],
      );
      const names = rows.map(({ name }) => name);
      expect(names).toHaveLength(EDITS + 1);
      for (const who of ['here', 'there']) {
        const own = names.filter((name) => name.startsWith(`${who} `));
        expect(own).toEqual(Array.from({ length: EDITS / 2 }, (_, n) => `${who} ${n}`));
      }
    } finally {
      await second.end();
    }
  });
});
