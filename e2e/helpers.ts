import type { Locator, Page } from '@playwright/test';
import { demo, freshAt } from './fresh.js';

export const ADDRESS = process.env.GANGWAY_ADDRESS ?? '';

export { demo };

/** A job of the test's own with one station in it. @returns the addresses of both */
export const freshStation = (address = ADDRESS, document?: unknown) => freshAt(address, document);

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
