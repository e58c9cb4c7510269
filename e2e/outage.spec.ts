import { connect } from 'node:net';
import { expect, test } from '@playwright/test';
import { demo, enter, freshStation, saved, scale, stored, typed } from './helpers.js';
import { startStack, type Stack } from './stack.js';

/** The real server killed, the real database stopped: nothing saved and nothing typed is lost. */
test.describe.configure({ mode: 'serial', timeout: 400_000 });

let stack: Stack;
test.beforeAll(async () => {
  stack = await startStack('test-outage', 4370);
});
test.afterAll(async () => {
  await stack.end();
});

test('the server killed at any moment during edits', async ({ page }) => {
  const { cover, api } = await freshStation(stack.address);
  await page.goto(cover);
  await expect(saved(page)).toBeVisible();
  for (const [round, pause] of [0, 150, 420, 600].entries()) {
    await enter(typed(page, 'Rise'), String(round + 1));
    await page.waitForTimeout(pause);
    await stack.killServer();
    await enter(typed(page, 'Shift'), String(round + 2));
    await page.getByLabel('Name of the station').fill(`Killed ${round}`);
    await expect(page.getByRole('button', { name: /^Not saved yet/ })).toBeVisible();
    await stack.startServer();
    await page.getByLabel('Name of the station').press('Enter');
    await expect(saved(page)).toBeVisible({ timeout: 60_000 });
    const { document } = await stored(api);
    expect(document.movements).toMatchObject({ rise_mm: round + 1, shift_mm: round + 2 });
    expect(document.name).toBe(`Killed ${round}`);
  }
});

test('a reload while the server is away from its database keeps the edit', async ({ page }) => {
  const { cover, api } = await freshStation(stack.address);
  await page.goto(cover);
  await expect(saved(page)).toBeVisible();
  await stack.stopDatabase();
  await enter(typed(page, 'Rise'), '4.5');
  await expect(page.getByText('The database does not answer.').first()).toBeVisible();
  await page.reload();
  await expect(page.getByText('Waiting for the server.')).toBeVisible();
  await stack.startDatabase();
  await expect(scale(page, 'Rise')).toHaveAttribute('aria-valuetext', '4.5 mm up', {
    timeout: 60_000,
  });
  await expect(saved(page)).toBeVisible({ timeout: 60_000 });
  expect((await stored(api)).document.movements.rise_mm).toBe(4.5);
});

test('the database stopped for ten seconds during edits', async ({ page }) => {
  const { cover, api, job } = await freshStation(stack.address);
  await page.goto(cover);
  await expect(saved(page)).toBeVisible();
  await stack.stopDatabase();
  const until = Date.now() + 10_000;
  let last = 0;
  while (Date.now() < until) {
    last = last === 11 ? 1 : last + 1;
    await enter(typed(page, 'Rise'), String(last));
    await page.waitForTimeout(700);
  }
  const answer = await fetch(api);
  expect(answer.status).toBe(503);
  expect(((await answer.json()) as { detail: string }).detail).toContain('does not answer');
  expect((await fetch(`${stack.address}/healthz`)).ok).toBe(true);
  expect((await fetch(`${stack.address}/readyz`)).status).toBe(503);
  await stack.startDatabase();
  await expect(saved(page)).toBeVisible({ timeout: 60_000 });
  expect((await stored(api)).document.movements.rise_mm).toBe(last);
  // The lists recover by themselves too.
  await page.goto(job);
  await expect(page.getByRole('listitem')).toHaveCount(1);
});

test('a part of the app that cannot be fetched while the server is away leaves the page standing', async ({
  page,
}) => {
  const gone = () => page.getByRole('heading', { name: 'This screen failed.' });
  await page.goto(`${stack.address}/words`);
  await expect(page.getByRole('heading', { level: 1, name: 'Words' })).toBeVisible();
  await stack.killServer();
  await page.getByRole('link', { name: 'Lenses' }).click();
  // Loaded anew now, it would end in the browser's own error page.
  await expect(gone()).toBeVisible();
  await stack.startServer();
  await page.reload();
  await expect(page.getByRole('heading', { level: 1, name: 'Lenses' })).toBeVisible();
});

