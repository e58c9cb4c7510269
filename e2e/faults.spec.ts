import { expect, test } from '@playwright/test';
import pg from 'pg';
import { demo, enter, freshStation, newStation, saved, scale, stored, typed } from './helpers.js';
import { startStack, type Stack } from './stack.js';

/** What a database, or a document in it, may do to the server and to the page. */
test.describe.configure({ mode: 'serial', timeout: 400_000 });

let stack: Stack;
let admin: pg.Client;

test.beforeAll(async () => {
  stack = await startStack('test-faults', 4770);
  admin = new pg.Client({ connectionString: stack.adminUrl });
  await admin.connect();
});
test.afterAll(async () => {
  await admin.end();
  await stack.end();
});
// Whatever happens to its database, the server goes on.
test.afterEach(() => expect(stack.serverEnded()).toBe(false));

const json = { 'Content-Type': 'application/json' };
const send = (method: string, url: string, body: unknown): Promise<Response> =>
  fetch(url, { method, headers: json, body: JSON.stringify(body) });
const idOf = (api: string): string => api.split('/').at(-1)!;

const cutAll = () =>
  admin.query(
    `select pg_terminate_backend(pid) from pg_stat_activity where application_name = 'gangway'`,
  );

const untilWaiting = async (): Promise<void> => {
  await expect
    .poll(async () => {
      const { rows } = await admin.query(
        `select count(*)::integer as waiting from pg_stat_activity
         where application_name = 'gangway' and wait_event_type = 'Lock'`,
      );
      return (rows[0] as { waiting: number }).waiting;
    })
    .toBeGreaterThan(0);
};

/** Holds a row, so that the server waits in the middle of its work. */
async function holding(sql: string, id: string): Promise<() => Promise<void>> {
  const other = new pg.Client({ connectionString: stack.adminUrl });
  await other.connect();
  await other.query('begin');
  await other.query(sql, [id]);
  return async () => {
    await other.query('rollback');
    await other.end();
  };
}

test('a connection cut in the middle of a save: 503, and the same again succeeds', async () => {
  const { api } = await freshStation(stack.address);
  const document = { ...demo('1-customs-house-front'), aperture: 11 };
  for (let round = 0; round < 5; round++) {
    const release = await holding('select * from stations where id = $1 for update', idOf(api));
    const answer = send('PUT', api, { baseRevision: round + 1, document: { ...document, round } });
    await untilWaiting();
    await cutAll();
    const refused = await answer;
    expect(refused.status).toBe(503);
    expect(((await refused.json()) as { detail: string }).detail).toContain('Nothing was changed');
    await release();
    const again = await send('PUT', api, {
      baseRevision: round + 1,
      document: { ...document, round },
    });
    expect(await again.json()).toMatchObject({ revision: round + 2 });
  }
});

test('a connection cut inside a transaction of several statements does not end the server', async () => {
  const id = 'b0000000-0000-4000-8000-000000000001';
  const api = `${stack.address}/api/kit/${id}`;
  const { document } = (await (await fetch(api)).json()) as { document: { name: string } };
  for (let round = 0; round < 5; round++) {
    const release = await holding('select * from kit_items where id = $1 for update', id);
    const body = { baseRevision: round + 1, document: { ...document, notes: `round ${round}` } };
    const answer = send('PUT', api, body);
    await untilWaiting();
    await cutAll();
    expect((await answer).status).toBe(503);
    await release();
    expect((await send('PUT', api, body)).status).toBe(200);
  }
});

