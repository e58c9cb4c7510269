import { readFileSync } from 'node:fs';
import { evaluate, parseStation } from '../src/index.js';

interface Case {
  name: string;
  station: unknown;
  expect: Record<string, number | boolean>;
}

const { cases } = JSON.parse(
  readFileSync(new URL('./fixtures/ray-traced.json', import.meta.url), 'utf8'),
) as { cases: Case[] };

const at = (report: unknown, path: string): unknown =>
  path
    .split('.')
    .reduce<unknown>((value, key) => (value as Record<string, unknown> | undefined)?.[key], report);

// Source of the figures: rays traced through an ideal thin lens, without the closed forms.
describe('stations against a ray trace', () => {
  const rows = cases.flatMap(({ name, station, expect: expected }) =>
    Object.entries(expected).map(([path, value]) => ({ name, station, path, value })),
  );

  it.each(rows)('$name: $path', ({ station, path, value }) => {
    const parsed = parseStation(station);
    if (!parsed.ok) throw new Error(JSON.stringify(parsed.problems));
    const got = at(evaluate(parsed.value), path);
    if (typeof value === 'boolean') {
      expect(got).toBe(value);
      return;
    }
    const relative = path.endsWith('blur_um') ? 0.03 : 0.001;
    const slack = Math.max(0.005, Math.abs(value) * relative);
    expect(Math.abs((got as number) - value)).toBeLessThanOrEqual(slack);
  });
});
