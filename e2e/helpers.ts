import { readFileSync } from 'node:fs';
import { expect, type Locator, type Page } from '@playwright/test';

export const ADDRESS = process.env.GANGWAY_ADDRESS ?? '';

export const demo = (name: string): Record<string, unknown> =>
  JSON.parse(
    readFileSync(new URL(`../apps/server/demo/${name}.json`, import.meta.url), 'utf8'),
  ) as Record<string, unknown>;

/** A job of the test's own with one station in it. @returns the addresses of both */
export async function freshStation(
  address = ADDRESS,
  document: unknown = demo('1-customs-house-front'),
): Promise<{ job: string; station: string; cover: string; api: string }> {
  const post = async (path: string, body: unknown): Promise<{ id: string }> => {
    const response = await fetch(`${address}/api/${path}`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify(body),
    });
    expect(response.status).toBe(201);
    return (await response.json()) as { id: string };
  };
  const job = await post('jobs', { name: `Test ${crypto.randomUUID().slice(0, 8)}` });
  const station = await post(`jobs/${job.id}/stations`, { document });
  const base = `${address}/jobs/${job.id}/stations/${station.id}`;
  return {
    job: `${address}/jobs/${job.id}`,
    station: base,
    cover: `${base}/cover`,
    api: `${address}/api/stations/${station.id}`,
  };
}

export const scale = (page: Page, name: string): Locator =>
  page.getByRole('slider', { name, exact: true });

export const typed = (page: Page, name: string): Locator =>
  page.getByRole('textbox', { name: `${name}, typed` });

export const saved = (page: Page): Locator => page.getByRole('button', { name: /^Saved/ });

export async function stored(api: string): Promise<{
  revision: number;
  document: {
    name: string;
    aperture: number;
    movements: { rise_mm: number; shift_mm: number };
    lens: { focal_length_mm: number };
  };
}> {
  return (await (await fetch(api)).json()) as never;
}

/** Begins a station from its job's page, with the first rig there is. */
export async function newStation(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'New station' }).click();
  await page.getByRole('radio').first().check();
  await page.getByRole('button', { name: 'Begin', exact: true }).click();
}

/** Types a value into a field and leaves it. */
export async function enter(field: Locator, text: string): Promise<void> {
  await field.click();
  await field.fill(text);
  await field.press('Enter');
}

/** Drags a thing from its middle by so many pixels. */
export async function dragBy(page: Page, target: Locator, dx: number, dy: number): Promise<void> {
  const box = (await target.boundingBox())!;
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x + dx / 2, y + dy / 2, { steps: 4 });
  await page.mouse.move(x + dx, y + dy, { steps: 4 });
  await page.mouse.up();
}
