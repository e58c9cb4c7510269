import { request as httpRequest } from 'node:http';
import { demo, freshAt } from '../fresh.js';
import { startStack, type Stack } from '../stack.js';
import { request } from './request.js';

const json = { 'Content-Type': 'application/json' };

let stack: Stack;
let ADDRESS = '';
beforeAll(async () => {
  stack = await startStack('test-http', 4370);
  ADDRESS = stack.address;
});
afterAll(() => stack.end());

const freshStation = () => freshAt(ADDRESS);

test('problems name each bad field by a pointer', async () => {
  const { api } = await freshStation();
  const bad = { ...demo('4-ropewalk'), aperture: 'wide', lens: { focal_length_mm: -1 } };
  const response = await request.put(api, { data: { baseRevision: 1, document: bad } });
  expect(response.status).toBe(422);
  expect(response.headers.get('content-type')).toContain('application/problem+json');
  const problem = (await response.json()) as { detail: string; errors: { pointer: string }[] };
  expect(problem.errors.map((each) => each.pointer)).toEqual(
    expect.arrayContaining(['/document/lens/focal_length_mm', '/document/aperture']),
  );
});

test('a stale save is refused with both versions; the same content again is not', async () => {
  const { api } = await freshStation();
  const document = { ...demo('1-customs-house-front'), aperture: 11 };
  expect((await request.put(api, { data: { baseRevision: 1, document } })).status).toBe(200);
  const again = await request.put(api, { data: { baseRevision: 1, document } });
  expect(await again.json()).toMatchObject({ revision: 2 });
  const stale = await request.put(api, {
    data: { baseRevision: 1, document: { ...document, aperture: 16 } },
  });
  expect(stale.status).toBe(409);
  expect(await stale.json()).toMatchObject({
    current: { revision: 2, document: { aperture: 11 } },
    yours: { baseRevision: 1, document: { aperture: 16 } },
  });
  const revisions = (await (await request.get(`${api}/revisions`)).json()) as {
    revision: number;
  }[];
  expect(revisions.map((each) => each.revision)).toEqual([2, 1]);
});

test('bodies too large, not JSON, or from another site are refused', async () => {
  const { api } = await freshStation();
  const large = await request.put(api, { headers: json, data: `{"a":"${'x'.repeat(3_000_000)}"}` });
  expect(large.status).toBe(413);
  const broken = await fetch(api, { method: 'PUT', headers: json, body: '{' });
  expect(broken.status).toBe(400);
  const foreign = await request.post(`${ADDRESS}/api/jobs`, {
    headers: { Origin: 'http://elsewhere.example' },
    data: { name: 'x' },
  });
  expect(foreign.status).toBe(403);
  expect((await request.get(`${ADDRESS}/api/nothing`)).status).toBe(404);
  expect((await request.get(`${ADDRESS}/api/stations/7`)).status).toBe(422);
});

test('answers only to its own names, with a strict content policy and request ids', async () => {
  const status = await new Promise<number>((resolve, reject) => {
    httpRequest(`${ADDRESS}/`, { headers: { Host: 'elsewhere.example' } }, (response) => {
      response.resume();
      resolve(response.statusCode ?? 0);
    })
      .on('error', reject)
      .end();
  });
  expect(status).toBe(421);
  const page = await request.get(`${ADDRESS}/jobs`, { headers: { 'X-Request-Id': 'abc-1' } });
  const policy = page.headers.get('content-security-policy') ?? '';
  expect(policy).toContain("default-src 'none'");
  expect(policy).toContain("script-src 'self';");
  expect(page.headers.get('x-request-id')).toBe('abc-1');
  expect(await page.text()).not.toMatch(/<script>|onload=/);
  expect((await request.get(`${ADDRESS}/healthz`)).ok).toBe(true);
  expect((await request.get(`${ADDRESS}/readyz`)).ok).toBe(true);
});

test('a job is copied with its stations, once however often it is asked', async () => {
  const { job, api } = await freshStation();
  const id = job.split('/').at(-1)!;
  const newId = crypto.randomUUID();
  for (let i = 0; i < 2; i++) {
    const copy = await request.post(`${ADDRESS}/api/jobs/${id}/duplicate`, { data: { id: newId } });
    expect(copy.status).toBe(201);
    expect(((await copy.json()) as { name: string }).name).toMatch(/\(copy\)$/);
  }
  const { items: copied } = (await (
    await request.get(`${ADDRESS}/api/jobs/${newId}/stations`)
  ).json()) as { items: { id: string; revision: number; document: unknown }[] };
  const original = (await (await request.get(api)).json()) as { id: string; document: unknown };
  expect(copied).toHaveLength(1);
  expect(copied[0]).toMatchObject({ revision: 1, document: original.document });
  expect(copied[0]!.id).not.toBe(original.id);
});

test('unknown fields are kept from a save to the next read', async () => {
  const { api } = await freshStation();
  const document = { ...demo('2-glassblower-bench'), later: { kept: [1, 'two', null] } };
  await request.put(api, { data: { baseRevision: 1, document } });
  expect(((await (await request.get(api)).json()) as { document: unknown }).document).toEqual(
    document,
  );
});

test('two saves at once: one is taken, the other is asked', async () => {
  const { api } = await freshStation();
  const save = (aperture: number) =>
    request.put(api, {
      data: { baseRevision: 1, document: { ...demo('1-customs-house-front'), aperture } },
    });
  const answers = await Promise.all([save(9), save(10), save(11)]);
  expect(answers.map((each) => each.status).sort()).toEqual([200, 409, 409]);
});

test('a part of the page that is not there is said to be missing, not the server away', async () => {
  const response = await fetch(`${ADDRESS}/assets/none.js`);
  expect(response.status).toBe(404);
  expect(response.headers.get('content-type')).toContain('application/problem+json');
});