test('a lock that cannot be had by both is given up by one, which tries again', async () => {
  const [a, b] = ['b0000000-0000-4000-8000-000000000002', 'b0000000-0000-4000-8000-000000000003'];
  const change = async (id: string) => {
    const item = (await (await fetch(`${stack.address}/api/kit/${id}`)).json()) as {
      revision: number;
      document: object;
    };
    return { id, baseRevision: item.revision, document: { ...item.document, notes: 'locked' } };
  };
  const changes = [await change(a), await change(b)];
  const other = new pg.Client({ connectionString: stack.adminUrl });
  await other.connect();
  await other.query(`set deadlock_timeout = '60s'`);
  await other.query('begin');
  await other.query('select * from kit_items where id = $1 for update', [b]);
  // The server takes a, then waits for b; the other then wants a.
  const answer = send('PUT', `${stack.address}/api/kit/imports/${crypto.randomUUID()}`, {
    changes,
  });
  await untilWaiting();
  await other.query('select * from kit_items where id = $1 for update', [a]);
  await other.query('commit');
  await other.end();
  expect((await answer).status).toBe(200);
});

test('imports of the same things in opposite order, all at once: none fails on the other', async () => {
  const ids = Array.from({ length: 12 }, () => crypto.randomUUID());
  const item = (id: string, notes: string) => ({
    id,
    document: { kind: 'board', name: `Board ${id}`, offset_mm: 1, notes },
  });
  const put = (items: unknown[], changes: unknown[] = []) =>
    send('PUT', `${stack.address}/api/kit/imports/${crypto.randomUUID()}`, { items, changes });
  expect((await put(ids.map((id) => item(id, '')))).status).toBe(200);
  const changes = (notes: string) => ids.map((id) => ({ ...item(id, notes), baseRevision: 1 }));
  const answers = await Promise.all(
    Array.from({ length: 20 }, (_, i) => {
      const all = changes(`by ${i}`);
      return put([], i % 2 === 0 ? all : all.toReversed());
    }),
  );
  const statuses = answers.map(({ status }) => status);
  expect(statuses.filter((status) => status === 200)).toHaveLength(1);
  expect(statuses.filter((status) => status === 409)).toHaveLength(19);
});

test('a full disk is told in a sentence, nothing is half done, and it goes on when there is room', async ({
  page,
}) => {
  const { cover, api } = await freshStation(stack.address);
  await page.goto(cover);
  await expect(saved(page)).toBeVisible();
  // What PostgreSQL raises when it cannot extend a table; a real full disk is tried by hand.
  const inside = new pg.Client({ connectionString: stack.databaseUrl });
  await inside.connect();
  await inside.query(`
    create function no_room() returns trigger language plpgsql as $$
    begin
      raise exception 'could not extend file "base/1/2": No space left on device'
        using errcode = 'disk_full';
    end $$;
    create trigger no_room before insert on station_revisions
      for each row execute function no_room()`);
  await enter(typed(page, 'Rise'), '3.5');
  await expect(page.getByText('The disk that holds the database is full.').first()).toBeVisible();
  expect((await stored(api)).revision).toBe(1);
  expect((await stored(api)).document.movements.rise_mm).not.toBe(3.5);
  await inside.query('drop trigger no_room on station_revisions; drop function no_room()');
  await inside.end();
  await expect(saved(page)).toBeVisible({ timeout: 60_000 });
  expect(await stored(api)).toMatchObject({
    revision: 2,
    document: { movements: { rise_mm: 3.5 } },
  });
});

const put = async (api: string, document: unknown): Promise<void> => {
  const client = new pg.Client({ connectionString: stack.databaseUrl });
  await client.connect();
  const table = api.includes('/stations/')
    ? 'stations'
    : api.includes('/rigs/')
      ? 'rigs'
      : 'kit_items';
  await client.query(`update ${table} set document = $2 where id = $1`, [
    idOf(api),
    JSON.stringify(document),
  ]);
  await client.end();
};

