import { readFileSync } from 'node:fs';
import { expect, test, type Page } from '@playwright/test';
import { unzipSync } from 'fflate';
import { demo, freshStation } from './helpers.js';

/** Frames as they come out of the demo's own pictures. */
const framesOf = (name: string): { name: string; mimeType: string; buffer: Buffer }[] =>
  Object.entries(
    unzipSync(readFileSync(new URL(`../apps/web/public/${name}.zip`, import.meta.url))),
  ).map(([file, bytes]) => ({ name: file, mimeType: 'image/jpeg', buffer: Buffer.from(bytes) }));

async function open(page: Page): Promise<void> {
  const { station } = await freshStation(undefined, demo('10-ropewalk-frames'));
  await page.goto(`${station}/mosaic`);
  await page.getByRole('link', { name: 'Prove' }).click();
  await expect(page.getByText('Do the frames fit?')).toBeVisible();
}

const verdict = (page: Page, says: string) =>
  expect(page.getByRole('complementary', { name: 'Prove' }).getByText(says)).toBeVisible();

test('frames that hold are proved, looked at to single pixels, and saved with their place', async ({
  page,
}) => {
  await open(page);
  const frames = framesOf('demo-mosaic-holds');
  const broken = { ...frames[1]!, name: 'cut.jpg', buffer: frames[1]!.buffer.subarray(0, 9000) };
  await page.getByLabel('Frames of the mosaic').setInputFiles([...frames, broken]);
  await verdict(page, 'Lens, body and light stood still: merge it.');
  await verdict(page, 'it ends too early, or is damaged');
  await expect(page.getByRole('button', { name: /^1 and 2, still, 0\.1 px/ })).toBeVisible();

  const size = page.getByRole('status', { name: 'Size' });
  await page.getByRole('button', { name: '200 %' }).click();
  await expect(size).toHaveText('200 %');
  await page.getByRole('group', { name: /^Frames laid together/ }).focus();
  for (let i = 0; i < 6; i++) await page.keyboard.press('+');
  await expect(size).toHaveText('1600 %');
  await page.getByRole('checkbox', { name: 'Seams' }).check();
  await page.getByRole('button', { name: 'Whole' }).click();

  for (const [name, ending] of [
    ['PNG', 'png'],
    ['TIFF', 'tif'],
  ] as const) {
    // prettier-ignore
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name, exact: true }).click(),
    ]);
    expect(download.suggestedFilename()).toBe(`Ropewalk-in-three-frames-proof.${ending}`);
    // Frame 1 stands a step and half a frame left of the middle: 15 and 12 mm.
    const bytes = readFileSync(await download.path()).toString('latin1');
    expect(Number(/"left_mm":(-[\d.]+)/.exec(bytes)![1])).toBeCloseTo(-27, 1);
  }
});

test('a frame that slipped is named with what to do, and the proof outlives a look at the layout', async ({
  page,
}) => {
  await open(page);
  const dropped = await page.evaluateHandle(
    (files) => {
      const transfer = new DataTransfer();
      for (const { name, bytes } of files) {
        const data = Uint8Array.from(atob(bytes), (letter) => letter.charCodeAt(0));
        transfer.items.add(new File([data], name, { type: 'image/jpeg' }));
      }
      return transfer;
    },
    framesOf('demo-mosaic-slipped').map(({ name, buffer }) => ({ name, bytes: buffer.toString('base64') })), // prettier-ignore
  );
  await page.dispatchEvent('body', 'dragenter', { dataTransfer: dropped });
  await expect(page.getByText('Drop the frames to prove them')).toBeVisible();
  await page.dispatchEvent('body', 'drop', { dataTransfer: dropped });
  const says = 'Frame 3 slipped 6.4 px down: lock the rise, and look again before each exposure.';
  await verdict(page, says);
  await page.getByRole('link', { name: 'In order' }).click();
  await page.getByRole('link', { name: 'Prove' }).click();
  await verdict(page, says);
  // Proved against another plan it would say something else: that is told, and offered.
  await page.getByRole('link', { name: 'Layout' }).click();
  await page.getByRole('textbox', { name: 'Columns' }).fill('4');
  await page.keyboard.press('Enter');
  await page.getByRole('link', { name: 'Prove' }).click();
  await page.getByRole('button', { name: 'Prove again' }).click();
  await verdict(page, 'No file shows frame');
});

test('frames matched to the log go straight to be proved', async ({ page }) => {
  const { station, job } = await freshStation(undefined, demo('10-ropewalk-frames'));
  await page.clock.setFixedTime(new Date('2026-10-03T09:10:02'));
  await page.goto(`${station}/card`);
  const log = page.getByRole('region', { name: 'Log', exact: true });
  // Each frame is logged some seconds after it was taken.
  for (const [at, says] of [
    ['09:10:02', 'Now frame 1 of 3'],
    ['09:10:33', 'frame 2 of 3'],
    ['09:11:02', 'frame 3 of 3'],
  ] as const) {
    await page.clock.setFixedTime(new Date(`2026-10-03T${at}`));
    await expect(log.getByRole('status').first()).toContainText(says);
    await log.getByRole('button', { name: 'Shot', exact: true }).click();
  }
  await expect(log.getByRole('status').first()).toContainText('All taken');
  await page.goto(`${job}/files`);
  await page.getByLabel('Pictures and sidecars').setInputFiles(framesOf('demo-mosaic-holds'));
  await page.getByRole('button', { name: 'Prove Ropewalk in three frames' }).click();
  await verdict(page, 'Lens, body and light stood still: merge it.');
});
