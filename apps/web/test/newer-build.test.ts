import { loadAnew } from '../src/browser/newer-build.js';
import type { Shelf } from '../src/browser/storage.js';
import { shelfOf } from './helpers/shelf.js';

/** How often the page is loaded anew when parts fail at these times. */
async function loads(
  times: readonly number[],
  { on = shelfOf(), there = true }: { on?: Shelf; there?: boolean } = {},
): Promise<number> {
  let count = 0;
  for (const at of times) {
    await loadAnew({
      shelf: on,
      now: () => at,
      there: () => Promise.resolve(there),
      reload: () => void count++,
    });
  }
  return count;
}

const NOON = Date.UTC(2026, 5, 1, 12);

test('a part that cannot be fetched loads the page anew', async () => {
  expect(await loads([NOON])).toBe(1);
});

test('not again within half a minute, but later', async () => {
  expect(await loads([NOON, NOON + 1000, NOON + 29_000])).toBe(1);
  expect(await loads([NOON, NOON + 31_000])).toBe(2);
});

test('a page stays while the server is away, and goes on once it is back', async () => {
  const on = shelfOf();
  expect(await loads([NOON, NOON + 60_000], { on, there: false })).toBe(0);
  expect(await loads([NOON + 61_000], { on })).toBe(1);
});

test('never where it cannot be noted: that would go on for ever', async () => {
  expect(await loads([NOON, NOON + 60_000], { on: shelfOf(new Map(), 0) })).toBe(0);
});