test('a stop finishes what was accepted', async () => {
  const { api } = await freshStation(stack.address);
  const { hostname, port, pathname } = new URL(api);
  const document = { ...demo('1-customs-house-front'), aperture: 16 };
  const body = Buffer.from(JSON.stringify({ baseRevision: 1, document }));
  const socket = connect(Number(port), hostname);
  let answer = '';
  socket.on('data', (chunk) => (answer += String(chunk)));
  socket.write(
    `PUT ${pathname} HTTP/1.1\r\nHost: ${hostname}:${port}\r\nContent-Type: application/json\r\n` +
      `Content-Length: ${body.length}\r\nConnection: close\r\n\r\n`,
  );
  // Half of the request is there when the stop comes, the rest after it.
  socket.write(body.subarray(0, 100));
  await new Promise((resolve) => setTimeout(resolve, 300));
  const stopped = stack.stopServer();
  await new Promise((resolve) => setTimeout(resolve, 300));
  socket.write(body.subarray(100));
  await new Promise((resolve) => socket.once('close', resolve));
  await stopped;
  expect(answer).toContain('HTTP/1.1 200');
  await stack.startServer();
  expect((await stored(api)).document.aperture).toBe(16);
});

test('a rig and a half-written lens outlive the server', async ({ page }) => {
  const post = async (path: string, body: unknown = {}): Promise<{ id: string }> => {
    const response = await fetch(`${stack.address}/api/${path}`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify(body),
    });
    return (await response.json()) as { id: string };
  };
  const { id } = await post('rigs/c0000000-0000-4000-8000-000000000013/duplicate');
  await page.goto(`${stack.address}/rigs/${id}`);
  const name = page.getByLabel('Name of the rig');
  await expect(page.getByRole('status').filter({ hasText: /^Saved$/ })).toBeVisible();
  await stack.killServer();
  await name.fill('Named while away');
  await name.press('Enter');
  await expect(page.getByRole('status').filter({ hasText: 'Kept here' })).toBeVisible();
  await stack.startServer();
  await expect(page.getByRole('status').filter({ hasText: /^Saved$/ })).toBeVisible();
  // A reload while the edit is on its way finds it in the browser.
  await stack.stopDatabase();
  await name.fill('Named without a database');
  await name.press('Enter');
  await expect(page.getByRole('status').filter({ hasText: 'Kept here' })).toBeVisible();
  await stack.startDatabase();
  await page.reload();
  await expect(name).toHaveValue('Named without a database');
  await expect
    .poll(async () => {
      const rig = (await (await fetch(`${stack.address}/api/rigs/${id}`)).json()) as {
        document: { name: string };
      };
      return rig.document.name;
    })
    .toBe('Named without a database');

  await page.goto(`${stack.address}/kit/new/lens`);
  await page.getByLabel('Name', { exact: true }).fill('Half written');
  await page.getByLabel('Focal length').fill('35');
  await page.getByLabel('Widest stop').fill('f/4');
  await page.getByLabel('Circle, line 1').fill('60');
  await stack.killServer();
  await page.getByRole('button', { name: 'Add to the kit' }).click();
  await expect(page.getByText('The server does not answer.')).toBeVisible();
  await stack.startServer();
  await page.reload();
  await expect(page.getByLabel('Name', { exact: true })).toHaveValue('Half written');
  await page.getByRole('button', { name: 'Add to the kit' }).click();
  await page.getByRole('searchbox', { name: 'Search the kit' }).fill('Half written');
  await expect(page.getByRole('list', { name: 'Kit' }).getByRole('listitem')).toHaveCount(1);
});