test('a stored station that cannot be read is shown as such, exported, archived and deleted; the others work', async ({
  page,
}) => {
  const sound = await freshStation(stack.address);
  const jobId = sound.job.split('/').at(-1)!;
  const made = async (): Promise<string> => {
    const response = await send('POST', `${stack.address}/api/jobs/${jobId}/stations`, {
      document: demo('2-glassblower-bench'),
    });
    return `${stack.address}/api/stations/${((await response.json()) as { id: string }).id}`;
  };
  const broken = [
    { name: 'No lens at all' },
    { ...demo('2-glassblower-bench'), name: 'Lens of nothing', lens: null },
    { ...demo('2-glassblower-bench'), name: 'From the future', version: 9 },
    [],
    'text',
  ];
  const apis: string[] = [];
  for (const document of broken) {
    const api = await made();
    await put(api, document);
    apis.push(api);
  }
  await page.goto(sound.job);
  await expect(page.getByText('cannot be read')).toHaveCount(5);
  await expect(page.getByRole('link', { name: /Customs house.*mm to spare/ })).toBeVisible();
  await page.getByRole('link', { name: /Lens of nothing/ }).click();
  await expect(page.getByRole('heading', { name: 'This station cannot be read.' })).toBeVisible();
  await expect(page.getByText('Lens must be an object')).toBeVisible();
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save as file' }).click();
  expect((await download).suggestedFilename()).toBe('lens-of-nothing.json');
  await page.getByRole('button', { name: 'Archive' }).click();
  await page.getByRole('button', { name: 'Delete for good' }).click();
  await expect(page).toHaveURL(sound.job);
  await expect(page.getByText('cannot be read')).toHaveCount(4);
  expect((await fetch(apis[1]!)).status).toBe(404);
  // The menu of a line does the same.
  await page.getByRole('button', { name: 'More for No lens at all' }).click();
  await page.getByRole('menuitem', { name: 'Archive' }).click();
  await expect(page.getByText('cannot be read')).toHaveCount(3);
});

test('a station kept from before a rule is worked with, its fault named; new values are held to the rule', async ({
  page,
}) => {
  const { cover, station, api } = await freshStation(stack.address);
  const document = demo('1-customs-house-front') as { camera: object };
  // Was allowed once: a camera higher than 100 km.
  await put(api, { ...document, camera: { ...document.camera, height_m: 150_000 } });
  await page.goto(cover);
  const notice = page.getByText('One value is outside what may be set today');
  await expect(notice).toContainText(
    'Camera, height (m) must be a number of m from -100,000 to 100,000',
  );
  await enter(typed(page, 'Rise'), '4');
  await expect(saved(page)).toBeVisible();
  expect((await stored(api)).document.movements.rise_mm).toBe(4);
  await page.goto(`${station}/view`);
  await enter(page.getByLabel('Height of the sensor'), '200000');
  await expect(page.getByRole('alert')).toContainText('from -100,000 to 100,000');
  await page.getByLabel('Height of the sensor').press('Escape');
  await enter(page.getByLabel('Height of the sensor'), '1.6');
  await expect(notice).toBeHidden();
  await expect(saved(page)).toBeVisible();
  expect(await stored(api)).toMatchObject({ document: { camera: { height_m: 1.6 } } });
});

test('a stored mosaic of 400 × 400 frames costs its job’s list nothing, is named, and put away', async ({
  page,
}) => {
  const { job, station, api } = await freshStation(stack.address);
  const mosaic = { pattern: 'grid', columns: 400, rows: 400, moves: 'lens' };
  const document = { ...demo('1-customs-house-front'), name: 'Far too many', mosaic };
  await put(api, document);
  await page.goto(job);
  const line = page.getByRole('link', { name: /Far too many/ });
  await expect(line).toBeVisible();
  // What is shown of it was worked out with the save, on the server.
  const jobId = job.split('/').at(-1)!;
  const { items } = (await (await fetch(`${stack.address}/api/jobs/${jobId}/stations`)).json()) as {
    items: { digest: { figure: string } }[];
  };
  await expect(line).toContainText(items[0]!.digest.figure);
  await page.goto(`${station}/mosaic`);
  await expect(page.getByText('One value is outside what may be set today')).toContainText(
    'must be from 1 to 6 with 400 rows',
  );
  await expect(page.getByText('a mosaic has at most 2500').first()).toBeVisible();
  // As it is it cannot be stored anew, and what is put right is.
  const again = await fetch(`${stack.address}/api/jobs/${jobId}/stations`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ document }),
  });
  expect(again.status).toBe(422);
  await page.goto(job);
  await page.getByRole('button', { name: 'More for Far too many' }).click();
  await page.getByRole('menuitem', { name: 'Archive' }).click();
  await expect(line).toBeHidden();
});

test('kit and rigs that cannot be read leave their lists, pickers and pages working', async ({
  page,
}) => {
  const kit = `${stack.address}/api/kit`;
  await put(`${kit}/b0000000-0000-4000-8000-000000000001`, {
    kind: 'lens',
    name: 'Lens of nothing',
  });
  await put(`${kit}/b0000000-0000-4000-8000-000000000002`, { kind: 'tube', name: 'Unknown tube' });
  const rig = `${stack.address}/api/rigs/c0000000-0000-4000-8000-000000000001`;
  await put(rig, { name: 'Rig of nothing', chain: 5 });
  await page.goto(`${stack.address}/kit`);
  const search = page.getByRole('searchbox', { name: 'Search the kit' });
  await expect(page.getByText('Lens of nothing')).toBeVisible();
  await search.fill('nothing');
  await expect(page.getByText('cannot be read')).toHaveCount(1);
  await page.getByRole('link', { name: /Lens of nothing/ }).click();
  await expect(page.getByRole('heading', { name: 'This item cannot be read.' })).toBeVisible();
  await page.getByRole('button', { name: 'Archive' }).click();
  await expect(page).toHaveURL(/\/kit$/);
  await page.goto(`${stack.address}/rigs`);
  await expect(page.getByText('cannot be read')).toHaveCount(1);
  await page.getByRole('link', { name: /Rig of nothing/ }).click();
  await expect(page.getByRole('heading', { name: 'This rig cannot be read.' })).toBeVisible();
  await page.goto(`${stack.address}/rigs/compare`);
  await expect(page.getByRole('heading', { name: 'Compare rigs' })).toBeVisible();
  await page.goto(`${stack.address}/rigs/c0000000-0000-4000-8000-000000000002`);
  await expect(page.getByLabel('Name of the rig')).toBeVisible();
});

test('a drawing that fails leaves the rest of its page working, and is tried again', async ({
  page,
}) => {
  const { station, api } = await freshStation(stack.address);
  await page.addInitScript(() => {
    const { getContext } = HTMLCanvasElement.prototype;
    HTMLCanvasElement.prototype.getContext = function spoilt(this: HTMLCanvasElement, ...args) {
      if ((globalThis as { spoil?: boolean }).spoil !== false) throw new Error('spoilt');
      return getContext.apply(this, args as never) as never;
    } as typeof getContext;
  });
  await page.goto(`${station}/view`);
  await expect(page.getByText('The finder failed.')).toBeVisible();
  await expect(page.getByRole('group', { name: 'Plan of the site' })).toBeVisible();
  await enter(page.getByLabel('Height of the sensor'), '1.7');
  await expect(saved(page)).toBeVisible();
  expect(await stored(api)).toMatchObject({ document: { camera: { height_m: 1.7 } } });
  await page.evaluate(() => {
    (globalThis as { spoil?: boolean }).spoil = false;
  });
  await page.getByRole('button', { name: 'Try again' }).click();
  await expect(page.getByText('The finder failed.')).toBeHidden();
});

test('a job of ten thousand stations: a page at a time, scrolled to its end, one more begun, copied', async ({
  page,
}) => {
  const { job } = await freshStation(stack.address);
  const jobId = job.split('/').at(-1)!;
  const client = new pg.Client({ connectionString: stack.databaseUrl });
  await client.connect();
  await client.query(
    `with made as (
       insert into stations (id, job_id, revision, document, created_at, position)
       select gen_random_uuid(), job_id, 1, jsonb_set(document, '{name}', to_jsonb('Station ' || n)),
         created_at + n * interval '1 second', position + n
       from stations, generate_series(1, 9999) as n where job_id = $1
       returning id, document)
     insert into station_revisions (station_id, revision, document) select id, 1, document from made`,
    [jobId],
  );
  await client.end();
  const first = (await (await fetch(`${stack.address}/api/jobs/${jobId}/stations`)).json()) as {
    total: number;
    items: unknown[];
  };
  expect([first.total, first.items.length]).toEqual([10_000, 100]);
  await page.goto(job);
  const lines = page.getByRole('list', { name: 'Stations' }).getByRole('listitem');
  await expect(page.getByRole('link', { name: /Customs house/ })).toBeVisible();
  // Drawn are those in sight.
  expect(await lines.count()).toBeLessThan(40);
  // A part that cannot be had at once is asked for again.
  await page.route(/offset=9950/, (route) => route.abort());
  await page
    .getByRole('list', { name: 'Stations' })
    .evaluate((list) => list.parentElement!.scrollTo(0, 1e9));
  await expect(lines.last()).toHaveText('The server does not answer.');
  await page.unroute(/offset=9950/);
  await expect(page.getByRole('link', { name: /^Station 9999/ })).toBeVisible();
  await newStation(page);
  await expect(page.getByLabel('Name of the station')).toHaveValue('Station 10000');
  const copy = await send('POST', `${stack.address}/api/jobs/${jobId}/duplicate`, {});
  const { id, stations } = (await copy.json()) as { id: string; stations: number };
  expect(stations).toBe(10_001);
  const end = `${stack.address}/api/jobs/${id}/stations?offset=10000&limit=10`;
  expect(((await (await fetch(end)).json()) as { items: unknown[] }).items).toMatchObject([
    // What was begun last comes last.
    { revision: 1, document: { name: 'Station 10000' } },
  ]);
});

test('storage that is forbidden or full leaves a page that works and says what cannot be kept', async ({
  browser,
}) => {
  const spoil = {
    forbidden: () => {
      for (const name of ['localStorage', 'sessionStorage', 'indexedDB']) {
        Object.defineProperty(window, name, {
          get: () => {
            throw new DOMException('denied', 'SecurityError');
          },
        });
      }
    },
    full: () => {
      Storage.prototype.setItem = () => {
        throw new DOMException('full', 'QuotaExceededError');
      };
      IDBObjectStore.prototype.put = () => {
        throw new DOMException('full', 'QuotaExceededError');
      };
    },
  };
  for (const [how, words] of [
    ['forbidden', 'This browser keeps nothing for Gangway'],
    ['full', 'This browser’s storage is full'],
  ] as const) {
    const page = await browser.newPage();
    await page.addInitScript(spoil[how]);
    const { cover, api } = await freshStation(stack.address);
    await page.goto(cover);
    await expect(page.getByText(words)).toBeVisible();
    await enter(typed(page, 'Rise'), '2.5');
    await expect(saved(page)).toBeVisible();
    expect((await stored(api)).document.movements.rise_mm).toBe(2.5);
    await expect(scale(page, 'Rise')).toHaveAttribute('aria-valuetext', '2.5 mm up');
    await page.getByRole('button', { name: /^Light:/ }).click();
    await page.goto(`${stack.address}/kit/new/lens`);
    await page.getByLabel('Name', { exact: true }).fill('Held in the page');
    await expect(page.getByText('this browser cannot keep it')).toBeVisible();
    await page.goto(`${stack.address}/kit`);
    await expect(page.getByRole('list', { name: 'Kit' })).toBeVisible();
    await page.close();
  }
});
